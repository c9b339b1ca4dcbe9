export { type FirstStep, type FirstStepId, firstSteps } from './first-steps';
export { type NextPart, notRemovedYet, withoutTag, worthRecounting } from './next-parts';
export { canBeMeasured, partState, type PartState, removedParts } from './part-state';
export { cellLabel, changeLine, changeWords, evidenceText, type OpWords, uText, valueText } from './change-words';
export { closedAndDamaged, closedBelow, closedWords } from './checks/closed-and-damaged';
export { massChecks } from './checks/mass-checks';
export { type Loss, type LossGroup, lossGroups, sessionLosses } from './checks/session-losses';
export { massGaps, weighedShort, weighedText } from './completeness';
export { boxVolumeM3, envelopeOf, heavierThanSolid, volumeText } from './envelope';
export { partsCsv } from './export/parts-csv';
export { fastenerMass, standardFastenerMass, unlikelyFastenerMass } from './fasteners/fastener-mass';
export { inAllText } from './in-all';
export { CSV_COLUMNS, type CsvHeading, type FoundColumn } from './import/csv-columns';
export { importOps, sortRows, withSubsystems } from './import/import-change';
export { COLUMN_CHOICES, columnKey, columnOfKey, shapeOf } from './import/headings';
export { type SheetHead, type TableHead, TableReader } from './import/table-reader';
export { type Encoding, ENCODING_WORD, ENCODINGS } from './import/open-table';
export {
  type ImportPreview,
  type ImportRow,
  mendKey,
  type ReadOptions,
  readParts,
  type TranslatedValue,
  type UnknownValue,
  unknownValues,
} from './import/read-parts';
export { evidenceForm, evidenceFormHas, evidenceFromForm } from './evidence-form';
export { lastSet } from './last-set';
export { meanwhileFaults, partForm, type PartForm, partFromForm, rebasedForm, tagTaken } from './part-form';
export { blindSets, differences, recountState } from './recount/compare-counts';
export { type AssembliesAs, productVar } from './roll-up/add-up';
export { closureText, type MassClosure } from './roll-up/mass-closure';
export { layoutOf, type Measures, type OwnFigure } from './roll-up/measure';
export {
  BENCH_MEASURES,
  type BenchMeasures,
  benchOwn,
  closureAt,
  groupByPart,
  ownOfParts,
  partsByPlace,
  rankOf,
} from './roll-up/own-figures';
export {
  addedUp,
  belowAt,
  type Own,
  ownAt,
  type OwnRead,
  rollUp,
  type RollUp,
  rollUpAfterEdit,
  type Totals,
  totalsAt,
  totalsOf,
} from './roll-up/roll-up';
export { type CountRange, shown, type Shown, takesFasteners } from './roll-up/shown';
export { blankSet, SET_KIND_WORD, setForm, setFormFields, setFromForm } from './set-form';
export type { Choice, Entry, Question, SetEntry, Understood } from './shorthand/entry';
export { fastenerLine, jointLine, setLineOf } from './shorthand/from-row';
export { parseLine, settle } from './shorthand/parse-line';
export { printLine } from './shorthand/print-line';
export { suggest, type Suggestion, takeSuggestion, wordBook, type WordBook } from './shorthand/suggest';
export { fastenerFields, jointFields, partFields, SET_KINDS, setFields, type SetKind } from './shorthand/to-fields';
export { entriesText, lineChange } from './steps/line-change';
export { precautionsOf } from './steps/precautions';
export { HAND_WORDS, nameWithout, SIDE_WORDS } from './names-alike';
export { isElsewhere } from './steps/elsewhere';
export {
  afterByNumber,
  confirmCarried,
  dropCarried,
  joinWithBefore,
  moveStep,
  removeStep,
  saidOf,
  splitStep,
  stepsOf,
  toggleAfter,
  nextStep,
} from './steps/step-ops';
export { countLeftOut, isPaused, shownS, startClock, tickClock, type WorkClock } from './steps/work-clock';
export { checkCharacter } from './tags/check-character';
export { judgeTag, tagFault } from './tags/judge-tag';
export { LABEL_STOCKS, labelPlace, type LabelStock } from './tags/label-stock';
export { readTag, type Tag, tagText } from './tags/tag';
export { nextFreeTag, nextTagNumber, sheetOf, tagPrefix, tagsOf } from './tags/tag-sheets';
export {
  assembleParts,
  copyParts,
  dissolvePart,
  type Given,
  giveParts,
  goesWith,
  mergeParts,
  mergeSubsystems,
  moveParts,
  moveSubsystem,
  type NamedPlace,
  type Place,
  placesOf,
  removeSubsystem,
  splitPart,
  type TreeChange,
} from './tree';
export { isEmpty, isSameLoad, type TakenLoad, watchLoad } from './weighing/load-watch';
export { countByWeight, type CountSample, LOT_FRACTION, PART_SPREAD_FRACTION, spreadOfSample, withLot } from './weighing/count-by-weight';
export {
  type ElementReading,
  INSTRUMENT_KINDS,
  INSTRUMENT_STATES,
  type InstrumentKind,
  type InstrumentNow,
  type InstrumentReading,
  readingFault,
} from './weighing/instrument-reading';
export {
  type ReadField,
  readingFields,
  readingText,
  takeCount,
  takeElements,
  takeLength,
  type Taken,
  takeReading,
  takeTorque,
  type WeighedLot,
} from './weighing/take-reading';
