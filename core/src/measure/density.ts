import { MATERIALS, type Material } from '../shared';

interface DensityReading {
  readonly densityKgPerM3: number;
  readonly uKgPerM3: number;
}

/**
 * Density from a mass and a volume, kg/m³, with its standard uncertainty.
 *
 *   ρ = m/V     (u(ρ)/ρ)² = (u(m)/m)² + (u(V)/V)²
 *
 * @throws RangeError when mass or volume is not above 0
 * @source JCGM 100:2008 (GUM), eq. 12, uncorrelated inputs
 * @example
 * density({ massKg: 2.7, uKg: 0 }, { volumeM3: 0.001, uM3: 0 }).densityKgPerM3; // => 2700
 */
export const density = (
  { massKg, uKg }: { readonly massKg: number; readonly uKg: number },
  { volumeM3, uM3 }: { readonly volumeM3: number; readonly uM3: number },
): DensityReading => {
  if (!(massKg > 0 && volumeM3 > 0)) throw new RangeError('a density needs a mass and a volume above 0');
  const densityKgPerM3 = massKg / volumeM3;
  return { densityKgPerM3, uKgPerM3: densityKgPerM3 * Math.hypot(uKg / massKg, uM3 / volumeM3) };
};

interface MaterialByDensity {
  readonly material: Material;
  /** standard uncertainties between the density read and that of the material */
  readonly apart: number;
}

/** A catalogue density stands for a material that varies by so much (assumed). */
const CATALOGUE_SPREAD = 0.01;

/** Materials of the catalogue by how near their density is, the nearest first; entries without a grade are left out. */
export const materialsByDensity = ({ densityKgPerM3, uKgPerM3 }: DensityReading): readonly MaterialByDensity[] =>
  MATERIALS.filter((m) => m.gradeKnown)
    .map((material) => ({
      material,
      apart: Math.abs(densityKgPerM3 - material.densityKgPerM3) / Math.hypot(uKgPerM3, CATALOGUE_SPREAD * material.densityKgPerM3),
    }))
    .sort((a, b) => a.apart - b.apart);

/** So many standard uncertainties apart is a contradiction. */
const CONTRADICTS_FROM = 3;
const INCH = 0.0254;

/** A unit slip in a scan multiplies its volume by one of these. */
const SLIPS: readonly (readonly [string, number])[] = [
  ['the scan was taken as millimetres and is in inches', (INCH / 0.001) ** 3],
  ['the scan was taken as inches and is in millimetres', (0.001 / INCH) ** 3],
  ['the scan was taken as millimetres and is in centimetres', 10 ** 3],
  ['the scan was taken as centimetres and is in millimetres', 0.1 ** 3],
  ['the scan was taken as millimetres and is in metres', 1000 ** 3],
  ['the scan was taken as metres and is in millimetres', 0.001 ** 3],
];

/**
 * Why a density may contradict the material said, the likeliest first; empty when it does not.
 *
 * @param said material recorded; null when none is
 */
export const densityDoubts = (read: DensityReading, said: Material | null): readonly string[] => {
  const lightest = Math.min(...MATERIALS.map((m) => m.densityKgPerM3));
  const heaviest = Math.max(...MATERIALS.map((m) => m.densityKgPerM3));
  const expected = said?.densityKgPerM3 ?? null;
  const ratio = expected === null ? null : read.densityKgPerM3 / expected;
  const u = Math.hypot(read.uKgPerM3, CATALOGUE_SPREAD * (expected ?? 0));
  if (expected !== null && Math.abs(read.densityKgPerM3 - expected) < CONTRADICTS_FROM * u) return [];
  const slip = SLIPS.find(([, factor]) => {
    const mended = read.densityKgPerM3 / factor;
    return expected === null
      ? (read.densityKgPerM3 < lightest / 3 || read.densityKgPerM3 > heaviest * 3) && mended > lightest / 1.5 && mended < heaviest * 1.2
      : Math.abs(mended / expected - 1) < 0.25;
  });
  if (slip) return [`wrong unit: ${slip[0]}`];
  if (expected === null || ratio === null) return [];
  const near = materialsByDensity(read).filter((m) => m.apart < 2 && m.material.id !== said?.id);
  const other =
    near.length === 0
      ? []
      : [
          `another material: ${near
            .slice(0, 3)
            .map((m) => m.material.name)
            .join(', ')} would fit`,
        ];
  return ratio < 1
    ? ['hollow: the scan sees the outside of a closed cavity as full', ...other, 'wrong tag: mass and scan are of two parts']
    : ['an insert of something heavier, or a fastener weighed with it', ...other, 'wrong tag: mass and scan are of two parts'];
};
