import { COVERAGE_FACTOR, issue, normalCdf, type Issue } from '../../shared';
import { padsOnOnePlace, type LiftSetUp, type PadPoint, type Part, type LiftStep } from '../../record';

/** A vehicle, or what is still on it: mass and the place of its centre of mass. */
export interface Balance {
  readonly massKg: number;
  readonly xM: number;
  readonly yM: number;
  /** standard uncertainty of the place towards the nearest line between the pads */
  readonly uM: number;
  /** distance from the centre of mass to the nearest line between the pads; below 0 it is outside and the vehicle tips */
  readonly insideM: number;
  /** chance that the centre of mass lies outside the pads, over any of their edges */
  readonly tipFraction: number;
}

export interface BalanceStep {
  readonly liftStep: LiftStep;
  /** null when the mass or place of the step is not known */
  readonly after: Balance | null;
  readonly state: 'stays' | 'near' | 'tips' | 'unknown';
}

export interface LiftBalance {
  readonly start: Balance;
  readonly startState: 'stays' | 'near' | 'tips';
  readonly steps: readonly BalanceStep[];
  /** the first step that would tip the vehicle, or from which on it is not known */
  readonly firstBad: number | null;
  readonly issues: readonly Issue[];
}

interface Lump {
  readonly massKg: number;
  readonly massUKg: number;
  readonly xM: number;
  readonly yM: number;
  readonly placeUM: number;
}

/** Places are read off by hand: this much of a standard uncertainty where none is stated. */
const PLACE_U_M = 0.05;
/** From this chance of tipping on the step is stopped. */
const TIPS_FROM = 0.01;

/**
 * Corners of the smallest convex figure around the pads, in turn.
 * @source Andrew's monotone chain
 */
export const hullOf = (points: readonly PadPoint[]): readonly PadPoint[] => {
  const sorted = [...points].sort((a, b) => a.xM - b.xM || a.yM - b.yM);
  const turn = (o: PadPoint, a: PadPoint, b: PadPoint): number => (a.xM - o.xM) * (b.yM - o.yM) - (a.yM - o.yM) * (b.xM - o.xM);
  const half = (way: readonly PadPoint[]): PadPoint[] => {
    const chain: PadPoint[] = [];
    for (const point of way) {
      while (chain.length >= 2 && turn(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop();
      chain.push(point);
    }
    return chain.slice(0, -1);
  };
  return [...half(sorted), ...half(sorted.reverse())];
};

interface Spread {
  readonly xx: number;
  readonly xy: number;
  readonly yy: number;
}

const STRIPS = 400;
const FAR = 7;

/**
 * Chance that a place with a normal error lies outside a convex figure.
 *
 *   P = 1 − ∫ φ(x) (Φ(high(x)) − Φ(low(x))) dx,   y given x normal about ȳ + (x − x̄) σxy/σxx with variance σyy − σxy²/σxx
 *
 * @source bivariate normal distribution by strips of its conditional distribution; midpoints of 400 strips over ± 7 σ
 */
export const outsideFraction = (hull: readonly PadPoint[], xM: number, yM: number, { xx, xy, yy }: Spread): number => {
  if (hull.length < 3) return 1;
  if (!(xx > 0 && yy > 0)) return nearestEdge(hull, xM, yM).insideM > 0 ? 0 : 1;
  const ux = Math.sqrt(xx);
  const uGiven = Math.sqrt(Math.max(yy - (xy * xy) / xx, 1e-18));
  const width = (2 * FAR) / STRIPS;
  let inside = 0;
  for (let i = 0; i < STRIPS; i++) {
    const z = -FAR + (i + 0.5) * width;
    const x = xM + z * ux;
    let [low, high] = [Infinity, -Infinity];
    for (const [k, from] of hull.entries()) {
      const to = hull[(k + 1) % hull.length]!;
      if (from.xM <= x === to.xM <= x) continue;
      const y = from.yM + ((x - from.xM) / (to.xM - from.xM)) * (to.yM - from.yM);
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
    if (!(high > low)) continue;
    const mean = yM + (z * xy) / ux;
    inside += (Math.exp(-(z * z) / 2) / Math.sqrt(2 * Math.PI)) * width * (normalCdf(high, mean, uGiven) - normalCdf(low, mean, uGiven));
  }
  return Math.min(1, Math.max(0, 1 - inside));
};

/** Masses are drawn in so many strips, over so many standard deviations. */
const MASS_STRIPS = 24;
const MASS_FAR = 4.5;

/**
 * Chance that what is left of a vehicle tips over any edge of its pads; what came off is a lump of negative mass.
 *
 * The moments Sx = Σ mᵢ xᵢ, Sy and the mass M = Σ mᵢ are drawn together, normal, with their exact variances:
 *
 *   u²(M) = Σ u²(mᵢ)    u(M, Sx) = Σ xᵢ u²(mᵢ)    u²(Sx) = Σ (mᵢ² u²(xᵢ) + xᵢ² u²(mᵢ) + u²(mᵢ) u²(xᵢ))    u(Sx, Sy) = Σ xᵢ yᵢ u²(mᵢ)
 *
 * and for each M the place S/M is held against the pads. To first order alone, heavy things of unsure mass that come off
 * would make the chance a fifth too small.
 *
 * @source moments of products of independent variables (L. A. Goodman, JASA 55 (1960) 708); conditional normal distribution
 */
const tipFractionOf = (hull: readonly PadPoint[], lumps: readonly Lump[]): number => {
  const sum = (of: (lump: Lump) => number): number => lumps.reduce((total, lump) => total + of(lump), 0);
  const [mass, sx, sy] = [sum((l) => l.massKg), sum((l) => l.massKg * l.xM), sum((l) => l.massKg * l.yM)];
  const massVariance = sum((l) => l.massUKg ** 2);
  const [withX, withY] = [sum((l) => l.xM * l.massUKg ** 2), sum((l) => l.yM * l.massUKg ** 2)];
  const own = sum((l) => (l.massKg ** 2 + l.massUKg ** 2) * l.placeUM ** 2);
  const slope = (along: number): number => (massVariance > 0 ? along / massVariance : 0);
  const given = {
    xx: own + sum((l) => (l.xM * l.massUKg) ** 2) - withX * slope(withX),
    xy: sum((l) => l.xM * l.yM * l.massUKg ** 2) - withX * slope(withY),
    yy: own + sum((l) => (l.yM * l.massUKg) ** 2) - withY * slope(withY),
  };
  const outsideAt = (drawn: number): number => {
    if (!(drawn > 0)) return 1;
    const more = drawn - mass;
    const square = drawn * drawn;
    return outsideFraction(hull, (sx + slope(withX) * more) / drawn, (sy + slope(withY) * more) / drawn, {
      xx: Math.max(0, given.xx / square),
      xy: given.xy / square,
      yy: Math.max(0, given.yy / square),
    });
  };
  if (!(massVariance > 0)) return outsideAt(mass);
  const width = (2 * MASS_FAR) / MASS_STRIPS;
  let [chance, weights] = [0, 0];
  for (let i = 0; i < MASS_STRIPS; i++) {
    const z = -MASS_FAR + (i + 0.5) * width;
    const weight = Math.exp(-(z * z) / 2);
    chance += weight * outsideAt(mass + z * Math.sqrt(massVariance));
    weights += weight;
  }
  return chance / weights;
};

interface Edge {
  readonly insideM: number;
  /** unit vector towards the inside */
  readonly nx: number;
  readonly ny: number;
}

/** Signed distance of a point from the nearest side of a convex figure that turns left; inside is positive. */
const nearestEdge = (hull: readonly PadPoint[], xM: number, yM: number): Edge =>
  hull.reduce<Edge>(
    (nearest, from, i) => {
      const to = hull[(i + 1) % hull.length]!;
      const length = Math.hypot(to.xM - from.xM, to.yM - from.yM);
      const [nx, ny] = [-(to.yM - from.yM) / length, (to.xM - from.xM) / length];
      const insideM = (xM - from.xM) * nx + (yM - from.yM) * ny;
      return insideM < nearest.insideM ? { insideM, nx, ny } : nearest;
    },
    { insideM: Number.POSITIVE_INFINITY, nx: 0, ny: 0 },
  );

/**
 * Centre of mass of a vehicle less what came off it, and its uncertainty towards the nearest side.
 *
 *   M = M₀ − Σ mᵢ      x = (M₀ x₀ − Σ mᵢ xᵢ) / M
 *   u²(d) = Σ ((r − rᵢ)·n / M)² u²(mᵢ) + Σ (mᵢ / M)² u²(rᵢ)      over the vehicle and what came off, n towards the side
 *
 * @source centre of mass of several bodies; JCGM 100:2008 (GUM), eq. 10, uncorrelated inputs
 */
const balanceOf = (vehicle: Lump, off: readonly Lump[], hull: readonly PadPoint[]): Balance => {
  const massKg = off.reduce((mass, lump) => mass - lump.massKg, vehicle.massKg);
  const xM = off.reduce((moment, lump) => moment - lump.massKg * lump.xM, vehicle.massKg * vehicle.xM) / massKg;
  const yM = off.reduce((moment, lump) => moment - lump.massKg * lump.yM, vehicle.massKg * vehicle.yM) / massKg;
  const { insideM, nx, ny } = nearestEdge(hull, xM, yM);
  const variance = [vehicle, ...off].reduce((sum, lump) => {
    const arm = (lump.xM - xM) * nx + (lump.yM - yM) * ny;
    return sum + ((arm / massKg) * lump.massUKg) ** 2 + ((lump.massKg / massKg) * lump.placeUM) ** 2;
  }, 0);
  return {
    massKg,
    xM,
    yM,
    uM: Math.sqrt(variance),
    insideM,
    tipFraction: tipFractionOf(hull, [vehicle, ...off.map((lump) => ({ ...lump, massKg: -lump.massKg }))]),
  };
};

const stateOf = (balance: Balance, marginM: number): 'stays' | 'near' | 'tips' => {
  if (!(balance.insideM > 0) || balance.tipFraction >= TIPS_FROM) return 'tips';
  return balance.insideM - COVERAGE_FACTOR * balance.uM < marginM ? 'near' : 'stays';
};

/** Mass and place of a step: what is typed counts before what is recorded of the part. */
export const lumpOf = (liftStep: LiftStep, part: Part | null, massWithinKg: number | null, massWithinUKg: number | null): Lump | null => {
  const massKg = liftStep.massKg ?? massWithinKg;
  const massUKg = liftStep.massUKg ?? massWithinUKg ?? 0;
  const [xM, yM] = liftStep.xM !== null ? [liftStep.xM, liftStep.yM] : [part?.xM ?? null, part?.yM ?? null];
  return massKg === null || xM === null || yM === null ? null : { massKg, massUKg, xM, yM, placeUM: PLACE_U_M };
};

/**
 * Whether a vehicle stays on the pads of a lift while heavy things come off it one by one.
 *
 * @param lumps [step] mass and place of each step in order; null where they are not known
 * @returns the state before and after each step; a vehicle “tips” as soon as the chance that its centre of mass lies over
 * any edge of the pads is one in a hundred
 */
export const liftBalance = (liftSetUp: LiftSetUp, liftSteps: readonly LiftStep[], lumps: readonly (Lump | null)[]): LiftBalance => {
  const hull = hullOf(liftSetUp.pads);
  const issues: Issue[] = [];
  issues.push(...padsOnOnePlace(liftSetUp));
  if (hull.length < 3) issues.push(issue('pads-in-line', 'The pads stand in one line: nothing lies between them', 'pads', liftSetUp.id));
  const vehicle: Lump = {
    massKg: liftSetUp.massKg,
    massUKg: liftSetUp.massUKg,
    xM: liftSetUp.xM,
    yM: liftSetUp.yM,
    placeUM: liftSetUp.placeUM,
  };
  const start = balanceOf(vehicle, [], hull);
  const off: Lump[] = [];
  let lost = false;
  const steps = liftSteps.map((liftStep, at): BalanceStep => {
    const lump = lumps[at] ?? null;
    if (lump === null || lost) {
      if (lump === null)
        issues.push(
          issue(
            'step-unknown',
            `“${liftStep.label}” has no mass or no place: from here on the balance is not known. Weigh or estimate it`,
            'massKg',
            liftStep.id,
          ),
        );
      lost = true;
      return { liftStep, after: null, state: 'unknown' };
    }
    off.push(lump);
    const removed = off.reduce((sum, l) => sum + l.massKg, 0);
    if (!(removed < liftSetUp.massKg)) {
      issues.push(
        issue(
          'more-than-all',
          `With “${liftStep.label}” more has come off than the vehicle weighs: one of the masses is wrong`,
          'massKg',
          liftStep.id,
        ),
      );
      lost = true;
      return { liftStep, after: null, state: 'unknown' };
    }
    const after = balanceOf(vehicle, off, hull);
    return { liftStep, after, state: stateOf(after, liftSetUp.marginM) };
  });
  const firstBad = steps.findIndex((step) => step.state === 'tips' || step.state === 'unknown');
  return { start, startState: stateOf(start, liftSetUp.marginM), steps, firstBad: firstBad < 0 ? null : firstBad, issues };
};
