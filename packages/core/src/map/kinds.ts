// Every kind of fill rule, by what it is called in a map. A new one is a file in kinds/ and a line here.
export { address } from './kinds/address.js';
export { arithmetic } from './kinds/arithmetic.js';
export { blank } from './kinds/blank.js';
export { cases } from './kinds/cases.js';
export { column } from './kinds/column.js';
export { compose } from './kinds/compose.js';
export { copyFact as 'copy-fact' } from './kinds/copy-fact.js';
export { date } from './kinds/date.js';
export { first } from './kinds/first.js';
export { liquid } from './kinds/liquid.js';
export { lookup } from './kinds/lookup.js';
export { number } from './kinds/number.js';
export { pieceRule as piece } from './kinds/piece.js';
export { portion } from './kinds/portion.js';
export { shape } from './kinds/shape.js';
export { text } from './kinds/text.js';
export { translate } from './kinds/translate.js';
