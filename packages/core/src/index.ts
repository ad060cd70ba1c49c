/** Core's door: everything that hosts may use. */
export * from './errors/catalogue.js';
export type * from './platform/ports.js';
export { harfBuzzEngine } from './fonts/harfbuzz-engine.js';

export { inspectTemplate } from './pdf/read/inspect.js';
export { compileTemplate } from './pdf/plan/compile.js';
export { finishes } from './pdf/finish.js';
export type { Finish } from './pdf/finish.js';
export type { CompiledTemplate, CompileOptions } from './pdf/plan/compile.js';
export { CombinedFile } from './pdf/fill/combine.js';
export type { CombinedCopy, CombineOptions } from './pdf/fill/combine.js';
export { stateFor } from './pdf/fill/field-value.js';
export { fillCopy, measureCopy } from './pdf/fill/fill.js';
export { RecordFiller } from './filling/fill-record.js';
export type { CopyContext, MappedTemplate } from './filling/fill-record.js';
export type { FillNote, FillOptions } from './pdf/fill/fill-options.js';
export type { FilledCopy } from './pdf/fill/copy-file.js';
export type { FitRule, TooLong } from './pdf/fill/appearance/text-layout.js';
export { passwordFault, prepareProtection, usualPermissions } from './pdf/fill/protect/protection.js';
export type { Permission, Protection, ProtectionOptions } from './pdf/fill/protect/protection.js';
export type { StampPlace, Symbology } from './pdf/fill/stamp/stamp.js';
export { readValues } from './pdf/read/read.js';
export { CopyReader } from './pdf/verify/read-back.js';
export type { Difference } from './pdf/verify/read-back.js';
export { refusedValues } from './pdf/fill/refused-values.js';
export * from './pdf/field.js';
export type * from './pdf/value.js';
export type { Calculation, FormatScript } from './pdf/read/scripts/script.js';
export { applyFormat } from './pdf/read/scripts/script.js';
export { graphemeCount } from './text/graphemes.js';

export * from './tables/record.js';
export { nestingOf } from './text/nesting.js';
export { excerptTable, readFiles, readTable } from './tables/read-table.js';
export type { TableExcerpt, TableFile, TableKind, TableReading, TableResult } from './tables/read-table.js';
export type { ForeignBook, ForeignCell } from './tables/sheet-book.js';
export { ChangeWatch, NumberedKeys, recordKeys } from './tables/changes.js';
export type { SourceChanges } from './tables/changes.js';
export { columnLetters, slugOf } from './tables/headings.js';
export { Gatherer, ROW_LIMIT } from './tables/gather.js';
export { isoDate, typedText, writtenNumber } from './tables/typed-text.js';
export { writeFdf } from './formdata/fdf.js';
export { writeXfdf } from './formdata/xfdf.js';

export { SAMPLE_CODE, fillContext } from './map/fill-context.js';
export type { BatchContext, FillContext } from './map/fill-context.js';
export { evaluateMap, mapProgress, missingColumns, unusedColumns } from './map/field-map.js';
export type { Evaluation, FieldMap, Problem } from './map/field-map.js';
export { parseRule, readsColumns, renameColumn, ruleKinds, ruleSentence } from './map/registry.js';
export type { FillRule } from './map/registry.js';
export type { ComposePart, ComposeRule } from './map/kinds/compose.js';
export type { Translation, TranslateRule } from './map/kinds/translate.js';
export type { SentencePart } from './map/rule.js';
export { rowReader } from './map/row.js';
export type { Row } from './map/row.js';
export { ruleForColumn, suggestRules, suggestTable } from './map/suggest.js';

export { checkRecords, checksComparing, checksOfRecords, RecordChecker } from './checks/check-records.js';
export type { CheckScope, SaidFinding } from './checks/check-records.js';
export { checkSays, checksOf, plainSwitches, proposedChecks, unknownChecks } from './checks/check-plan.js';
export type { CheckPlan, ColumnChecks } from './checks/column-checks.js';
export { findingSentence, findingTitle } from './checks/registry.js';
export type { CheckedTemplate, CheckSetup } from './checks/check.js';
export * from './checks/finding.js';

export { PASSWORD_KEPT, compilePattern, patternExtras } from './patterns/pattern.js';
export type { Pattern } from './patterns/pattern.js';
export { outputPattern } from './patterns/output-path.js';
export type { OutputPattern } from './patterns/output-path.js';
export { PARAMETER, VERBATIM, parameterNames } from './patterns/query-parameters.js';
export { messagePattern, oneLine, plainTags, textToHtml } from './patterns/message.js';
export type { MessageTexts, RenderedMessage } from './patterns/message.js';
export { replaceTags } from './patterns/tags.js';
export { patternData } from './patterns/pattern-data.js';

export { searchText, searchWords, textFinder } from './copies/search-words.js';
export { usualSort } from './copies/usual-sort.js';
export { copyCode, isCopyCode } from './copies/code.js';
export { pathKey, safeName, uniquePath } from './copies/file-name.js';
export { assertCopy, copyEvents, copyLaw, copyNotes, copyStates, nextCopyState } from './copies/states.js';
export { batchLaw, batchStates, deliveryLaw, deliveryStates, leads, printRunLaw, printRunStates } from './copies/laws.js';
export type { Law } from './copies/laws.js';
export type { CopyEventKind, CopyNote, CopyState, StoryLine } from './copies/states.js';

export { addressFault, domainOf } from './mail/address.js';
export { enhancedCode, troubleWords, troubles } from './mail/enhanced-code.js';
export type { EnhancedCode, Trouble } from './mail/enhanced-code.js';
export { deliveryHeaders } from './mail/headers.js';
export { RateKeeper } from './mail/rate-limit.js';
export type { RateLimits } from './mail/rate-limit.js';
export { MOST_ADDRESSES, addressesIn } from './mail/recipients.js';
export type { MailAddress } from './mail/recipients.js';
export { readDeliveryStatus, readReport } from './mail/report.js';
export type { IncomingMail, MailReport, ReportedRecipient } from './mail/report.js';
export { newReturnToken, returnPath, returnToken } from './mail/return-path.js';
export { minutesUntilOpen } from './mail/send-window.js';
export type { SendWindow } from './mail/send-window.js';
export { MOST_TRIES, replyMeaning, retryDelay } from './mail/smtp-reply.js';

export { ADDRESS_FIELDS, addressSheet } from './paper/address-sheet.js';
export { addressLines, comparePostal, countryLetters } from './paper/postal-address.js';
export type { PostalAddress } from './paper/postal-address.js';
export { guessPaper } from './paper/guess-paper.js';
export type { PaperPatterns } from './paper/guess-paper.js';

export { changesBetween, inverseOf, isChange, same, valueAt, withChanges } from './editing/changes.js';
export type { Change, Clash, Json, Place } from './editing/changes.js';
export { isWholeInPlan, planPlaceWords } from './editing/plan-places.js';
