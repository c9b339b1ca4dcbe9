import { SCAN_UNITS, type ScanUnit } from '../../record';
import type { Vector } from './mesh';

/** metres in one of the unit; the inch is exact by definition (international yard and pound agreement, 1959) */
export const METRES_PER: Readonly<Record<ScanUnit, number>> = { mm: 0.001, cm: 0.01, in: 0.0254, m: 1 };
export const UNIT_WORD: Readonly<Record<ScanUnit, string>> = { mm: 'millimetres', cm: 'centimetres', in: 'inches', m: 'metres' };

interface UnitGuess {
  readonly unit: ScanUnit;
  /** what speaks for it, in words */
  readonly why: string;
  /** nothing else comes near */
  readonly isClear: boolean;
}

/** What is known of the part a scan is of. */
interface KnownOfPart {
  /** sides recorded or measured with a caliper, m */
  readonly sidesM: readonly number[];
  readonly massKg: number | null;
  readonly densityKgPerM3: number | null;
}

const LIGHTEST = 30;
const HEAVIEST = 12_000;
/** so near is the same length, and so far is another */
const SAME = 1.15;

/**
 * The unit of a scan, guessed from what is known of its part: first lengths that were recorded, then the density that mass
 * and volume would give, then what size a part of a vehicle has.
 *
 * @param sides of the upright box, in the unit of the file
 * @param volume in the cubed unit of the file; 0 when it encloses none
 */
export const guessUnit = (sides: Vector, volume: number, known: KnownOfPart): UnitGuess => {
  const longest = Math.max(...sides);
  const lengthM = known.sidesM.length > 0 ? Math.max(...known.sidesM) : null;
  if (lengthM !== null && lengthM > 0) {
    const ranked = SCAN_UNITS.map((unit) => ({ unit, off: off((longest * METRES_PER[unit]) / lengthM) })).sort((a, b) => a.off - b.off);
    const [best, next] = [ranked[0]!, ranked[1]!];
    return {
      unit: best.unit,
      why: `its longest side is then ${millimetreText(longest * METRES_PER[best.unit])}, recorded are ${millimetreText(lengthM)}`,
      isClear: best.off < SAME && next.off > SAME,
    };
  }
  if (known.massKg !== null && volume > 0) {
    const densities = SCAN_UNITS.map((unit) => ({ unit, density: known.massKg! / (volume * METRES_PER[unit] ** 3) }));
    const wanted = known.densityKgPerM3;
    const ranked = densities
      .map((d) => ({
        ...d,
        off: wanted === null ? (d.density > LIGHTEST && d.density < HEAVIEST ? 1 : off(d.density / 2000)) : off(d.density / wanted),
      }))
      .sort((a, b) => a.off - b.off);
    const best = ranked[0]!;
    return {
      unit: best.unit,
      why: `its mass then gives a density of ${Math.round(best.density)} kg/m³`,
      isClear: wanted === null ? ranked.filter((r) => r.off === 1).length === 1 : best.off < 1.5,
    };
  }
  const unit: ScanUnit = longest > 8 ? 'mm' : longest > 3 ? 'in' : 'm';
  return {
    unit,
    why: `a part of a vehicle is then ${millimetreText(longest * METRES_PER[unit])} long; nothing is recorded to hold it against`,
    isClear: false,
  };
};

const off = (ratio: number): number => (ratio >= 1 ? ratio : 1 / ratio);
const millimetreText = (m: number): string => `${Number((m * 1000).toPrecision(4))} mm`;
