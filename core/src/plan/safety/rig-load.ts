import { STANDARD_GRAVITY } from '../../shared';

/** A load on a rig: a mass that is lifted, or a force that is pulled. */
interface RigLoad {
  /** mass lifted, or null for a pull */
  readonly massKg: number | null;
  /** pull, or null for a lift */
  readonly pullN: number | null;
  /** the load is taken this many times */
  readonly factor: number;
  /** slings or legs that share it, and how far each leans from the vertical */
  readonly legs: number;
  /** a load that does not give: of three legs or more two carry it, for they are never all of one length */
  readonly isRigid: boolean;
  readonly leanRad: number;
  /** what the rig, or each leg of it, may take */
  readonly ratedN: number;
}

/** Legs that lean more are not used: the force in them grows without bound. @source usual limit of sling charts, from memory */
export const MOST_LEAN_RAD = Math.PI / 3;
/** What the sum rests on, in words for the screen. */
export const RIG_LOAD_SOURCE =
  'Equilibrium of forces, gₙ by the 3rd CGPM (1901). That a rigid load bears on two legs, and that no leg leans more than 60°, are the usual rules of sling charts, from memory: the chart of the sling and local codes decide.';

interface RigLoadResult {
  /** legs that bear the load */
  readonly bearing: number;
  /** along one leg, the factor included */
  readonly perLegN: number;
  /** load over rating */
  readonly useFraction: number;
  readonly holds: boolean;
}

/**
 * The load along each leg of a rig against its rating.
 *
 *   F = k (m g or P) / (n cos θ),   n = 2 of three legs or more under a rigid load
 *
 * @throws RangeError for a lean of more than 60°, no leg, no load, or a factor below 1
 * @source equilibrium of forces of a load on equal legs; gₙ = 9.806 65 m/s², 3rd CGPM 1901
 */
export const rigLoad = ({ massKg, pullN, factor, legs, isRigid, leanRad, ratedN }: RigLoad): RigLoadResult => {
  const load = massKg === null ? pullN : massKg * STANDARD_GRAVITY;
  if (!(leanRad >= 0 && leanRad <= MOST_LEAN_RAD + 1e-12))
    throw new RangeError('a leg that leans more than 60° from the vertical is not used: take longer slings or a spreader');
  if (load === null || !(load > 0 && factor >= 1 && legs >= 1 && ratedN > 0))
    throw new RangeError('a load needs a mass or pull, a factor of 1 or more, a leg, and a rating');
  const bearing = isRigid && legs > 2 ? 2 : legs;
  const perLegN = (factor * load) / (bearing * Math.cos(leanRad));
  return { bearing, perLegN, useFraction: perLegN / ratedN, holds: perLegN <= ratedN };
};
