import { writtenNumber } from '../../tables/typed-text.js';
import { valueCheck } from '../check.js';

/** Numbers that their program keeps as text: they are neither summed nor formatted. */
export const numberText = valueCheck('numberText', () => ({ text, value }, _, { reading }) => {
  if (typeof value !== 'string' || text.trim() === '') return null;
  const number = writtenNumber(text.trim(), reading?.decimals) ?? writtenNumber(text.trim(), 'comma');
  return number === null ? { code: 'not-a-number', severity: 'look' } : { code: 'number-as-text', severity: 'look', mend: String(number) };
});
