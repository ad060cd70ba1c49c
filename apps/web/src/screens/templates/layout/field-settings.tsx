import { t } from '@mailbag/core/words';
import type { DrawnField, DrawnFace, DrawnKind, FieldOption } from '@mailbag/core';
import { drawnFaces, drawnKinds, nameFault } from '@mailbag/core';
import type { ReactNode } from 'react';
import { color } from '../../../theme';
import { Choice } from '../../../ui/choice';
import { Toggled } from '../../../ui/field';
import { Row, Small } from '../../../ui/layout';
import { NumberInput } from '../../../ui/special-input';
import styled from 'styled-components';
import { CommitInput } from './commit-input';
import { toolFacts } from './tools';

export const Two = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  align-items: start;
`;
export const SettingsHeading = styled.h4`
  margin: 6px 0 0;
  font-size: 12px;
  font-weight: 600;
  color: ${color.faded};
`;

const hex = (colour: DrawnField['colour']): string =>
  `#${colour
    .map((part) =>
      Math.round(part * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;
const fromHex = (text: string): DrawnField['colour'] =>
  [1, 3, 5].map((at) => parseInt(text.slice(at, at + 2), 16) / 255) as DrawnField['colour'];

/** Options as lines: what is shown, and after an equals sign what is kept where that is something else. */
const optionLines = (options: readonly FieldOption[]): string =>
  options.map(({ label, value }) => (label === value ? label : `${label} = ${value}`)).join('\n');
const readOptions = (text: string): FieldOption[] =>
  text.split('\n').flatMap((line) => {
    const [label = '', value = label] = line.split(' = ').map((part) => part.trim());
    return label === '' ? [] : [{ label, value: value || label }];
  });

export interface FieldSettingsProps {
  field: DrawnField;
  /** Names of everything else. */
  taken: ReadonlySet<string>;
  /** Its place in tab order, from 1. */
  place: number;
  count: number;
  onChange: (change: Partial<DrawnField>) => void;
  onPlace: (place: number) => void;
  /** Where it lies. */
  children: ReactNode;
}

/** What a drawn field is: called by, takes and looks like. */
export function FieldSettings({ field, taken, place, count, onChange, onPlace, children }: FieldSettingsProps) {
  const { kind } = field;
  const isWritten = !['checkbox', 'radio', 'signature', 'image'].includes(kind);
  const isOption = kind === 'checkbox' || kind === 'radio';
  const orNull = (text: string): string | null => (text.trim() === '' ? null : text.trim());
  return (
    <>
      <CommitInput
        label={t`Name`}
        mono
        value={field.name}
        faultOf={(name) => nameFault(name.trim(), taken)}
        onCommit={(name) => onChange({ name: name.trim() })}
      />
      <CommitInput label={t`Label for people`} value={field.label ?? ''} onCommit={(label) => onChange({ label: orNull(label) })} />
      <Row $gap={12}>
        <Choice
          label={t`Kind`}
          hideLabel
          items={drawnKinds.map((one) => ({ id: one, text: toolFacts[one].word }))}
          value={kind}
          onChange={(next) => onChange({ kind: next as DrawnKind, ...(next === 'comb' && { cells: field.cells ?? field.limit ?? 8 }) })}
        />
        <Toggled label={t`required`} value={field.required} onChange={(required) => onChange({ required })} />
      </Row>
      {children}
      {kind === 'comb' && (
        <NumberInput label={t`Cells`} value={field.cells ?? 1} minimum={1} maximum={100} onChange={(cells) => onChange({ cells })} />
      )}
      {(kind === 'text' || kind === 'multiline') && (
        <NumberInput
          label={t`Maximum characters`}
          help={t`0: no limit`}
          value={field.limit ?? 0}
          onChange={(limit) => onChange({ limit: limit === 0 ? null : limit })}
        />
      )}
      {(kind === 'menu' || kind === 'list') && (
        <CommitInput
          label={t`Options, one a line`}
          rows={4}
          value={optionLines(field.options)}
          help={t`Label = value, where the data uses another word`}
          onCommit={(text) => onChange({ options: readOptions(text) })}
        />
      )}
      {isOption && (
        <CommitInput
          label={kind === 'radio' ? t`Stands for` : t`On-value`}
          value={field.value ?? t`Yes`}
          {...(kind === 'radio' && { help: t`Buttons of one name are one group` })}
          onCommit={(value) => onChange({ value: orNull(value) })}
        />
      )}
      <NumberInput label={t`Place in tab order, of ${count}`} value={place} minimum={1} maximum={count} onChange={onPlace} />
      <CommitInput
        label={t`Tooltip`}
        value={field.tooltip ?? ''}
        help={field.label ? t`Left empty, the label is the tooltip.` : ''}
        onCommit={(tooltip) => onChange({ tooltip: orNull(tooltip) })}
      />
      {isWritten && (
        <>
          <SettingsHeading>{t`Writing`}</SettingsHeading>
          <Two>
            <Choice
              label={t`Face`}
              items={Object.keys(drawnFaces).map((face) => ({ id: face, text: face.replace('-', ' ') }))}
              value={field.font}
              onChange={(font) => onChange({ font: font as DrawnFace })}
            />
            <NumberInput label={t`Size, 0: fit the box`} value={field.size} maximum={144} onChange={(size) => onChange({ size })} />
          </Two>
          <Two>
            <Choice
              label={t`Alignment`}
              items={['left', 'centre', 'right'].map((id) => ({ id, text: id }))}
              value={field.align}
              onChange={(align) => onChange({ align: align as DrawnField['align'] })}
            />
            <label>
              <Small>{t`Colour`}</Small>
              <br />
              <input
                type="color"
                aria-label={t`Colour of the text`}
                value={hex(field.colour)}
                onChange={(event) => onChange({ colour: fromHex(event.target.value) })}
                style={{ width: '100%', height: 32, marginTop: 4 }}
              />
            </label>
          </Two>
        </>
      )}
      <Toggled label={t`with a border`} value={field.border} onChange={(border) => onChange({ border })} />
    </>
  );
}
