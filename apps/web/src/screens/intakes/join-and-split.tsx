import { t } from '@mailbag/core/words';
import type { IntakeQuestion, JoinWay } from '@mailbag/core';
import { canSplit, isJoined, joinQuestions, partQuestions, splitQuestion, waysToJoin } from '@mailbag/core';
import { Combine, Split as SplitIcon, Ungroup } from 'lucide-react';
import { useState } from 'react';
import { AskDialog } from '../../ui/ask-dialog';
import { Button } from '../../ui/button';
import { Choice } from '../../ui/choice';
import { TextInput } from '../../ui/field';
import { Small } from '../../ui/layout';
import type { IntakeWork } from './intake-work';

interface Props {
  question: IntakeQuestion;
  work: IntakeWork;
  onChoose: (id: string | null) => void;
}

/** What stands between answers that are put together. */
const betweens = [
  { id: ' ', text: t`a space` },
  { id: ', ', text: t`a comma` },
  { id: '\n', text: t`a new line` },
  { id: '', text: t`nothing` },
];

/** Makes one question of two, or several of one; what they fill stays as it is. */
export function JoinAndSplit({ question, work: { document: plan, change }, onChoose }: Props) {
  const { id } = question;
  const section = plan.sections.find(({ questions }) => questions.includes(id));
  const at = section?.questions.indexOf(id) ?? -1;
  // What follows it first.
  const around = section ? [...section.questions.slice(at + 1), ...section.questions.slice(0, Math.max(0, at))] : [];
  const others = around.flatMap((one) => {
    const other = plan.questions[one];
    return other && one !== id && waysToJoin(question, other).length > 0 ? [other] : [];
  });
  if (isJoined(plan, id))
    return (
      <Button
        small
        changes
        onPress={() => {
          change((before) => partQuestions(before, id));
          onChoose(null);
        }}
      >
        <Ungroup size={14} />
        {t`Ask separately again`}
      </Button>
    );
  return (
    <>
      {others.length > 0 && (
        <Join
          question={question}
          others={others}
          onJoin={(other, way) => {
            const joined = joinQuestions(plan, id, other, way);
            change(() => joined.plan);
            onChoose(joined.id);
          }}
        />
      )}
      {canSplit(question) && (
        <Parts
          question={question}
          onSplit={(words, between) => {
            const split = splitQuestion(plan, id, words, between);
            change(() => split.plan);
            onChoose(split.ids[0]!);
          }}
        />
      )}
    </>
  );
}

function wayWords(way: JoinWay, { words: first, limit }: IntakeQuestion, { words: second }: IntakeQuestion): string {
  switch (way) {
    case 'same':
      return t`The same answer goes to both`;
    case 'first-word':
      return t`The first word is “${first}”, the rest “${second}”`;
    case 'last-word':
      return t`The last word is “${second}”, the rest “${first}”`;
    case 'characters':
      return t`The first ${limit} characters are “${first}”, the rest “${second}”`;
  }
}

interface JoinProps {
  question: IntakeQuestion;
  others: readonly IntakeQuestion[];
  onJoin: (other: string, way: JoinWay) => void;
}

function Join({ question, others, onJoin }: JoinProps) {
  const [wanted, setWanted] = useState(others[0]!.id);
  const other = others.find(({ id }) => id === wanted) ?? others[0]!;
  const ways = waysToJoin(question, other);
  const [asked, setWay] = useState<JoinWay | null>(null);
  const way = asked && ways.includes(asked) ? asked : ways[0]!;
  return (
    <AskDialog
      opener={
        <Button small changes>
          <Combine size={14} />
          {t`Join with another …`}
        </Button>
      }
      title={t`Join “${question.words}” with another question`}
      yes={t`Join`}
      onYes={() => onJoin(other.id, way)}
    >
      <Choice label={t`With`} items={others.map(({ id, words }) => ({ id, text: words }))} value={other.id} onChange={setWanted} />
      <Choice
        label={t`Of the one answer`}
        items={ways.map((id) => ({ id, text: wayWords(id, question, other) }))}
        value={way}
        onChange={(id) => setWay(id as JoinWay)}
      />
      <Small>{t`Visitors are asked once. Both questions are put away and go on filling their boxes, from this one answer.`}</Small>
    </AskDialog>
  );
}

interface PartsProps {
  question: IntakeQuestion;
  onSplit: (words: string[], between: string) => void;
}

function Parts({ question: { words }, onSplit }: PartsProps) {
  const [text, setText] = useState('');
  const [between, setBetween] = useState(' ');
  const parts = text
    .split('\n')
    .map((one) => one.trim())
    .filter(Boolean);
  return (
    <AskDialog
      opener={
        <Button small changes>
          <SplitIcon size={14} />
          {t`Ask in parts …`}
        </Button>
      }
      title={t`Ask “${words}” in parts`}
      yes={t`Ask in parts`}
      isReady={parts.length >= 2 && parts.length <= 20}
      onYes={() => onSplit(parts, between)}
    >
      <TextInput
        label={t`Questions, one a line`}
        rows={4}
        value={text}
        placeholder={t`First name
Last name`}
        onChange={setText}
      />
      <Choice label={t`Put together with`} items={betweens} value={between} onChange={setBetween} />
      <Small>{t`The answers are put together in their order and fill the boxes of “${words}”, which is put away.`}</Small>
    </AskDialog>
  );
}
