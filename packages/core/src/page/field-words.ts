import { isGeneric, labelWords, nameWords, repeatsName, saysNoMore } from './label-words.js';
import type { PrintedLabel } from './printed-label.js';

/** Where the words of a field come from. */
export type LabelSource = 'print' | 'tooltip' | 'name';

/** What a person would call a field, and why. */
export interface FieldWords {
  label: string | null;
  labelFrom: LabelSource | null;
}

/** A printed label that costs more than this is only better than nothing. */
const UNSURE = 45;

/**
 * What a person would call a field. A tooltip wins where it says more than the print, and loses where a program gave it; a name speaks when nothing else does.
 * @param printed what stands by its box
 */
export function fieldWords(name: string, tooltip: string | null, printed: PrintedLabel | null): FieldWords {
  const told = tooltip?.trim() ?? '';
  const speaks = told !== '' && !isGeneric(told) && !repeatsName(told, name);
  if (speaks && (!printed || printed.cost > UNSURE || !saysNoMore(told, printed.text)))
    return { label: labelWords(told) ?? told, labelFrom: 'tooltip' };
  if (printed && printed.cost <= UNSURE) return { label: printed.text, labelFrom: 'print' };
  const own = nameWords(name);
  if (own && (!printed || printed.cost > 2 * UNSURE)) return { label: own, labelFrom: 'name' };
  if (printed) return { label: printed.text, labelFrom: 'print' };
  return { label: null, labelFrom: null };
}
