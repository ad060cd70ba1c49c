import type { IntakeChangesAnswer } from '@mailbag/contract';
import type { IntakePlan } from '@mailbag/core';
import { isWholeInIntake } from '@mailbag/core';
import { api } from '../../api/client';
import { OpenDesks } from '../../features/editing/open-desks';

/** Intakes that are worked on. */
export const intakeDesks = new OpenDesks<IntakePlan>({
  name: 'intake',
  isWhole: isWholeInIntake,
  async send(id, changes) {
    const { version, plan, clashes } = await api.post<IntakeChangesAnswer>(`/api/intakes/${id}/changes`, { changes });
    return { version, document: plan, clashes };
  },
});
