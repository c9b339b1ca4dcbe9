import { counted, decimalsFor, fixed, materialById, millimetres, processById } from '@each-bolt/core/shared';
import type { Piece } from '@each-bolt/core/record';
import { massGaps, weighedShort, weighedText, type Shown } from '@each-bolt/core/bench';
import type { RowFigures } from './pieces-table';

/** "2 × · PA66-GF30 · injection moulding · 0.8 mm": what is known of a piece beside its name. */
export const pieceDetail = (piece: Piece): string =>
  [
    ...(piece.quantity > 1 ? [`${fixed(piece.quantity, 0)} ×`] : []),
    ...(piece.materialId === null ? [] : [materialById.get(piece.materialId)?.name ?? piece.materialId]),
    ...(piece.processId === null ? [] : [processById.get(piece.processId)?.name ?? piece.processId]),
    ...(piece.wallThicknessM === null ? [] : [`${millimetres(piece.wallThicknessM)} mm`]),
    ...(piece.runLengthM === null ? [] : [`${fixed(millimetres(piece.runLengthM), 0)} mm long`]),
    ...(piece.opened === 'closed' ? ['left closed'] : []),
  ].join(' · ');

/** The standard uncertainty of a mass for the second line, to two digits: "± 4.2 g". */
export const massUText = (massUKg: number | null): string =>
  massUKg === null ? '' : `± ${fixed(massUKg * 1000, decimalsFor(massUKg * 1000, 3))} g`;

/** How much of a cost is missing: short for the column, and in full. */
const costGap = (figures: Shown): readonly [string, string] => {
  const { piecesOfMass, piecesCosted, fastenersNotCosted } = figures;
  const fasteners = fastenersNotCosted > 0 ? [`${counted(fastenersNotCosted, 'fastener')} without cost`] : [];
  if (piecesCosted === piecesOfMass) return [fastenersNotCosted > 0 ? `${fastenersNotCosted} without` : '', fasteners.join()];
  if (piecesOfMass === 1) return ['not costed', ['not costed', ...fasteners].join('; ')];
  const known = `${fixed(piecesCosted, 0)} of ${fixed(piecesOfMass, 0)}`;
  return [known, [`${known} pieces costed`, ...fasteners].join('; ')];
};

/** The range of a count for the second line: "2–3", "at least 20"; empty where the count is certain. */
export const countRangeText = ({ pieces, piecesLow, piecesHigh }: Pick<Shown, 'pieces' | 'piecesLow' | 'piecesHigh'>): string => {
  if (piecesLow === pieces && piecesHigh === pieces) return '';
  return piecesHigh === null ? `≥ ${fixed(piecesLow, 0)}` : `${fixed(piecesLow, 0)}–${fixed(piecesHigh, 0)}`;
};

/** Figures of one node as the table prints them. */
export const rowFigures = (name: string, detail: string, figures: Shown): RowFigures => ({
  name,
  detail,
  count: figures.pieces,
  countRange: countRangeText(figures),
  countMark: figures.countMark,
  // nothing recorded is not the same as none there
  fasteners: figures.fasteners === 0 ? null : figures.fasteners,
  joints: figures.joints === 0 ? null : figures.joints,
  massKg: figures.massKg,
  massU: massUText(figures.massUKg),
  weakest: figures.weakest,
  weakestShare: `${fixed(figures.weakestFraction * 100, 0)} %`,
  cost: figures.cost,
  costMark: figures.costMark,
  costGap: costGap(figures)[0],
  costTitle: costGap(figures)[1],
  weighed: weighedShort(figures),
  weighedTitle: [weighedText(figures), ...massGaps(figures)].join('; '),
});
