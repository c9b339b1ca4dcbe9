import type { LoopFigures, Loop } from './loop-figures';
import { loopArea } from './loop-figures';
import type { Torsion } from './shapes';

export interface TorsionFigure {
  readonly jM4: number;
  /** how it was worked out, in words, with how far it may be trusted */
  readonly by: string;
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

/** a wall is slender when it is thinner than this share of the root of the area */
const SLENDER = 0.25;

/**
 * Torsion constant of a section, closed where its walls enclose a cell, open where they do not.
 *
 *   open: J = Σ b t³/3     one cell: J = 4 A² / ∮ ds/t (Bredt)     tube with round corners: t³h/3 + 2 K A, K = 2 A t/h
 *
 * Of any outline only the areas and edges are known: with a hole it is taken as one cell of even thickness, a slender one
 * as open walls, a compact one by Saint-Venant's A⁴/(40 Ip).
 *
 * @source EN 10210-2 and EN 10219-2, annex, for rectangular tubes; R. Bredt (1896); Saint-Venant (1855)
 */
export const torsionFigure = (torsion: Torsion, loops: readonly Loop[], figures: LoopFigures): TorsionFigure => {
  switch (torsion.kind) {
    case 'rectangle':
      return { jM4: rectangleTorsion(torsion.longM, torsion.shortM), by: 'solid rectangle, exact' };
    case 'round tube':
      return { jM4: (Math.PI / 2) * (torsion.outerM ** 4 - torsion.innerM ** 4), by: 'round tube, exact' };
    case 'rectangular tube': {
      const { widthM: b, heightM: h, thicknessM: t, outerRadiusM, innerRadiusM } = torsion;
      const rc = (outerRadiusM + innerRadiusM) / 2;
      const around = 2 * (b - t + h - t) - 2 * rc * (4 - Math.PI);
      const enclosed = (b - t) * (h - t) - rc ** 2 * (4 - Math.PI);
      const k = (2 * enclosed * t) / around;
      return { jM4: (t ** 3 * around) / 3 + 2 * k * enclosed, by: 'closed: one cell of even wall with round corners' };
    }
    case 'open':
      return { jM4: openWalls(torsion.walls), by: 'open: thin walls that enclose nothing; warping is not held' };
    case 'cell':
      return {
        jM4: (4 * torsion.enclosedM2 ** 2) / torsion.around.reduce((sum, [b, t]) => sum + b / t, 0) + openWalls(torsion.walls),
        by: 'closed: one cell of thin walls; assumes that the plate is joined all along, spot welds give less',
      };
    case 'outline':
      return outlineTorsion(loops, figures);
  }
};

const outlineTorsion = (loops: readonly Loop[], { areaM2, perimeterM, ixM4, iyM4 }: LoopFigures): TorsionFigure => {
  const holes = loops.filter((loop) => loopArea(loop) < 0);
  if (holes.length > 0) {
    const enclosed = -holes.reduce((sum, loop) => sum + loopArea(loop), 0) + areaM2 / 2;
    const around = perimeterM / 2;
    const t = areaM2 / around;
    const many = holes.length > 1 ? `; its ${holes.length} cells are taken as one` : '';
    return {
      jM4: (4 * enclosed ** 2 * t) / around,
      by: `closed: a cell of even wall ${Number((t * 1000).toFixed(2))} mm, about ± 10 %${many}`,
    };
  }
  const t = (2 * areaM2) / perimeterM;
  return t < SLENDER * Math.sqrt(areaM2)
    ? { jM4: (areaM2 * t ** 2) / 3, by: 'open: walls of even thickness, about ± 10 %; warping is not held' }
    : { jM4: areaM2 ** 4 / (40 * (ixM4 + iyM4)), by: 'compact: Saint-Venant’s A⁴/(40 Ip), about ± 10 %' };
};
