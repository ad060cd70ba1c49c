import { t } from '@mailbag/core/words';
import type { IntakePlan } from '@mailbag/core';
import { fromLocalTime, localTime, movedToZone, zoneItems } from '../../features/local-time';
import { Choice } from '../../ui/choice';
import { TextInput, Toggled } from '../../ui/field';
import { Row } from '../../ui/layout';
import type { IntakeWork } from './intake-work';

/** When the page takes answers, and from whom. */
export function OpeningSettings({ work: { document: plan, change } }: { work: IntakeWork }) {
  const open = (next: Partial<IntakePlan['opening']>): void => change((before) => ({ ...before, opening: { ...before.opening, ...next } }));
  const { from, until, maximum, contact, zone = '' } = plan.opening;
  return (
    <>
      <Row $gap={12} style={{ alignItems: 'start' }}>
        <TextInput
          label={t`Takes answers from`}
          type="datetime-local"
          value={localTime(from, zone)}
          onChange={(text) => open({ from: fromLocalTime(text, zone) })}
        />
        <TextInput
          label={t`until`}
          type="datetime-local"
          value={localTime(until, zone)}
          onChange={(text) => open({ until: fromLocalTime(text, zone) })}
        />
        <div style={{ width: 130 }}>
          <TextInput
            label={t`Maximum number of answers`}
            value={maximum === null ? '' : String(maximum)}
            placeholder={t`no limit`}
            onChange={(text) => {
              const number = Number(text);
              if (text.trim() === '') open({ maximum: null });
              else if (Number.isInteger(number) && number > 0) open({ maximum: number });
            }}
          />
        </div>
      </Row>
      {(from !== null || until !== null) && (
        <div style={{ width: 300 }}>
          <Choice
            label={t`Time zone of these`}
            items={zoneItems(t`where you and each visitor are`)}
            value={zone}
            onChange={(next) =>
              change((before) => {
                const { zone: _before, ...opening } = before.opening;
                const moved = { ...opening, from: movedToZone(from, zone, next), until: movedToZone(until, zone, next) };
                return { ...before, opening: next === '' ? moved : { ...moved, zone: next } };
              })
            }
          />
        </div>
      )}
      <div style={{ width: 300 }}>
        <TextInput
          label={t`Pass phrase`}
          value={plan.opening.passPhrase ?? ''}
          placeholder={t`none: everybody can open the page`}
          help={t`Visitors are asked for it before they see anything. Capitals do not count.`}
          onChange={(passPhrase) => open({ passPhrase })}
        />
      </div>
      <Toggled
        label={t`Each e-mail address answers once only`}
        value={plan.opening.oncePerAddress ?? false}
        onChange={(oncePerAddress) => open({ oncePerAddress })}
      />
      <div style={{ width: 300 }}>
        <TextInput
          label={t`Days for which a mailed link to continue later is valid`}
          value={String(plan.opening.retentionDays)}
          help={t`0: no link is mailed`}
          onChange={(text) => {
            const number = Number(text);
            if (Number.isInteger(number) && number >= 0 && number <= 365) open({ retentionDays: number });
          }}
        />
      </div>
      <TextInput
        label={t`Whom to ask when it is closed`}
        value={contact}
        placeholder={t`Allotment office, 10 to 12 o’clock`}
        onChange={(text) => open({ contact: text })}
      />
    </>
  );
}
