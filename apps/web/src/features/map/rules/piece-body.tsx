import { t } from '@mailbag/core/words';
import type { PieceRule } from '@mailbag/core';
import { RulePart } from './rule-part';
import type { BodyProps } from './rule-setting';

/** The rule of the whole answer, of which a box takes its piece. */
export function PieceBody({ rule, place, onChange }: BodyProps<PieceRule>) {
  return <RulePart place={t`${place}Whole answer`} rule={rule.of} onChange={(of) => onChange({ ...rule, of })} />;
}
