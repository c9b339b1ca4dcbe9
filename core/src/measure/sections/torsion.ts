import type { Loop, Point } from './loop-figures';
import type { Torsion } from './shapes';
import { solveTorsion } from './solve-torsion';

interface TorsionFigure {
  readonly jM4: number;
  /** half the width within which it is known, m⁴; 0 where it is exact */
  readonly jUM4: number;
  /** how it was worked out, in words */
  readonly by: string;
  /** what a formula in common use gives, for comparison; null where there is none */
  readonly formula: { readonly jM4: number; readonly by: string } | null;
  /** where a force bends without twisting, m */
  readonly shearCentre: Point;
  readonly warpingM6: number | null;
}

const SERIES = 60;

/**
 * Torsion constant of a solid rectangle, m⁴.
 *
 *   J = a b³ (1/3 − 64/π⁵ · b/a · Σ tanh(nπa/2b)/n⁵), n odd
 *
 * @source Saint-Venant; Timoshenko, Goodier, Theory of Elasticity
 */
export const rectangleTorsion = (longM: number, shortM: number): number => {
  let sum = 0;
  for (let n = 1; n < SERIES; n += 2) sum += Math.tanh((n * Math.PI * longM) / (2 * shortM)) / n ** 5;
  return longM * shortM ** 3 * (1 / 3 - (64 / Math.PI ** 5) * (shortM / longM) * sum);
};

const openWalls = (walls: readonly (readonly [number, number])[]): number => walls.reduce((sum, [b, t]) => sum + (b * t ** 3) / 3, 0);

/**
 * Torsion constant of thin walls or tubes by the formulas in common use, m⁴; null for any other outline.
 *
 *   open: J = Σ b t³/3     one cell: J = 4 A² / ∮ ds/t (Bredt)     tube with round corners: t³h/3 + 2 K A, K = 2 A t/h
 *
 * @source EN 10210-2 and EN 10219-2, annex, for rectangular tubes; R. Bredt (1896)
 */
const torsionFormula = (torsion: Torsion): { readonly jM4: number; readonly by: string } | null => {
  switch (torsion.kind) {
    case 'rectangular tube': {
      const { widthM: b, heightM: h, thicknessM: t, outerRadiusM, innerRadiusM } = torsion;
      const rc = (outerRadiusM + innerRadiusM) / 2;
      const around = 2 * (b - t + h - t) - 2 * rc * (4 - Math.PI);
      const enclosed = (b - t) * (h - t) - rc ** 2 * (4 - Math.PI);
      const k = (2 * enclosed * t) / around;
      return { jM4: (t ** 3 * around) / 3 + 2 * k * enclosed, by: 'EN 10210-2 annex, one thin cell' };
    }
    case 'open':
      return { jM4: openWalls(torsion.walls), by: 'thin open walls, Σ b t³/3' };
    case 'cell':
      return {
        jM4: (4 * torsion.enclosedM2 ** 2) / torsion.around.reduce((sum, [b, t]) => sum + b / t, 0) + openWalls(torsion.walls),
        by: 'one thin cell by Bredt',
      };
    case 'rectangle':
    case 'round tube':
    case 'outline':
      return null;
  }
};

const JOINED = '; assumes that the plate is joined all along, spot welds give less';

/**
 * How a section twists: exactly where a closed form is known, else by finite elements, whose two formulations hold the true
 * value between them.
 *
 * @param centroid of the section, m
 * @source Saint-Venant (1855); see `solveTorsion`
 */
export const torsionFigure = (torsion: Torsion, loops: readonly Loop[], centroid: Point): TorsionFigure => {
  const exact = { jUM4: 0, formula: null, shearCentre: centroid, warpingM6: null };
  if (torsion.kind === 'rectangle') return { ...exact, jM4: rectangleTorsion(torsion.longM, torsion.shortM), by: 'solid rectangle, exact' };
  if (torsion.kind === 'round tube')
    return { ...exact, jM4: (Math.PI / 2) * (torsion.outerM ** 4 - torsion.innerM ** 4), by: 'round tube, exact' };
  const { jM4, jLowM4, jHighM4, shearCentre, warpingM6, triangles } = solveTorsion(loops);
  const share = (100 * (jHighM4 - jLowM4)) / (2 * jM4);
  return {
    jM4,
    jUM4: (jHighM4 - jLowM4) / 2,
    by: `finite elements, ${triangles} triangles, within ± ${share < 0.01 ? '0.01' : share.toPrecision(2)} %${torsion.kind === 'cell' ? JOINED : ''}`,
    formula: torsionFormula(torsion),
    shearCentre,
    warpingM6,
  };
};
