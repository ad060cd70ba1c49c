import { t } from '@mailbag/core/words';
import { loadedPart } from '../../../ui/loaded-part';

/** The parts of a rule, edited in place; loaded when the first rule is opened. */
export const RuleBody = loadedPart(() => import('./rule-body'), t`the rule`);
