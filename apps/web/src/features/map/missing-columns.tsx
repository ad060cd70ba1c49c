import { plural, t } from '@mailbag/core/words';
import { phrase } from '../../ui/phrase';
import type { Column } from '@mailbag/core';
import { columnLike } from '@mailbag/core';
import { Link2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';
import { Line } from './rules/parts';

/** Columns that the rules read and the records do not have, each with the one that is most like it, to be linked. */
export function MissingColumns({
  missing,
  columns,
  onLink,
}: {
  missing: readonly string[];
  columns: readonly Column[];
  onLink: (names: ReadonlyMap<string, string>) => void;
}) {
  const [chosen, setChosen] = useState<ReadonlyMap<string, string>>(new Map());
  const linked = new Map(
    missing.flatMap((name): [string, string][] => {
      const to = chosen.get(name) ?? columnLike(name, columns)?.name;
      return to === undefined ? [] : [[name, to]];
    }),
  );
  return (
    <Notice tone="brick">
      <Stack $gap={6}>
        <div>{t`The rules read ${plural(missing.length, 'column')} that these records do not have. Say which column each has become; what is not linked is left empty.`}</div>
        {missing.map((name) => (
          <Line key={name}>
            {phrase`${(<b style={{ fontWeight: 600 }}>{name}</b>)} is now`}
            <Choice
              label={t`${name} is now`}
              hideLabel
              small
              items={columns.map((column) => ({
                id: column.name,
                text: column.name,
                detail: column.examples.slice(0, 3).join(' · ') || t`empty`,
              }))}
              value={linked.get(name) ?? null}
              placeholder={t`not there`}
              onChange={(to) => setChosen(new Map(chosen).set(name, to))}
            />
          </Line>
        ))}
        <Line>
          <Button changes small isDisabled={linked.size === 0} onPress={() => onLink(linked)}>
            <Link2 size={14} />
            {t`Link ${plural(linked.size, 'column')}`}
          </Button>
        </Line>
      </Stack>
    </Notice>
  );
}
