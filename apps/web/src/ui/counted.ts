const number = new Intl.NumberFormat();

export const count = (value: number): string => number.format(value);
/** “1 copy”, “2 copies”. */
export const counted = (value: number, one: string, many = `${one}s`): string => `${count(value)} ${value === 1 ? one : many}`;
