import { CSV_COLUMNS, findColumn, type CsvHeading, type FoundColumn } from './csv-columns';

/** Units in which a column of bare numbers may be. */
const UNITS: Partial<Record<CsvHeading, readonly string[]>> = {
  mass: ['g', 'kg', 'lb', 'oz'],
  thickness: ['mm', 'cm', 'in'],
  envelope: ['mm', 'cm', 'm', 'in'],
  run_length: ['mm', 'cm', 'm', 'in'],
};

/** What columns are usually headed in English, German, French and Italian. Common practice, no source. */
const USUAL: Partial<Record<CsvHeading, RegExp>> = {
  no: /^(?:no\.?|nr\.?|pos\.?|position|item|item no\.?|n°)$/,
  inside_of: /^(?:parent|parent item|part of|belongs to|übergeordnet|gehört zu|père|padre)$/,
  subsystem: /^(?:system|module group|baugruppe|sous-système|sottosistema)$/,
  tag: /^(?:label|etikett|étiquette|etichetta)$/,
  name: /^(?:part|part name|description|designation|benennung|bezeichnung|teil|teilename|désignation|pièce|denominazione|pezzo)$/,
  quantity: /^(?:qty\.?|count|pcs\.?|pieces|off|anzahl|menge|stück|stk\.?|quantité|qté|quantità|n\. ?pezzi)$/,
  material: /^(?:grade|werkstoff|matériau|matière|materiale)$/,
  made_by: /^(?:process|manufacturing process|verfahren|fertigung|fertigungsverfahren|procédé|processo)$/,
  mass: /^(?:weight|mass each|weight each|part weight|gewicht|einzelgewicht|masse|poids|peso|massa)$/,
  thickness: /^(?:wall|wall thickness|gauge|wandstärke|wanddicke|blechdicke|dicke|épaisseur|spessore)$/,
  envelope: /^(?:size|dimensions?|l ?x ?w ?x ?h|abmessung(?:en)?|maße|encombrement|ingombro)$/,
  supplier: /^(?:maker|vendor|lieferant|hersteller|fournisseur|fornitore)$/,
  location: /^(?:where|ort|lage|einbauort|emplacement|posizione)$/,
  markings: /^(?:marking|kennzeichnung|prägung|marquage|marcatura)$/,
  price: /^(?:cost|unit price|preis|stückpreis|prix|prezzo)$/,
  damage: /^(?:schaden|beschädigung|dommage|danno)$/,
  notes: /^(?:note|remarks?|comments?|bemerkung(?:en)?|anmerkung(?:en)?|remarques?|osservazioni)$/,
};

const IN_BRACKETS = /^(.*?)\s*[[(]\s*(kg|g|lb|oz|mm|cm|m|in)\s*[\])]$/;

/** What a heading most likely names: one of our columns, or a usual word for it, with its unit in brackets. */
export const suggestColumn = (heading: string): FoundColumn | null => {
  const own = findColumn(heading);
  if (own) return own;
  const text = heading
    .trim()
    .toLowerCase()
    .replace(/[\s_]+/g, ' ');
  const [, plain = text, unit = null] = IN_BRACKETS.exec(text) ?? [];
  const found = (Object.entries(USUAL) as [CsvHeading, RegExp][]).find(([, words]) => words.test(plain));
  if (!found) return null;
  return { heading: found[0], unit: unit !== null && UNITS[found[0]]?.includes(unit) ? unit : null };
};

/** Columns as they are suggested for headings; of two for one column the first stands. */
export const suggestColumns = (headings: readonly string[]): readonly (FoundColumn | null)[] => {
  const taken = new Set<CsvHeading>();
  return headings.map((heading) => {
    const found = suggestColumn(heading);
    if (found === null || taken.has(found.heading)) return null;
    taken.add(found.heading);
    return found;
  });
};

/** The rows looked through for the heading. */
const LOOKED_THROUGH = 20;

const filled = (row: readonly string[]): number => row.filter((cell) => cell.trim() !== '').length;
const known = (row: readonly string[]): number => row.filter((cell) => suggestColumn(cell) !== null).length;

/** The row that is most likely the heading: that with most columns known here, and among those with as many the first with most cells. */
export const guessHeading = (rows: readonly (readonly string[])[]): number => {
  let best = 0;
  const rank = (at: number): number => known(rows[at] ?? []) * 1000 + filled(rows[at] ?? []);
  for (let at = 1; at < Math.min(LOOKED_THROUGH, rows.length); at += 1) if (rank(at) > rank(best)) best = at;
  return best;
};

/**
 * The headings as they stand in a row. Where the row above it heads several of them together, as merged cells do, it stands before each:
 * “Mass” above “each [g]” and “in all [g]” gives “Mass each [g]” and “Mass in all [g]”.
 */
export const headingsOf = (rows: readonly (readonly string[])[], at: number): readonly string[] => {
  const row = (rows[at] ?? []).map((cell) => cell.trim());
  const above = (rows[at - 1] ?? []).map((cell) => cell.trim());
  // a title over the table stands alone in its row
  if (at === 0 || filled(above) < 2) return row;
  let over = '';
  return row.map((heading, i) => {
    over = above[i] !== undefined && above[i] !== '' ? above[i] : over;
    if (heading === '') return above[i] ?? '';
    return over === '' || suggestColumn(heading) !== null ? heading : `${over} ${heading}`;
  });
};

/** Headings alike, whatever their case and spaces: what is remembered of one file holds for the next of that shape. */
export const shapeOf = (headings: readonly string[]): string =>
  headings.map((heading) => heading.trim().toLowerCase().replace(/\s+/g, ' ')).join('\t');

/** A column as one word, and back: `mass g`. */
export const columnKey = (column: FoundColumn | null): string => (column === null ? '' : `${column.heading} ${column.unit ?? ''}`.trim());
/** The column a key of {@link COLUMN_CHOICES} stands for; null for the empty key, which leaves a column out. */
export const columnOfKey = (key: string): FoundColumn | null => {
  const [heading = '', unit = null] = key.split(' ');
  const found = CSV_COLUMNS.find((column) => column.heading === heading);
  return found ? { heading: found.heading, unit } : null;
};

/** Every column a heading may be said to be, with its unit where its numbers have none. */
export const COLUMN_CHOICES: readonly { readonly key: string; readonly word: string }[] = CSV_COLUMNS.flatMap(({ heading }) => {
  const word = heading.replaceAll('_', ' ');
  return [
    { key: heading, word },
    ...(UNITS[heading] ?? []).map((unit) => ({ key: `${heading} ${unit}`, word: `${word}, numbers in ${unit}` })),
  ];
});
