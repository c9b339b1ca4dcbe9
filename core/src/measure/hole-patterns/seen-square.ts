import { Matrix, SVD } from 'ml-matrix';
import type { Place } from './best-fit';

export type FlatPlace = readonly [number, number];

/**
 * Points as they are seen square to the plane they lie nearest to, for a drawing.
 *
 * Points without a third coordinate stay as they are; others are told along the two directions in which they are spread
 * most, the longer one across.
 */
export const seenSquare = (points: readonly Place[]): readonly FlatPlace[] => {
  if (points.every((p) => p[2] === 0)) return points.map(([x, y]): FlatPlace => [x, y]);
  const middle = [0, 1, 2].map((i) => points.reduce((sum, p) => sum + p[i]! / points.length, 0));
  const spread = new Matrix(points.map((p) => p.map((x, i) => x - middle[i]!)));
  const axes = new SVD(spread, { autoTranspose: true }).rightSingularVectors;
  const along = (p: Place, axis: number): number => p.reduce((sum, x, i) => sum + x * axes.get(i, axis), 0);
  return points.map((p): FlatPlace => [along(p, 0), along(p, 1)]);
};

/** Factors by which small misfits are drawn longer. */
const FACTORS: readonly number[] = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000];

/**
 * The largest round factor by which a length may be drawn longer and still be no longer than wanted.
 *
 * @param lengthM the length, m
 * @param pxPerM pixels of the drawing in a metre
 * @param mostPx so long it may be drawn
 */
export const drawnLonger = (lengthM: number, pxPerM: number, mostPx: number): number => {
  const px = lengthM * pxPerM;
  return px > 0 ? FACTORS.reduce((found, factor) => (px * factor <= mostPx ? factor : found), 1) : 1;
};
