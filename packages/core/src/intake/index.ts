/** What a public page needs: nothing that fills or reads a PDF. */
export * from './intake.js';
export { answerText, typedDay } from './answer-text.js';
export { dependencies, dependencyLoop, shownSections } from './shown-questions.js';
export type { ShownSection } from './shown-questions.js';
export { ownLanguage, pageLanguages, planIn } from './page-languages.js';
export type { PageLanguage } from './page-languages.js';
export { sourcesOf } from './filled-from.js';
export type { FilledFrom } from './filled-from.js';
export type { AnswerShape, ShapePart } from './answer-shape.js';
export type { FaultCode } from './answer-faults.js';
