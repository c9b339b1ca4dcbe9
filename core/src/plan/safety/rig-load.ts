import { STANDARD_GRAVITY } from '../../shared';

/** A load on a rig: a mass that is lifted, or a force that is pulled. */
export interface RigLoad {
  /** mass lifted, or null for a pull */
  readonly massKg: number | null;
  /** pull, or null for a lift */
  readonly pullN: number | null;
  /** the load is taken this many times */
  readonly factor: number;
  /** slings or legs that share it, and how far each leans from the vertical */
  readonly legs: number;
  readonly leanRad: number;
  /** what the rig, or each leg of it, may take */
  readonly ratedN: number;
}

export interface RigLoadResult {
  /** along one leg, the factor included */
  readonly perLegN: number;
  /** load over rating */
  readonly useFraction: number;
  readonly holds: boolean;
}

/**
 * The load along each leg of a rig against its rating.
 *
 *   F = k (m g or P) / (n cos θ)
 *
 * @throws RangeError for a lean of 90° or more, no leg, no load, or a factor below 1
 * @source equilibrium of forces of a load on equal legs; gₙ = 9.806 65 m/s², 3rd CGPM 1901
 */
export const rigLoad = ({ massKg, pullN, factor, legs, leanRad, ratedN }: RigLoad): RigLoadResult => {
  const load = massKg === null ? pullN : massKg * STANDARD_GRAVITY;
  if (load === null || !(load > 0 && factor >= 1 && legs >= 1 && leanRad >= 0 && leanRad < Math.PI / 2 && ratedN > 0))
    throw new RangeError('a load needs a mass or pull, a factor of 1 or more, legs that lean less than 90°, and a rating');
  const perLegN = (factor * load) / (legs * Math.cos(leanRad));
  return { perLegN, useFraction: perLegN / ratedN, holds: perLegN <= ratedN };
};
