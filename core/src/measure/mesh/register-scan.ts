import { bestFit, moved, type Place, type RigidMove } from '../hole-patterns/best-fit';

/** The point of a surface nearest to a place. */
type NearestOn = (place: Place) => Place;

interface LaidOver {
  readonly move: RigidMove;
  /** root mean square of the distances left, the farthest left out, in the unit of the meshes */
  readonly rms: number;
  /** and of all of them: by this one way round is told from another that differs in a small place only */
  readonly rmsOfAll: number;
  readonly rounds: number;
}

const MOST_ROUNDS = 60;
const STILL = 1e-7;
/** so many of the farthest are left out each round: what one scan has and the other lacks must not pull */
const LEFT_OUT = 0.1;

/**
 * Lays one scan over another: from several starts, pairs each point with the nearest of the other surface, fits, and goes on
 * until the distances stay.
 *
 * @param points of the first scan, some thousands spread over its surface
 * @param starts moves to begin with; the best result is taken
 * @source P. Besl, N. McKay, A method for registration of 3-D shapes (1992), with the farthest tenth left out
 */
export const registerScan = (points: readonly Place[], nearest: NearestOn, starts: readonly RigidMove[]): LaidOver => {
  const few = points.filter((_, i) => i % Math.ceil(points.length / 300) === 0);
  const ranked = starts.map((start) => fitted(few, nearest, start, 12)).sort((a, b) => a.rmsOfAll - b.rmsOfAll);
  const best = ranked.slice(0, 3).map((r) => fitted(points, nearest, r.move, MOST_ROUNDS));
  return best.reduce((a, b) => (b.rmsOfAll < a.rmsOfAll ? b : a));
};

const apart = (a: Place, b: Place): number => Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]);

const rmsOf = (pairs: readonly { readonly far: number }[]): number =>
  Math.sqrt(pairs.reduce((sum, { far }) => sum + far ** 2, 0) / pairs.length);

const fitted = (points: readonly Place[], nearest: NearestOn, start: RigidMove, mostRounds: number): LaidOver => {
  let best: LaidOver = { move: start, rms: Infinity, rmsOfAll: Infinity, rounds: 0 };
  let move = start;
  for (let rounds = 0; rounds <= mostRounds; rounds++) {
    const pairs = points.map((p) => {
      const at = moved(move, p);
      const onto = nearest(at);
      return { p, onto, far: apart(at, onto) };
    });
    const kept = pairs.sort((a, b) => a.far - b.far).slice(0, Math.max(3, Math.ceil(pairs.length * (1 - LEFT_OUT))));
    const rms = rmsOf(kept);
    const isStill = !(rms < best.rms * (1 - STILL));
    if (rms <= best.rms) best = { move, rms, rmsOfAll: rmsOf(pairs), rounds };
    if (isStill) break;
    move = bestFit(
      kept.map((k) => k.p),
      kept.map((k) => k.onto),
      { isMirrored: false, isFlat: false },
    );
  }
  return best;
};
