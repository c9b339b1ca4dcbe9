import { check, issue, millimetres, type Checked, type Issue } from '../shared';
import { SCHEMAS, fieldOfCell, rowFaults, type KnownOf, type NameOf, type Piece, type PieceFields } from '../record';
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

/** Every field of a piece as text, as a form shows and takes it. */
export interface PieceForm {
  readonly name: string;
  readonly tag: string;
  readonly function: string;
  readonly quantity: string;
  readonly hand: string;
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
export interface PriceBasis {
  readonly currency: string;
  readonly priceYear: number;
  readonly volumePerYear: number;
  readonly region: string;
}

const mm = (metres: number | null): string => (metres === null ? '' : String(millimetres(metres)));

export const pieceForm = (piece: Piece, basis: PriceBasis): PieceForm => ({
  name: piece.name,
  tag: piece.tag,
  function: piece.function,
  quantity: countText('piece', 'quantity', piece.quantity, piece.known),
  hand: piece.hand,
  materialId: piece.materialId,
  materialDetail: piece.materialDetail,
  processId: piece.processId,
  processDetail: piece.processDetail,
  mass: massEachText(piece),
  massEvidence: piece.massEvidence,
  thickness: mm(piece.wallThicknessM),
  envelope: piece.lengthM === null ? '' : [piece.lengthM, piece.widthM, piece.heightM].map(mm).join('x'),
  runLength: piece.runLengthM === null ? '' : `${mm(piece.runLengthM)} mm`,
  runDiameter: mm(piece.runDiameterM),
  place: piece.xM === null ? '' : [piece.xM, piece.yM, piece.zM].map(mm).join(' '),
  location: piece.location,
  markings: piece.markings,
  supplier: piece.supplier,
  opened: piece.opened,
  closedReason: piece.closedReason,
  damage: piece.damage,
  notes: piece.notes,
  price: piece.boughtPrice ?? '',
  priceCurrency: piece.boughtCurrency ?? basis.currency,
  priceYear: String(piece.boughtPriceYear ?? basis.priceYear),
  priceVolume: String(piece.boughtVolumePerYear ?? basis.volumePerYear),
  priceRegion: piece.boughtRegion ?? basis.region,
});

const whole = (text: string): number => (/^\d{1,9}$/.test(text.trim()) ? Number(text.trim()) : Number.NaN);

const read = <T extends object>(
  text: string,
  field: keyof PieceForm,
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

const NO_MASS = { massEachKg: null, massUKg: null, massEvidence: null, massTyped: null };
const NO_ENVELOPE: Pick<PieceFields, 'lengthM' | 'widthM' | 'heightM' | 'known'> = {
  lengthM: null,
  widthM: null,
  heightM: null,
  known: {},
};
const NO_PRICE = { boughtPrice: null, boughtCurrency: null, boughtPriceYear: null, boughtVolumePerYear: null, boughtRegion: null };

/** The form's field that shows each field of the record, where the names differ. */
const SHOWN_AT: Readonly<Record<string, keyof PieceForm>> = {
  massEachKg: 'mass',
  massUKg: 'mass',
  massTyped: 'mass',
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

const massOf = (form: PieceForm, piece: Piece, issues: Issue[]): Partial<PieceFields> => {
  // untouched text keeps the figures as they are: what was weighed in all, or given another uncertainty, stays so
  const untouched = form.mass.trim() === massEachText(piece);
  const mass = untouched
    ? { massEachKg: piece.massEachKg, massUKg: piece.massUKg, massEvidence: piece.massEvidence, massTyped: piece.massTyped }
    : read(form.mass, 'mass', (cell) => readMass(cell, null), NO_MASS, issues);
  if (mass.massEachKg === null) return NO_MASS;
  const chosen = form.massEvidence !== piece.massEvidence || untouched ? form.massEvidence : mass.massEvidence;
  return { ...mass, massEvidence: (chosen ?? mass.massEvidence) as PieceFields['massEvidence'] };
};

/** What the form's texts of one value come to: the value as it is while its text is not touched, else what was read. */
type ReadValue = (
  field: keyof PieceForm,
  of: keyof PieceFields,
  reader: (cell: string) => ReadCell<Partial<PieceFields>>,
  absent: Partial<PieceFields>,
) => void;

const withValues = (form: PieceForm, piece: Piece, issues: Issue[]): Partial<PieceFields> => {
  const shownNow = pieceForm(piece, { currency: '', priceYear: 0, volumePerYear: 0, region: '' });
  let fields: Partial<PieceFields> = {};
  let known: KnownOf = piece.known;
  const take: ReadValue = (field, of, reader, absent) => {
    const text = form[field] ?? '';
    if (text.trim() === shownNow[field]) return;
    if (text.trim() === '' && field === 'quantity') issues.push(issue('not-read', 'Quantity must not be empty; one is 1', field));
    const value = read(text, field, reader, absent, issues);
    const { [of]: _before, ...others } = known;
    known = { ...others, ...value.known };
    fields = { ...fields, ...value };
  };
  take('quantity', 'quantity', readQuantityCell, { quantity: piece.quantity });
  take('thickness', 'wallThicknessM', (cell) => readThickness(cell, null), { wallThicknessM: null });
  take('envelope', 'lengthM', (cell) => readEnvelope(cell, null), NO_ENVELOPE);
  take('runLength', 'runLengthM', (cell) => readRun(cell, null), { runLengthM: null });
  take('runDiameter', 'runDiameterM', (cell) => readDiameter(cell, null), { runDiameterM: null });
  take('place', 'xM', readPlace, { xM: null, yM: null, zM: null });
  return { ...fields, known };
};

/**
 * The fields a filled-in form stands for, checked by the same rules as everything else; faults name the form's fields.
 *
 * @param form the form as filled in
 * @param piece the piece it was opened on
 */
export const pieceFromForm = (form: PieceForm, piece: Piece): Checked<PieceFields> => {
  const issues: Issue[] = [];
  const { id: _id, version: _version, ...before } = piece;
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
    ...massOf(form, piece, issues),
    ...withValues(form, piece, issues),
    location: form.location.trim(),
    markings: form.markings.trim(),
    supplier: form.supplier.trim(),
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
  const checked = check(SCHEMAS.piece, fields, piece.id);
  const together = checked.ok ? rowFaults('piece', { ...checked.value, id: piece.id, version: piece.version }) : checked.issues;
  const all = [...issues, ...together].map((fault) => ({ ...fault, field: SHOWN_AT[fault.field ?? ''] ?? fault.field }));
  return all.length > 0 || !checked.ok ? { ok: false, issues: all } : checked;
};

/**
 * The form once somebody else has changed the piece: fields that still show what the piece was take what it is now, what was typed
 * stays.
 */
export const rebasedForm = (form: PieceForm, before: Piece, now: Piece, basis: PriceBasis): PieceForm => {
  const [was, is] = [pieceForm(before, basis), pieceForm(now, basis)];
  const typed = Object.entries(form).filter(([field, text]) => text !== was[field as keyof PieceForm]);
  return { ...is, ...Object.fromEntries(typed) };
};

/** Why a piece cannot be given a tag: another of the study has it. Null when it can. */
export const tagTaken = (pieces: readonly Piece[], tag: string, pieceId: string): string | null => {
  const on = tag === '' ? undefined : pieces.find((piece) => piece.tag === tag && piece.id !== pieceId);
  return on ? `The tag ${tag} is on “${on.name}” already: a tag belongs to one piece` : null;
};

/** A value somebody else changed while the form was open. */
export interface ChangedMeanwhile {
  readonly cell: string;
  readonly theirs: unknown;
  readonly by: string | null;
}

/** What stands at the fields of the form that somebody else has changed meanwhile, one line each. */
export const meanwhileFaults = (cells: readonly ChangedMeanwhile[], pieceId: string, nameOf: NameOf): readonly Issue[] => {
  const faults = new Map<string, Issue>();
  for (const { cell, theirs, by } of cells) {
    const field = fieldOfCell(cell);
    const at = SHOWN_AT[field] ?? field;
    const message = `${by ?? 'Somebody'} made it ${valueText('piece', cell, theirs, nameOf)} meanwhile. Save again to put yours in its place`;
    // of several values in one field the first is its own, the others are how it is known
    if (!faults.has(at)) faults.set(at, issue('changed-meanwhile', message, at, pieceId));
  }
  return [...faults.values()];
};
