// Every kind of fill rule, by what it is called in a map. A new one is a file in kinds/ and a line here.
export { blank } from './kinds/blank.js';
export { column } from './kinds/column.js';
export { compose } from './kinds/compose.js';
export { pieceRule as piece } from './kinds/piece.js';
export { text } from './kinds/text.js';
export { translate } from './kinds/translate.js';
