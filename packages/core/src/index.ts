export * from './runtime.ts';
export * from './watching.ts';
// The search itself, which benchmarks measure by itself.
export { findCells } from './ground/from-above/search-cells.ts';
export { createWalkable, type Walkable } from './ground/from-above/walkable.ts';
export { createWalls } from './ground/from-above/walls.ts';
export { writtenSpace } from './compile/compile-ground.ts';
export { GROUND_VIEWS, USUAL_VIEW } from './terms/views.ts';
export { hashState } from './numeric/state-hash.ts';
export * from './model/documents.ts';
export type { PlayerAct } from './terms/player-acts.ts';
export * from './model/actions/actions.ts';
export {
  isObject,
  matching,
  needed,
  numberOf,
  part,
  specsOf,
  usualNumber,
  type ChoiceSpec,
  type FieldSpec,
  type FieldSpecs,
  type NumberSpec,
  type Schema,
} from './model/schema/schema.ts';
export { HOW_TO_CHECK, yupOf } from './model/schema/yup.ts';
export { HIT_RESULTS, type HitResult } from './terms/fighting.ts';
export { isPlace } from './numeric/place.ts';
export { sameData } from './terms/same-data.ts';
export {
  EVENT_PATTERN,
  NAME_ABOUT,
  NAME_PATTERN,
  TITLE_LENGTH,
  namesOf,
  WORD_PATTERN,
} from './model/names/names.ts';
export { PARTS_CALLED, type CalledPart } from './model/names/named-parts.ts';
export {
  agentNamed,
  titleOfKey,
  allAgents,
  DIRECTOR_NAME,
  directingMinds,
  groupNames,
  mayDo,
} from './model/groups.ts';
export { titleOfCopy } from './model/names/copy-title.ts';
export { archetypeOf, kindsOf, mindsOf, withOverrides } from './model/kinds.ts';
export { secondsToNotice } from './senses/sight.ts';
export { freshIn, freshName, nameFromWords } from './model/names/fresh-name.ts';
export { withoutUndefined } from './terms/without-undefined.ts';
export { pathOnto, pathText } from './model/names/path-text.ts';
export { nodeText, nodeWords } from './model/node-text.ts';
export { outlineOf, type OutlineRow } from './model/outline.ts';
export {
  readProject,
  readProjectText,
  type Fault,
  type ReadResult,
} from './model/file/read-project.ts';
export { parseJson } from './model/file/parse-json.ts';
export { numberAt, tieredNumber, tierInForce } from './model/tiers.ts';
export { playerOf, withSetup } from './model/set-ups.ts';
export { serialiseProject } from './model/file/serialise.ts';
export { toJsonSchema, type JsonSchema } from './model/schema/json-schema.ts';
export { compileProject, inputOf } from './compile/compile-project.ts';
export { FINDINGS, type FindingCode } from './compile/finding-kinds.ts';
export { hasErrors, type Finding } from './compile/finding.ts';
export * from './model/examples.ts';
export { checkDocument, checkProject, formFindings } from './findings/check-project.ts';
export * from './ledger/run.ts';
export { because, type Reason } from './terms/reasons.ts';
export { reasonText } from './world/readout/reason-text.ts';
export { PHASES, TickError, type PhaseName } from './world/phases/tick.ts';
export {
  beginBranch,
  createBranches,
  goToBranch,
  keepBeside,
  letGo,
  nameBranch,
  partHere,
  pastOfBranch,
  type Branch,
  type Branches,
  type PartedBy,
} from './ledger/branches.ts';
export {
  findParting,
  firstUnlikeDecision,
  givenApart,
  type Given,
  type Parting,
  type UnlikeDecision,
} from './ledger/compare/parting.ts';
export {
  coverageOf,
  coverageOver,
  type CoverageItem,
  type CoveredPart,
} from './ledger/coverage.ts';
export {
  RECORDING_FORMATS,
  recordingAs,
  recordingHead,
  TABLE_HEAD,
  tableRow,
  type RecordingFormat,
  type RecordingHead,
} from './ledger/exports.ts';
export { readRecording } from './ledger/read-recording.ts';
export { runFigures, type AgentFigures } from './ledger/compare/run-figures.ts';
export { advanceTo, lastMet, watchFor, type Breakpoints, type Stop } from './ledger/breakpoints.ts';
export { mindMeant, namesMeant, secondMeant } from './model/breakpoint-names.ts';
export { bindBreakpoints } from './compile/breakpoints.ts';
export * from './ledger/figures.ts';
export { tryChanges, type FoundChange, type TryProgress } from './trying/try-change.ts';
export {
  createObserver,
  observationId,
  observerFrom,
  observe,
  observationsOf,
  type Observer,
  type Observation,
} from './observing/observer.ts';
export { OBSERVATIONS, type ObservationKind } from './observing/kinds.ts';
export { remedyOf } from './observing/remedies.ts';
export { curveOf, STRAIGHT } from './mind/weigh/curves.ts';
export { type Bar } from './mind/host.ts';
export { namesWithin } from './compile/candidate-keys.ts';
export { endsOfBand } from './expression/check-bands.ts';
export {
  doneNow,
  readChoice,
  readChoiceAt,
  readHeat,
  type ChoiceReadout,
  type HeatPicture,
  type WeighedRow,
} from './world/readout/choices.ts';
export { readFollowed, type FollowedReadout } from './world/readout/followed.ts';
export { GLOSSARY, termsFor, type Term } from './model/glossary.ts';
export { migrated } from './model/file/migrate.ts';
export { entryLine, hashLine, writtenEntry } from './ledger/lines.ts';
export { differenceOf, type Difference } from './editing/difference.ts';
export { LONGEST_WHAT, oneChange } from './editing/one-change.ts';
export { mergeDocuments, type MergePart, type Side } from './editing/merge.ts';
export { applyCommand } from './editing/apply-command.ts';
export { findState, idsOf, parentOf, withFreeIds } from './editing/minds/change-machine.ts';
export {
  archetypesWithMind,
  eventsFor,
  mentionsOf,
  type Mention,
} from './editing/minds/mentions.ts';
export {
  CommandError,
  type Renaming,
  CAST_PARTS,
  GROUND_PARTS,
  type CastChange,
  type CastPart,
  type DocumentCommand,
  type DocumentPath,
  type GroundPart,
  type MindPart,
  type PartChange,
} from './editing/commands/commands.ts';
export { partAt } from './editing/commands/put.ts';
export * from './editing/minds/clip.ts';
export * from './editing/minds/patterns.ts';
export { addPattern, lackedBy, moveFor, strikingMoves } from './editing/minds/pattern-needs.ts';
export * from './editing/minds/fresh-senses.ts';
export type { PatternNeed } from './editing/minds/pattern-parts.ts';
export {
  repertoireOf,
  type FormField,
  type FormValues,
  type SimpleForm,
} from './editing/minds/simple-choices/form.ts';
export * from './editing/minds/simple-choices/simple-choices.ts';
export * from './editing/minds/fresh.ts';
export { formOf, type RowEdit } from './editing/minds/row-places.ts';
export * from './editing/minds/row-kinds.ts';
export * from './editing/minds/rows.ts';
export * from './editing/minds/whole-minds.ts';
export { extractTree, inlineTree } from './editing/minds/subtrees.ts';
export { wordOfField, wordsOfPath } from './editing/commands/path-words.ts';
export { tierNumbers } from './editing/tier-numbers.ts';
export { stepsOfPath } from './model/names/path-text.ts';
export { BUILTINS, missingText, signature, type Builtin } from './expression/builtins.ts';
export type { ExpressionFault } from './expression/parse.ts';
export { statePaths } from './findings/state-paths.ts';
export { exampleAgent, exampleProject } from './model/example-project.ts';
export * from './editing/minds/options.ts';
export { sendAction, type ActionPlace } from './editing/minds/send-action.ts';
export { checkInMind } from './compile/check-in-mind.ts';
export { readInMind } from './compile/read-in-mind.ts';
export type { PartValue } from './expression/readout.ts';
export { wantedTypes, type ExpressionPlace } from './compile/wanted-types.ts';
export {
  explanationLines,
  QuestionError,
  type Question,
  type Statement,
} from './ledger/explain/statement.ts';
export { howItNotices } from './ledger/explain/noticing.ts';
export { whyItMoves } from './ledger/explain/moving.ts';
export { whatEverLedTo, whoTold } from './ledger/explain/ever.ts';
export { whyNotNamed, whyNotSteps } from './ledger/explain/why-not.ts';
export { answer, type Asking } from './ledger/explain/asking.ts';
export type { Target } from './ledger/explain/target.ts';
export { why } from './ledger/explain/why.ts';
