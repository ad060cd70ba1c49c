import { ArchivePicked } from '../ui/archive-button';
import { Row } from '../ui/layout';
import type { useDeleting } from './deleting';
import { DeletePicked } from './deleting';
import type { useArchive } from './use-archive';

/** Archives what is picked in a list, or takes it back, or deletes it. */
export function AwayPicked({
  picked,
  onDone,
  isInArchive,
  archive,
  deleting,
}: {
  picked: readonly { id: number; name: string }[];
  onDone: () => void;
  /** They are put away already. */
  isInArchive: boolean;
  archive: ReturnType<typeof useArchive>;
  deleting: ReturnType<typeof useDeleting>;
}) {
  return (
    <Row>
      <ArchivePicked
        isInArchive={isInArchive}
        isBusy={archive.isPending}
        onPress={() => {
          archive.mutate({ ids: picked.map(({ id }) => id), isArchived: !isInArchive });
          onDone();
        }}
      />
      <DeletePicked
        isBusy={deleting.isPending}
        onPress={() => {
          deleting.mutate(picked);
          onDone();
        }}
      />
    </Row>
  );
}
