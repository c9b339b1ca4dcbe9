type Point = readonly [number, number];

/** Corners of the convex hull in the plane, counter-clockwise. @source A. M. Andrew, monotone chain (1979) */
const planeHull = (points: readonly Point[]): readonly Point[] => {
  const sorted = [...points].sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const turn = (o: Point, a: Point, b: Point): number => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const chain = (along: readonly Point[]): Point[] => {
    const found: Point[] = [];
    for (const p of along) {
      while (found.length >= 2 && turn(found.at(-2)!, found.at(-1)!, p) <= 0) found.pop();
      found.push(p);
    }
    found.pop();
    return found;
  };
  return [...chain(sorted), ...chain([...sorted].reverse())];
};

/**
 * Angle in rad by which the minimum rectangle round points is turned; it lies flat on an edge of their hull.
 *
 * @source H. Freeman, R. Shapira, Determining the minimum-area encasing rectangle for an arbitrary closed curve (1975)
 */
export const minimumRectangle = (points: readonly Point[]): number => {
  const corners = planeHull(points);
  let [least, best] = [Infinity, 0];
  for (const [i, a] of corners.entries()) {
    const b = corners[(i + 1) % corners.length]!;
    const angle = Math.atan2(b[1] - a[1], b[0] - a[0]);
    const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
    let [lowX, highX, lowY, highY] = [Infinity, -Infinity, Infinity, -Infinity];
    for (const [x, y] of corners) {
      const [along, over] = [cos * x + sin * y, cos * y - sin * x];
      if (along < lowX) lowX = along;
      if (along > highX) highX = along;
      if (over < lowY) lowY = over;
      if (over > highY) highY = over;
    }
    const area = (highX - lowX) * (highY - lowY);
    if (area < least) [least, best] = [area, angle];
  }
  return best;
};
