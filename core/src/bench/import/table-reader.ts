import { suggestColumns, guessHeading, headingsOf } from './headings';
import type { FoundColumn } from './csv-columns';
import { openTable, type Encoding, type Sheet } from './open-table';
import { readTable, type ImportPreview, type ReadOptions } from './read-parts';
import type { Issue } from '../../shared';

/** A sheet before its rows are read: where its heading is taken to be, and what stands under each. */
export interface SheetHead {
  readonly name: string;
  /** rows in it, the heading among them */
  readonly rows: number;
  readonly headingRow: number;
  readonly headings: readonly string[];
  /** [column] the first cells under it that are not empty */
  readonly samples: readonly (readonly string[])[];
  readonly columns: readonly (FoundColumn | null)[];
}

export interface TableHead {
  readonly sheets: readonly SheetHead[];
  readonly encoding: Encoding | null;
  readonly issues: readonly Issue[];
  /** what was not taken as it stands in the file */
  readonly notes: readonly string[];
}

const SAMPLES = 3;
/** Rows under the heading looked through for samples. */
const SAMPLED_ROWS = 200;

/** A file held open, so that it is read again as often as something is said of it. */
export class TableReader {
  private sheets: readonly Sheet[] = [];

  async open(bytes: Uint8Array, encoding: Encoding | null): Promise<TableHead> {
    const opened = await openTable(bytes, encoding);
    this.sheets = opened.sheets;
    return {
      sheets: opened.sheets.map((_, at) => this.head(at, null)),
      encoding: opened.encoding,
      issues: opened.issues,
      notes: opened.notes,
    };
  }

  /** @param headingRow null: where it most likely is */
  head(at: number, headingRow: number | null): SheetHead {
    const { name, rows } = this.sheets[at] ?? { name: '', rows: [] };
    const heading = headingRow ?? guessHeading(rows);
    const headings = headingsOf(rows, heading);
    const below = rows.slice(heading + 1, heading + 1 + SAMPLED_ROWS);
    const samples = headings.map((_, i) =>
      below
        .map((row) => (row[i] ?? '').trim())
        .filter((cell) => cell !== '')
        .slice(0, SAMPLES),
    );
    return { name, rows: rows.length, headingRow: heading, headings, samples, columns: suggestColumns(headings) };
  }

  read(at: number, options: ReadOptions, progress?: (share: number) => void): ImportPreview {
    return readTable(this.sheets[at]?.rows ?? [], options, progress);
  }
}
