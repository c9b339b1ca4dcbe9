/** A fluid at its temperature. */
export interface FluidData {
  readonly densityKgPerM3: number;
  /** dynamic viscosity, Pa s */
  readonly viscosityPaS: number;
}

/** A pipe or hose; `minor` is the sum of the loss coefficients of its fittings on its own velocity. */
export interface Pipe {
  readonly innerM: number;
  readonly lengthM: number;
  readonly roughnessM: number;
  readonly minor: number;
}

/** Below it the flow is laminar, above the second turbulent; between them it is neither, and the friction is read off a straight line. */
export const TRANSITION = { from: 2300, to: 4000 } as const;

/** Colebrook–White for turbulent flow, by Newton on 1/√f. */
const turbulent = (reynolds: number, relative: number): number => {
  let x = -1.8 * Math.log10((relative / 3.7) ** 1.11 + 6.9 / reynolds);
  for (let round = 0; round < 30; round += 1) {
    const inside = relative / 3.7 + (2.51 * x) / reynolds;
    const step = (x + 2 * Math.log10(inside)) / (1 + (2 * 2.51) / (reynolds * inside * Math.LN10));
    x -= step;
    if (Math.abs(step) < 1e-14 * x) break;
  }
  return 1 / x ** 2;
};

/**
 * Darcy friction factor of a round pipe: 64/Re below 2300, Colebrook–White from 4000, a straight line between.
 *
 * @param reynolds Reynolds number, more than 0
 * @param relative roughness over inner diameter
 * @source C. F. Colebrook, J. Inst. Civil Eng. 11 (1939) 133; Hagen–Poiseuille
 * @example
 * frictionFactor(1600, 0) // => 0.04
 */
export const frictionFactor = (reynolds: number, relative: number): number => {
  if (reynolds <= TRANSITION.from) return 64 / reynolds;
  if (reynolds >= TRANSITION.to) return turbulent(reynolds, relative);
  const share = (reynolds - TRANSITION.from) / (TRANSITION.to - TRANSITION.from);
  return (1 - share) * (64 / TRANSITION.from) + share * turbulent(TRANSITION.to, relative);
};

export interface Drop {
  readonly velocityMPerS: number;
  readonly reynolds: number;
  readonly friction: number;
  readonly dropPa: number;
  readonly regime: 'laminar' | 'between' | 'turbulent';
}

/**
 * Pressure drop of a pipe at a flow, by Darcy–Weisbach with its fittings.
 *
 *   Δp = (f L/D + Σ K) ρ v²/2
 *
 * @param flowM3PerS volume flow; its sign is that of the drop
 * @returns m/s, Pa
 * @throws RangeError for a pipe without a bore, a fluid without density or viscosity
 */
export const pipeDrop = (pipe: Pipe, fluid: FluidData, flowM3PerS: number): Drop => {
  if (!(pipe.innerM > 0)) throw new RangeError('A pipe needs its inner diameter');
  if (!(pipe.lengthM >= 0)) throw new RangeError('A pipe needs its length');
  if (!(fluid.densityKgPerM3 > 0)) throw new RangeError('The fluid needs its density');
  if (!(fluid.viscosityPaS > 0)) throw new RangeError('The fluid needs its viscosity');
  const velocityMPerS = flowM3PerS / ((Math.PI * pipe.innerM ** 2) / 4);
  const speed = Math.abs(velocityMPerS);
  if (speed === 0) return { velocityMPerS: 0, reynolds: 0, friction: 0, dropPa: 0, regime: 'laminar' };
  const reynolds = (fluid.densityKgPerM3 * speed * pipe.innerM) / fluid.viscosityPaS;
  const friction = frictionFactor(reynolds, pipe.roughnessM / pipe.innerM);
  const heads = (friction * pipe.lengthM) / pipe.innerM + pipe.minor;
  return {
    velocityMPerS,
    reynolds,
    friction,
    dropPa: (heads * fluid.densityKgPerM3 * velocityMPerS * speed) / 2,
    regime: reynolds <= TRANSITION.from ? 'laminar' : reynolds >= TRANSITION.to ? 'turbulent' : 'between',
  };
};

/** Drop of pipes one behind the other at the same flow, Pa. */
export const chainDropPa = (pipes: readonly Pipe[], fluid: FluidData, flowM3PerS: number): number =>
  pipes.reduce((sum, pipe) => sum + pipeDrop(pipe, fluid, flowM3PerS).dropPa, 0);

/** A pump whose pressure falls with the square of the flow: all of it at no flow, none at its largest. */
export interface Pump {
  readonly shutOffPa: number;
  readonly largestM3PerS: number;
}

export const pumpPa = ({ shutOffPa, largestM3PerS }: Pump, flowM3PerS: number): number =>
  shutOffPa * (1 - (Math.abs(flowM3PerS) * flowM3PerS) / largestM3PerS ** 2);

/**
 * Where a pump and what it drives meet.
 *
 * @param resistancePa drop of the circuit at a flow, rising with it
 * @returns flow m³/s and pressure Pa, by halving to 1e-12 of the largest flow
 */
export const operatingPoint = (
  pump: Pump,
  resistancePa: (flowM3PerS: number) => number,
): { readonly flowM3PerS: number; readonly pressurePa: number } => {
  let [low, high] = [0, pump.largestM3PerS];
  while (high - low > 1e-12 * pump.largestM3PerS) {
    const middle = (low + high) / 2;
    if (pumpPa(pump, middle) > resistancePa(middle)) low = middle;
    else high = middle;
  }
  const flowM3PerS = (low + high) / 2;
  return { flowM3PerS, pressurePa: pumpPa(pump, flowM3PerS) };
};

/** Hydraulic diameter of a flat channel, 4 A / U, m. */
export const hydraulicDiameterM = (widthM: number, heightM: number): number => (2 * widthM * heightM) / (widthM + heightM);
