import Papa from 'papaparse';
import { defused, inMetric } from '../shared';
import type { CountRange } from '../bench';
import { costBasisText, countingRuleText, rangeText, type Study } from '../record';
import { comparisonGaps, comparisonSentences, plainText } from './sentences';
import type { CompareRow, Comparison } from './compare-vehicles';

const UNIT: Readonly<Partial<Record<CompareRow['measure'], string>>> = { mass: 'kg' };

const cell = (value: number | null, decimals: number): string => (value === null ? '' : String(Number(value.toFixed(decimals))));

const decimalsOf = (measure: CompareRow['measure']): number =>
  (({ mass: 6, cost: 4 }) as Partial<Record<typeof measure, number>>)[measure] ?? 0;

/** An uncertainty has two more places than its figure, so that rounding takes nothing from it. */
const U_DECIMALS = 2;

/** The ends of a count that is a range, as it is read: "186 to 190", "at least 186". */
const rangeCell = (range: CountRange | null): string => (range === null ? '' : (rangeText(range) ?? ''));

/** Columns say what they are: parts with fasteners counted in are parts and fasteners. */
const measureOf = (section: string, row: CompareRow, fastenersIn: boolean): string =>
  section === 'total' && row.measure === 'parts' && fastenersIn ? 'parts and fasteners' : row.measure;

const line = (section: string, row: CompareRow, currency: string, fastenersIn: boolean): readonly string[] => {
  const decimals = decimalsOf(row.measure);
  const unit = row.measure === 'cost' ? currency : (UNIT[row.measure] ?? '');
  return [
    section,
    section === 'total' ? '' : row.label,
    measureOf(section, row, fastenersIn),
    unit,
    cell(row.left, decimals),
    cell(row.right, decimals),
    cell(row.difference, decimals),
    cell(row.ratio, 6),
    ...[row.leftU, row.rightU, row.differenceU].map((u) => cell(u, decimals + U_DECIMALS)),
    cell(row.ratioU, 6 + U_DECIMALS),
    rangeCell(row.leftRange),
    rangeCell(row.rightRange),
    row.leftMark ?? '',
    row.rightMark ?? '',
  ];
};

/**
 * The comparison as CSV for a spreadsheet: what it stands on, the table, the sentences. Text that a spreadsheet would
 * take for a formula is defused with a leading apostrophe.
 */
export const comparisonCsv = (comparison: Comparison, study: Study, subsystemName: string): string => {
  const { left, right, totals, byMaterial, byProcess } = comparison;
  const rows: readonly (readonly string[])[] = [
    ['study', study.title],
    ['subsystem', subsystemName],
    ['counting rule', countingRuleText(study)],
    ['cost basis', costBasisText(study)],
    [],
    [
      'by',
      'of',
      'measure',
      'unit',
      left.vehicle.name,
      right.vehicle.name,
      `${left.vehicle.name} minus ${right.vehicle.name}`,
      `${left.vehicle.name} to ${right.vehicle.name}`,
      `standard uncertainty of ${left.vehicle.name}`,
      `standard uncertainty of ${right.vehicle.name}`,
      'standard uncertainty of the difference',
      'standard uncertainty of the ratio',
      `range of ${left.vehicle.name}`,
      `range of ${right.vehicle.name}`,
      `weakest evidence of ${left.vehicle.name}`,
      `weakest evidence of ${right.vehicle.name}`,
    ],
    ...totals.map((row) => line('total', row, study.currency, study.fastenersIn)),
    ...byMaterial.map((row) => line('material', row, study.currency, study.fastenersIn)),
    ...byProcess.map((row) => line('process', row, study.currency, study.fastenersIn)),
    [],
    ...inMetric(() => comparisonSentences(comparison, study.currency)).map((sentence) => ['in words', plainText(sentence)]),
    ...comparisonGaps(comparison).map((gap) => ['not included', gap]),
  ];
  return Papa.unparse(
    rows.map((row) => row.map(defused)),
    { newline: '\r\n' },
  );
};
