import { Columns } from '../../ui/columns';
import { Stack } from '../../ui/layout';
import { BackupsCard } from './backups-card';
import { HoldCard } from './hold-card';
import { SelfCheckCard } from './self-check-card';

/** What keeps the folder safe: backups, whether it is whole, and what must be looked at after it was put back. */
export function SafetyPart() {
  return (
    <Stack $gap={16}>
      <HoldCard />
      <Columns $columns="minmax(0, 640px) minmax(0, 1fr)">
        <BackupsCard />
        <SelfCheckCard />
      </Columns>
    </Stack>
  );
}
