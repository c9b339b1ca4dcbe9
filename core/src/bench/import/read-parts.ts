import { UNPRINTABLE, issue, undefused, type Issue } from '../../shared';
import type { PartFields } from '../../record';
import type { FastenerEntry, JointEntry } from '../shorthand/entry';
import { CSV_COLUMNS, TEXT_COLUMNS, findColumn, type CsvHeading, type FoundColumn } from './csv-columns';
import { openText } from './open-table';
import {
  readEnvelope,
  readFasteners,
  readHand,
  readJoints,
  readMass,
  readMaterial,
  readOpened,
  readPrice,
  readProcess,
  readQuantityCell,
  readDamageFrom,
  readState,
  readDiameter,
  readPlace,
  readRun,
  readThickness,
  type ReadCell,
} from './read-cells';

interface CellFault {
  readonly heading: CsvHeading;
  readonly cell: string;
  readonly message: string;
  /** true where it is of the whole row, and no other text in the cell mends it */
  readonly isOfRow?: true;
}

/** One row of the file as it was understood. */
export interface ImportRow {
  /** line of the file, the heading being line 1 */
  readonly line: number;
  readonly no: string;
  readonly insideOf: string;
  readonly subsystem: string;
  readonly fields: Partial<PartFields>;
  readonly fasteners: readonly FastenerEntry[];
  readonly joints: readonly JointEntry[];
  /** what each cell with a unit or a code was understood as */
  readonly understood: Readonly<Partial<Record<CsvHeading, string>>>;
  readonly faults: readonly CellFault[];
}

export interface ImportPreview {
  readonly rows: readonly ImportRow[];
  /** faults of the file as a whole; with any of them nothing can be loaded */
  readonly issues: readonly Issue[];
  /** headings that are not ours and are not read */
  readonly notRead: readonly string[];
  /** words that were taken for what they were said to mean */
  readonly translated: readonly TranslatedValue[];
}

export const MOST_ROWS = 50_000;

const READERS: Partial<Record<CsvHeading, (cell: string, unit: string | null) => ReadCell<Partial<PartFields>>>> = {
  mass: readMass,
  thickness: readThickness,
  envelope: readEnvelope,
  run_length: readRun,
  run_diameter: readDiameter,
  material: readMaterial,
  made_by: readProcess,
  quantity: readQuantityCell,
  hand: readHand,
  opened: readOpened,
  damage_from: readDamageFrom,
  state: readState,
  place: readPlace,
  price: readPrice,
};

interface Building {
  fields: Partial<PartFields>;
  fasteners: readonly FastenerEntry[];
  joints: readonly JointEntry[];
  understood: Partial<Record<CsvHeading, string>>;
  faults: CellFault[];
  place: { no: string; insideOf: string; subsystem: string };
}

const readText = (
  row: Building,
  heading: CsvHeading,
  cell: string,
  { name, max }: { readonly name: string; readonly max: number },
): void => {
  if (cell.length > max) row.faults.push({ heading, cell, message: `At most ${max} characters; this has ${cell.length}` });
  else row.fields = { ...row.fields, [name]: cell };
};

const readCell = (row: Building, { heading, unit }: FoundColumn, cell: string): void => {
  if (cell === '') return;
  if (UNPRINTABLE.test(cell) || cell.includes('\ufffd')) {
    row.faults.push({ heading, cell, message: 'Holds characters that cannot be read; save the file as UTF-8' });
    return;
  }
  const text = TEXT_COLUMNS.get(heading);
  if (text) return readText(row, heading, cell, text);
  if (heading === 'no') row.place.no = cell;
  else if (heading === 'inside_of') row.place.insideOf = cell;
  else if (heading === 'subsystem') row.place.subsystem = cell;
  else if (heading === 'fasteners') take(row, heading, cell, readFasteners(cell), (value) => (row.fasteners = value));
  else if (heading === 'joints') take(row, heading, cell, readJoints(cell), (value) => (row.joints = value));
  else {
    const read = READERS[heading]?.(cell, unit);
    if (read) take(row, heading, cell, read, (value) => (row.fields = withRead(row.fields, value)));
  }
};

const withRead = (fields: Building['fields'], value: Building['fields']): Building['fields'] => ({
  ...fields,
  ...value,
  ...(value.evidence ? { evidence: { ...fields.evidence, ...value.evidence } } : {}),
});

const take = <T>(row: Building, heading: CsvHeading, cell: string, read: ReadCell<T>, put: (value: T) => void): void => {
  if ('fault' in read) row.faults.push({ heading, cell, message: read.fault });
  else {
    put(read.value);
    row.understood[heading] = read.understood;
  }
};

const readRow = (cells: readonly string[], columns: readonly (FoundColumn | null)[], line: number): ImportRow => {
  const row: Building = {
    fields: {},
    fasteners: [],
    joints: [],
    understood: {},
    faults: [],
    place: { no: '', insideOf: '', subsystem: '' },
  };
  columns.forEach((column, i) => column && readCell(row, column, undefused(cells[i] ?? '').trim()));
  if ((row.fields.name ?? '') === '' && !row.faults.some((f) => f.heading === 'name'))
    row.faults.push({ heading: 'name', cell: '', message: 'The name is missing' });
  if (cells.length > columns.length)
    row.faults.push({
      heading: 'name',
      cell: '',
      message: `The row has ${cells.length} cells, the heading ${columns.length}; is a comma not in quotation marks?`,
      isOfRow: true,
    });
  if (row.fields.opened === 'closed' && !row.fields.closedReason)
    row.faults.push({ heading: 'closed_reason', cell: '', message: 'Say why the part was left closed' });
  const { place, ...rest } = row;
  return { line, ...place, ...rest };
};

const withFault = (row: ImportRow, heading: CsvHeading, cell: string, message: string): ImportRow => ({
  ...row,
  faults: [...row.faults, { heading, cell, message }],
});

/** Adds the faults that only show when all rows are seen: numbers given twice, parents that are missing, rows inside themselves. */
const checkedTogether = (rows: readonly ImportRow[]): readonly ImportRow[] => {
  const byNo = new Map<string, ImportRow>();
  const seenTwice = new Set<string>();
  for (const row of rows) {
    if (row.no === '') continue;
    if (byNo.has(row.no)) seenTwice.add(row.no);
    else byNo.set(row.no, row);
  }
  const loops = (row: ImportRow): boolean => {
    const passed = new Set<string>([row.no]);
    for (let above = byNo.get(row.insideOf); above; above = byNo.get(above.insideOf)) {
      if (above.no === row.no && row.no !== '') return true;
      if (passed.has(above.no)) return false;
      passed.add(above.no);
    }
    return false;
  };
  return rows.map((row) => {
    if (seenTwice.has(row.no)) return withFault(row, 'no', row.no, `“${row.no}” stands on more than one row`);
    if (row.insideOf === '') return row;
    if (!byNo.has(row.insideOf)) return withFault(row, 'inside_of', row.insideOf, `No row has the no “${row.insideOf}”`);
    return loops(row) ? withFault(row, 'inside_of', row.insideOf, 'The row is inside itself by way of others') : row;
  });
};

const nothing = (issues: readonly Issue[]): ImportPreview => ({ rows: [], issues, notRead: [], translated: [] });

const headingIssues = (columns: readonly (FoundColumn | null)[]): readonly Issue[] => {
  const found = columns.flatMap((column) => (column ? [column.heading] : []));
  const twice = found.filter((heading, i) => found.indexOf(heading) !== i);
  return [
    ...(found.includes('name')
      ? []
      : [
          issue(
            'no-name-column',
            `No column is the name of the part. Say above which one holds it, or head it “name”. Known columns: ${CSV_COLUMNS.map((c) => c.heading).join(', ')}`,
          ),
        ]),
    ...twice.map((heading) => issue('column-twice', `Two columns are said to be “${heading}”; keep one`)),
  ];
};

/** Cells that hold a word of a catalogue or of a short list: one that is not known is translated once, for all its rows. */
const CODED: ReadonlySet<CsvHeading> = new Set(['subsystem', 'material', 'made_by', 'hand', 'opened', 'damage_from', 'state']);

/** What was said of a file beside what stands in it. */
export interface ReadOptions {
  /** place of the heading among the rows, from 0 */
  readonly headingRow: number;
  /** what each column holds; null is not read */
  readonly columns: readonly (FoundColumn | null)[];
  /** by column: what a word in it means, the word in lower case */
  readonly values?: Readonly<Partial<Record<CsvHeading, Readonly<Record<string, string>>>>>;
  /** cells put right, by `line heading` */
  readonly mends?: Readonly<Record<string, string>>;
}

/** A word in a coded column that is not known here, and how many rows hold it. */
export interface UnknownValue {
  readonly heading: CsvHeading;
  readonly value: string;
  readonly rows: number;
}

/** A word that was taken for what it was said to mean. */
export interface TranslatedValue extends UnknownValue {
  readonly meaning: string;
}

/** The key under which a mended cell is kept: its line in the file and its heading. */
export const mendKey = (line: number, heading: CsvHeading): string => `${line} ${heading}`;

/** The words of coded columns that are not known, those of most rows first. */
export const unknownValues = (rows: readonly ImportRow[]): readonly UnknownValue[] => {
  const found = new Map<string, UnknownValue>();
  for (const { heading, cell } of rows.flatMap((row) => row.faults)) {
    if (!CODED.has(heading) || cell === '') continue;
    const key = `${heading} ${cell.toLowerCase()}`;
    const before = found.get(key);
    found.set(key, { heading, value: before?.value ?? cell, rows: (before?.rows ?? 0) + 1 });
  }
  return [...found.values()].sort((a, b) => b.rows - a.rows || (a.value < b.value ? -1 : 1));
};

const PROGRESS_ROWS = 2000;

/**
 * Reads the rows of a sheet as parts, with every fault at its cell. Loads nothing.
 *
 * @param rows of the sheet, the heading among them
 * @param options where the heading is, what the columns hold, what words mean, what was put right
 * @param progress told the share read so far, 0…1
 */
export const readTable = (
  rows: readonly (readonly string[])[],
  { headingRow, columns, values = {}, mends = {} }: ReadOptions,
  progress: (share: number) => void = () => undefined,
): ImportPreview => {
  const heading = rows[headingRow] ?? [];
  const body = rows
    .slice(headingRow + 1)
    .map((cells, i) => ({ cells, line: headingRow + i + 2 }))
    .filter(({ cells }) => cells.some((cell) => cell.trim() !== ''));
  if (body.length === 0) return nothing([issue('empty-file', 'The file has no rows')]);
  if (body.length > MOST_ROWS)
    return nothing([issue('too-many-rows', `The file has ${body.length} rows; at most ${MOST_ROWS} are loaded at once. Split it`)]);
  const issues = headingIssues(columns);
  if (issues.length > 0) return nothing(issues);
  // what was put right of a column the file does not have stands behind its own
  const own = new Set(columns.map((column) => column?.heading));
  const behind = [...new Set(Object.keys(mends).map((key) => key.split(' ')[1] as CsvHeading))]
    .filter((added) => !own.has(added))
    .map((added): FoundColumn => ({ heading: added, unit: null }));
  const all = [...columns, ...behind];
  const translated = new Map<string, TranslatedValue>();
  const meaningOf = (heading: CsvHeading, text: string): string => {
    const word = text.trim().toLowerCase();
    const meaning = values[heading]?.[word];
    if (meaning === undefined) return text;
    const key = `${heading} ${word}`;
    const before = translated.get(key);
    translated.set(key, { heading, value: before?.value ?? text.trim(), meaning, rows: (before?.rows ?? 0) + 1 });
    return meaning;
  };
  const meant = (cells: readonly string[], line: number): readonly string[] => {
    const padded = behind.length === 0 || cells.length > columns.length ? cells : all.map((_, i) => cells[i] ?? '');
    return padded.map((cell, i) => {
      const column = all[i];
      if (!column) return cell;
      return meaningOf(column.heading, mends[mendKey(line, column.heading)] ?? cell);
    });
  };
  const read = body.map(({ cells, line }, at) => {
    if (at % PROGRESS_ROWS === 0) progress(at / body.length);
    return readRow(meant(cells, line), cells.length > columns.length ? columns : all, line);
  });
  return {
    rows: checkedTogether(read),
    issues: [],
    notRead: heading.filter((h, i) => (columns[i] ?? null) === null && h.trim() !== ''),
    translated: [...translated.values()],
  };
};

/**
 * Reads a CSV file of parts whose first line is the heading, row by row, with every fault at its cell. Loads nothing.
 *
 * @param text the file; comma, semicolon or tab between cells
 */
export const readParts = (text: string): ImportPreview => {
  const { sheets, issues } = openText(text);
  if (issues.length > 0) return nothing(issues);
  const rows = sheets[0]?.rows ?? [];
  return readTable(rows, { headingRow: 0, columns: (rows[0] ?? []).map(findColumn) });
};
