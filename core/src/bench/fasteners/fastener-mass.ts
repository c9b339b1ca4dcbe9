import { threeDigits, type EvidenceMark, gramsText } from '../../shared';
import { massSaid, type FastenerSetFields, type Weighed } from '../../record';
import { coarsePitchMm, pitchDiameterMm } from './metric-threads';
import { HEX_HEAD, HEX_NUT, PLAIN_WASHER, SOCKET_HEAD, type HeadAcrossFlats, type SocketHead, type Washer } from './standard-sizes';

/** Density of steel. @source common handbook value, from memory */
const STEEL_KG_PER_MM3 = 7.85e-6;
/** Area of a hexagon by its width across flats, s² × √3/2. */
const HEXAGON = Math.sqrt(3) / 2;
const circle = (diameterMm: number): number => (Math.PI / 4) * diameterMm ** 2;

/** Relative standard uncertainty of a mass computed from standard sizes: assumed, from the spread against printed tables. */
const STANDARD_RELATIVE_U = 0.03;
/** The same where the head is not of the standard shape computed here (a six-lobe drive says nothing of the head): assumed. */
const OTHER_HEAD_RELATIVE_U = 0.2;

/** Mass of a plain washer, kg. @source ISO 7089 sizes; π/4 (dₒ² − dᵢ²) t ρ */
export const washerMassKg = (washer: Washer): number =>
  (circle(washer.outerMm) - circle(washer.innerMm)) * washer.thicknessMm * STEEL_KG_PER_MM3;

/** Mass of a hexagon nut without chamfers, kg: (0.866 s² − π/4 d₂²) m ρ. */
export const nutMassKg = (nut: HeadAcrossFlats, pitchDiameter: number): number =>
  (HEXAGON * nut.acrossFlatsMm ** 2 - circle(pitchDiameter)) * nut.heightMm * STEEL_KG_PER_MM3;

/** Mass of a hexagon head screw threaded to the head, kg: (0.866 s² k + π/4 d₂² L) ρ. */
export const hexScrewMassKg = (head: HeadAcrossFlats, pitchDiameter: number, lengthMm: number): number =>
  (HEXAGON * head.acrossFlatsMm ** 2 * head.heightMm + circle(pitchDiameter) * lengthMm) * STEEL_KG_PER_MM3;

/** Mass of a socket cap screw, kg: (π/4 d_k² k − 0.866 s² t + π/4 d₂² L) ρ. */
export const socketScrewMassKg = (head: SocketHead, pitchDiameter: number, lengthMm: number): number =>
  (circle(head.diameterMm) * head.heightMm - HEXAGON * head.keyMm ** 2 * head.keyDepthMm + circle(pitchDiameter) * lengthMm) *
  STEEL_KG_PER_MM3;

interface EachMass {
  readonly kg: number;
  readonly uKg: number;
  readonly mark: EvidenceMark;
}

const inferred = (kg: number, relativeU: number): EachMass => ({ kg, uKg: kg * relativeU, mark: 'I' });

const screwMass = (drive: string, key: string, pitchDiameter: number, lengthMm: number): EachMass | null => {
  const hex = HEX_HEAD[key];
  const socket = SOCKET_HEAD[key];
  if (/^(SW|HEX)/i.test(drive) && hex) return inferred(hexScrewMassKg(hex, pitchDiameter, lengthMm), STANDARD_RELATIVE_U);
  if (!socket) return null;
  const relativeU = /^H\d/i.test(drive) ? STANDARD_RELATIVE_U : OTHER_HEAD_RELATIVE_U;
  return inferred(socketScrewMassKg(socket, pitchDiameter, lengthMm), relativeU);
};

type Sized = Pick<FastenerSetFields, 'kind' | 'threadM' | 'pitchM' | 'lengthM' | 'drive'>;

/** Mass computed from standard sizes, or null where no standard says it. */
export const standardFastenerMass = (set: Sized): EachMass | null => {
  if (set.threadM === null) return null;
  const diameterMm = Number((set.threadM * 1000).toFixed(3));
  const coarse = coarsePitchMm(diameterMm);
  if (coarse === null) return null;
  const key = String(diameterMm);
  const pitchDiameter = pitchDiameterMm(diameterMm, set.pitchM === null ? coarse : set.pitchM * 1000);
  const washer = PLAIN_WASHER[key];
  const nut = HEX_NUT[key];
  if (set.kind === 'washer') return washer ? inferred(washerMassKg(washer), STANDARD_RELATIVE_U) : null;
  if (set.kind === 'nut') return nut ? inferred(nutMassKg(nut, pitchDiameter), STANDARD_RELATIVE_U) : null;
  if (set.lengthM === null) return null;
  if (set.kind === 'stud') return inferred(circle(pitchDiameter) * set.lengthM * 1000 * STEEL_KG_PER_MM3, STANDARD_RELATIVE_U);
  return set.kind === 'bolt' ? screwMass(set.drive, key, pitchDiameter, set.lengthM * 1000) : null;
};

/** Mass of one fastener of a set: as recorded, else from standard sizes (marked inferred), else null. */
export const fastenerMass = (set: Sized & Weighed): EachMass | null => {
  const said = massSaid(set);
  return set.massEachKg === null || said === null ? standardFastenerMass(set) : { kg: set.massEachKg, uKg: said.u ?? 0, mark: said.mark };
};

/** A stated mass this many times off the standard one is questioned: a slip of the unit, or several weighed together. */
const UNLIKELY_FACTOR = 2;

/** What is wrong with the stated mass of a fastener set, in words; empty when nothing is or no standard says it. */
export const unlikelyFastenerMass = (set: Sized & { readonly count: number }, massEachKg: number | null): string => {
  const standard = standardFastenerMass(set);
  if (standard === null || massEachKg === null) return '';
  const ratio = massEachKg / standard.kg;
  if (ratio <= UNLIKELY_FACTOR && ratio >= 1 / UNLIKELY_FACTOR) return '';
  const together = set.count > 1 && Math.abs(ratio / set.count - 1) < OTHER_HEAD_RELATIVE_U;
  const cause = together
    ? `Were all ${set.count} weighed together? Then put “total” before the mass`
    : 'Is the unit, the thread or the length right?';
  return `By its standard size one weighs about ${gramsText(standard.kg, 1)}; this is ${threeDigits(ratio)} times that. ${cause}`;
};
