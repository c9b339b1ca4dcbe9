import { materialById, threeDigits, massText, READ_IN, readAs, unitWord, unitsShown } from '../shared';
import type { Part } from '../record';

/**
 * Volume of the envelope box, m³.
 * @example boxVolumeM3([0.37, 0.278, 0.122]) // => 0.01254892
 */
export const boxVolumeM3 = ([length, width, height]: readonly [number, number, number]): number => length * width * height;

/** Volume for people: "12.5 L", and below a litre "72.7 cm³". */
export const volumeText = (volumeM3: number): string =>
  volumeM3 < 0.001 || unitsShown() === 'inch-pound'
    ? `${threeDigits(readAs(READ_IN['cm³'], volumeM3))}\u00a0${unitWord('cm³')}`
    : `${threeDigits(volumeM3 * 1000)}\u00a0L`;

type Sized = Pick<Part, 'massEachKg' | 'lengthM' | 'widthM' | 'heightM' | 'materialId'>;

/** Length, width and height of a part, m; null while one of them is not known. */
export const envelopeOf = (part: Pick<Sized, 'lengthM' | 'widthM' | 'heightM'>): readonly [number, number, number] | null =>
  part.lengthM === null || part.widthM === null || part.heightM === null ? null : [part.lengthM, part.widthM, part.heightM];

/** Some room for rounding of mass and size before a part is called heavier than solid. */
const ALLOWANCE = 1.1;

/**
 * What is wrong when a part weighs more than its envelope filled solid with its material, in words; empty when nothing is
 * or when not enough is known. The usual causes are centimetres taken for millimetres and a mass of several taken for one.
 */
export const heavierThanSolid = (part: Sized): string => {
  const envelope = envelopeOf(part);
  const material = materialById.get(part.materialId ?? '');
  if (envelope === null || material === undefined || part.massEachKg === null) return '';
  const solidKg = boxVolumeM3(envelope) * material.densityKgPerM3;
  if (part.massEachKg <= solidKg * ALLOWANCE) return '';
  return `Solid ${material.name} of this size weighs ${massText(solidKg, solidKg < 0.1 ? 4 : 3)}; this is ${threeDigits(part.massEachKg / solidKg)} times that. Centimetres for millimetres, or several weighed together?`;
};
