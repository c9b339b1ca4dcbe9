import {
  check,
  issue,
  millimetres,
  type Checked,
  type EvidenceMark,
  type Issue,
  lengthNumber,
  lengthText,
  unitsShown,
  unitWord,
} from '../shared';
import {
  schemaOf,
  fieldOfCell,
  massSaid,
  rowFaults,
  type Evidence,
  type EvidenceOf,
  type NameOf,
  type Part,
  type PartFields,
  type Weighed,
} from '../record';
import { valueText } from './change-words';
import {
  readDiameter,
  readEnvelope,
  readMass,
  readPlace,
  readPrice,
  readQuantityCell,
  readRun,
  readThickness,
  type ReadCell,
} from './import/read-cells';
import { countText } from './shorthand/how-known';
import { massEachText } from './shorthand/from-row';

/** Every field of a part as text, as a form shows and takes it. */
export interface PartForm {
  readonly name: string;
  readonly tag: string;
  readonly function: string;
  readonly quantity: string;
  readonly hand: string;
  readonly state: string | null;
  readonly materialId: string | null;
  readonly materialDetail: string;
  readonly processId: string | null;
  readonly processDetail: string;
  /** mass each with its unit, as in shorthand */
  readonly mass: string;
  /** how the mass is known; null takes it from the mass as typed */
  readonly massEvidence: string | null;
  readonly thickness: string;
  readonly envelope: string;
  readonly runLength: string;
  readonly runDiameter: string;
  /** x y z on the vehicle, mm */
  readonly place: string;
  readonly location: string;
  readonly markings: string;
  readonly supplier: string;
  readonly opened: string | null;
  readonly closedReason: string;
  readonly damage: string;
  readonly notes: string;
  readonly price: string;
  readonly priceCurrency: string;
  readonly priceYear: string;
  readonly priceVolume: string;
  readonly priceRegion: string;
}

/** What a price is taken to stand on when nothing else is said. */
interface PriceBasis {
  readonly currency: string;
  readonly priceYear: number;
  readonly volumePerYear: number;
  readonly region: string;
}

const numeral = (metres: number | null): string => (metres === null ? '' : String(lengthNumber(metres)));
const mm = (metres: number | null): string => (metres === null ? '' : String(millimetres(metres)));
/** The unit of a length typed without one; null is the millimetre of the shorthand. */
const bareLength = (): string | null => (unitsShown() === 'metric' ? null : unitWord('mm'));

/** The fields of a part as texts to edit, quantities with their units, money in the currency of the basis. */
export const partForm = (part: Part, basis: PriceBasis): PartForm => ({
  name: part.name,
  tag: part.tag,
  function: part.function,
  quantity: countText('part', 'quantity', part.quantity, part.evidence),
  hand: part.hand,
  materialId: part.materialId,
  materialDetail: part.materialDetail,
  processId: part.processId,
  processDetail: part.processDetail,
  mass: massEachText(part),
  massEvidence: massSaid(part)?.mark ?? null,
  thickness: numeral(part.wallThicknessM),
  envelope: part.lengthM === null ? '' : [part.lengthM, part.widthM, part.heightM].map(numeral).join('x'),
  runLength: part.runLengthM === null ? '' : lengthText(part.runLengthM),
  runDiameter: numeral(part.runDiameterM),
  place: part.xM === null ? '' : [part.xM, part.yM, part.zM].map(mm).join(' '),
  location: part.location,
  markings: part.markings,
  supplier: part.supplier,
  state: part.state,
  opened: part.opened,
  closedReason: part.closedReason,
  damage: part.damage,
  notes: part.notes,
  price: part.boughtPrice ?? '',
  priceCurrency: part.boughtCurrency ?? basis.currency,
  priceYear: String(part.boughtPriceYear ?? basis.priceYear),
  priceVolume: String(part.boughtVolumePerYear ?? basis.volumePerYear),
  priceRegion: part.boughtRegion ?? basis.region,
});

const whole = (text: string): number => (/^\d{1,9}$/.test(text.trim()) ? Number(text.trim()) : Number.NaN);

const read = <T extends object>(
  text: string,
  field: keyof PartForm,
  reader: (cell: string) => ReadCell<T>,
  absent: T,
  issues: Issue[],
): T => {
  if (text.trim() === '') return absent;
  const cell = reader(text.trim());
  if (!('fault' in cell)) return cell.value;
  issues.push(issue('not-read', cell.fault, field));
  return absent;
};

const NO_MASS: Weighed = { massEachKg: null, evidence: {} };
const NO_ENVELOPE: Pick<PartFields, 'lengthM' | 'widthM' | 'heightM' | 'evidence'> = {
  lengthM: null,
  widthM: null,
  heightM: null,
  evidence: {},
};
const NO_PRICE = { boughtPrice: null, boughtCurrency: null, boughtPriceYear: null, boughtVolumePerYear: null, boughtRegion: null };

/** The form's field that shows each field of the record, where the names differ. */
const SHOWN_AT: Readonly<Record<string, keyof PartForm>> = {
  massEachKg: 'mass',
  wallThicknessM: 'thickness',
  lengthM: 'envelope',
  widthM: 'envelope',
  heightM: 'envelope',
  runLengthM: 'runLength',
  runDiameterM: 'runDiameter',
  xM: 'place',
  yM: 'place',
  zM: 'place',
  boughtPrice: 'price',
  boughtCurrency: 'priceCurrency',
  boughtPriceYear: 'priceYear',
  boughtVolumePerYear: 'priceVolume',
  boughtRegion: 'priceRegion',
};

/** The mass a form stands for, with its evidence. */
const massOf = (form: PartForm, part: Part, issues: Issue[]): { readonly massEachKg: number | null; readonly said: Evidence | null } => {
  // untouched text keeps the figures as they are: what was weighed in all, or given another uncertainty, stays so
  const untouched = form.mass.trim() === massEachText(part);
  const mass: Weighed = untouched ? part : read(form.mass, 'mass', (cell) => readMass(cell, null), NO_MASS, issues);
  const [said, before] = [massSaid(mass), massSaid(part)];
  if (said === null) return { massEachKg: null, said: null };
  const chosen = form.massEvidence !== (before?.mark ?? null) || untouched ? form.massEvidence : said.mark;
  // who weighed it before, and with what, is of the figure before
  return { massEachKg: mass.massEachKg, said: { ...said, mark: (chosen ?? said.mark) as EvidenceMark } };
};

/** What the form's texts of one value come to: the value as it is while its text is not touched, else what was read. */
type ReadValue = (
  field: keyof PartForm,
  of: keyof PartFields,
  reader: (cell: string) => ReadCell<Partial<PartFields>>,
  absent: Partial<PartFields>,
) => void;

const withValues = (form: PartForm, part: Part, issues: Issue[]): Partial<PartFields> => {
  const shownNow = partForm(part, { currency: '', priceYear: 0, volumePerYear: 0, region: '' });
  const { massEachKg, said } = massOf(form, part, issues);
  const { massEachKg: _of, ...others } = part.evidence;
  let fields: Partial<PartFields> = { massEachKg };
  let evidence: EvidenceOf = said === null ? others : { ...others, massEachKg: said };
  const take: ReadValue = (field, of, reader, absent) => {
    const text = form[field] ?? '';
    if (text.trim() === shownNow[field]) return;
    if (text.trim() === '' && field === 'quantity') issues.push(issue('not-read', 'Quantity must not be empty; one is 1', field));
    const value = read(text, field, reader, absent, issues);
    const { [of]: _before, ...others } = evidence;
    evidence = { ...others, ...value.evidence };
    fields = { ...fields, ...value };
  };
  take('quantity', 'quantity', readQuantityCell, { quantity: part.quantity });
  take('thickness', 'wallThicknessM', (cell) => readThickness(cell, bareLength()), { wallThicknessM: null });
  take('envelope', 'lengthM', (cell) => readEnvelope(cell, bareLength()), NO_ENVELOPE);
  take('runLength', 'runLengthM', (cell) => readRun(cell, null), { runLengthM: null });
  take('runDiameter', 'runDiameterM', (cell) => readDiameter(cell, bareLength()), { runDiameterM: null });
  take('place', 'xM', readPlace, { xM: null, yM: null, zM: null });
  return { ...fields, evidence };
};

/**
 * The fields a filled-in form stands for, checked by the same rules as everything else; faults name the form's fields.
 *
 * @param form the form as filled in
 * @param part the part it was opened on
 */
export const partFromForm = (form: PartForm, part: Part): Checked<PartFields> => {
  const issues: Issue[] = [];
  const { id: _id, version: _version, ...before } = part;
  const price = read(form.price, 'price', readPrice, { boughtPrice: null as string | null }, issues);
  const fields = {
    ...before,
    name: form.name.trim(),
    tag: form.tag.trim(),
    function: form.function.trim(),
    hand: form.hand,
    materialId: form.materialId,
    materialDetail: form.materialDetail.trim(),
    processId: form.processId,
    processDetail: form.processDetail.trim(),
    ...withValues(form, part, issues),
    location: form.location.trim(),
    markings: form.markings.trim(),
    supplier: form.supplier.trim(),
    state: form.state,
    opened: form.opened,
    closedReason: form.closedReason.trim(),
    damage: form.damage.trim(),
    notes: form.notes.trim(),
    ...(price.boughtPrice === null
      ? NO_PRICE
      : {
          ...price,
          boughtCurrency: form.priceCurrency.trim(),
          boughtPriceYear: whole(form.priceYear),
          boughtVolumePerYear: whole(form.priceVolume),
          boughtRegion: form.priceRegion.trim(),
        }),
  };
  const checked = check(schemaOf('part'), fields, part.id);
  const together = checked.ok ? rowFaults('part', { ...checked.value, id: part.id, version: part.version }) : checked.issues;
  const all = [...issues, ...together].map((fault) => ({ ...fault, field: SHOWN_AT[fault.field ?? ''] ?? fault.field }));
  return all.length > 0 || !checked.ok ? { ok: false, issues: all } : checked;
};

/**
 * The form once somebody else has changed the part: fields that still show what the part was take what it is now, what was typed
 * stays.
 */
export const rebasedForm = (form: PartForm, before: Part, now: Part, basis: PriceBasis): PartForm => {
  const [was, is] = [partForm(before, basis), partForm(now, basis)];
  const typed = Object.entries(form).filter(([field, text]) => text !== was[field as keyof PartForm]);
  return { ...is, ...Object.fromEntries(typed) };
};

/** Why a part cannot be given a tag: another of the study has it. Null when it can. */
export const tagTaken = (parts: readonly Part[], tag: string, partId: string): string | null => {
  const on = tag === '' ? undefined : parts.find((part) => part.tag === tag && part.id !== partId);
  return on ? `The tag ${tag} is on “${on.name}” already: a tag belongs to one part` : null;
};

/** A value somebody else changed while the form was open. */
interface ChangedMeanwhile {
  readonly cell: string;
  readonly theirs: unknown;
  readonly by: string | null;
}

/** What stands at the fields of the form that somebody else has changed meanwhile, one line each. */
export const meanwhileFaults = (cells: readonly ChangedMeanwhile[], partId: string, nameOf: NameOf): readonly Issue[] => {
  const faults = new Map<string, Issue>();
  for (const { cell, theirs, by } of cells) {
    const field = fieldOfCell(cell);
    const at = SHOWN_AT[field] ?? field;
    const message = `${by ?? 'Somebody'} made it ${valueText('part', cell, theirs, nameOf)} meanwhile. Save again to put yours in its place`;
    // of several values in one field the first is its own, the others are how it is known
    if (!faults.has(at)) faults.set(at, issue('changed-meanwhile', message, at, partId));
  }
  return [...faults.values()];
};
