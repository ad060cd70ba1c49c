import { t } from '@mailbag/core/words';
import type { AnswerShape, IntakeKind, IntakeQuestion, ShapePart } from '@mailbag/core';
import { isExample, shapeLimits, shapeOf, shapeSentence } from '@mailbag/core';
import { Choice } from '../../ui/choice';
import { TextInput, Toggled } from '../../ui/field';
import { Row, Small, Stack } from '../../ui/layout';
import { Notice } from '../../ui/mark';

const hasShape = (kind: IntakeKind): boolean => kind === 'text';
const runs: [ShapePart['what'], string][] = [
  ['letters', 'letters'],
  ['digits', 'digits'],
  ['either', t`letters or digits`],
];

interface Props {
  question: IntakeQuestion;
  onChange: (next: Partial<IntakeQuestion>) => void;
}

/** What answers may look like, and between which numbers or days they lie. */
export function AnswerBounds({ question, onChange }: Props) {
  const { kind, shape = null, minimum = '', maximum: limit = '' } = question;
  if (hasShape(kind)) return <Shape shape={shape} onChange={(next) => onChange({ shape: next })} />;
  if (kind === 'number' || kind === 'amount')
    return (
      <Row $gap={12}>
        <TextInput label={t`Smallest`} value={minimum} placeholder={t`any`} onChange={(next) => onChange({ minimum: next.trim() })} />
        <TextInput label={t`Largest`} value={limit} placeholder={t`any`} onChange={(next) => onChange({ maximum: next.trim() })} />
      </Row>
    );
  if (kind === 'date')
    return (
      <Row $gap={12} style={{ alignItems: 'end', flexWrap: 'wrap' }}>
        <Day label={t`First day`} value={minimum} onChange={(next) => onChange({ minimum: next })} />
        <Day label={t`Last day`} value={limit} onChange={(next) => onChange({ maximum: next })} />
      </Row>
    );
  return null;
}

/** A day, or whatever day it is then. */
function Day({ label, value, onChange }: { label: string; value: string; onChange: (next: string) => void }) {
  const isToday = value === 'today';
  return (
    <Stack $gap={4}>
      {isToday ? (
        <TextInput label={label} value={t`the day of the answer`} isReadOnly onChange={() => undefined} />
      ) : (
        <TextInput label={label} type="date" value={value} onChange={onChange} />
      )}
      <Toggled label={t`${label}: day of the answer`} value={isToday} onChange={(next) => onChange(next ? 'today' : '')} />
    </Stack>
  );
}

/** What text looks like: read from an example, each run of which can be changed. */
function Shape({ shape, onChange }: { shape: AnswerShape | null; onChange: (next: AnswerShape | null) => void }) {
  const parts = shape?.parts ?? [];
  const setPart = (index: number, next: Partial<ShapePart>): void =>
    onChange({ ...shape!, parts: parts.map((part, at) => (at === index ? { ...part, ...next } : part)) });
  const count = (index: number, end: 'minimum' | 'maximum', text: string): void => {
    const number = Number(text);
    if (text.trim() === '' || !Number.isInteger(number) || number < (end === 'minimum' ? 0 : 1) || number > shapeLimits.run) return;
    const { minimum, maximum } = parts[index]!;
    setPart(
      index,
      end === 'minimum' ? { minimum: number, maximum: Math.max(maximum, number) } : { maximum: number, minimum: Math.min(minimum, number) },
    );
  };
  return (
    <Stack $gap={6}>
      <TextInput
        label={t`Looks like`}
        value={shape?.example ?? ''}
        placeholder={t`anything; write an example, such as B-17`}
        help={shape && parts.length > 0 ? t`Accepted: ${shapeSentence(shape)}.` : undefined}
        onChange={(text) => {
          const next = shapeOf(text);
          // While an example is reworded, runs that still fit it keep their lengths.
          if (next.parts.length > shapeLimits.parts) return;
          const same = shape && parts.length > 0 ? { ...shape, example: text } : null;
          onChange(text.trim() === '' ? null : same && isExample(same) ? same : { ...next, example: text });
        }}
      />
      {parts.map((part, index) =>
        part.what === 'exactly' ? null : (
          <Row key={index} $gap={8} role="group" aria-label={t`Run ${index + 1}`} style={{ alignItems: 'center' }}>
            <div style={{ width: 70 }}>
              <TextInput label={t`From`} hideLabel value={String(part.minimum)} onChange={(text) => count(index, 'minimum', text)} />
            </div>
            <Small>{t`to`}</Small>
            <div style={{ width: 70 }}>
              <TextInput label={t`Up to`} hideLabel value={String(part.maximum)} onChange={(text) => count(index, 'maximum', text)} />
            </div>
            <div style={{ width: 170 }}>
              <Choice
                label={t`Characters`}
                hideLabel
                small
                items={runs.map(([id, text]) => ({ id, text }))}
                value={part.what}
                onChange={(what) => setPart(index, { what: what as ShapePart['what'] })}
              />
            </div>
          </Row>
        ),
      )}
      {shape && parts.length > 0 && !isExample(shape) && (
        <Notice tone="ochre">{t`Your example itself is no longer accepted, and visitors are shown it. Write one that is.`}</Notice>
      )}
    </Stack>
  );
}
