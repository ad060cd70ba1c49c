import { count, plural, t } from '@mailbag/core/words';
import type { RecordKind } from '@mailbag/contract';
import { ChevronsDown, Replace, Search } from 'lucide-react';
import { useState } from 'react';
import { color } from '../../../theme';
import { Button } from '../../../ui/button';
import { Choice } from '../../../ui/choice';
import { Confirm } from '../../../ui/confirm';
import { TextInput, Toggled } from '../../../ui/field';
import { Bar, Small } from '../../../ui/layout';
import type { Corrections } from '../use-corrections';

/** Which records are seen; `flagged`: those with a finding, which the mailing knows. */
export type Only = RecordKind | 'flagged';
const kindWords: Record<Only, [text: string, detail: string]> = {
  flagged: [t`with a finding`, t`of the checks`],
  corrected: [t`corrected`, t`a value was changed in Mailbag`],
  empty: [t`empty`, t`in the column, or in any`],
  filled: [t`filled in`, t`in the column, or in any`],
};
export const onlyOf = (text: string | null, hasFindings: boolean): Only | null =>
  (Object.keys(kindWords) as Only[]).find((one) => one === text && (one !== 'flagged' || hasFindings)) ?? null;

interface Props {
  columns: readonly { name: string }[];
  text: string;
  column: string | null;
  only: Only | null;
  seen: number;
  total: number;
  isWaiting: boolean;
  /** Records with a finding; null: there is no mailing that would know. */
  flagged: number | null;
  onChange: (change: { find?: string; in?: string | null; only?: string | null }) => void;
  /** Somebody is about to look for a text. */
  onLook: () => void;
  onRow: (row: number) => void;
  onNextFinding: () => void;
  corrections: Corrections | undefined;
}

/** Above the grid: what is looked for, which records are seen, what is replaced, and where one goes. */
export function GridBar(props: Props) {
  const { columns, text, column, only, seen, total, isWaiting, flagged, onChange, onLook, onRow, onNextFinding, corrections } = props;
  const [isReplacing, setReplacing] = useState(false);
  const [replacement, setReplacement] = useState('');
  const [isWhole, setWhole] = useState(false);
  const [row, setRow] = useState('');
  const isNarrowed = text.trim() !== '' || only !== null;
  const kinds = (Object.keys(kindWords) as Only[]).filter((one) => one !== 'flagged' || flagged !== null);
  return (
    <>
      <Bar data-print="no">
        <Search size={15} color={color.faded} />
        <div style={{ flex: '0 1 200px', minWidth: 120 }}>
          <TextInput
            label={t`Find in the records`}
            hideLabel
            placeholder={t`Find`}
            value={text}
            onChange={(find) => onChange({ find })}
            onFocus={onLook}
          />
        </div>
        <Choice
          label={t`In column`}
          hideLabel
          small
          items={[{ id: '', text: t`in any column` }, ...columns.map(({ name }) => ({ id: name, text: t`in ${name}` }))]}
          value={column ?? ''}
          onChange={(name) => onChange({ in: name || null })}
        />
        <Choice
          label={t`Which records`}
          hideLabel
          small
          items={[{ id: '', text: t`all records` }, ...kinds.map((id) => ({ id, text: kindWords[id][0], detail: kindWords[id][1] }))]}
          value={only ?? ''}
          onChange={(kind) => onChange({ only: kind || null })}
        />
        <Small role="status" style={{ whiteSpace: 'nowrap' }}>
          {isWaiting ? t`Looking …` : isNarrowed ? t`${count(seen)} of ${plural(total, 'record')}` : ''}
        </Small>
        <div className="fill" />
        {flagged !== null && flagged > 0 && (
          <Button small onPress={onNextFinding} tip={t`The next record with a finding (F8)`}>
            <ChevronsDown size={14} />
            {t`Next finding`}
          </Button>
        )}
        <form
          onSubmit={(event) => {
            event.preventDefault();
            if (/^\d+$/.test(row.trim())) onRow(Number(row));
          }}
          style={{ width: 84 }}
        >
          <TextInput label={t`Go to row`} hideLabel placeholder={t`Row …`} value={row} onChange={setRow} />
        </form>
        {corrections && (
          <Button small changes pressed={isReplacing} onPress={() => setReplacing(!isReplacing)}>
            <Replace size={14} />
            {t`Replace`}
          </Button>
        )}
      </Bar>
      {isReplacing && corrections && (
        <Bar data-print="no">
          <Small>{t`Put`}</Small>
          <div style={{ flex: '0 1 200px', minWidth: 120 }}>
            <TextInput label={t`Replace with`} hideLabel placeholder={t`nothing`} value={replacement} onChange={setReplacement} />
          </div>
          <Small>{t`in place of ${text === '' ? t`the text above` : `“${text}”`}`}</Small>
          <Toggled label={t`Only whole values`} value={isWhole} onChange={setWhole} />
          <div className="fill" />
          <Confirm
            look="go"
            title={t`Replace “${text}” everywhere?`}
            text={t`In ${column === null ? t`every column` : t`the column “${column}”`}, in all ${plural(total, 'record')}, matching capital and small letters. The original values are kept, and it can be undone.`}
            yes={t`Replace all`}
            onYes={() => corrections.replace({ find: text, replace: replacement, column, isWhole })}
          >
            <Button small changes look="go" isDisabled={text === '' || corrections.isBusy}>
              {corrections.isBusy ? t`Replacing …` : t`Replace all`}
            </Button>
          </Confirm>
        </Bar>
      )}
    </>
  );
}
