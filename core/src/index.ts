export { fromDocument, toDocument } from './content/document.ts';
export { hasTex, LONGEST_FORMULA, pieces, type Piece } from './content/tex.ts';
export { mathMarkup } from './content/mathml.ts';
export { deliver, type Delivered } from './assemble/deliver.ts';
export {
  MAX_VERSIONS,
  versionHolding,
  versionsOf,
  versionTable,
  type Version,
  type Versions,
} from './assemble/versions.ts';
export type { Sharing } from './assemble/sharing.ts';
export { setFor, sit, type Sat, type SatItem, type SetItem } from './assemble/sitting.ts';
export { scoreQuiz, type QuizScore } from './assemble/scoreQuiz.ts';
export { cut, cutShort, shownName } from './model/cut.ts';
export { isActive, isHarmless } from './content/address.ts';
export { beside, explore, newPurse, refill } from './scoring/budget.ts';
export { asTextCell, FORMULA_START, fromTextCell } from './model/formulaCells.ts';
export { KIND_SUPPORT } from './fit/kinds12.ts';
export { compareHoldings } from './compare/compare.ts';
export { comparePlanned, plannedChanges, type OnPurpose } from './compare/planned.ts';
export { compareScores } from './compare/score.ts';
export { STATES } from './compare/types.ts';
export type {
  Comparison,
  ContainerReport,
  Difference,
  Example,
  Facet,
  FamilyReport,
  PairReport,
  State,
} from './compare/types.ts';
export type { Quoted, SaidOf } from './compare/said.ts';
export { CHECKS } from './checks/index.ts';
export { applyEdits, type Applied, type RefusedEdit } from './edit/apply.ts';
export { isReplaceable, NEAREST } from './edit/nearestKinds.ts';
export { eachOnce, partOfEdit, placeOfEdit, takenBack, wishOf, withoutEdits } from './edit/layer.ts';
export { isRefused, REFUSALS, type Refused } from './edit/refusal.ts';
export {
  Edit,
  MAX_EDITS,
  MAX_TEXT,
  NODE_KINDS_EDITED,
  type EditedKind,
  type EditOf,
  type Layer,
  type Op,
} from './edit/schema.ts';
export { lossRepairs, type LossRepair } from './repair/losses.ts';
export { allRepairs, changesScores, mend, type Mended } from './repair/mend.ts';
export { recheck } from './repair/recheck.ts';
export { REPAIRABLE, repairsOf, type Repair } from './repair/index.ts';
export { sectionName } from './repair/repairer.ts';
export { REFUSAL_WORDS, sayEdit, sayRefusal, type Calling } from './report/edits.ts';
export { DEFAULT_LIMITS, openArchive, singleFile, type ArchiveLimits } from './intake/archive.ts';
export { fileStem } from './intake/paths.ts';
export type { Platform } from './intake/platform.ts';
export { fingerprint, knowFingerprint } from './match/asked.ts';
export { familiesOf, type Family, type Varies } from './families/families.ts';
export { hasTemplates, replicaHolding, replicasOf, type Replica } from './families/replicas.ts';
export { MAX_REPLICAS } from './families/limits.ts';
export { seedOf } from './scoring/seedOf.ts';
export { matchItems } from './match/match.ts';
export { FINDING_CODES, FINDINGS, type FindingCode, type ParamsOf } from './model/codes.ts';
export { INTERACTION_KINDS } from './model/content.ts';
export type * from './model/content.ts';
export { finding, Refusal, type Finding, type Severity, type Where } from './model/finding.ts';
export type * from './model/holding.ts';
export * as make from './model/make.ts';
export type * from './model/scoring.ts';
export type * from './model/testStructure.ts';
export { own, put } from './model/own.ts';
export { ItemPlaces, itemPlaces, knowItemPlaces } from './model/itemPlaces.ts';
export { ItemSet } from './model/itemSet.ts';
export { instructionsOf, looseIds, quizItems, quizPoints, setItems } from './model/quizzes.ts';
export { choicesOf, interactionFor, optionSets, responseIdsOf } from './model/options.ts';
export { interactionsOf, walk } from './model/visit.ts';
export { nameFrom, nameOf, opening, optionText, plain, stemText, UNNAMED } from './model/plainText.ts';
export {
  blocksSeen,
  layoutChoices,
  looksOfDocument,
  type BlockSeen,
  type LayoutChoices,
  type UseOfBlock,
} from './layout/seen.ts';
export { explainDocuments } from './reading/explain.ts';
export { RulesFile } from './reading/rulesFile.ts';
export { Layout, NONE as NO_LABELS } from './layout/layout.ts';
export type { RecognisedDocument } from './formats/draft.ts';
export { HAND_ROLES, type HandRole } from './layout/hand.ts';
export { KnownLayout, knownFor } from './layout/known.ts';
export { sayKeyPlace, sayLayout, sayShape } from './layout/say.ts';
export type { Role as LabelRole } from './layout/words.ts';
export type { ColumnRole as QuestionColumn } from './layout/table/columns.ts';
export { isReading, saidBy } from './edit/said.ts';
export { BANK_TARGETS, type BankTarget } from './bankfile/targets.ts';
export { oneFile } from './reading/oneFile.ts';
export { fileReader, readHolding } from './reading/read.ts';
export {
  MEANINGS,
  originOfFields,
  proposeReadings,
  ReadingRule,
  ruleHoldsFor,
  type Meaning,
} from './model/readingRule.ts';
export { READER_VERSION } from './reading/version.ts';
export { placesOf } from './model/places.ts';
export type { AskedOf } from './checks/check.ts';
export type { ItemHolder } from './reading/itemHolder.ts';
export type { ReadLimits } from './reading/open.ts';
export { inspectReport } from './report/inspect.ts';
export { answerTexts, keyTexts } from './scoring/keyTexts.ts';
export { plainNumber, tidyNumber } from './model/number.ts';
export { feedbackShown, type ShownFeedback } from './scoring/feedback.ts';
export { printedText } from './scoring/printed.ts';
export { scoreReport, parseAnswers } from './report/score.ts';
export {
  comparisonInWords,
  inWords,
  sayDifference,
  type ContainerInWords,
  type DifferenceInWords,
  type PairInWords,
} from './report/differences.ts';
export { describeShape } from './report/scoring.ts';
export { speak, WORDS, type SpokenFinding } from './report/words.ts';
export { evaluate, instantiate, type Answers } from './scoring/evaluate.ts';
export { probesOf } from './scoring/probe.ts';
export { mostOf, programFor } from './scoring/programFor.ts';
export {
  kindOfShape,
  recognise,
  shapeIn,
  type PackedRecognised,
  type Recognised,
} from './scoring/recognise.ts';
export type { NumericShape, ScoringKind, ScoringShape } from './scoring/shapes.ts';
export { chooseByName, everything, selectFrom, type Chosen, type Dependency } from './writing/select.ts';
export { TARGETS, type Target } from './formats/table.ts';
export { forecast, withEmbedded, writeHolding } from './writing/write.ts';
export { indexWords, wantedWords, wordGrams } from './find/grams.ts';
export { find, fold, misspelt } from './find/rank.ts';
export { asJudged, checkLanding, landedThings, leftOut, withOutline } from './landing/check.ts';
export {
  TROUBLES,
  type Landed,
  type Trouble,
  type TroubleKind,
  type TroubleSaidOf,
} from './landing/trouble.ts';
export { checkAttachments, outlineName, plannedAttachments } from './landing/attachments.ts';
export { dateTrouble, daysBetween, shiftDates } from './landing/dates.ts';
export { Recogniser } from './landing/existing.ts';
export { foldName } from './model/foldName.ts';
export { proposeName } from './landing/names.ts';
export {
  landingId,
  planFile,
  planLanding,
  plannedHolding,
  whatGoesOut,
  thingsAlone,
  thingsOf,
  withLooseBank,
  type LandingOverride,
} from './landing/plan.ts';
export { outlineOfPackage, outlineThing, outlineWithEdits } from './landing/outline.ts';
export { planTroubles } from './landing/planTroubles.ts';
export { bestForecast, bestTarget, forecastAll } from './writing/best.ts';
export { matchSections } from './landing/sections.ts';
export {
  SETTING_NAMES,
  THING_KINDS,
  type CourseAssignment,
  type CourseOutline,
  type CourseSection,
  type CourseThing,
  type HeldRubric,
  type Landing,
  type LandingAction,
  type SettingName,
  type SettingsChoice,
  type ThingKind,
} from './landing/types.ts';
export { RUBRIC_TARGETS, writeRubrics, type RubricTarget } from './writing/writeRubrics.ts';
export { rubricSides, type CriterionPair, type RubricSides } from './compare/rubricSides.ts';
export {
  compareRubrics,
  gradeEffect,
  pairCriteria,
  pairLevels,
  rubricDifferences,
  type GradeEffect,
} from './compare/compareRubrics.ts';
export {
  criterionPoints,
  gradeOf,
  rubricPoints,
  type Criterion,
  type Rubric,
  type RubricLevel,
  type RubricMode,
} from './model/rubric.ts';
export { checkAttached, checkRubrics, RUBRIC_CHECKS, rubricPrint } from './checks/checkRubrics.ts';
export { columnsOf, type Columns } from './formats/table/columns.ts';
export {
  columnsFrom,
  isColumnRole,
  layoutHeader,
  proposeColumns,
  rolesOf,
  type ColumnRole,
  type Proposal,
  type RolesTrouble,
  type TableLayout,
} from './formats/table/roles.ts';
export { readRubricRows } from './reading/readRubrics.ts';
export { rubricTables } from './formats/table/tables.ts';
export { KIND_NAMES, kindOf } from './report/kind.ts';
export {
  chosenFrom,
  LOOSE,
  NODE_KINDS,
  tickId,
  ticksOfKinds,
  type NodeKind,
  type Tick,
} from './transfer/ticks.ts';
export { seamRows, withoutIntact, type SeamRow } from './transfer/seam.ts';
export {
  knowLine,
  pouchRows,
  shortKey,
  totalPoints,
  totalsOf,
  type PouchRow,
  type PouchTotals,
} from './transfer/pouch.ts';
export {
  contentsOf,
  groupsOf,
  type ContentsItem,
  type ContentsView,
  type ThingGroup,
  type Tree,
} from './transfer/contents.ts';
export {
  containerName,
  differenceId,
  differencesOf,
  sortOf,
  speakDifference,
  tallyOf,
  type ArrivalFacts,
  type DifferenceId,
  type OpenDifference,
  type SpokenDifference,
  type Subject,
  type Tally,
} from './transfer/differences.ts';
export { courseMends, fileMends, mergedChanges, type Mend, type ThingChange } from './transfer/mends.ts';
export { itemsAlone, typeCell, type CellDone } from './sheet/cells.ts';
export {
  COLUMN_NAMES,
  columnLabel,
  SHEET_COLUMNS,
  type SheetCells,
  type SheetColumn,
} from './sheet/columns.ts';
export { foundIn, patternOf, type FoundPlace, type Search } from './sheet/replace.ts';
export { sheetCells } from './sheet/row.ts';
export { HeldItem, within, type Packed } from './model/heldItem.ts';
export { Lately } from './model/lately.ts';
export { letterOf } from './model/letterOf.ts';
export {
  differingCells,
  sheetTable,
  type DifferingCell,
  type SheetRow,
  type TableRead,
  type TableTrouble,
} from './sheet/table.ts';
export { feedbackRoles, type FeedbackRole } from './scoring/feedbackRoles.ts';
export { CANDIDATES, fairnessOf, type Fairness } from './exam/fairness.ts';
export { hypergeometric, type Distribution } from './exam/distribution.ts';
export { metTwice, type MetTwice } from './exam/twice.ts';
export { secondsFor } from './exam/time.ts';
export { raschChance } from './exam/answering.ts';
export { SHEET_WAYS, sheetOfBoth, type BothSheet, type SheetWay } from './exam/bothSheet.ts';
export { SIMULATED, simulate, type Simulation } from './exam/simulate.ts';
export { changed, DraftChange, withItems } from './making/changes.ts';
export { BANK_ID, compose, QUIZ_ID, type Composed, type Source } from './making/compose.ts';
export {
  BankAt,
  BankDraft,
  Draft,
  ItemAt,
  ItemFilter,
  itemKey,
  MAX_MADE,
  namedItems,
  newBank,
  newQuiz,
  NO_FILTER,
  QuizDraft,
  type DraftDraw,
  type DraftSection,
  type FixedItem,
  type Plan,
  type PlanCell,
  type Pool,
} from './making/draft.ts';
export { likeWithin, type LikeGroup } from './making/alike.ts';
export { matches, type ItemFacts } from './making/filter.ts';
export type { Hazard } from './making/hazard.ts';
export { hazardsOf } from './making/hazards.ts';
export { counted, outlookOf, type Counted, type Outlook, type Share } from './making/outlook.ts';
export { carriedOut, planPlaces, planTotals, type PlanPlace } from './making/plan.ts';
export { bankItems, poolItems, type Shelf, type Shelves } from './making/pool.ts';
export { seeded } from './scoring/random.ts';
export { item as newItem } from './model/make.ts';
