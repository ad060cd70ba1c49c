import { plural, t } from '@mailbag/core/words';
import type { Column, FillRule } from '@mailbag/core';
import { fieldLabel, ruleForColumn } from '@mailbag/core';
import { ClipboardPaste, Copy, ListOrdered } from 'lucide-react';
import styled from 'styled-components';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import type { PacketEntry } from './packet-entries';
import { RuleWords } from './rule-words';
import { Line } from './rules/parts';

const Frame = styled.div`
  background: ${color.plumWash};
  padding: 0 12px 10px;
`;

type Filling = readonly (readonly [entry: PacketEntry, rule: FillRule])[];

/**
 * The fields behind one that takes a column, each with the column behind that one, as sheets and forms often go side by side: as far as fields have no
 * rule yet and columns are left.
 */
export function followingRun(entry: PacketEntry, entries: readonly PacketEntry[], columns: readonly Column[]): Filling {
  const first = entry.rule?.kind === 'column' ? entry.rule.column : null;
  const at = columns.findIndex(({ name }) => name === first);
  if (at < 0) return [];
  const own = entries.filter(({ template }) => template.id === entry.template.id);
  const place = own.findIndex(({ field }) => field.name === entry.field.name);
  const run: [PacketEntry, FillRule][] = [];
  for (const next of own.slice(place + 1)) {
    const column = columns[at + 1 + run.length];
    if (next.rule || next.isMixed || !column) break;
    run.push([next, ruleForColumn(next.field, column)]);
  }
  return run;
}

/** A rule is handed on: copied and put to use elsewhere, or carried on over the fields that follow. */
export function RuleHanding({
  entry,
  entries,
  columns,
  copied,
  onCopy,
  onRules,
}: {
  entry: PacketEntry;
  entries: readonly PacketEntry[];
  columns: readonly Column[];
  copied: FillRule | null;
  onCopy: (rule: FillRule) => void;
  onRules: (filling: Filling) => void;
}) {
  const run = followingRun(entry, entries, columns);
  const { rule } = entry;
  if (!rule && !copied) return null;
  return (
    <Frame>
      <Line>
        {rule && (
          <Button small look="bare" onPress={() => onCopy(rule)}>
            <Copy size={13} />
            {t`Copy this rule`}
          </Button>
        )}
        {copied && copied !== rule && (
          <>
            <Button changes small look="bare" onPress={() => onRules([[entry, copied]])}>
              <ClipboardPaste size={13} />
              {t`Use the copied rule`}
            </Button>
            <span>
              <RuleWords rule={copied} />
            </span>
          </>
        )}
        {run.length > 0 && (
          <Button
            changes
            small
            look="bare"
            tip={run
              .slice(0, 6)
              .map(([{ field }, next]) => `${fieldLabel(field)}: ${next.kind === 'column' || next.kind === 'translate' ? next.column : ''}`)
              .join(', ')}
            onPress={() => onRules(run)}
          >
            <ListOrdered size={13} />
            {t`Fill the next ${plural(run.length, 'field')} with the next ${run.length === 1 ? t`column` : t`columns`}`}
          </Button>
        )}
      </Line>
    </Frame>
  );
}
