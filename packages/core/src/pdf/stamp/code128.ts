/**
 * Widths of bars and spaces of each symbol value, as ISO/IEC 15417 lists them: three bars and three spaces of 1 to 4 modules, 11 together.
 * The table is written from memory; a test reads what is made from it with an independent reader.
 */
const WIDTHS =
  '212222222122222221121223121322131222122213122312132212221213221312231212112232122132122231113222123122123221223211221132221231' +
  '213212223112312131311222321122321221312212322112322211212123212321232121111323131123131321112313132113132311211313231113231311' +
  '112133112331132131113123113321133121313121211331231131213113213311213131311123311321331121312113312311332111314111221411431111' +
  '111224111422121124121421141122141221112214112412122114122411142112142211241211221114413111241112134111111242121142121241114212' +
  '124112124211411212421112421211212141214121412121111143111341131141114113114311411113411311113141114131311141411131';
const widthsOf = (value: number): string => WIDTHS.slice(value * 6, value * 6 + 6);
/** Start in code set B, and the stop pattern of 13 modules. */
const START_B = '211214';
const START_B_VALUE = 104;
const STOP = '2331112';

/** The modules of a Code 128 symbol in code set B: true is a bar. Only printable ASCII. @throws RangeError other characters */
export function code128(text: string): boolean[] {
  const values = Array.from(text, (char) => {
    const value = char.charCodeAt(0) - 32;
    if (value < 0 || value > 94) throw new RangeError(`Code 128 set B has no "${char}"`);
    return value;
  });
  const check = values.reduce((sum, value, index) => sum + value * (index + 1), START_B_VALUE) % 103;
  const widths = START_B + [...values, check].map(widthsOf).join('') + STOP;
  return [...widths].flatMap((width, index) => Array.from({ length: Number(width) }, () => index % 2 === 0));
}
