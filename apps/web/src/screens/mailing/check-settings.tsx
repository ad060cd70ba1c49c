import { spokenLocale, t, translated } from '@mailbag/core/words';
import type { CheckPlan, ColumnChecks } from '@mailbag/core';
import type { Column, FillContext } from '@mailbag/core';
import {
  SAMPLE_CODE,
  checkSays,
  checkValue,
  checksOf,
  columnKindName,
  fillContext,
  findingSentence,
  plainSwitches,
  proposedChecks,
  readingOf,
  typedText,
} from '@mailbag/core';
import { X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { MailingWork } from '../../features/mailing/mailing-context';
import { color } from '../../theme';
import { Button, IconButton } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput, Toggled } from '../../ui/field';
import { Bar, Pane, Row, Scroll, Small, Stack } from '../../ui/layout';
import { Mark } from '../../ui/mark';

const Line = styled.div`
  padding: 5px 0;
  border-bottom: 1px solid ${color.hair};
`;

/** Regions of the browser's own list, by name. */
const regions = (() => {
  const names = new Intl.DisplayNames([spokenLocale()], { type: 'region' });
  const codes = `AT AU BE BG BR CA CH CN CY CZ DE DK EE ES FI FR GB GR HR HU IE IL IN IS IT JP KR LI LT LU LV MT MX NL NO NZ PL PT RO RS RU SE SG SI SK TR UA US ZA`;
  return codes
    .split(' ')
    .map((id) => ({ id, text: names.of(id) ?? id }))
    .sort((a, b) => a.text.localeCompare(b.text));
})();

/** What is looked at in each column: proposed by what stands in it, set by a person. */
export function CheckSettings({
  work: { mailing, plan, change, columns },
  startWith,
  onClose,
}: {
  work: MailingWork;
  /** The column that is looked at. */
  startWith: string | null;
  onClose: () => void;
}) {
  const [name, setName] = useState(startWith ?? columns[0]?.name ?? '');
  const column = columns.find((one) => one.name === name);
  const checks: CheckPlan = plan.checks ?? {};
  const set = (more: CheckPlan): void => change((one) => ({ ...one, checks: { ...one.checks, ...more } }));
  const setColumn = (more: ColumnChecks): void =>
    change((one) => ({
      ...one,
      checks: { ...one.checks, columns: { ...one.checks?.columns, [name]: { ...one.checks?.columns?.[name], ...more } } },
    }));
  const current = column ? checksOf(checks, column) : {};
  const proposed = column ? proposedChecks(column) : {};
  const limits = current.range ?? { minimum: '', maximum: '' };
  const own = checks.columns?.[name];
  return (
    <Pane aria-label={t`What is checked`}>
      <Bar>
        <b>{t`What is checked`}</b>
        <div className="fill" />
        <IconButton label={t`Close`} onPress={onClose}>
          <X size={16} />
        </IconButton>
      </Bar>
      <Scroll>
        <Stack style={{ padding: 12 }}>
          <Choice
            label={t`Country of numbers and postal codes that name none`}
            items={[{ id: '', text: t`no particular country` }, ...regions]}
            value={checks.country ?? ''}
            onChange={(country) => set({ country })}
          />
          <Toggled
            label={t`Look for the same person twice`}
            value={checks.samePerson !== false}
            onChange={(samePerson) => set({ samePerson })}
          />
          <Toggled
            label={t`Look for values in the wrong column`}
            value={checks.mixedUp !== false}
            onChange={(mixedUp) => set({ mixedUp })}
          />
          <Choice
            label={t`Column`}
            items={columns.map((one) => ({ id: one.name, text: one.name, detail: columnKindName(one.kind) }))}
            value={name}
            onChange={setName}
          />
          {column && (
            <div>
              <Small>{t`A value of “${column.name}” …`}</Small>
              {[...plainSwitches]
                .sort((a, b) => Number(Boolean(proposed[b])) - Number(Boolean(proposed[a])))
                .map((check) => (
                  <Line key={check}>
                    <Toggled label={checkSays(check)} value={Boolean(current[check])} onChange={(on) => setColumn({ [check]: on })} />
                    {proposed[check] && !own?.[check] && own?.[check] !== undefined && <Small>{t` proposed, switched off`}</Small>}
                  </Line>
                ))}
              <Line>
                <Small>{checkSays('range')}</Small>
                <Row>
                  <TextInput
                    label={t`Minimum`}
                    hideLabel
                    placeholder={t`minimum`}
                    value={limits.minimum}
                    onChange={(minimum) => setColumn({ range: { ...limits, minimum } })}
                  />
                  <TextInput
                    label={t`Maximum`}
                    hideLabel
                    placeholder={t`maximum`}
                    value={limits.maximum}
                    onChange={(limit) => setColumn({ range: { ...limits, maximum: limit } })}
                  />
                </Row>
                <Small>{t`Numbers, or dates as 2027-01-31.`}</Small>
              </Line>
              <Line>
                <TextInput
                  label={checkSays('allowed')}
                  rows={3}
                  placeholder={t`One value per line`}
                  value={(current.allowed ?? []).join('\n')}
                  onChange={(text) => setColumn({ allowed: text === '' ? null : text.split('\n') })}
                />
              </Line>
              <TriedValue key={name} column={column} checks={current} plan={checks} context={fillContext(mailing.next, 0, SAMPLE_CODE)} />
              {own && (
                <Button
                  small
                  onPress={() => {
                    const { [name]: _own, ...rest } = checks.columns ?? {};
                    set({ columns: rest });
                  }}
                >{t`Reset to the proposal`}</Button>
              )}
            </div>
          )}
        </Stack>
      </Scroll>
    </Pane>
  );
}

/** A value that is typed to see what the checks of a column would say of it. */
function TriedValue({ column, checks, plan, context }: { column: Column; checks: ColumnChecks; plan: CheckPlan; context: FillContext }) {
  const [text, setText] = useState('');
  const found = text === '' ? [] : checkValue(column, checks, plan, typedText(text, readingOf(column)), context);
  return (
    <Line>
      <TextInput label={t`Try a value`} placeholder={column.examples[0] ?? ''} value={text} onChange={setText} />
      <div role="status" style={{ paddingTop: 4 }}>
        {text === '' ? (
          <Small>{t`Type one to see what the checks would say, without changing a record.`}</Small>
        ) : found.length === 0 ? (
          <Mark $tone="moss">{t`No finding`}</Mark>
        ) : (
          found.map((finding) => (
            <div key={finding.code}>
              <Mark $tone={finding.severity === 'stop' ? 'brick' : 'ochre'} style={{ marginRight: 6 }}>
                {translated(finding.severity)}
              </Mark>
              {findingSentence(finding)}
              {finding.mend != null && <Small>{t` Proposed: “${finding.mend}”.`}</Small>}
            </div>
          ))
        )}
      </div>
    </Line>
  );
}
