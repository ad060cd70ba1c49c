import { t } from '@mailbag/core/words';
import type { DateRule } from '@mailbag/core';
import { isDatePattern, patternsReading, shownDay, shownPatterns } from '@mailbag/core';
import { DateTime } from 'luxon';
import { Choice } from '../../../ui/choice';
import { Small } from '../../../ui/layout';
import { DraftText, WholeNumber } from './draft-text';
import { LanguageChoice } from './language-choice';
import { Lead, Line } from './parts';
import { PartLine, RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

/** A day by which ways of writing are told apart. */
const SAMPLE = DateTime.fromISO('2027-02-01', { zone: 'utc' });
const OWN = 'own';

export function DateBody({ rule, place, onChange }: BodyProps<DateRule>) {
  const { columns, locale } = useRuleSetting();
  const language = rule.language ?? locale;
  const { of, read, add, show } = rule;
  const samples = of.kind === 'column' ? (columns.find(({ name }) => name === of.column)?.examples ?? []) : [];
  const readings = patternsReading(samples, language);
  const moved = (unit: keyof DateRule['add'], label: string) => (
    <>
      <WholeNumber
        label={t`${place}Plus ${label}`}
        value={add[unit]}
        minimum={-100_000}
        maximum={100_000}
        onChange={(count) => onChange({ ...rule, add: { ...add, [unit]: count } })}
      />
      {label}
    </>
  );
  const pattern = 'pattern' in show ? show.pattern : null;
  const isOffered = pattern !== null && (shownPatterns as readonly string[]).includes(pattern);
  return (
    <>
      <PartLine lead={t`Date`} place={place} rule={of} onChange={(next) => onChange({ ...rule, of: next })} />
      <Line>
        <Lead>{t`Read as`}</Lead>
        <Choice
          label={t`${place}How the date is written`}
          hideLabel
          small
          items={[
            { id: '', text: t`unambiguous`, detail: t`2027-02-01, 1.2.2027, or a date of the spreadsheet` },
            ...[...new Set([...readings, ...read])].map((id) => ({
              id,
              text: id,
              detail: t`1 February 2027 is ${shownDay(SAMPLE, id, language)}`,
            })),
          ]}
          value={read[0] ?? ''}
          onChange={(id) => onChange({ ...rule, read: id === '' ? [] : [id] })}
        />
        {samples.length > 0 && <Small>{t`The column has ${samples.slice(0, 2).join(', ')}`}</Small>}
      </Line>
      <Line>
        <Lead>{t`Plus`}</Lead>
        {moved('years', 'years')}
        {moved('months', 'months')}
        {moved('days', 'days')}
        <Small>{t`Minus takes off.`}</Small>
      </Line>
      <Line>
        <Lead>{t`Show as`}</Lead>
        <Choice
          label={t`${place}How the date is shown`}
          hideLabel
          small
          items={[
            ...shownPatterns.map((id) => ({ id: id as string, text: shownDay(SAMPLE, id, language), detail: id })),
            { id: OWN, text: t`a pattern of your own` },
            { id: 'age', text: t`age in years on a day` },
          ]}
          value={pattern === null ? 'age' : isOffered ? pattern : OWN}
          onChange={(id) =>
            onChange({
              ...rule,
              show: id === 'age' ? { ageOn: { kind: 'copy-fact', fact: 'today' } } : { pattern: id === OWN ? "d.M.yyyy ''" : id },
            })
          }
        />
        {pattern !== null && !isOffered && (
          <DraftText
            label={t`${place}Pattern`}
            width={150}
            value={pattern}
            write={(text) => text}
            read={(text) => (isDatePattern(text) ? text : null)}
            onChange={(next) => onChange({ ...rule, show: { pattern: next } })}
          />
        )}
        {pattern !== null && (
          <LanguageChoice place={place} language={rule.language} onChange={(next) => onChange({ ...rule, language: next })} />
        )}
      </Line>
      {'ageOn' in show && (
        <Line>
          <Lead>{t`on`}</Lead>
          <RulePart place={t`${place}Day of the age`} rule={show.ageOn} onChange={(ageOn) => onChange({ ...rule, show: { ageOn } })} />
        </Line>
      )}
    </>
  );
}
