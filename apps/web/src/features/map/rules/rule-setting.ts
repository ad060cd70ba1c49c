import type { Column, Field, Work } from '@mailbag/core';
import { createContext, useContext } from 'react';

/** What the parts of a rule are edited for. */
export interface RuleSetting {
  columns: readonly Column[];
  /** The record whose values stand beside the parts; null: there is none. */
  work: Work | null;
  /** How the office writes dates and numbers. BCP 47. */
  locale: string;
}

export const RuleSettingContext = createContext<RuleSetting>({ columns: [], work: null, locale: 'en-GB' });
export const useRuleSetting = (): RuleSetting => useContext(RuleSettingContext);

/** What a body of a rule's editor is given. */
export interface BodyProps<Rule> {
  rule: Rule;
  field: Field;
  /** Where it stands in the whole rule, for those who hear it: “Case 1, then: ”. Empty at the outermost. */
  place: string;
  onChange: (rule: Rule) => void;
}
