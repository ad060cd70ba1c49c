import type { Field } from '../pdf/field.js';
import type { Box, Phrase } from '../page/page-reading.js';

/** A box of a form as answers are put together by it, in the space of its page's reading. */
export interface PlacedField {
  field: Field;
  page: number;
  box: Box;
}

/** A form with what is printed around its boxes. */
export interface PrintedForm {
  /** Where a field first stands; null: nowhere that can be seen. */
  placeOf(field: Field): PlacedField | null;
  /** What is printed between two boxes of one line, null: nothing. */
  between(left: PlacedField, right: PlacedField): string | null;
  /** Phrases that touch a box of a page. */
  phrasesIn(page: number, box: Box): readonly Phrase[];
  /** Whether a box has no words of its own, or those of the box above it. */
  isContinued(place: PlacedField): boolean;
  /** What is printed for several ticks together. */
  ofGroup(places: readonly PlacedField[]): string | null;
}
