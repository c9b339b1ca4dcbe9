import earcut from 'earcut';
import type { Vector } from './mesh';
import { cross, dot, length, minus } from './vectors';

/**
 * Triangles of a face with any number of corners. A face without a corner that points inwards is cut as a fan from its
 * first; any other in the plane it lies nearest to, so that no triangle reaches out of it.
 *
 * @param corners names of the corners, in their order
 * @param placeOf place of a corner
 * @param into takes three names for each triangle
 * @source normal of a polygon: Newell; cutting: ear clipping
 */
export const addPolygon = (corners: readonly number[], placeOf: (corner: number) => Vector, into: number[]): void => {
  if (corners.length === 3) {
    into.push(corners[0]!, corners[1]!, corners[2]!);
    return;
  }
  const places = corners.map(placeOf);
  const normal = places.reduce<Vector>(
    (sum, p, i) => {
      const n = cross(p, places[(i + 1) % places.length]!);
      return [sum[0] + n[0], sum[1] + n[1], sum[2] + n[2]];
    },
    [0, 0, 0],
  );
  const isConvex = places.every((p, i) => {
    const [before, after] = [places[(i + places.length - 1) % places.length]!, places[(i + 1) % places.length]!];
    return dot(cross(minus(p, before), minus(after, p)), normal) >= 0;
  });
  if (isConvex || !(length(normal) > 0)) {
    for (let i = 2; i < corners.length; i++) into.push(corners[0]!, corners[i - 1]!, corners[i]!);
    return;
  }
  // seen along the axis the normal is nearest to, from its side, so that the way round stays
  const axis = [0, 1, 2].reduce((most, i) => (Math.abs(normal[i]!) > Math.abs(normal[most]!) ? i : most), 0);
  const [u, v] = normal[axis]! > 0 ? [(axis + 1) % 3, (axis + 2) % 3] : [(axis + 2) % 3, (axis + 1) % 3];
  const cut = earcut(places.flatMap((p) => [p[u]!, p[v]!]));
  for (let at = 0; at < cut.length; at += 3) {
    const three = [cut[at]!, cut[at + 1]!, cut[at + 2]!] as const;
    const [a, b, c] = three.map((i) => places[i]!) as [Vector, Vector, Vector];
    const runsRound = dot(cross(minus(b, a), minus(c, a)), normal) >= 0;
    const [i, j, k] = runsRound ? three : ([three[0], three[2], three[1]] as const);
    into.push(corners[i]!, corners[j]!, corners[k]!);
  }
};
