import { COVERAGE_FACTOR, massWithU } from '../../shared';

/** A weighing of a whole. */
interface WeighedMass {
  readonly massKg: number;
  /** variance, kg² */
  readonly massVar: number;
}

/** The sum of what is inside it, so far. */
interface SummedMass extends WeighedMass {
  /** every part and fastener recorded inside has a mass */
  readonly isComplete: boolean;
}

export interface MassClosure {
  readonly whole: WeighedMass;
  readonly sum: SummedMass;
  /** whole − sum, kg, and its standard uncertainty */
  readonly residualKg: number;
  readonly residualUKg: number;
  /**
   * `short`: something is not accounted for yet. `closed`: they agree within 2 u. `impossible`: what is inside weighs more
   * than the whole beyond 2 u, so that one of the two is wrong.
   */
  readonly state: 'short' | 'closed' | 'impossible';
  /** whose figure is the mass of the assembly */
  readonly stands: 'whole' | 'sum';
}

/**
 * A weighed assembly held against the sum of its parts.
 *
 *   residual = M − Σ m      u² = u²(M) + u²(Σ m)
 *
 * While parts are missing, or the sum falls short of the whole by more than 2 u, the whole is the mass. Where the two agree,
 * or cannot both be right, the one with the smaller uncertainty is.
 *
 * @param whole the weighing of the assembly, kg
 * @param sum the sum of what is inside, kg
 * @source JCGM 100:2008 (GUM), eq. 10, uncorrelated
 * @example
 * massClosure({ massKg: 10, massVar: 1e-4 }, { massKg: 7, massVar: 0.25, isComplete: true }).stands // => 'whole'
 */
export const massClosure = (whole: WeighedMass, sum: SummedMass): MassClosure => {
  const residualKg = whole.massKg - sum.massKg;
  const residualUKg = Math.sqrt(whole.massVar + sum.massVar);
  const isImpossible = residualKg < -COVERAGE_FACTOR * residualUKg;
  const isShort = residualKg > COVERAGE_FACTOR * residualUKg || (!sum.isComplete && !isImpossible);
  const isWholeSurer = whole.massVar <= sum.massVar;
  // parts that weigh more than the whole already: no sum of more of them is less
  const stands = isShort && residualKg >= 0 ? 'whole' : isWholeSurer ? 'whole' : 'sum';
  return { whole, sum, residualKg, residualUKg, state: isImpossible ? 'impossible' : isShort ? 'short' : 'closed', stands };
};

/** What a closure says, in a line; empty where nothing was left over. */
export const closureText = (closure: MassClosure): string => {
  const { state, residualKg, residualUKg, sum } = closure;
  const residual = massWithU(Math.abs(residualKg), residualUKg, 4);
  if (state === 'impossible') return `What is inside weighs ${residual} more than the whole: one of the two is wrong`;
  if (state === 'closed') return `Whole and parts agree: ${residual} apart`;
  if (residualKg > COVERAGE_FACTOR * residualUKg) return `${residual} not yet accounted for inside`;
  return sum.isComplete ? `${residual} not yet accounted for inside` : 'Not everything inside has a mass yet';
};
