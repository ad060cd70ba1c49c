import { t } from '@mailbag/core/words';
import type { AddressPart, AddressRule } from '@mailbag/core';
import { addressParts } from '@mailbag/core';
import { Choice } from '../../../ui/choice';
import { ColumnChoice } from './column-choice';
import { DraftText } from './draft-text';
import { Lead, Line } from './parts';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';
import { IconButton } from '../../../ui/button';
import { X } from 'lucide-react';

const words: Record<AddressPart, string> = {
  name: t`Name`,
  street: t`Street`,
  postalCode: t`Postal code`,
  town: t`Town`,
  region: t`Region`,
  country: t`Country`,
};

export function AddressBody({ rule, place, onChange }: BodyProps<AddressRule>) {
  const put = (part: AddressPart, one: AddressRule['of'][AddressPart]): void => {
    const { [part]: _before, ...rest } = rule.of;
    onChange({ ...rule, of: one ? { ...rest, [part]: one } : rest });
  };
  return (
    <>
      {addressParts.map((part) => {
        const one = rule.of[part];
        return (
          <Line key={part}>
            <Lead>{words[part]}</Lead>
            {one ? (
              <>
                <RulePart place={`${place}${words[part]}`} rule={one} onChange={(next) => put(part, next)} />
                <IconButton label={t`${place}Remove the ${words[part].toLowerCase()}`} small onPress={() => put(part, undefined)}>
                  <X size={13} />
                </IconButton>
              </>
            ) : (
              <ColumnChoice
                label={t`${place}${words[part]}: column`}
                value={null}
                placeholder={t`none`}
                onChange={({ name }) => put(part, { kind: 'column', column: name })}
              />
            )}
          </Line>
        );
      })}
      <Line>
        <Lead>{t`Lines`}</Lead>
        <Choice
          label={t`${place}How the lines are arranged`}
          hideLabel
          small
          items={[
            { id: 'lines', text: t`one below the other` },
            { id: 'joined', text: t`on one line, with commas` },
          ]}
          value={rule.joined === null ? 'lines' : 'joined'}
          onChange={(id) => onChange({ ...rule, joined: id === 'lines' ? null : ', ' })}
        />
        {t`Home country`}
        <DraftText
          label={t`${place}Two-letter code of your own country`}
          width={48}
          value={rule.home}
          write={(home) => home}
          read={(text) => (/^[A-Za-z]{2}$/.test(text.trim()) ? text.trim().toUpperCase() : null)}
          onChange={(home) => onChange({ ...rule, home })}
        />
      </Line>
    </>
  );
}
