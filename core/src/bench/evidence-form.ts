import {
  LENGTH_UNITS,
  MASS_UNITS,
  expandedU,
  issue,
  readQuantity,
  standardU,
  type Checked,
  type EvidenceMark,
  type Issue,
  READ_IN,
  readAs,
  unitWord,
} from '../shared';
import {
  countRange,
  evidence,
  evidenceFor,
  type FastenerSet,
  type JointSet,
  type Evidence,
  type KnowingEntity,
  type Part,
} from '../record';

/** How a value is known, as a form shows and takes it. */
export interface EvidenceForm {
  readonly mark: EvidenceMark;
  /** expanded uncertainty, k = 2, with its unit: "2 g", "0.1 mm"; empty: not stated */
  readonly u: string;
  /** "2-3", "20+"; empty: no range */
  readonly range: string;
  readonly instrument: string;
  readonly source: string;
}

type Row = Part | FastenerSet | JointSet;

const isCount = (field: string): boolean => field === 'quantity' || field === 'count';
const isMass = (field: string): boolean => field === 'massEachKg';
const isLength = (field: string): boolean => field.endsWith('M');

/** What can be said of a field beside its mark. */
export const evidenceFormHas = (field: string): { readonly u: boolean; readonly range: boolean } => ({
  u: isMass(field) || isLength(field),
  range: isCount(field),
});

const uText = (field: string, u: number | null): string => {
  if (u === null) return '';
  const expanded = expandedU(u);
  const [shown, si] = [isMass(field) ? READ_IN.g : READ_IN.mm, expanded];
  return `${Number(readAs(shown, si).toPrecision(4))} ${unitWord(shown.unit)}`;
};

const rangeOf = ({ low, high }: Evidence): string => (low === null ? '' : high === null ? `${low}+` : `${low}-${high}`);

/** How a field is known, as texts to edit; “to be confirmed” where nothing is said. */
export const evidenceForm = (entity: KnowingEntity, row: Row, field: string): EvidenceForm => {
  const said = evidenceFor(entity, row, field) ?? evidence('?');
  return { mark: said.mark, u: uText(field, said.u), range: rangeOf(said), instrument: said.instrument, source: said.source };
};

const readU = (field: string, text: string, issues: Issue[]): number | null => {
  if (text.trim() === '') return null;
  const read = readQuantity(text.replace('±', ''), isMass(field) ? MASS_UNITS : LENGTH_UNITS);
  if (read.kind === 'quantity' && read.quantity.si > 0) return standardU(read.quantity.si);
  issues.push(issue('u', `“${text}” is no uncertainty; give it with its unit: ${isMass(field) ? '2 g' : '0.1 mm'}`, 'u'));
  return null;
};

const RANGE = /^(\d{1,7})\s*(?:-|–|to)\s*(\d{1,7})$|^(\d{1,7})\s*\+$/;

const readRange = (text: string, issues: Issue[]): Pick<Evidence, 'low' | 'high'> => {
  if (text.trim() === '') return { low: null, high: null };
  const [, low, high, least] = RANGE.exec(text.trim()) ?? [];
  if (least !== undefined) return { low: Number(least), high: null };
  if (low !== undefined && high !== undefined && Number(low) < Number(high)) return { low: Number(low), high: Number(high) };
  issues.push(issue('range', `“${text}” is no range; write 2-3, or 20+ for at least 20`, 'range'));
  return { low: null, high: null };
};

/** The fields of an edit that says how a value is known. The value itself stays. */
export const evidenceFromForm = (form: EvidenceForm, row: Row, field: string): Checked<object> => {
  const issues: Issue[] = [];
  const u = evidenceFormHas(field).u ? readU(field, form.u, issues) : null;
  const range = evidenceFormHas(field).range ? readRange(form.range, issues) : { low: null, high: null };
  if (isMass(field) && form.u.trim() === '') issues.push(issue('u', 'A mass needs its uncertainty, such as 2 g', 'u'));
  const before = row.evidence[field] ?? null;
  const said = evidence(form.mark, {
    ...range,
    u,
    typed: before?.typed ?? null,
    instrument: form.instrument.trim(),
    source: form.source.trim(),
  });
  const value = (row as unknown as Readonly<Record<string, number>>)[field] ?? 0;
  const [low, high] = countRange(value, said);
  if (isCount(field) && !(value >= low && value <= high))
    issues.push(issue('range', `The count ${value} lies outside this range; change the count first`, 'range'));
  if (issues.length > 0) return { ok: false, issues };
  return { ok: true, value: { evidence: { [field]: said } } };
};
