import type { Material } from '../../shared';
import { loopFigures, type LoopFigures, type Point } from './loop-figures';
import type { Section } from './shapes';
import { outlineFault, withoutRepeats } from './outline-faults';
import { torsionFigure } from './torsion';

export interface SectionFigures extends LoopFigures {
  readonly jM4: number;
  /** half the width within which it is known, m⁴; 0 where it is exact */
  readonly jUM4: number;
  readonly jBy: string;
  /** the torsion constant by a formula in common use, for comparison, and which; null where there is none */
  readonly jFormula: { readonly jM4: number; readonly by: string } | null;
  /** where a force bends without twisting, m; Poisson's ratio 0 */
  readonly shearCentre: Point;
  /** warping constant about it, m⁶; null where it was not worked out */
  readonly warpingM6: number | null;
  /** null without a material */
  readonly massKgPerM: number | null;
  /** stiffness in bending up and down, E Ix, N m²; null where the material has no modulus */
  readonly bendingNm2: number | null;
  /** stiffness in twisting, G J, N m² */
  readonly twistingNm2: number | null;
  /** the two per kilogram of one metre, N m³/kg */
  readonly bendingPerKg: number | null;
  readonly twistingPerKg: number | null;
}

/** Metals and filled plastics lie near this (assumed for all). */
const POISSON_RATIO = 0.3;

/**
 * Everything asked of a section, with a material for mass and stiffness. G = E / (2 (1 + ν)), ν = 0.3 (assumed). Takes up to a
 * second for an intricate outline.
 *
 * @throws RangeError with what `outlineFault` says
 */
export const sectionFigures = (section: Section, material: Material | null): SectionFigures => {
  const loops = withoutRepeats(section.loops);
  const fault = outlineFault(loops);
  if (fault !== null) throw new RangeError(fault);
  const figures = loopFigures(loops);
  const { jM4, jUM4, by, formula, shearCentre, warpingM6 } = torsionFigure(section.torsion, loops, figures.centroid);
  const massKgPerM = material === null ? null : figures.areaM2 * material.densityKgPerM3;
  const young = material?.youngPa ?? null;
  const bendingNm2 = young === null ? null : young * figures.ixM4;
  const twistingNm2 = young === null ? null : (young / (2 * (1 + POISSON_RATIO))) * jM4;
  const perKg = (stiffness: number | null): number | null => (stiffness === null || massKgPerM === null ? null : stiffness / massKgPerM);
  return {
    ...figures,
    jM4,
    jUM4,
    jBy: by,
    jFormula: formula,
    shearCentre,
    warpingM6,
    massKgPerM,
    bendingNm2,
    twistingNm2,
    bendingPerKg: perKg(bendingNm2),
    twistingPerKg: perKg(twistingNm2),
  };
};

/** By how much a formula in common use is off, as a fraction of the exact constant: 0.02 is 2 % above it. */
export const formulaOff = (jFormulaM4: number, jM4: number): number => jFormulaM4 / jM4 - 1;
