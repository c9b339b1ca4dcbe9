import { KINDS, type Field, type PartFields } from '../../record';

/** One column of the parts file: the heading, and what it holds, in words. */
interface CsvColumn {
  readonly heading: string;
  readonly holds: string;
}

const PART_FIELDS = KINDS.part.fields;
type PartFieldName = keyof typeof PART_FIELDS;
type HeadingOf<F> = F extends { readonly column: { readonly heading: infer H extends string } } ? H : never;
/** Columns of fields of the part, as its declaration names them. */
type FieldHeading = HeadingOf<(typeof PART_FIELDS)[PartFieldName]>;

/** Where a row stands in the file, and the sets on it: what is no field of the part. */
const PLACES = [
  { heading: 'no', holds: 'number or word for the row, so that others can be inside of it' },
  { heading: 'inside_of', holds: 'no of the row this part is inside of; empty: straight under the subsystem' },
  { heading: 'subsystem', holds: 'name of the subsystem; empty: the one chosen for the file' },
] as const;
const SETS = [
  { heading: 'fasteners', holds: 'fastener sets in shorthand, parted by ;' },
  { heading: 'joints', holds: 'joint sets in shorthand, parted by ;' },
] as const;

export type CsvHeading = FieldHeading | (typeof PLACES | typeof SETS)[number]['heading'];

/** Fields of the part with a column, in the order of the file. */
const COLUMN_FIELDS = (Object.entries(PART_FIELDS) as readonly (readonly [PartFieldName, Field])[]).flatMap(([name, field]) =>
  field.column ? [{ name, field, heading: field.column.heading as FieldHeading, holds: field.column.holds }] : [],
);

/** The documented columns. Only `name` must be there; headings are read without regard to case and spaces. */
export const CSV_COLUMNS: readonly (CsvColumn & { readonly heading: CsvHeading })[] = [
  ...PLACES,
  ...COLUMN_FIELDS.map(({ heading, holds }) => ({ heading, holds })),
  ...SETS,
];

/** The columns that hold text as it is, with the field and the most characters it takes. */
export const TEXT_COLUMNS: ReadonlyMap<CsvHeading, { readonly name: TextFieldName; readonly max: number }> = new Map(
  COLUMN_FIELDS.flatMap(({ name, field, heading }) =>
    field.type === 'text' ? [[heading, { name: name as TextFieldName, max: field.max }] as const] : [],
  ),
);
type TextFieldName = { [N in PartFieldName]: (typeof PART_FIELDS)[N] extends { readonly type: 'text' } ? N : never }[PartFieldName] &
  keyof PartFields;

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
