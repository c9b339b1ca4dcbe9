export type Point = readonly [number, number];
/** Counter-clockwise round material, clockwise round a hole, in m; the first point is not repeated. */
export type Loop = readonly Point[];

export interface LoopFigures {
  readonly areaM2: number;
  readonly centroid: Point;
  /** second moments about axes through the centroid: x is to the right, y up; Ix resists bending up and down */
  readonly ixM4: number;
  readonly iyM4: number;
  readonly ixyM4: number;
  /** principal second moments, the larger first, and the angle of the axis of the larger from x, rad */
  readonly i1M4: number;
  readonly i2M4: number;
  readonly angleRad: number;
  /** section moduli at the farther side */
  readonly wxM3: number;
  readonly wyM3: number;
  /** plastic modulus for bending up and down */
  readonly zxM3: number;
  readonly widthM: number;
  readonly heightM: number;
  /** length of all edges, outside and of holes */
  readonly perimeterM: number;
}

/**
 * Area, centroid and moments of a section given by closed loops.
 *
 *   A = ½ Σ c     c = xᵢyᵢ₊₁ − xᵢ₊₁yᵢ     Ix = Σ c (yᵢ² + yᵢyᵢ₊₁ + yᵢ₊₁²)/12 − A ȳ²     W = I / farthest     Z = Σ |first moment| of the halves
 *
 * @throws RangeError when the loops enclose nothing
 * @source Green's theorem over polygons; textbook
 * @example
 * loopFigures([[[0, 0], [0.04, 0], [0.04, 0.08], [0, 0.08]]]).ixM4 * 1e8; // => 170.6667
 */
export const loopFigures = (loops: readonly Loop[]): LoopFigures => {
  const points = loops.flat();
  const [minX, maxX] = endsOf(points.map((p) => p[0]));
  const [minY, maxY] = endsOf(points.map((p) => p[1]));
  // moments are taken about the middle first, so that a section far from the origin loses no digits
  const [midX, midY] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const moved = loops.map((loop) => loop.map(([x, y]): Point => [x - midX, y - midY]));
  let [area, sx, sy, ixx, iyy, ixy, perimeterM] = [0, 0, 0, 0, 0, 0, 0];
  for (const loop of moved)
    for (const [i, [x, y]] of loop.entries()) {
      const [u, v] = loop[(i + 1) % loop.length]!;
      const c = x * v - u * y;
      area += c / 2;
      sx += (c * (x + u)) / 6;
      sy += (c * (y + v)) / 6;
      ixx += (c * (y * y + y * v + v * v)) / 12;
      iyy += (c * (x * x + x * u + u * u)) / 12;
      ixy += (c * (x * v + 2 * x * y + 2 * u * v + u * y)) / 24;
      perimeterM += Math.hypot(u - x, v - y);
    }
  if (!(area > 0)) throw new RangeError('the loops enclose no area; material lies to the left of the way round');
  const [cx, cy] = [sx / area, sy / area];
  const [ix, iy, product] = [ixx - area * cy * cy, iyy - area * cx * cx, ixy - area * cx * cy];
  const [mean, half] = [(ix + iy) / 2, Math.hypot((ix - iy) / 2, product)];
  const centred = moved.map((loop) => loop.map(([x, y]): Point => [x - cx, y - cy]));
  return {
    areaM2: area,
    centroid: [cx + midX, cy + midY],
    ixM4: ix,
    iyM4: iy,
    ixyM4: product,
    i1M4: mean + half,
    i2M4: mean - half,
    angleRad: half === 0 ? 0 : Math.atan2(-2 * product, ix - iy) / 2,
    wxM3: ix / Math.max(maxY - cy - midY, cy + midY - minY),
    wyM3: iy / Math.max(maxX - cx - midX, cx + midX - minX),
    zxM3: plasticModulus(centred, area),
    widthM: maxX - minX,
    heightM: maxY - minY,
    perimeterM,
  };
};

/** Least and most of numbers, however many they are. */
export const endsOf = (values: readonly number[]): [number, number] =>
  values.reduce<[number, number]>(([low, high], x) => [Math.min(low, x), Math.max(high, x)], [Infinity, -Infinity]);

const HALVINGS = 60;

/** First moments of the two halves about the line that halves the area, added. */
const plasticModulus = (loops: readonly Loop[], area: number): number => {
  const ys = loops.flat().map((p) => p[1]);
  let [low, high] = endsOf(ys);
  for (let i = 0; i < HALVINGS; i++) {
    const middle = (low + high) / 2;
    if (above(loops, middle).area > area / 2) low = middle;
    else high = middle;
  }
  const axis = (low + high) / 2;
  const upper = above(loops, axis);
  // about the centroid the moments of the halves cancel
  return 2 * (upper.moment - axis * upper.area) + axis * area;
};

/** Area above a level, and its first moment about y = 0. */
const above = (loops: readonly Loop[], level: number): { readonly area: number; readonly moment: number } => {
  let [area, moment] = [0, 0];
  for (const loop of loops) {
    const cut: Point[] = [];
    for (const [i, a] of loop.entries()) {
      const b = loop[(i + 1) % loop.length]!;
      if (a[1] >= level) cut.push(a);
      if (a[1] >= level !== b[1] >= level) cut.push([a[0] + ((level - a[1]) / (b[1] - a[1])) * (b[0] - a[0]), level]);
    }
    for (const [i, [x, y]] of cut.entries()) {
      const [u, v] = cut[(i + 1) % cut.length]!;
      const c = x * v - u * y;
      area += c / 2;
      moment += (c * (y + v)) / 6;
    }
  }
  return { area, moment };
};

/** Signed area of one loop: above 0 when it runs counter-clockwise. */
export const loopArea = (loop: Loop): number =>
  loop.reduce((sum, [x, y], i) => {
    const [u, v] = loop[(i + 1) % loop.length]!;
    return sum + (x * v - u * y) / 2;
  }, 0);
