/** One column of the parts file: the heading, and what it holds, in words. */
export interface CsvColumn {
  readonly heading: string;
  readonly holds: string;
}

/** The documented columns. Only `name` must be there; headings are read without regard to case and spaces. */
export const CSV_COLUMNS = [
  { heading: 'no', holds: 'number or word for the row, so that others can be inside of it' },
  { heading: 'inside_of', holds: 'no of the row this part is inside of; empty: straight under the subsystem' },
  { heading: 'subsystem', holds: 'name of the subsystem; empty: the one chosen for the file' },
  { heading: 'tag', holds: 'tag on the part' },
  { heading: 'name', holds: 'what it is called' },
  { heading: 'function', holds: 'what it does' },
  { heading: 'quantity', holds: 'how many per parent; empty: 1' },
  { heading: 'hand', holds: 'left, right, mirrored or empty' },
  { heading: 'material', holds: 'grade as in the catalogue or one of its words' },
  { heading: 'grade_detail', holds: 'exact grade as marked' },
  { heading: 'made_by', holds: 'process as in the catalogue or one of its words' },
  { heading: 'process_detail', holds: 'hits, cavities, coating …' },
  { heading: 'mass', holds: 'each, with its unit: 41 g, ~1.2 kg, 1.2 kg ?; or head the column mass_g or mass_kg' },
  { heading: 'thickness', holds: 'wall thickness, mm unless said' },
  { heading: 'envelope', holds: 'length x width x height, mm unless said' },
  { heading: 'run_length', holds: 'length of a hose or cable with its unit' },
  { heading: 'run_diameter', holds: 'outer diameter of a hose, tube or cable, mm unless said' },
  { heading: 'location', holds: 'where it sits' },
  { heading: 'markings', holds: 'what is moulded or stamped in' },
  { heading: 'supplier', holds: 'who made it' },
  { heading: 'opened', holds: 'opened, closed or empty' },
  { heading: 'closed_reason', holds: 'why it was left closed' },
  { heading: 'damage', holds: 'what broke in taking it apart' },
  { heading: 'price', holds: 'bought-out price each on the cost basis of the study' },
  { heading: 'fasteners', holds: 'fastener sets in shorthand, parted by ;' },
  { heading: 'joints', holds: 'joint sets in shorthand, parted by ;' },
  { heading: 'notes', holds: 'anything else' },
] as const satisfies readonly CsvColumn[];

export type CsvHeading = (typeof CSV_COLUMNS)[number]['heading'];

/** A column as found in a file: which of ours it is, and the unit its heading states. */
export interface FoundColumn {
  readonly heading: CsvHeading;
  readonly unit: string | null;
}

const tidied = (heading: string): string =>
  heading
    .trim()
    .toLowerCase()
    .replace(/[\s-]+/g, '_');

const isHeading = (text: string): text is CsvHeading => CSV_COLUMNS.some((column) => column.heading === text);

const WITH_UNIT = /^(mass|thickness|envelope|run_length)_?[[(]?(kg|g|lb|oz|mm|cm|m|in)[\])]?$/;

/** Which of our columns a heading names, or null. `mass_g`, `Mass [g]` and `mass (kg)` carry their unit. */
export const findColumn = (heading: string): FoundColumn | null => {
  const text = tidied(heading);
  if (isHeading(text)) return { heading: text, unit: null };
  const [, name, unit] = WITH_UNIT.exec(text) ?? [];
  return name !== undefined && unit !== undefined && isHeading(name) ? { heading: name, unit } : null;
};
