import type { CostBasis } from '../shared';
import type { FastenerKind, FastenerSet } from '../record';
import { fastenerMass } from '../bench';
import { catalogueIssues } from './part-cost';

/** Bought-out price of a fastener: EUR each plus EUR per kg, 2026, assumed. */
const FASTENER_PRICE: Readonly<Record<FastenerKind, { readonly eachEur: number; readonly perKgEur: number }>> = {
  bolt: { eachEur: 0.015, perKgEur: 4.2 },
  nut: { eachEur: 0.01, perKgEur: 4 },
  washer: { eachEur: 0.004, perKgEur: 3.2 },
  stud: { eachEur: 0.02, perKgEur: 4.5 },
  screw: { eachEur: 0.012, perKgEur: 4.2 },
  rivet: { eachEur: 0.025, perKgEur: 5 },
  clip: { eachEur: 0.035, perKgEur: 6 },
  'push pin': { eachEur: 0.04, perKgEur: 6 },
  'cable tie': { eachEur: 0.02, perKgEur: 5 },
};

/** Cost of one fastener in the study's currency; null without a mass or on a basis the catalogue does not serve. */
export const fastenerCost = (set: FastenerSet, basis: CostBasis): number | null => {
  if (catalogueIssues(basis).length > 0) return null;
  const mass = fastenerMass(set);
  const price = FASTENER_PRICE[set.kind];
  return mass === null ? null : price.eachEur + price.perKgEur * mass.kg;
};
