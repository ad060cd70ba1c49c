import { t } from '@mailbag/core/words';
import type { LiquidRule } from '@mailbag/core';
import { TextInput } from '../../../ui/field';
import { Small } from '../../../ui/layout';
import { ColumnChoice } from './column-choice';
import { Line } from './parts';
import type { BodyProps } from './rule-setting';
import { useRuleSetting } from './rule-setting';

/** Columns by the names that a text has for them: those it had, and those of columns that it names. */
function columnsIn(text: string, before: LiquidRule['columns'], slugs: readonly { slug: string; name: string }[]): LiquidRule['columns'] {
  const words = new Set(text.match(/[a-z_][a-z0-9_]*/g) ?? []);
  return Object.fromEntries([
    ...slugs.filter(({ slug }) => words.has(slug)).map(({ slug, name }) => [slug, name] as const),
    ...Object.entries(before).filter(([slug]) => words.has(slug)),
  ]);
}

export function LiquidBody({ rule, place, onChange }: BodyProps<LiquidRule>) {
  const { columns } = useRuleSetting();
  const put = (text: string): void => onChange({ ...rule, text, columns: columnsIn(text, rule.columns, columns) });
  return (
    <>
      <TextInput label={t`${place}Text with conditions`} hideLabel mono rows={3} value={rule.text} onChange={put} />
      <Line>
        <ColumnChoice
          label={t`${place}Put a column in`}
          value={null}
          placeholder={t`Put a column in`}
          onChange={({ slug }) => put(`${rule.text}{{ ${slug} }}`)}
        />
        <Small>{t`{% if shed == "yes" %} … {% else %} … {% endif %} asks; code, batch, number and today are known beside the columns.`}</Small>
      </Line>
    </>
  );
}
