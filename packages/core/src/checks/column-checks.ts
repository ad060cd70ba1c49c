/** Least and most, both counting as right: numbers, or dates as YYYY-MM-DD. Empty: no limit. */
export interface Limits {
  minimum: string;
  maximum: string;
}

/** What is looked at in each value of a column, by the switch of the check. Most are on or off; two need to be told what is right. */
export interface ColumnChecks {
  range?: Limits | null;
  /** The only values that are right; empty: all are. */
  allowed?: string[] | null;
  [check: string]: boolean | Limits | string[] | null | undefined;
}

/** What a person has set beside what is proposed. */
export interface CheckPlan {
  /** Country of telephone numbers and postal codes that do not say theirs (ISO 3166-1, two letters); empty: not said. */
  country?: string;
  columns?: Record<string, ColumnChecks>;
  /** Off where a person has switched it off. */
  samePerson?: boolean;
  mixedUp?: boolean;
}
