import type { Mesh, Vector } from './mesh';
import type { TurnedBox } from './minimum-box';
import { hulls } from './hull';
import { boxAround, boxOf, minimumBox } from './minimum-box';
import { dot } from './vectors';

interface TrimmedBox {
  readonly box: TurnedBox;
  /** share of the volume (of the surface, where the mesh encloses none) that lies in the box */
  readonly heldFraction: number;
  /** whether the share is of the volume or, for an open mesh, of the surface */
  readonly heldOf: 'volume' | 'surface';
}

/** Cells along each side: a step is one in 96 of the side. */
const CELLS = 96;
const ROUNDS = 2;

/**
 * Minimum bounding box that holds a stated share of the volume, so that one thin bracket does not decide the figure.
 *
 * The mesh is filled into 96³ cells along the axes of its minimum bounding box; from the six sides those layers are peeled that
 * lose least volume of the part per volume of the box, until no more may go. Then the corners left are boxed anew in any
 * orientation and peeled again; the smaller box stays. Its sides are known to one cell.
 *
 * @param start minimum bounding box of all of it
 * @param shareFraction share to hold, above 0 to 1
 * @param isClosed whether the mesh encloses a volume
 */
export const trimmedBox = (mesh: Mesh, start: TurnedBox, shareFraction: number, isClosed: boolean): TrimmedBox => {
  if (!(shareFraction > 0 && shareFraction <= 1)) throw new RangeError('the share lies above 0 and is at most 1');
  const heldOf = isClosed ? 'volume' : 'surface';
  if (start.volume === 0 || shareFraction === 1) return { box: start, heldFraction: 1, heldOf };
  let best = peeled(mesh, start, shareFraction, isClosed);
  for (let round = 0; round < ROUNDS; round++) {
    const { rough } = hulls(inside(mesh, best.box));
    if (rough.faces.length === 0) break;
    const turned = minimumBox(rough);
    const again = peeled(mesh, boxAround(turned.axes, mesh.positions), shareFraction, isClosed);
    if (!(again.box.volume < best.box.volume * 0.999)) break;
    best = again;
  }
  return { ...best, heldOf };
};

type Ends = readonly [readonly [number, number], readonly [number, number], readonly [number, number]];

const inside = ({ positions }: Mesh, { axes, sides, centre }: TurnedBox): Float64Array => {
  const found: number[] = [];
  const mids = axes.map((axis) => dot(axis, centre));
  for (let at = 0; at < positions.length; at += 3) {
    const p: Vector = [positions[at]!, positions[at + 1]!, positions[at + 2]!];
    if (axes.every((axis, k) => Math.abs(dot(axis, p) - mids[k]!) <= sides[k]! / 2)) found.push(...p);
  }
  return Float64Array.from(found);
};

/** Peels layers of cells off the six sides, always the one that loses least of the part per volume of the box. */
const peeled = (mesh: Mesh, box: TurnedBox, shareFraction: number, isClosed: boolean): Omit<TrimmedBox, 'heldOf'> => {
  const cells = isClosed ? filled(mesh, box) : touched(mesh, box);
  const layers = new Layers(cells);
  const whole = layers.held;
  for (;;) {
    const losses = layers.losses();
    const best = losses.reduce((a, b) => (b.loss < a.loss ? b : a));
    if (!(layers.held - best.lost >= shareFraction * whole) || layers.isThin(best.axis)) break;
    layers.peel(best.axis, best.isHigh);
  }
  const steps = box.sides.map((side) => side / CELLS);
  const mids = box.axes.map((axis) => dot(axis, box.centre));
  const ends = layers.ends.map(([from, to], k) => {
    const low = mids[k]! - box.sides[k]! / 2;
    return [low + from * steps[k]!, low + to * steps[k]!] as const;
  });
  return { box: boxOf(box.axes, ends), heldFraction: layers.held / whole };
};

/** What each outer layer of the cells that are left holds. */
class Layers {
  readonly ends: [number, number][] = [
    [0, CELLS],
    [0, CELLS],
    [0, CELLS],
  ];
  /** summed from the first corner, so that any block is eight look-ups */
  private readonly sums = new Float64Array((CELLS + 1) ** 3);

  constructor(cells: Float64Array) {
    const n = CELLS + 1;
    for (let i = 1; i < n; i++)
      for (let j = 1; j < n; j++) {
        let row = 0;
        for (let k = 1; k < n; k++) {
          row += cells[((i - 1) * CELLS + j - 1) * CELLS + k - 1]!;
          const at = (i * n + j) * n + k;
          this.sums[at] = row + this.sums[at - n * n]! + this.sums[at - n]! - this.sums[at - n * n - n]!;
        }
      }
  }

  get held(): number {
    return this.block(this.ends);
  }

  isThin(axis: number): boolean {
    return this.ends[axis]![1] - this.ends[axis]![0] <= 1;
  }

  losses(): readonly { readonly axis: number; readonly isHigh: boolean; readonly lost: number; readonly loss: number }[] {
    return [0, 1, 2].flatMap((axis) =>
      [false, true].map((isHigh) => {
        const [from, to] = this.ends[axis]!;
        const layer = this.ends.map((end, k): readonly [number, number] => (k === axis ? (isHigh ? [to - 1, to] : [from, from + 1]) : end));
        const lost = this.block(layer);
        const cells = layer.reduce((product, [low, high]) => product * (high - low), 1);
        return { axis, isHigh, lost, loss: this.isThin(axis) ? Infinity : lost / cells };
      }),
    );
  }

  peel(axis: number, isHigh: boolean): void {
    if (isHigh) this.ends[axis]![1]--;
    else this.ends[axis]![0]++;
  }

  private block(ends: readonly (readonly [number, number])[]): number {
    const n = CELLS + 1;
    const [[i, I], [j, J], [k, K]] = ends as Ends;
    const at = (x: number, y: number, z: number): number => this.sums[(x * n + y) * n + z]!;
    return at(I, J, K) - at(i, J, K) - at(I, j, K) - at(I, J, k) + at(i, j, K) + at(i, J, k) + at(I, j, k) - at(i, j, k);
  }
}

/**
 * Share of each cell that the mesh fills, by lines through the middle of the columns: every crossing adds all that lies
 * behind it, with the sign of the side it is seen from.
 */
const filled = (mesh: Mesh, box: TurnedBox): Float64Array => {
  const cells = new Float64Array(CELLS ** 3);
  const at = placer(box);
  const { positions, triangles } = mesh;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(positions, 3 * triangles[t + k]!)) as [Vector, Vector, Vector];
    const doubled = (b[0] - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (b[1] - a[1]);
    if (doubled === 0) continue;
    const sign = doubled > 0 ? -1 : 1;
    const fromI = Math.max(0, Math.ceil(Math.min(a[0], b[0], c[0]) - 0.5));
    const toI = Math.min(CELLS - 1, Math.floor(Math.max(a[0], b[0], c[0]) - 0.5));
    const fromJ = Math.max(0, Math.ceil(Math.min(a[1], b[1], c[1]) - 0.5));
    const toJ = Math.min(CELLS - 1, Math.floor(Math.max(a[1], b[1], c[1]) - 0.5));
    for (let i = fromI; i <= toI; i++)
      for (let j = fromJ; j <= toJ; j++) {
        const [x, y] = [i + 0.5, j + 0.5];
        const wb = ((x - a[0]) * (c[1] - a[1]) - (c[0] - a[0]) * (y - a[1])) / doubled;
        const wc = ((b[0] - a[0]) * (y - a[1]) - (x - a[0]) * (b[1] - a[1])) / doubled;
        // a point on a side belongs to one of its two triangles only
        if (!(wb >= 0 && wc >= 0 && wb + wc < 1)) continue;
        const z = Math.min(CELLS, Math.max(0, a[2] + wb * (b[2] - a[2]) + wc * (c[2] - a[2])));
        const k = Math.min(CELLS - 1, Math.floor(z));
        const column = (i * CELLS + j) * CELLS;
        cells[column + k]! += sign * (k + 1 - z);
        if (k + 1 < CELLS) cells[column + k + 1]! += sign * (z - k);
      }
  }
  for (let column = 0; column < cells.length; column += CELLS) {
    let sum = 0;
    for (let k = 0; k < CELLS; k++) {
      sum += cells[column + k]!;
      // a line that grazes a side may be counted on one side only
      cells[column + k] = Math.min(1, Math.max(0, sum));
    }
  }
  return cells;
};

/** Surface in each cell, each triangle where its middle lies. */
const touched = (mesh: Mesh, box: TurnedBox): Float64Array => {
  const cells = new Float64Array(CELLS ** 3);
  const at = placer(box);
  const { positions, triangles } = mesh;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => at(positions, 3 * triangles[t + k]!)) as [Vector, Vector, Vector];
    const scale = box.sides.map((side) => side / CELLS);
    const [u, v] = [b, c].map((p) => p.map((x, k) => (x - a[k]!) * scale[k]!)) as [number[], number[]];
    const area = Math.hypot(u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!) / 2;
    const [i, j, k] = [0, 1, 2].map((n) => Math.min(CELLS - 1, Math.max(0, Math.floor((a[n]! + b[n]! + c[n]!) / 3))));
    cells[(i! * CELLS + j!) * CELLS + k!]! += area;
  }
  return cells;
};

/** Places in cells: 0 to 96 along each axis of the box. */
const placer = ({ axes, sides, centre }: TurnedBox): ((positions: Float64Array, at: number) => Vector) => {
  const rows = axes.map((axis, k) => {
    const scale = CELLS / sides[k]!;
    return [axis[0] * scale, axis[1] * scale, axis[2] * scale, CELLS / 2 - dot(axis, centre) * scale] as const;
  });
  return (positions, at) =>
    rows.map(([x, y, z, shift]) => x * positions[at]! + y * positions[at + 1]! + z * positions[at + 2]! + shift) as unknown as Vector;
};
