import { t, translated } from '@mailbag/core/words';
import type { IntakeKind, IntakeQuestion } from '@mailbag/core';
import { intakeKinds, isPictureKind, placesOfAnswer, splitSection, withQuestion } from '@mailbag/core';
import { Check, EyeOff, Heading, Undo } from 'lucide-react';
import styled from 'styled-components';
import { Confidence } from '../../features/map/confidence';
import { color } from '../../theme';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput, Toggled } from '../../ui/field';
import { Row, Small } from '../../ui/layout';
import { LinkButton } from '../../ui/link-button';
import { Chip, Notice } from '../../ui/mark';
import { AnswerBounds } from './answer-bounds';
import type { IntakeWork } from './intake-work';
import { JoinAndSplit } from './join-and-split';
import { OptionLines } from './option-lines';
import { PicturePlaces } from './picture-places';
import { WhenEditor } from './when-editor';

const Box = styled.div`
  padding: 4px 16px 14px;
  background: ${color.plumWash};
  border-bottom: 1px solid ${color.line};
  display: grid;
  gap: 10px;
`;

const hasLimit = (kind: IntakeKind): boolean => ['text', 'long text', 'postal code', 'telephone', 'number', 'amount'].includes(kind);

/** What a kind is called, and what it is where that needs a word. */
const kindWords = (kind: IntakeKind): { text: string; detail?: string } =>
  kind === 'consent'
    ? { text: t`consent`, detail: t`ticked by whoever agrees with the words` }
    : kind === 'notice'
      ? { text: t`nothing: a notice`, detail: t`words that are only read` }
      : { text: translated(kind) };

/** Somebody has looked at it. */
const looked = { doubt: '', sure: null } satisfies Partial<IntakeQuestion>;

/** Everything of one question that can be changed. */
export function QuestionSettings({
  question,
  work,
  onChoose,
  onDraw,
}: {
  question: IntakeQuestion;
  work: IntakeWork;
  onChoose: (id: string | null) => void;
  onDraw: () => void;
}) {
  const { id, words, kind, required, help, options, limit, initial, when, isAway, doubt, sure } = question;
  const { document: plan, intake, change } = work;
  const set = (next: Partial<IntakeQuestion>): void => change((before) => withQuestion(before, id, next));
  const places = placesOfAnswer(plan, question, intake.places);
  const section = plan.sections.find(({ questions }) => questions.includes(id));
  return (
    <Box role="group" aria-label={t`Settings of ${words}`}>
      {doubt !== '' && (
        <Notice tone="ochre">
          {translated(doubt)}{' '}
          {!isAway && (
            <Button small look="bare" changes onPress={() => set({ ...looked })}>
              <Check size={14} />
              {t`It is correct`}
            </Button>
          )}
        </Notice>
      )}
      {doubt === '' && sure && !isAway && <Confidence confidence={sure.part} why={translated(sure.why)} />}
      <TextInput
        label={t`Words`}
        {...((kind === 'notice' || words.length > 90) && { rows: 3 })}
        value={words}
        onChange={(next) => set({ words: next, ...looked })}
      />
      <Row $gap={12} style={{ flexWrap: 'wrap', alignItems: 'end' }}>
        <Choice
          label={t`Answer is`}
          items={intakeKinds.map((one) => ({ id: one, ...kindWords(one) }))}
          value={kind}
          onChange={(next) => set({ kind: next as IntakeKind, ...looked })}
        />
        {hasLimit(kind) && (
          <div style={{ width: 110 }}>
            <TextInput
              label={t`Maximum characters`}
              value={limit === null ? '' : String(limit)}
              placeholder={t`no limit`}
              onChange={(next) => {
                const number = Number(next);
                if (next.trim() === '') set({ limit: null });
                else if (Number.isInteger(number) && number > 0 && number <= 100_000) set({ limit: number });
              }}
            />
          </div>
        )}
        {kind !== 'notice' && <Toggled label={t`Required`} value={required} onChange={(next) => set({ required: next })} />}
      </Row>
      <AnswerBounds question={question} onChange={set} />
      {(kind === 'one of' || kind === 'some of') && (
        <OptionLines options={options} isOnForm={places.length > 0} onChange={(next) => set({ options: next, ...looked })} />
      )}
      <TextInput
        label={t`Help`}
        value={help}
        placeholder={t`none`}
        rows={help.length > 60 ? 2 : 1}
        onChange={(next) => set({ help: next })}
      />
      {!['signature', 'image', 'some of', 'consent', 'notice'].includes(kind) && (
        <TextInput label={t`Filled in already`} value={initial} placeholder={t`nothing`} onChange={(next) => set({ initial: next })} />
      )}
      <WhenEditor plan={plan} own={new Set([id])} when={when} name={words} onChange={(next) => set({ when: next })} />
      {isPictureKind(kind) ? (
        <PicturePlaces question={question} work={work} onDraw={onDraw} />
      ) : (
        <div>
          <Small>{t`Fills `}</Small>
          {places.length === 0 && <Small>{t`no box of a form. `}</Small>}
          {places.map(({ template, field }) => (
            <Chip key={`${template} ${field}`} $column title={field}>
              {intake.templates.length > 1 && `${intake.templates.find((one) => one.id === template)?.name ?? ''} · `}
              <code>{field}</code>
            </Chip>
          ))}
          <LinkButton $look="bare" $small to={`/mailings/${intake.mailingId}/map`}>{t`Change what it fills`}</LinkButton>
        </div>
      )}
      <Row style={{ flexWrap: 'wrap' }}>
        <Button small changes onPress={() => set(isAway ? { isAway: false, filled: null, ...looked } : { isAway: true })}>
          {isAway ? <Undo size={14} /> : <EyeOff size={14} />}
          {isAway ? t`Bring back` : t`Put away`}
        </Button>
        {section && section.questions[0] !== id && (
          <Button small changes onPress={() => change((before) => splitSection(before, id, words).plan)}>
            <Heading size={14} />
            {t`Begin a step here`}
          </Button>
        )}
        <JoinAndSplit question={question} work={work} onChoose={onChoose} />
      </Row>
    </Box>
  );
}
