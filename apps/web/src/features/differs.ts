/** Whether two things differ in one of the named parts. */
export const differs = <Name extends string>(
  one: Readonly<Record<Name, unknown>>,
  other: Readonly<Record<Name, unknown>>,
  names: readonly Name[],
): boolean => names.some((name) => one[name] !== other[name]);
