import { t } from '../../words/words.js';
import { rowsFor } from '../../map/packet.js';
import { isCannot } from '../../map/rule.js';
import type { CheckKind } from '../check.js';

/** Every record gets at least one template of the packet, and of each it can be told whether it does. */
export const packet: CheckKind = {
  order: 200,
  findings: {
    'no-template': {
      title: t`No template of the packet is for it`,
      sentence: () => t`No template of the packet is for this record. Change who gets which template, or leave the record out.`,
    },
    'condition-unclear': {
      title: t`Condition that cannot be decided`,
      sentence: ({ details }) => t`It cannot be decided whether this record gets a template of the packet. ${details.why ?? ''}`,
    },
  },
  begin: ({ templates, context }) => {
    if (templates.every(({ when, count }) => !when && !count)) return null;
    return {
      see({ row }, say) {
        const base = { severity: 'stop' as const, row: row.row, field: null, label: null };
        const answers = templates.map((template) => rowsFor(template, row, context));
        answers.forEach((answer, template) => {
          if (isCannot(answer))
            say({
              ...base,
              code: 'condition-unclear',
              column: answer.column || null,
              template,
              value: answer.text,
              details: { why: answer.cannot },
            });
        });
        if (answers.every((answer) => !isCannot(answer) && answer.length === 0))
          say({ ...base, code: 'no-template', column: null, template: null, value: '', details: {} });
      },
    };
  },
};
