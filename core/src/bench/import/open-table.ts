import { strFromU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import { counted, issue, type Issue } from '../../shared';

/** How the characters of a text file are written. */
export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];
export const ENCODING_WORD: Readonly<Record<Encoding, string>> = {
  'utf-8': 'UTF-8',
  'utf-16le': 'UTF-16, low byte first',
  'utf-16be': 'UTF-16, high byte first',
  'windows-1252': 'Latin-1 (Windows-1252)',
};

/** One sheet of a file: its rows of cells, as text. */
export interface Sheet {
  readonly name: string;
  readonly rows: readonly (readonly string[])[];
}

/** A file of rows: a text file has one sheet and its encoding, a workbook has sheets. With issues it has none. */
export interface OpenedTable {
  readonly sheets: readonly Sheet[];
  readonly encoding: Encoding | null;
  readonly issues: readonly Issue[];
  /** what was not taken as it stands in the file */
  readonly notes: readonly string[];
}

const refused = (code: string, message: string): OpenedTable => ({ sheets: [], encoding: null, issues: [issue(code, message)], notes: [] });

const tooLarge = (bytes: number, most: number, does: string): OpenedTable =>
  refused('too-large', `The file ${does} ${Math.ceil(bytes / 1e6)} MB; at most ${most / 1e6} MB are read. Split it`);

const begins = (bytes: Uint8Array, ...head: readonly number[]): boolean => head.every((byte, i) => bytes[i] === byte);

/** Of what is written in two bytes, every other byte of plain text is 0. */
const twoBytes = (bytes: Uint8Array): Encoding | null => {
  const zeros = [0, 0];
  const seen = Math.min(bytes.length, 4096);
  for (let i = 0; i < seen; i += 1) if (bytes[i] === 0) zeros[i % 2]! += 1;
  if (zeros[1]! > seen / 5) return 'utf-16le';
  return zeros[0]! > seen / 5 ? 'utf-16be' : null;
};

/**
 * The encoding of a text file: by its mark, by the zeros that two bytes a character leave, by whether it is well-formed UTF-8; else that of
 * western Windows, of which Latin-1 is a part.
 * @source The Unicode Standard, 23.8 (byte order mark); WHATWG Encoding Standard, 4.2 (latin1 is read as windows-1252)
 */
export const encodingOf = (bytes: Uint8Array): Encoding => {
  if (begins(bytes, 0xef, 0xbb, 0xbf)) return 'utf-8';
  if (begins(bytes, 0xff, 0xfe)) return 'utf-16le';
  if (begins(bytes, 0xfe, 0xff)) return 'utf-16be';
  const two = twoBytes(bytes);
  if (two !== null) return two;
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
};

/** Cells parted by comma, semicolon or tab. */
export const openText = (text: string): OpenedTable => {
  const parsed = Papa.parse<string[]>(text.replace(/^\ufeff/, ''), { skipEmptyLines: false, delimitersToGuess: [',', ';', '\t'] });
  const quotes = parsed.errors.find((error) => error.type === 'Quotes');
  return quotes
    ? refused(
        'quotes',
        `A quotation mark is not closed or stands in the wrong place near row ${(quotes.row ?? 0) + 1}; mend it and choose the file again`,
      )
    : { sheets: [{ name: '', rows: parsed.data }], encoding: null, issues: [], notes: [] };
};

/** Float noise of a stored number, such as 0.30000000000000004, is not what was typed. */
const DIGITS = 15;

/** A cell of a workbook as people read it. A formula stands for its value. */
const cellText = (cell: unknown): string => {
  if (cell === null || cell === undefined) return '';
  if (cell instanceof Date) return cell.toISOString().replace(/T00:00:00\.000Z$/, '');
  if (typeof cell === 'number') return String(Number(cell.toPrecision(DIGITS)));
  if (typeof cell === 'boolean') return cell ? 'yes' : 'no';
  return typeof cell === 'string' ? cell : '';
};

const MOST_WORKBOOK_BYTES = 20_000_000;
const MOST_TEXT_BYTES = 100_000_000;
/** A workbook of few bytes may unpack to more than there is memory for. */
const MOST_UNPACKED_BYTES = 300_000_000;

/** What a packed file says it unpacks to, without unpacking it. */
const unpackedBytes = (bytes: Uint8Array): number => {
  let sum = 0;
  unzipSync(bytes, {
    filter: ({ originalSize }) => {
      sum += originalSize;
      return false;
    },
  });
  return sum;
};

/** A cell whose formula failed. @source ECMA-376, part 1, 18.18.11: t="e" */
const ERROR_CELL = /<(?:\w+:)?c\b[^>]*\bt="e"[^>]*>/g;
const CELL_NAME = /\br="([A-Z]+\d+)"/;
const MOST_NAMED = 5;

/** What is said of cells that hold an error such as #N/A: they are read as empty, which must not go unsaid. */
const errorNotes = (bytes: Uint8Array): readonly string[] => {
  const sheets = unzipSync(bytes, { filter: ({ name }) => name.startsWith('xl/worksheets/') && name.endsWith('.xml') });
  const found = Object.values(sheets).flatMap((sheet) => strFromU8(sheet, true).match(ERROR_CELL) ?? []);
  if (found.length === 0) return [];
  const names = found.slice(0, MOST_NAMED).map((cell) => CELL_NAME.exec(cell)?.[1] ?? '?');
  const more = found.length > MOST_NAMED ? ' …' : '';
  return [`${counted(found.length, 'cell')} with an error such as #N/A read as empty: ${names.join(', ')}${more}`];
};

const openWorkbook = async (bytes: Uint8Array): Promise<OpenedTable> => {
  const { default: readWorkbook } = await import('read-excel-file/universal');
  try {
    const unpacked = unpackedBytes(bytes);
    if (unpacked > MOST_UNPACKED_BYTES) return tooLarge(unpacked, MOST_UNPACKED_BYTES, 'unpacks to');
    const sheets = await readWorkbook(bytes.slice().buffer, { trim: false });
    const read = sheets.map(({ sheet, data }) => ({ name: sheet, rows: data.map((row) => row.map(cellText)) }));
    return { sheets: read.filter(({ rows }) => rows.length > 0), encoding: null, issues: [], notes: errorNotes(bytes) };
  } catch {
    return refused('workbook', 'The workbook cannot be read: it is damaged, locked with a password, or no .xlsx. Save it anew, or as CSV');
  }
};

/**
 * Opens a file of rows: text of any of the encodings, parted by comma, semicolon or tab, or a workbook (.xlsx).
 *
 * @param bytes the whole file
 * @param encoding that of a text file; null: as it is recognised
 */
export const openTable = async (bytes: Uint8Array, encoding: Encoding | null = null): Promise<OpenedTable> => {
  if (begins(bytes, 0xd0, 0xcf, 0x11, 0xe0))
    return refused('old-workbook', 'This is a workbook of the old kind (.xls) or one with a password; save it as .xlsx or CSV');
  if (begins(bytes, 0x50, 0x4b, 0x03, 0x04))
    return bytes.length > MOST_WORKBOOK_BYTES ? tooLarge(bytes.length, MOST_WORKBOOK_BYTES, 'has') : openWorkbook(bytes);
  if (bytes.length > MOST_TEXT_BYTES) return tooLarge(bytes.length, MOST_TEXT_BYTES, 'has');
  const written = encoding ?? encodingOf(bytes);
  const opened = openText(new TextDecoder(written).decode(bytes));
  return { ...opened, encoding: written };
};
