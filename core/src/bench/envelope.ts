import { fixed, materialById, threeDigits } from '../shared';
import type { Piece } from '../record';

/**
 * Volume of the envelope box, m³.
 * @example boxVolumeM3([0.37, 0.278, 0.122]) // => 0.01254892
 */
export const boxVolumeM3 = ([length, width, height]: readonly [number, number, number]): number => length * width * height;

/** Volume for people: "12.5 L", and below a litre "72.7 cm³". */
export const volumeText = (volumeM3: number): string =>
  volumeM3 < 0.001 ? `${threeDigits(volumeM3 * 1e6)}\u00a0cm³` : `${threeDigits(volumeM3 * 1000)}\u00a0L`;

type Sized = Pick<Piece, 'massEachKg' | 'lengthM' | 'widthM' | 'heightM' | 'materialId'>;

export const envelopeOf = (piece: Pick<Sized, 'lengthM' | 'widthM' | 'heightM'>): readonly [number, number, number] | null =>
  piece.lengthM === null || piece.widthM === null || piece.heightM === null ? null : [piece.lengthM, piece.widthM, piece.heightM];

/** Some room for rounding of mass and size before a piece is called heavier than solid. */
const ALLOWANCE = 1.1;

/**
 * What is wrong when a piece weighs more than its envelope filled solid with its material, in words; empty when nothing is
 * or when not enough is known. The usual causes are centimetres taken for millimetres and a mass of several taken for one.
 */
export const heavierThanSolid = (piece: Sized): string => {
  const envelope = envelopeOf(piece);
  const material = materialById.get(piece.materialId ?? '');
  if (envelope === null || material === undefined || piece.massEachKg === null) return '';
  const solidKg = boxVolumeM3(envelope) * material.densityKgPerM3;
  if (piece.massEachKg <= solidKg * ALLOWANCE) return '';
  return `Solid ${material.name} of this size weighs ${fixed(solidKg, solidKg < 0.1 ? 4 : 3)} kg; this is ${threeDigits(piece.massEachKg / solidKg)} times that. Centimetres for millimetres, or several weighed together?`;
};
