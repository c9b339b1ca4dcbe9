import Papa from 'papaparse';
import { defused } from './spreadsheet-text';

/**
 * A table as CSV for a spreadsheet: one line of headings, then the rows. What is not known is an empty cell. Text that a spreadsheet would
 * take for a formula is defused with a leading apostrophe; numbers are written plainly, with a point.
 *
 * @param heads [column] headings, with their unit
 * @param rows [row][column] texts and numbers
 * @example tableCsv(['Part', 'Mass, kg'], [['=door', 1.5], ['hinge', null]]) // => "Part,\"Mass, kg\"\n'=door,1.5\nhinge,\n"
 */
export const tableCsv = (heads: readonly string[], rows: readonly (readonly (string | number | null)[])[]): string => {
  const cell = (value: string | number | null): string =>
    value === null ? '' : typeof value === 'number' ? String(value) : defused(value);
  return `${Papa.unparse([[...heads], ...rows.map((row) => row.map(cell))], { newline: '\n' })}\n`;
};
