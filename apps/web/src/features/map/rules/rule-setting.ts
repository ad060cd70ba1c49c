import type { Column, Field, FillRule, Work } from '@mailbag/core';
import type { ComponentType } from 'react';
import { createContext, useContext } from 'react';

/** What the parts of a rule are edited for. */
export interface RuleSetting {
  columns: readonly Column[];
  /** The record whose values stand beside the parts; null: there is none. */
  work: Work | null;
  /** How the office writes dates and numbers. BCP 47. */
  locale: string;
  /** Edits the parts of any rule: a part that is a rule has it for its own. */
  Body: ComponentType<BodyProps<FillRule>>;
}

export const RuleSettingContext = createContext<RuleSetting>({ columns: [], work: null, locale: 'en-GB', Body: () => null });
export const useRuleSetting = (): RuleSetting => useContext(RuleSettingContext);

/** What a body of a rule's editor is given. */
export interface BodyProps<Rule> {
  rule: Rule;
  field: Field;
  /** Where it stands in the whole rule, for those who hear it: “Case 1, then: ”. Empty at the outermost. */
  place: string;
  onChange: (rule: Rule) => void;
}
