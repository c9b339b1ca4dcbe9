import type { Hull, Vector } from './mesh';
import { minimumRectangle } from './minimum-rectangle';
import { across, cross, dot, minus, unit } from './vectors';

/** A box in any orientation. */
export interface TurnedBox {
  /** three directions of length one at right angles, right-handed; the longest side first */
  readonly axes: readonly [Vector, Vector, Vector];
  /** length of the side along each axis */
  readonly sides: readonly [number, number, number];
  readonly centre: Vector;
  readonly volume: number;
}

/** so many faces of the hull are tried as a side of the box, the largest first */
const MOST_FACES = 600;
/** so many of the best orientations are made better */
const STARTS = 12;
/** and so many turned evenly over all orientations, for a best box that lies flat on no face */
const EVEN_STARTS = 40;
/** a hull with more corners than this is searched with some of them, and made better with more */
const FEW_CORNERS = 400;
const MORE_CORNERS = 2000;

/**
 * Minimum bounding box around a hull in any orientation, and whether it is flat on a face or not.
 *
 * First the boxes that lie flat on a face of the hull, each turned to its minimum rectangle; then the best of them and
 * forty even orientations are made smaller by a downhill simplex over the rotations, and each result is turned about its
 * own axes to the minimum rectangle until it grows no smaller. The box found holds every point; that no smaller one
 * exists is not proved, but known cases are met.
 *
 * @param positions [point × 3] all points to be held, where the hull is a rough one
 * @returns a flat hull has a box without height
 * @source C. Chang, B. Gorissen, S. Melchior, Fast oriented bounding box optimization on the rotation group SO(3), ACM TOG
 *   30 (2011) 122: the idea of a hybrid search; the downhill simplex is that of Nelder and Mead (1965)
 */
export const minimumBox = (hull: Hull, positions: Float64Array | null = null): TurnedBox => {
  const few = fewer(hull.points, FEW_CORNERS);
  const more = fewer(hull.points, MORE_CORNERS);
  const flat = byVolume(faceNormals(hull).map((normal) => turnedAbout(normal, few)));
  const even = evenRotations(EVEN_STARTS).map((axes) => boxAlong(axes, few));
  const starts = [...flat.slice(0, STARTS), boxAlong(UPRIGHT, few), ...even];
  const smaller = byVolume(starts.map((start) => boxAlong(downhill(start.axes, few), few)));
  const found = byVolume(smaller.slice(0, STARTS).map((box) => settled(box.axes, few)));
  const best = byVolume([...found.slice(0, 3), ...flat.slice(0, 3)].map((box) => settled(box.axes, more)));
  const whole = (axes: Axes): TurnedBox => (positions === null ? boxAlong(axes, hull.points) : boxAround(axes, positions));
  const boxes = [...best.slice(0, 2).map((box) => whole(box.axes)), whole(UPRIGHT)];
  const least = boxes.reduce((a, b) => (b.volume < a.volume ? b : a));
  return longestFirst(positions === null ? least : polished(least, positions));
};

/** so near a side, as a share of its length, a point may come to lie on it when the box is turned a little */
const SHELL = 0.01;
const LITTLE = 0.01;

/** A box made smaller by turning it a little, by the points near its sides; all points are in the result. */
const polished = (box: TurnedBox, positions: Float64Array): TurnedBox => {
  const sides = box.axes.map((axis, k) => ({ axis, middle: dot(axis, box.centre), from: (0.5 - SHELL) * box.sides[k]! }));
  const near: Vector[] = [];
  for (let at = 0; at < positions.length; at += 3) {
    const [x, y, z] = [positions[at]!, positions[at + 1]!, positions[at + 2]!];
    for (const { axis, middle, from } of sides)
      if (Math.abs(axis[0] * x + axis[1] * y + axis[2] * z - middle) > from) {
        near.push([x, y, z]);
        break;
      }
  }
  const turned = boxAround(downhill(box.axes, near, LITTLE), positions);
  return turned.volume < box.volume ? turned : box;
};

type Axes = TurnedBox['axes'];

const byVolume = (boxes: readonly TurnedBox[]): readonly TurnedBox[] => boxes.toSorted((a, b) => a.volume - b.volume);
const UPRIGHT: Axes = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];

/** The box around points written one after another, [point × 3], along given axes. */
export const boxAround = (axes: Axes, positions: Float64Array): TurnedBox =>
  boxOf(
    axes,
    axes.map(([x, y, z]) => {
      let [low, high] = [Infinity, -Infinity];
      for (let at = 0; at < positions.length; at += 3) {
        const along = x * positions[at]! + y * positions[at + 1]! + z * positions[at + 2]!;
        if (along < low) low = along;
        if (along > high) high = along;
      }
      return [low, high] as const;
    }),
  );

/** A box by its ends along its axes. */
export const boxOf = (axes: Axes, ends: readonly (readonly [number, number])[]): TurnedBox => {
  const [a, b, c] = ends.map(([low, high]) => high - low) as [number, number, number];
  const mids = ends.map(([low, high]) => (low + high) / 2);
  const centre = [0, 1, 2].map((i) => axes.reduce((sum, axis, k) => sum + axis[i]! * mids[k]!, 0)) as unknown as Vector;
  return { axes, sides: [a, b, c], centre, volume: a * b * c };
};

/** The box around points along given axes. */
const boxAlong = (axes: Axes, points: readonly Vector[]): TurnedBox =>
  boxOf(
    axes,
    axes.map((axis) => {
      let [low, high] = [Infinity, -Infinity];
      for (const p of points) {
        const along = axis[0] * p[0] + axis[1] * p[1] + axis[2] * p[2];
        if (along < low) low = along;
        if (along > high) high = along;
      }
      return [low, high] as const;
    }),
  );

const longestFirst = ({ axes, sides, ...box }: TurnedBox): TurnedBox => {
  const [i, j, k] = [0, 1, 2].sort((a, b) => sides[b]! - sides[a]!) as [number, number, number];
  const [first, second] = [axes[i]!, axes[j]!];
  return { ...box, axes: [first, second, cross(first, second)], sides: [sides[i]!, sides[j]!, sides[k]!] };
};

/** Corners that lie farthest out in even directions, when there are very many. */
const fewer = (points: readonly Vector[], most: number): readonly Vector[] => {
  if (points.length <= most) return points;
  const found = new Set<Vector>();
  for (const axes of evenRotations(most / 6))
    for (const axis of axes) {
      let [low, high] = [points[0]!, points[0]!];
      let [least, farthest] = [Infinity, -Infinity];
      for (const p of points) {
        const along = axis[0] * p[0] + axis[1] * p[1] + axis[2] * p[2];
        if (along < least) {
          least = along;
          low = p;
        }
        if (along > farthest) {
          farthest = along;
          high = p;
        }
      }
      found.add(low).add(high);
    }
  return [...found];
};

const faceNormals = ({ points, faces }: Hull): readonly Vector[] => {
  const normals = faces.map(([i, j, k]) => cross(minus(points[j]!, points[i]!), minus(points[k]!, points[i]!)));
  const byArea = normals.sort((a, b) => dot(b, b) - dot(a, a)).map(unit);
  // faces of one plane give one box
  const seen = new Set<string>();
  return byArea
    .filter((n) => {
      const key = n.map((x) => x.toFixed(5)).join();
      return seen.has(key) ? false : seen.add(key);
    })
    .slice(0, MOST_FACES);
};

/** The minimum bounding box with a side square to a direction. */
const turnedAbout = (normal: Vector, points: readonly Vector[]): TurnedBox => {
  const right = across(normal);
  const up = cross(normal, right);
  const turn = minimumRectangle(points.map((p) => [dot(p, right), dot(p, up)]));
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  const first = [0, 1, 2].map((i) => cos * right[i]! + sin * up[i]!) as unknown as Vector;
  return boxAlong([normal, first, cross(normal, first)], points);
};

/** Turns a box about its own axes until it grows no smaller. */
const settled = (axes: Axes, points: readonly Vector[]): TurnedBox => {
  let best = boxAlong(axes, points);
  for (let round = 0; round < 20; round++) {
    const next = best.axes.map((axis) => turnedAbout(axis, points)).reduce((a, b) => (b.volume < a.volume ? b : a));
    if (!(next.volume < best.volume * (1 - 1e-12))) return best;
    best = next;
  }
  return best;
};

/** Volume of the box around points, [point × 3], along given axes: the inner loop of the search. */
const volumeAlong = ([a, b, c]: Axes, positions: Float64Array): number => {
  const [ax, ay, az, bx, by, bz, cx, cy, cz] = [...a, ...b, ...c] as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  let [lowA, highA, lowB, highB, lowC, highC] = [Infinity, -Infinity, Infinity, -Infinity, Infinity, -Infinity];
  for (let at = 0; at < positions.length; at += 3) {
    const [x, y, z] = [positions[at]!, positions[at + 1]!, positions[at + 2]!];
    const [p, q, r] = [ax * x + ay * y + az * z, bx * x + by * y + bz * z, cx * x + cy * y + cz * z];
    if (p < lowA) lowA = p;
    if (p > highA) highA = p;
    if (q < lowB) lowB = q;
    if (q > highB) highB = q;
    if (r < lowC) lowC = r;
    if (r > highC) highC = r;
  }
  return (highA - lowA) * (highB - lowB) * (highC - lowC);
};

/** Rotation vectors about which the simplex begins, rad. */
const REACH = 0.35;
const STEPS = 140;

/** Nelder and Mead's downhill simplex over the rotations about a start. */
const downhill = (start: Axes, points: readonly Vector[], reach = REACH): Axes => {
  const flat = Float64Array.from(points.flat());
  const volumeAt = (turn: Vector): number => volumeAlong(rotated(start, turn), flat);
  let simplex = (
    [
      [0, 0, 0],
      [reach, 0, 0],
      [0, reach, 0],
      [0, 0, reach],
    ] as Vector[]
  ).map((at) => ({ at, volume: volumeAt(at) }));
  const between = (a: Vector, b: Vector, k: number): Vector => [
    a[0] + k * (b[0] - a[0]),
    a[1] + k * (b[1] - a[1]),
    a[2] + k * (b[2] - a[2]),
  ];
  const tried = (at: Vector): { at: Vector; volume: number } => ({ at, volume: volumeAt(at) });
  for (let step = 0; step < STEPS; step++) {
    simplex = simplex.sort((a, b) => a.volume - b.volume);
    const [best, , second, worst] = simplex as [Corner, Corner, Corner, Corner];
    if (worst.volume - best.volume < 1e-13 * best.volume) break;
    const middle = [0, 1, 2].map((i) => (simplex[0]!.at[i]! + simplex[1]!.at[i]! + simplex[2]!.at[i]!) / 3) as unknown as Vector;
    const reflected = tried(between(middle, worst.at, -1));
    if (reflected.volume < best.volume) {
      const farther = tried(between(middle, worst.at, -2));
      simplex[3] = farther.volume < reflected.volume ? farther : reflected;
    } else if (reflected.volume < second.volume) simplex[3] = reflected;
    else {
      const nearer = tried(between(middle, worst.at, reflected.volume < worst.volume ? -0.5 : 0.5));
      if (nearer.volume < Math.min(worst.volume, reflected.volume)) simplex[3] = nearer;
      else simplex = simplex.map((c) => (c === best ? c : tried(between(best.at, c.at, 0.5))));
    }
  }
  return rotated(start, simplex.reduce((a, b) => (b.volume < a.volume ? b : a)).at);
};
interface Corner {
  readonly at: Vector;
  readonly volume: number;
}

/** Axes turned by a rotation vector: its direction is the axis, its length the angle in rad (Rodrigues). */
const rotated = (axes: Axes, turn: Vector): Axes => {
  const angle = Math.hypot(...turn);
  if (angle < 1e-15) return axes;
  const k = unit(turn);
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  return axes.map((v) => {
    const [kxv, along] = [cross(k, v), dot(k, v) * (1 - cos)];
    return [0, 1, 2].map((i) => v[i]! * cos + kxv[i]! * sin + k[i]! * along) as unknown as Vector;
  }) as unknown as Axes;
};

/** Rotations spread evenly: a low-discrepancy sequence mapped to unit quaternions (Shoemake 1992). */
const evenRotations = (count: number): readonly Axes[] =>
  Array.from({ length: Math.round(count) }, (_, i): Axes => {
    const [u, v, w] = [(i + 0.5) / count, (i * 0.754877666) % 1, (i * 0.569840291) % 1];
    const [a, b] = [Math.sqrt(1 - u), Math.sqrt(u)];
    const [x, y, z, s] = [
      a * Math.sin(2 * Math.PI * v),
      a * Math.cos(2 * Math.PI * v),
      b * Math.sin(2 * Math.PI * w),
      b * Math.cos(2 * Math.PI * w),
    ];
    return [
      [1 - 2 * (y * y + z * z), 2 * (x * y + s * z), 2 * (x * z - s * y)],
      [2 * (x * y - s * z), 1 - 2 * (x * x + z * z), 2 * (y * z + s * x)],
      [2 * (x * z + s * y), 2 * (y * z - s * x), 1 - 2 * (x * x + y * y)],
    ];
  });
