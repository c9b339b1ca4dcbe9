import { fixed, materialById, millimetres, processById, withU, type EvidenceMark } from '@each-bolt/core/shared';
import { boxVolumeM3, envelopeOf, heavierThanSolid, volumeText } from '@each-bolt/core/bench';
import { HAND_WORD, fieldLabel, type Piece, type PieceFields } from '@each-bolt/core/record';

/** One line of the card: what it is, what it says, how it is known. */
export interface CardLine {
  readonly label: string;
  readonly value: string;
  readonly isFigure: boolean;
  readonly mark: EvidenceMark | null;
}

const line = (label: string, value: string, isFigure = false, mark: EvidenceMark | null = null): readonly CardLine[] =>
  value === '' ? [] : [{ label, value, isFigure, mark }];

const text = (piece: Piece, field: keyof PieceFields): readonly CardLine[] => line(fieldLabel('piece', field), String(piece[field] ?? ''));

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
export const pieceLines = (piece: Piece): readonly CardLine[] => [
  ...text(piece, 'function'),
  ...line('Quantity', fixed(piece.quantity, 0), true),
  ...(piece.hand === 'none' ? [] : line('Hand', HAND_WORD[piece.hand])),
  ...line('Material', withDetail(materialById.get(piece.materialId ?? '')?.name ?? piece.materialId ?? '', piece.materialDetail)),
  ...line('Made by', withDetail(processById.get(piece.processId ?? '')?.name ?? piece.processId ?? '', piece.processDetail)),
  ...line('Mass each', massText(piece), true, piece.massEvidence),
  ...line('Thickness', piece.wallThicknessM === null ? '' : `${mm(piece.wallThicknessM)} mm`, true),
  ...line('Envelope', envelopeText(piece), true),
  ...line('Check', heavierThanSolid(piece)),
  ...line('Run length', piece.runLengthM === null ? '' : `${mm(piece.runLengthM)} mm`, true),
  ...text(piece, 'location'),
  ...text(piece, 'markings'),
  ...text(piece, 'supplier'),
  ...line('Opened', piece.opened === null ? '' : piece.opened === 'closed' ? `left closed: ${piece.closedReason}` : 'opened'),
  ...text(piece, 'damage'),
  ...line(
    'Price',
    piece.boughtPrice === null
      ? ''
      : `${piece.boughtCurrency} ${piece.boughtPrice} (${piece.boughtPriceYear}, ${fixed(piece.boughtVolumePerYear ?? 0, 0)} a year, ${piece.boughtRegion})`,
    true,
  ),
  ...text(piece, 'notes'),
];
