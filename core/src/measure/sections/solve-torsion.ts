import type { Loop, Point } from './loop-figures';
import { loopArea, loopFigures } from './loop-figures';
import { triangulate, type SectionMesh } from './triangulate';

/** How a section of any outline twists. */
export interface TorsionSolution {
  readonly jM4: number;
  /** the torsion constant lies between these two */
  readonly jLowM4: number;
  readonly jHighM4: number;
  /** where a force bends without twisting, in the axes of the loops (Trefftz: Poisson's ratio 0) */
  readonly shearCentre: Point;
  /** warping constant about the shear centre */
  readonly warpingM6: number;
  readonly triangles: number;
}

/** [six nodes] of each triangle: three corners, then the middles of the edges 1-2, 2-3, 3-1. */
interface Nodes {
  readonly points: Float64Array;
  readonly count: number;
  readonly sixes: Int32Array;
  /** [node] the loop it lies on, −1 inside */
  readonly loopOf: Int32Array;
}

const withMiddles = ({ points, triangles, loopOf }: SectionMesh): Nodes => {
  const xy = points.flat();
  const loops = [...loopOf];
  const middleOf = new Map<number, number>();
  const timesUsed = new Map<number, number>();
  const sixes = new Int32Array(triangles.length * 6);
  const edge = (a: number, b: number): number => (a < b ? a * 67_108_864 + b : b * 67_108_864 + a);
  for (const [a, b, c] of triangles)
    for (const [p, q] of [[a, b], [b, c], [c, a]] as const) timesUsed.set(edge(p, q), (timesUsed.get(edge(p, q)) ?? 0) + 1); // prettier-ignore
  triangles.forEach((corners, t) => {
    corners.forEach((a, i) => {
      const b = corners[(i + 1) % 3]!;
      const at = edge(a, b);
      let middle = middleOf.get(at);
      if (middle === undefined) {
        middle = xy.length / 2;
        xy.push((points[a]![0] + points[b]![0]) / 2, (points[a]![1] + points[b]![1]) / 2);
        // an edge of one triangle only is an edge of the outline
        loops.push(timesUsed.get(at) === 1 ? loopOf[a]! : -1);
        middleOf.set(at, middle);
      }
      sixes[6 * t + i] = a;
      sixes[6 * t + 3 + i] = middle;
    });
  });
  return { points: Float64Array.from(xy), count: xy.length / 2, sixes, loopOf: Int32Array.from(loops) };
};

/** Places in a triangle and their weights: exact for polynomials of degree 2, and of degree 4. @source Strang, Fix (1973); Dunavant (1985) */
const DEGREE_2 = [[0.5, 0.5, 0, 1 / 3], [0, 0.5, 0.5, 1 / 3], [0.5, 0, 0.5, 1 / 3]] as const; // prettier-ignore
const [P, Q, WP, WQ] = [0.445948490915965, 0.091576213509771, 0.223381589678011, 0.109951743655322];
const DEGREE_4 = [
  [P, P, 1 - 2 * P, WP], [P, 1 - 2 * P, P, WP], [1 - 2 * P, P, P, WP],
  [Q, Q, 1 - 2 * Q, WQ], [Q, 1 - 2 * Q, Q, WQ], [1 - 2 * Q, Q, Q, WQ],
] as const; // prettier-ignore

const shapesAt = (l: number, m: number, n: number): readonly number[] => [
  l * (2 * l - 1),
  m * (2 * m - 1),
  n * (2 * n - 1),
  4 * l * m,
  4 * m * n,
  4 * n * l,
];

interface Element {
  readonly nodes: readonly number[];
  readonly area: number;
  /** corners */
  readonly x: readonly number[];
  readonly y: readonly number[];
  /** gradients of the three corner coordinates */
  readonly gx: readonly number[];
  readonly gy: readonly number[];
}

const elementsOf = ({ points, sixes }: Nodes): readonly Element[] =>
  Array.from({ length: sixes.length / 6 }, (_, t) => {
    const nodes = [...sixes.subarray(6 * t, 6 * t + 6)];
    const x = nodes.slice(0, 3).map((i) => points[2 * i]!);
    const y = nodes.slice(0, 3).map((i) => points[2 * i + 1]!);
    const twice = (x[1]! - x[0]!) * (y[2]! - y[0]!) - (x[2]! - x[0]!) * (y[1]! - y[0]!);
    const gx = [y[1]! - y[2]!, y[2]! - y[0]!, y[0]! - y[1]!].map((d) => d / twice);
    const gy = [x[2]! - x[1]!, x[0]! - x[2]!, x[1]! - x[0]!].map((d) => d / twice);
    return { nodes, area: twice / 2, x, y, gx, gy };
  });

const gradientsAt = (g: readonly number[], l: number, m: number, n: number): readonly number[] => [
  (4 * l - 1) * g[0]!,
  (4 * m - 1) * g[1]!,
  (4 * n - 1) * g[2]!,
  4 * (l * g[1]! + m * g[0]!),
  4 * (m * g[2]! + n * g[1]!),
  4 * (n * g[0]! + l * g[2]!),
];

/** A symmetric matrix by rows, for the product with a vector. */
interface Sparse {
  readonly starts: Int32Array;
  readonly columns: Int32Array;
  readonly values: Float64Array;
  readonly diagonal: Float64Array;
}

/** The stiffness matrix over unknowns; a node whose unknown is −1 is held at zero. */
const stiffness = (elements: readonly Element[], unknownOf: Int32Array, count: number): Sparse => {
  const rows: Map<number, number>[] = Array.from({ length: count }, () => new Map<number, number>());
  for (const { nodes, area, gx, gy } of elements) {
    const k = new Float64Array(36);
    for (const [l, m, n, weight] of DEGREE_2) {
      const [dx, dy] = [gradientsAt(gx, l, m, n), gradientsAt(gy, l, m, n)];
      for (let i = 0; i < 6; i++) for (let j = 0; j < 6; j++) k[6 * i + j]! += weight * area * (dx[i]! * dx[j]! + dy[i]! * dy[j]!);
    }
    for (let i = 0; i < 6; i++) {
      const row = unknownOf[nodes[i]!]!;
      if (row < 0) continue;
      for (let j = 0; j < 6; j++) {
        const column = unknownOf[nodes[j]!]!;
        if (column >= 0) rows[row]!.set(column, (rows[row]!.get(column) ?? 0) + k[6 * i + j]!);
      }
    }
  }
  const starts = new Int32Array(count + 1);
  rows.forEach((row, i) => (starts[i + 1] = starts[i]! + row.size));
  const columns = new Int32Array(starts[count]!);
  const values = new Float64Array(starts[count]!);
  const diagonal = new Float64Array(count);
  rows.forEach((row, i) => {
    let at = starts[i]!;
    for (const [column, value] of row) {
      columns[at] = column;
      values[at] = value;
      at += 1;
      if (column === i) diagonal[i] = value;
    }
  });
  return { starts, columns, values, diagonal };
};

const EXACT = 1e-11;

/** Conjugate gradients, preconditioned by the diagonal. @source Hestenes, Stiefel (1952) */
const solve = ({ starts, columns, values, diagonal }: Sparse, b: Float64Array): Float64Array => {
  const n = b.length;
  const x = new Float64Array(n);
  const r = b.slice();
  const z = new Float64Array(n);
  const p = new Float64Array(n);
  const ap = new Float64Array(n);
  let rz = 0;
  for (let i = 0; i < n; i++) {
    z[i] = r[i]! / diagonal[i]!;
    p[i] = z[i]!;
    rz += r[i]! * z[i]!;
  }
  const first = rz;
  for (let round = 0; round < 20 * Math.sqrt(n) + 400 && rz > EXACT * EXACT * first; round++) {
    let pap = 0;
    for (let i = 0; i < n; i++) {
      let sum = 0;
      for (let at = starts[i]!; at < starts[i + 1]!; at++) sum += values[at]! * p[columns[at]!]!;
      ap[i] = sum;
      pap += sum * p[i]!;
    }
    if (!(pap > 0)) break;
    const step = rz / pap;
    let next = 0;
    for (let i = 0; i < n; i++) {
      x[i]! += step * p[i]!;
      r[i]! -= step * ap[i]!;
      z[i] = r[i]! / diagonal[i]!;
      next += r[i]! * z[i]!;
    }
    for (let i = 0; i < n; i++) p[i] = z[i]! + (next / rz) * p[i]!;
    rz = next;
  }
  return x;
};

/** Prandtl's stress function: zero outside, one unknown for each hole. Gives J from below. */
const fromBelow = (elements: readonly Element[], { count, loopOf }: Nodes, loops: readonly Loop[]): number => {
  const unknownOf = new Int32Array(count);
  let unknowns = 0;
  const ofHole = loops.map((loop) => (loopArea(loop) < 0 ? unknowns++ : -1));
  for (let i = 0; i < count; i++) unknownOf[i] = loopOf[i]! < 0 ? unknowns++ : ofHole[loopOf[i]!]!;
  const load = new Float64Array(unknowns);
  loops.forEach((loop, i) => {
    if (ofHole[i]! >= 0) load[ofHole[i]!]! += -2 * loopArea(loop);
  });
  for (const { nodes, area } of elements)
    // the three corners of a six-node triangle carry nothing of an even load, the middles a third each
    for (let i = 3; i < 6; i++) {
      const at = unknownOf[nodes[i]!]!;
      if (at >= 0) load[at]! += (2 * area) / 3;
    }
  const phi = solve(stiffness(elements, unknownOf, unknowns), load);
  return phi.reduce((sum, value, i) => sum + value * load[i]!, 0);
};

/** The warping function about the centroid; gives J from above, and where the shear centre is. */
const fromAbove = (elements: readonly Element[], { count }: Nodes): { readonly omega: Float64Array; readonly taken: number } => {
  const unknownOf = Int32Array.from({ length: count }, (_, i) => i);
  const load = new Float64Array(count);
  for (const { nodes, area, x, y, gx, gy } of elements)
    for (const [l, m, n, weight] of DEGREE_2) {
      const [px, py] = [l * x[0]! + m * x[1]! + n * x[2]!, l * y[0]! + m * y[1]! + n * y[2]!];
      const [dx, dy] = [gradientsAt(gx, l, m, n), gradientsAt(gy, l, m, n)];
      for (let i = 0; i < 6; i++) load[nodes[i]!]! += weight * area * (py * dx[i]! - px * dy[i]!);
    }
  const omega = solve(stiffness(elements, unknownOf, count), load);
  return { omega, taken: omega.reduce((sum, value, i) => sum + value * load[i]!, 0) };
};

/**
 * Torsion constant and shear centre of a section of any outline, with holes, by finite elements of six nodes.
 *
 *   below: ∇²φ = −2, φ = 0 on the outside, constant on each hole     J = 2 ∫ φ dA + 2 Σ φₖ Aₖ
 *   above: ∇²ω = 0, ∂ω/∂n = y nₓ − x n_y     J = Ip − ∫ |∇ω|² dA
 *   shear centre: the pole about which ω has no first moments
 *
 * The two formulations hold the true value between them; what is given is their middle.
 *
 * @param loops material to the left, in m, not crossing
 * @returns J, its bounds, m⁴; the shear centre, m; the warping constant, m⁶
 * @source Saint-Venant (1855), Prandtl (1903), Trefftz (1935); Pilkey, Analysis and Design of Elastic Beams
 */
export const solveTorsion = (loops: readonly Loop[]): TorsionSolution => {
  const { centroid, ixM4, iyM4, ixyM4, areaM2 } = loopFigures(loops);
  // a section of about one unit, about its centroid: nothing then depends on the unit it came in
  const unit = Math.sqrt(areaM2);
  const scaled = loops.map((loop) => loop.map(([x, y]): Point => [(x - centroid[0]) / unit, (y - centroid[1]) / unit]));
  const mesh = triangulate(scaled);
  const nodes = withMiddles(mesh);
  const elements = elementsOf(nodes);
  const low = fromBelow(elements, nodes, scaled);
  const { omega, taken } = fromAbove(elements, nodes);
  const [ix, iy, ixy] = [ixM4, iyM4, ixyM4].map((i) => i / unit ** 4) as [number, number, number];
  const high = ix + iy - taken;

  let [area, mean, xo, yo] = [0, 0, 0, 0];
  const overAll = (put: (weight: number, x: number, y: number, value: number) => void): void => {
    for (const { nodes: own, area: a, x, y } of elements)
      for (const [l, m, n, weight] of DEGREE_4) {
        const shapes = shapesAt(l, m, n);
        const value = own.reduce((sum, node, i) => sum + shapes[i]! * omega[node]!, 0);
        put(weight * a, l * x[0]! + m * x[1]! + n * x[2]!, l * y[0]! + m * y[1]! + n * y[2]!, value);
      }
  };
  overAll((w, x, y, value) => {
    area += w;
    mean += w * value;
    xo += w * x * value;
    yo += w * y * value;
  });
  mean /= area;
  const determinant = ix * iy - ixy * ixy;
  const xs = (xo * ixy - iy * yo) / determinant;
  const ys = (ix * xo - ixy * yo) / determinant;
  let warping = 0;
  overAll((w, x, y, value) => (warping += w * (value - mean - ys * x + xs * y) ** 2));
  return {
    jM4: ((low + high) / 2) * unit ** 4,
    jLowM4: low * unit ** 4,
    jHighM4: high * unit ** 4,
    shearCentre: [centroid[0] + xs * unit, centroid[1] + ys * unit],
    warpingM6: warping * unit ** 6,
    triangles: mesh.triangles.length,
  };
};
