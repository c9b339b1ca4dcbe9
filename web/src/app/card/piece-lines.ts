import { fixed, materialById, millimetres, processById, withU, type EvidenceMark } from '@each-bolt/core/shared';
import { boxVolumeM3, envelopeOf, heavierThanSolid, volumeText } from '@each-bolt/core/bench';
import { HAND_WORD, fieldLabel, knownAs, rangeText, type Piece } from '@each-bolt/core/record';

/** One line of the card: what it is, what it says, how it is known. */
export interface CardLine {
  readonly label: string;
  readonly value: string;
  readonly isFigure: boolean;
  readonly mark: EvidenceMark | null;
  /** the field whose value it is, when that can say how it is known */
  readonly field: string | null;
  /** who or what says so, and with what, in a line; empty when nothing was said */
  readonly how: string;
}

const line = (label: string, value: string, isFigure = false): readonly CardLine[] =>
  value === '' ? [] : [{ label, value, isFigure, mark: null, field: null, how: '' }];

/** A line of a value that says how it is known. */
const knownLine = (piece: Piece, field: string, label: string, value: string, isFigure = false): readonly CardLine[] => {
  if (value === '') return [];
  const said = knownAs('piece', piece, field);
  return [{ label, value, isFigure, mark: said?.mark ?? null, field, how: [said?.instrument, said?.source].filter(Boolean).join(', ') }];
};

type TextField = 'function' | 'location' | 'markings' | 'supplier' | 'damage';

const text = (piece: Piece, field: TextField): readonly CardLine[] => knownLine(piece, field, fieldLabel('piece', field), piece[field]);

const typed = (piece: Piece, field: string): string => {
  const said = piece.known[field];
  return [
    said?.u ? ` ± ${fixed(millimetres(said.u), 2)}` : '',
    ' mm',
    said?.typed && !said.typed.endsWith(' mm') ? `  (typed ${said.typed})` : '',
  ].join('');
};

const countWithRange = (piece: Piece): string => {
  const range = piece.known.quantity ? rangeText(piece.known.quantity) : null;
  return range === null ? fixed(piece.quantity, 0) : `${fixed(piece.quantity, 0)} (${range})`;
};

const mm = (metres: number): string => String(millimetres(metres));

const massText = (piece: Piece): string => {
  if (piece.massEachKg === null) return '–';
  const figure = `${withU(piece.massEachKg, piece.massUKg ?? 0)} kg`;
  return piece.massTyped === null ? figure : `${figure}  (typed ${piece.massTyped})`;
};

const withDetail = (name: string, detail: string): string => [name, detail].filter((part) => part !== '').join(', ');

const envelopeText = (piece: Piece): string => {
  const envelope = envelopeOf(piece);
  return envelope === null ? '' : `${envelope.map(mm).join(' × ')}\u00a0mm, ${volumeText(boxVolumeM3(envelope))}`;
};

/** What is recorded of a piece, in the order of the card; what is not known is left out, but for the mass. */
export const pieceLines = (piece: Piece, checks: readonly string[] = []): readonly CardLine[] => [
  ...text(piece, 'function'),
  ...knownLine(piece, 'quantity', 'Quantity', countWithRange(piece), true),
  ...(piece.hand === 'none' ? [] : knownLine(piece, 'hand', 'Hand', HAND_WORD[piece.hand])),
  ...knownLine(
    piece,
    'materialId',
    'Material',
    withDetail(materialById.get(piece.materialId ?? '')?.name ?? piece.materialId ?? '', piece.materialDetail),
  ),
  ...knownLine(
    piece,
    'processId',
    'Made by',
    withDetail(processById.get(piece.processId ?? '')?.name ?? piece.processId ?? '', piece.processDetail),
  ),
  ...knownLine(piece, 'massEachKg', 'Mass each', massText(piece), true),
  ...checks.flatMap((check) => line('Mass check', check)),
  ...knownLine(
    piece,
    'wallThicknessM',
    'Thickness',
    piece.wallThicknessM === null ? '' : mm(piece.wallThicknessM) + typed(piece, 'wallThicknessM'),
    true,
  ),
  ...knownLine(piece, 'lengthM', 'Envelope', envelopeText(piece), true),
  ...line('Check', heavierThanSolid(piece)),
  ...knownLine(
    piece,
    'runDiameterM',
    'Run diameter',
    piece.runDiameterM === null ? '' : mm(piece.runDiameterM) + typed(piece, 'runDiameterM'),
    true,
  ),
  ...knownLine(piece, 'runLengthM', 'Run length', piece.runLengthM === null ? '' : mm(piece.runLengthM) + typed(piece, 'runLengthM'), true),
  ...knownLine(
    piece,
    'xM',
    'Place x y z',
    piece.xM === null ? '' : `${[piece.xM, piece.yM ?? 0, piece.zM ?? 0].map(mm).join(' ')} mm`,
    true,
  ),
  ...text(piece, 'location'),
  ...text(piece, 'markings'),
  ...text(piece, 'supplier'),
  ...line('Opened', piece.opened === null ? '' : piece.opened === 'closed' ? `left closed: ${piece.closedReason}` : 'opened'),
  ...text(piece, 'damage'),
  ...knownLine(
    piece,
    'boughtPrice',
    'Price',
    piece.boughtPrice === null
      ? ''
      : `${piece.boughtCurrency} ${piece.boughtPrice} (${piece.boughtPriceYear}, ${fixed(piece.boughtVolumePerYear ?? 0, 0)} a year, ${piece.boughtRegion})`,
    true,
  ),
  ...line(fieldLabel('piece', 'notes'), piece.notes),
];
