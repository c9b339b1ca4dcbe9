import { hull, hulls, measureMesh, meshEdges, meshFigures, readMesh, minimumBox, type Mesh } from '@each-bolt/core/measure';
import NodeStl from 'node-stl';
import { atLeast, atMost, medianMs, type Result } from './harness';

const TRIANGLES = 1_000_000;
const RUNS = 5;

/** A wavy ring of a million triangles: no two corners alike, thousands of them on the hull. */
const wavyRing = (): Mesh => {
  const [around, across] = [1000, TRIANGLES / 2 / 1000];
  const positions = new Float64Array(3 * around * across);
  for (let i = 0; i < around; i++)
    for (let j = 0; j < across; j++) {
      const [a, b] = [(2 * Math.PI * i) / around, (2 * Math.PI * j) / across];
      const tube = 20 + 1.5 * Math.sin(9 * a) * Math.cos(5 * b);
      const r = 80 + tube * Math.cos(b);
      positions.set([r * Math.cos(a), 0.7 * r * Math.sin(a), tube * Math.sin(b) + 6 * Math.sin(2 * a)], 3 * (i * across + j));
    }
  const at = (i: number, j: number): number => (i % around) * across + (j % across);
  const triangles = new Uint32Array(6 * around * across);
  for (let i = 0; i < around; i++)
    for (let j = 0; j < across; j++)
      triangles.set([at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j), at(i + 1, j + 1), at(i, j + 1)], 6 * (i * across + j));
  return { positions, triangles };
};

/** A ball of a million triangles in rings: every corner lies on its hull, the worst there is for hull and box. */
const ball = (): Mesh => {
  const [rings, around] = [501, 1000];
  const positions = new Float64Array(3 * (rings - 1) * around + 6);
  positions.set([0, 0, 50, 0, 0, -50]);
  for (let i = 1; i < rings; i++)
    for (let j = 0; j < around; j++) {
      const [down, turn] = [(Math.PI * i) / rings, (2 * Math.PI * j) / around];
      positions.set(
        [50 * Math.sin(down) * Math.cos(turn), 50 * Math.sin(down) * Math.sin(turn), 50 * Math.cos(down)],
        6 + 3 * ((i - 1) * around + j),
      );
    }
  const at = (i: number, j: number): number => 2 + (i - 1) * around + (j % around);
  const triangles: number[] = [];
  for (let j = 0; j < around; j++) {
    triangles.push(0, at(1, j), at(1, j + 1), 1, at(rings - 1, j + 1), at(rings - 1, j));
    for (let i = 1; i < rings - 1; i++) triangles.push(at(i, j), at(i + 1, j), at(i + 1, j + 1), at(i, j), at(i + 1, j + 1), at(i, j + 1));
  }
  return { positions, triangles: Uint32Array.from(triangles) };
};

const stlOf = ({ positions, triangles }: Mesh): Buffer => {
  const bytes = Buffer.alloc(84 + (50 * triangles.length) / 3);
  bytes.writeUInt32LE(triangles.length / 3, 80);
  for (let at = 0; at < triangles.length; at++)
    for (let i = 0; i < 3; i++)
      bytes.writeFloatLE(positions[3 * triangles[at]! + i]!, 84 + 50 * Math.floor(at / 3) + 12 + 12 * (at % 3) + 4 * i);
  return bytes;
};

/** A scan of a million triangles: its figures, its minimum bounding box, and the same file in one general library. */
export const meshBench = (): readonly Result[] => {
  const mesh = wavyRing();
  const file = stlOf(mesh);
  const figuresMs = medianMs(() => meshFigures(mesh), RUNS, 1);
  const edgesMs = medianMs(() => meshEdges(mesh), RUNS, 1);
  const boxMs = medianMs(() => minimumBox(hulls(mesh.positions).rough, mesh.positions), 3, 1);
  const hullMs = medianMs(() => hull(mesh.positions), 2, 1);
  const readMs = medianMs(
    () => {
      const read = readMesh(file, 'ring.stl');
      if (read.ok) meshFigures(read.mesh);
    },
    3,
    1,
  );
  const otherMs = medianMs(() => new NodeStl(file), 3, 1);
  const sphere = ball();
  const sphereMs = medianMs(() => measureMesh(sphere, 0.98), 1, 1);
  const sphereHull = hull(sphere.positions).volume / ((4 / 3) * Math.PI * 50 ** 3);
  return [
    atMost('sphere of a million triangles: everything that is measured of it', sphereMs, 'ms', 15_000),
    atMost('  its hull off 4/3 π r³ by', 100 * Math.abs(1 - sphereHull), '%', 0.1),
    atMost('  most memory the run has taken so far', process.resourceUsage().maxRSS / 1024, 'MB', 2000),
    atMost('mesh of a million triangles: volume, area, box', figuresMs, 'ms', 300),
    atMost('mesh of a million triangles: edges', edgesMs, 'ms', 1000),
    atMost('mesh of a million triangles: minimum bounding box', boxMs, 'ms', 3000),
    atMost('mesh of a million triangles: hull of 48 000 corners', hullMs, 'ms', 10_000),
    atLeast('reading and measuring its file, against node-stl', otherMs / readMs, 'times as fast', 0.5),
  ];
};
