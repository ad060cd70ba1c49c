/** Core's door: everything that hosts may use. */
export * from './errors/catalogue.js';
export type { Remark, RemarkCode, Detail } from './remarks/catalogue.js';
export { storedDetail, parseDetail, remark, remarks, detailText } from './remarks/catalogue.js';
export type { ErrorFields } from './errors/entry.js';
export type * from './platform/ports.js';
export { harfBuzzEngine } from './fonts/harfbuzz-engine.js';
export { facesFor, isBeyondStandard } from './pdf/plan/embed-faces.js';

export { inspectTemplate } from './pdf/read/inspect.js';
export { answerReason, pieceWords } from './answers/answer.js';
export type { Answer, AnswerPart, AnswerReason, Piece } from './answers/answer.js';
export { carryAnswers, joinAnswers, joiningName, joinings, joiningsFor, takeApart } from './answers/edit-answers.js';
export type { Joining } from './answers/edit-answers.js';
export { joinedPieces, pieceOf } from './answers/split-answer.js';
export { answerField, rulesOfAnswer, wholeRuleOf } from './map/answer-rules.js';
export type { PieceRule } from './map/kinds/piece.js';
export { leftSentence, questionsOf } from './answers/questions.js';
export type { Question, Questions } from './answers/questions.js';
export * from './answers/question-kinds.js';
export { fieldsOfBlanks } from './blanks/fields-of-blanks.js';
export { readBlanks } from './blanks/read-blanks.js';
export type { Blank, BlankKind } from './blanks/blank.js';
export { readEdition } from './editions/edition.js';
export type { Edition } from './editions/edition.js';
export { compareEditions } from './editions/compare-editions.js';
export { DOUBTFUL } from './editions/comparison.js';
export type { Comparison, FieldChange, FieldPair } from './editions/comparison.js';
export { printChanges } from './editions/print-changes.js';
export type { PrintChanges, PrintedLine } from './editions/print-changes.js';
export { drawnFaces, drawnField, drawnKinds } from './pdf/write/drawn-field.js';
export type { DrawnFace, DrawnField, DrawnKind } from './pdf/write/drawn-field.js';
export { readLayout } from './pdf/write/read-layout.js';
export { markedPdf } from './pdf/write/marked-pdf.js';
export { writeFields } from './pdf/write/write-fields.js';
export * from './layout/layout.js';
export { readLayoutAids } from './layout/layout-aids.js';
export type { LayoutAids, PageGuides } from './layout/layout-aids.js';
export { aligned, alignments, distributed, sameSized } from './layout/arrange.js';
export type { Alignment } from './layout/arrange.js';
export { boxOf, copied, drawnIn, pageOf, withBoxes, withDrawn, withoutDrawn } from './layout/placing.js';
export type { Drawn } from './layout/placing.js';
export { freeName, nameFault } from './layout/drawn-names.js';
export { guidesOf, onPage, snapEdges, snapMove, upright } from './layout/snap.js';
export type { Edge, Guides, Snapped } from './layout/snap.js';
export { ownBox, seenBox } from './page/seen.js';
export type { SeenBox } from './page/seen.js';
export type { LineStamp } from './pdf/fill/stamp/line-stamp.js';
export { lineFault, stampLineNames } from './pdf/fill/stamp/line-stamp.js';
export { compileTemplate } from './pdf/plan/compile.js';
export * from './pdf/fill/stamp/copy-stamp.js';
export { assertImage } from './pdf/fill/image.js';
export { bareImage } from './pdf/fill/bare-image.js';
export { finishes } from './pdf/finish.js';
export type { Finish } from './pdf/finish.js';
export type { CompiledTemplate, CompileOptions } from './pdf/plan/compile.js';
export { CombinedFile } from './pdf/fill/combine.js';
export type { CombinedCopy, CombineOptions } from './pdf/fill/combine.js';
export { stateFor } from './pdf/fill/field-value.js';
export { fillCopy, measureCopy } from './pdf/fill/fill.js';
export { RecordFiller } from './filling/fill-record.js';
export type { CopyContext, MappedTemplate } from './filling/fill-record.js';
export type { FillOptions } from './pdf/fill/fill-options.js';
export type { FillNote, FitRule, Remedies, TooLong } from './pdf/value.js';
export type { FilledCopy } from './pdf/fill/copy-file.js';
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
export { excerptTable } from './tables/excerpt-table.js';
export { readFiles, readTable } from './tables/read-table.js';
export { headingNames } from './tables/headings.js';
export { readByKey } from './tables/rows-by-key.js';
export type { TableExcerpt, TableFile, TableKind, TableReading, TableResult } from './tables/table-file.js';
export type { ForeignBook, ForeignCell } from './tables/sheet-book.js';
export { ChangeWatch, NumberedKeys, recordKeys } from './tables/changes.js';
export type { SourceChanges } from './tables/changes.js';
export { columnLetters, slugOf } from './tables/headings.js';
export { Gatherer, ROW_LIMIT } from './tables/gather.js';
export { isoDate, typedText, writtenNumber } from './tables/typed-text.js';
export { writeFdf } from './formdata/fdf.js';
export { writeXml } from './formdata/xml.js';
export { writeXfdf } from './formdata/xfdf.js';

export { SAMPLE_CODE, fillContext } from './map/fill-context.js';
export type { BatchContext, FillContext } from './map/fill-context.js';
export { evaluateMap, mapProgress, missingColumns, unusedColumns } from './map/field-map.js';
export type { Evaluation, FieldMap, Problem } from './map/field-map.js';
export {
  beginRule,
  evaluateRule,
  makesValue,
  parseRule,
  readsColumns,
  renameColumn,
  ruleFacts,
  ruleKinds,
  ruleSentence,
  ruleTitle,
  rulesFor,
  textsMade,
  workOn,
} from './map/registry.js';
export type { FillRule, RuleFacts } from './map/registry.js';
export type { Case, CasesRule } from './map/kinds/cases.js';
export type { Condition, Test } from './map/condition.js';
export { beginTest, conditionSentence, holds, testWords } from './map/condition.js';
export type { ArithmeticRule, Operand, Operation } from './map/kinds/arithmetic.js';
export { isNumberOperand, isPlainNumber, operations } from './map/kinds/arithmetic.js';
export type { AddressPart, AddressRule } from './map/kinds/address.js';
export { addressParts } from './map/kinds/address.js';
export type { CopyFact, CopyFactRule } from './map/kinds/copy-fact.js';
export { copyFacts } from './map/kinds/copy-fact.js';
export type { DateRule } from './map/kinds/date.js';
export { isDatePattern } from './map/kinds/date.js';
export type { ColumnRule } from './map/kinds/column.js';
export type { TextRule } from './map/kinds/text.js';
export type { FirstRule } from './map/kinds/first.js';
export type { LiquidRule } from './map/kinds/liquid.js';
export type { LookupLine, LookupOrigin, LookupRule } from './map/kinds/lookup.js';
export { LOOKUP_LIMIT } from './map/kinds/lookup.js';
export type { NumberRule } from './map/kinds/number.js';
export type { PortionRule } from './map/kinds/portion.js';
export { takenWords } from './map/taken.js';
export type { Taken } from './map/taken.js';
export type { FittedRule } from './map/kinds/fitted.js';
export { LEAST_TYPE, MOST_TYPE } from './map/kinds/fitted.js';
export type { ShortenRule } from './map/kinds/shorten.js';
export type { ShapeRule } from './map/kinds/shape.js';
export { isCannot } from './map/rule.js';
export type { Cannot, Made, SentencePart, Work } from './map/rule.js';
export type { Digits } from './map/shown-amount.js';
export type { Rounding } from './map/rounding.js';
export { patternsReading, shownDay, shownPatterns } from './tables/day.js';
export { wordsLanguages } from './text/number-words.js';
export type { WordsLanguage } from './text/number-words.js';
export type { ComposePart, ComposeRule } from './map/kinds/compose.js';
export type { Translation, TranslateRule } from './map/kinds/translate.js';
export { rowReader } from './map/row.js';
export type { Row } from './map/row.js';
export { SURE, columnLike, ruleForColumn, suggest, suggestRules } from './map/suggest.js';
export type { Learned, Suggestion } from './map/suggest.js';

export { checkRecords, checkValue, checksComparing, checksOfRecords, comparingChecks, RecordChecker } from './checks/check-records.js';
export type { CheckScope, SaidFinding } from './checks/check-records.js';
export { checkSays, checksOf, plainSwitches, proposedChecks, unknownChecks } from './checks/check-plan.js';
export { fieldVerdict, isBlank } from './checks/field-verdict.js';
export type { FieldVerdict } from './checks/field-verdict.js';
export type { CheckPlan, ColumnChecks } from './checks/column-checks.js';
export type { CopyPlaces, NamedPicture } from './checks/check.js';
export { isTelling, questionWords, sameHeading } from './answers/same-question.js';
export { remediesOf, remedied, smallerType } from './checks/remedies.js';
export type { Remedy } from './checks/remedies.js';
export { findingSentence, findingTitle } from './checks/registry.js';
export type { CheckedTemplate, CheckSetup } from './checks/check.js';
export * from './checks/finding.js';

export { PASSWORD_KEPT, compilePattern, letterExtras, patternExtras } from './patterns/pattern.js';
export type { Pattern } from './patterns/pattern.js';
export { outputPattern } from './patterns/output-path.js';
export type { OutputPattern } from './patterns/output-path.js';
export { PARAMETER, VERBATIM, parameterNames } from './patterns/query-parameters.js';
export { escapeHtml, messagePattern, oneLine, plainTags, textToHtml } from './patterns/message.js';
export type { MessageTexts, RenderedMessage } from './patterns/message.js';
export { replaceTags } from './patterns/tags.js';
export { patternData } from './patterns/pattern-data.js';

export { plainText, searchText, searchWords, textFinder } from './copies/search-words.js';
export { usualSort } from './copies/usual-sort.js';
export { copyCode, isCopyCode } from './copies/code.js';
export { pathKey, safeName, uniquePath } from './copies/file-name.js';
export { savedName } from './copies/saved-name.js';
export { inReadingOrder } from './text/reading-order.js';
export { csvLine } from './tables/csv-line.js';
export { tabCells, tabText } from './tables/tab-text.js';
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
export { sendingSeconds } from './mail/sending-time.js';
export type { SendWindow } from './mail/send-window.js';
export { MOST_TRIES, replyMeaning, retryDelay } from './mail/smtp-reply.js';

export { ADDRESS_FIELDS, addressSheet } from './paper/address-sheet.js';
export { addressLines, comparePostal, countryLetters } from './paper/postal-address.js';
export type { PostalAddress } from './paper/postal-address.js';
export { nameColumns } from './tables/name-columns.js';
export { guessPaper } from './paper/guess-paper.js';
export type { PaperPatterns } from './paper/guess-paper.js';

export { changesBetween, inverseOf, isChange, same, valueAt, withChanges } from './editing/changes.js';
export type { Change, Clash, Json, Place } from './editing/changes.js';
export { isWholeInPlan, planPlaceWords } from './editing/plan-places.js';
export type { ReadingPlan } from './map/plan-with-column.js';
export { patternWithColumn, planWithColumn } from './map/plan-with-column.js';
export { copiesFor, evaluateTemplate, packetColumns, parseCondition, rowsFor, rulesWithColumn } from './map/packet.js';
export type { CopyEvaluation, PacketRules, PacketTemplate } from './map/packet.js';
export { parseCopyCount, recordOf, repeatedGroups } from './map/repeated.js';
export type { CopyCount, RepeatedGroup } from './map/repeated.js';
export { MapSurvey, countedRecords, surveyedValue } from './survey/survey.js';
export type { Counted, FieldSurvey, Survey, ValueCount } from './survey/survey.js';
export { randomPlaces } from './survey/picks.js';

export * from './intake/index.js';
export { answerFault, answerFaults, LARGEST_PICTURE } from './intake/answer-faults.js';
export type { AnswerFault } from './intake/answer-faults.js';
export type { StoredSubmission } from './intake/answer-record.js';
export {
  NUMBER_COLUMN,
  RECEIVED_COLUMN,
  answerRecord,
  intakeColumns,
  receivedText,
  submissionKey,
  submissionRecord,
} from './intake/answer-record.js';
export { addedQuestion, makeIntake } from './intake/make-intake.js';
export type { IntakeForm, MadeIntake } from './intake/make-intake.js';
export * from './intake/edit-intake.js';
export { askedFor, columnsOf, filledBy, isFilledFrom, placesOfAnswer } from './intake/filled-from.js';
export { canSplit, isJoined, joinQuestions, joinWays, partQuestions, splitQuestion, waysToJoin } from './intake/join-questions.js';
export type { JoinWay } from './intake/join-questions.js';
export { hasShape, isExample, shapeLimits, shapeOf, shapeSentence } from './intake/answer-shape.js';
export { hangingQuestions } from './intake/hanging.js';
export type { HangingQuestion } from './intake/hanging.js';
export { madeUpAnswers } from './intake/made-up.js';
export { isTranslations, pageTexts, shownTranslations, untranslated, withLanguage, withTranslation } from './intake/page-languages.js';
export type { PageText, PageTranslations } from './intake/page-languages.js';
export { normalised } from './map/choose.js';
export { alignWithMailing, answerChanges, knownAnswers, knownBeside } from './intake/personal.js';
export type { AnswerChange } from './intake/personal.js';
