import type { Material } from '../../shared';
import { loopFigures, type LoopFigures } from './loop-figures';
import type { Section } from './shapes';
import { torsionFigure } from './torsion';

export interface SectionFigures extends LoopFigures {
  readonly jM4: number;
  readonly jBy: string;
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
export const POISSON_RATIO = 0.3;

/** Everything asked of a section, with a material for mass and stiffness. G = E / (2 (1 + ν)), ν = 0.3 (assumed). */
export const sectionFigures = (section: Section, material: Material | null): SectionFigures => {
  const figures = loopFigures(section.loops);
  const { jM4, by } = torsionFigure(section.torsion, section.loops, figures);
  const massKgPerM = material === null ? null : figures.areaM2 * material.densityKgPerM3;
  const young = material?.youngPa ?? null;
  const bendingNm2 = young === null ? null : young * figures.ixM4;
  const twistingNm2 = young === null ? null : (young / (2 * (1 + POISSON_RATIO))) * jM4;
  const perKg = (stiffness: number | null): number | null => (stiffness === null || massKgPerM === null ? null : stiffness / massKgPerM);
  return {
    ...figures,
    jM4,
    jBy: by,
    massKgPerM,
    bendingNm2,
    twistingNm2,
    bendingPerKg: perKg(bendingNm2),
    twistingPerKg: perKg(twistingNm2),
  };
};
