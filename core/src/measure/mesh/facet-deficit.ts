import { eachEdge } from './edge-pairs';
import type { Mesh, Vector } from './mesh';
import { vertexAt } from './mesh';
import { cross, dot, length, minus } from './vectors';

/** Edges that bend by more than this are edges of the part, not facets of something round, rad. */
const FACET = Math.PI / 6;

/**
 * What is missing between facets and the round surface whose points they join: standard uncertainty of a volume, in the cube
 * of the unit of the mesh.
 *
 *   u = |Σ ± ℓ w² θ / 12|   over edges of length ℓ that bend by θ < 30°, w the mean width of the two facets; − where it bends inwards
 *
 * A chord of width w that bends by θ at its ends cuts off w² θ / 12 of the arc over it.
 *
 * @source segment of a circle, to the third power of the angle
 */
export const facetDeficit = (mesh: Mesh): number => {
  const { triangles } = mesh;
  const corners = (at: number): readonly [Vector, Vector, Vector] => [
    vertexAt(mesh, triangles[at]!),
    vertexAt(mesh, triangles[at + 1]!),
    vertexAt(mesh, triangles[at + 2]!),
  ];
  let sum = 0;
  eachEdge(mesh, (a, b, along) => {
    if (along.length !== 2) return;
    const [p, q] = [corners(along[0]!), corners(along[1]!)];
    const [n, m] = [cross(minus(p[1], p[0]), minus(p[2], p[0])), cross(minus(q[1], q[0]), minus(q[2], q[0]))];
    const [ln, lm] = [length(n), length(m)];
    if (!(ln > 0 && lm > 0)) return;
    const angle = Math.acos(Math.min(1, Math.max(-1, dot(n, m) / (ln * lm))));
    if (!(angle > 1e-6 && angle < FACET)) return;
    const edge = minus(vertexAt(mesh, b), vertexAt(mesh, a));
    const along1 = length(edge);
    // twice the area over the edge is the height of a triangle; two of them make a strip
    const width = (ln + lm) / 2 / along1;
    const apex = q.find((_, i) => triangles[along[1]! + i] !== a && triangles[along[1]! + i] !== b);
    const isOutward = apex === undefined || dot(n, minus(apex, p[0])) <= 0;
    sum += ((isOutward ? 1 : -1) * along1 * width ** 2 * angle) / 12;
  });
  return Math.abs(sum);
};
