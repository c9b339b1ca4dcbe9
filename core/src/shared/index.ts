export { MOST_SCAN_BYTES, STANDARD_GRAVITY } from './constants';
export { check, type Checked, finite, isUuid, oneOf, requiredText, shape, text, UNPRINTABLE, uuid, whole } from './contract';
export { dayNumber, dayText, isDay, isoDay, weekdayOf } from './days';
export { betaQuantile, fDistribution, lnGamma, normalCdf, studentCdf, studentQuantile } from './distributions';
export { EVIDENCE_MARKS, EVIDENCE_WORD, evidenceAt, type EvidenceMark, evidenceRank } from './evidence';
export { type FieldShape, type FieldValue, printField, readField, unitShape } from './field-text';
export {
  ABSENT,
  chanceText,
  counted,
  decimalsFor,
  fixed,
  millimetres,
  percentWithU,
  plusMinus,
  riskText,
  signed,
  threeDigits,
  withU,
} from './format';
export { issue, type Issue } from './issue';
export { type Material, MATERIAL_FAMILIES, materialById, type MaterialFamily, MATERIALS } from './materials';
export { basisDifferences, type CostBasis, type Money } from './money';
export { pictureFile } from './picture-file';
export { atMass, type ByMass, type Process, processById, PROCESSES } from './processes';
export { NUMBER_TEXT, readNumber, type TypedNumber } from './read-number';
export {
  asShown,
  expandedIn,
  gramsText,
  inMetric,
  inUnit,
  lengthFixed,
  lengthNumber,
  lengthText,
  massText,
  massWithU,
  READ_IN,
  readAs,
  showUnits,
  type ShownUnit,
  UNIT_SYSTEMS,
  unitsShown,
  type UnitSystem,
  unitWord,
} from './shown-units';
export { defused, undefused } from './spreadsheet-text';
export { type Stage, STAGE_WORD, STAGES } from './stages';
export { tableCsv } from './table-csv';
export { readQuantity } from './typed-quantity';
export { COVERAGE_FACTOR, ESTIMATE_RELATIVE_U, expandedU, resolutionU, standardU } from './uncertainty';
export { isLengthUnit, LENGTH_UNITS, MASS_UNITS, TORQUE_UNITS, toSi, type Unit, VOLUME_UNITS } from './units';
