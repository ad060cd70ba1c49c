import { t } from '@mailbag/core/words';
import type { Stamp, Symbology } from '@mailbag/core';
import { lineFault, stampLineNames, symbologies } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { Toggled } from '../../../ui/field';
import { Small } from '../../../ui/layout';
import { CommitInput } from './commit-input';
import { toolFacts } from './tools';

/** What lines may tell, and in words. */
const lineWords: Record<(typeof stampLineNames)[number], string> = {
  number: t`place of the copy in its batch`,
  count: t`how many records the batch has`,
  code: t`copy code`,
  batch: t`number of the batch`,
  today: t`the day the batch began`,
};

/** What a stamp draws on every copy. */
export function StampSettings({ stamp, onChange }: { stamp: Stamp; onChange: (stamp: Stamp) => void }) {
  if (stamp.kind === 'line')
    return (
      <>
        <CommitInput
          label={t`Line of text`}
          value={stamp.text}
          faultOf={(text) => {
            const fault = lineFault(text);
            return fault && `${fault.charAt(0).toUpperCase()}${fault.slice(1)}.`;
          }}
          onCommit={(text) => onChange({ ...stamp, text })}
        />
        <Small>
          {stampLineNames.map((name) => (
            <span key={name} style={{ display: 'block' }}>
              <code>{`{{ ${name} }}`}</code> {lineWords[name]}
            </span>
          ))}
        </Small>
        <Choice
          label={t`Alignment`}
          items={['left', 'centre', 'right'].map((id) => ({ id, text: id }))}
          value={stamp.align}
          onChange={(align) => onChange({ ...stamp, align: align as typeof stamp.align })}
        />
      </>
    );
  return (
    <>
      <Choice
        label={t`Symbol`}
        items={symbologies.map((id) => ({ id, text: toolFacts[id].word }))}
        value={stamp.symbology}
        onChange={(symbology) => onChange({ ...stamp, symbology: symbology as Symbology })}
      />
      <Toggled label={t`code in print below`} value={stamp.inPrint} onChange={(inPrint) => onChange({ ...stamp, inPrint })} />
      <Small>{t`Every copy has its own code, by which it is known when it comes back.`}</Small>
    </>
  );
}
