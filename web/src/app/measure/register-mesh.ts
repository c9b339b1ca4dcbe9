import {
  rmsOverSurface,
  boxAround,
  finely,
  hull,
  registerScan,
  moved,
  minimumBox,
  type Mesh,
  type Place,
  type RigidMove,
  type TurnedBox,
} from '@each-bolt/core/measure';
import { BufferAttribute, BufferGeometry, Vector3 } from 'three';
import { MeshBVH } from 'three-mesh-bvh';
import type { Compared } from './mesh-told';

/** so many vertices are used to find how one lies over the other */
const SAMPLE = 3000;

/** and as many times its diagonal is longer than any edge that is asked: a large flat triangle says nothing of its middle by its corners */
const FINELY = 60;

/** Registers one mesh to another and tells how far each place of it lies off, its triangles made small first. */
export const registerMesh = (given: Mesh, onto: Mesh): Compared => {
  const mesh = finely(given, Math.hypot(...boxAround(UPRIGHT, given.positions).sides) / FINELY);
  const geometry = new BufferGeometry();
  geometry.setAttribute('position', new BufferAttribute(Float32Array.from(onto.positions), 3));
  geometry.setIndex(new BufferAttribute(onto.triangles.slice(), 1));
  const bvh = new MeshBVH(geometry);
  const [at, found] = [new Vector3(), { point: new Vector3(), distance: 0, faceIndex: 0 }];
  const nearest = ([x, y, z]: Place): Place => {
    bvh.closestPointToPoint(at.set(x, y, z), found);
    return [found.point.x, found.point.y, found.point.z];
  };
  const count = mesh.positions.length / 3;
  const placeOf = (i: number): Place => [mesh.positions[3 * i]!, mesh.positions[3 * i + 1]!, mesh.positions[3 * i + 2]!];
  const every = Math.max(1, Math.floor(count / SAMPLE));
  const points = Array.from({ length: Math.ceil(count / every) }, (_, i) => placeOf(i * every));
  const { move } = registerScan(points, nearest, startsOf(minimumBox(hull(given.positions)), minimumBox(hull(onto.positions))));
  const deviation = new Float32Array(count);
  const registered = new Float32Array(3 * count);
  let worst = 0;
  for (let i = 0; i < count; i++) {
    const place = moved(move, placeOf(i));
    registered.set(place, 3 * i);
    const point = nearest(place);
    const side = sideOf(onto, found.faceIndex, place, point);
    deviation[i] = side * found.distance;
    worst = Math.max(worst, found.distance);
  }
  return { deviation, registered, triangles: mesh.triangles, rms: rmsOverSurface(mesh, deviation), worst };
};

const UPRIGHT = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const;

/** 1 outside the surface, −1 inside, by the normal of the nearest triangle. */
const sideOf = ({ positions, triangles }: Mesh, face: number, place: Place, point: Place): number => {
  const corner = (k: number): Vector3 => new Vector3().fromArray(positions, 3 * triangles[3 * face + k]!);
  const [a, b, c] = [corner(0), corner(1), corner(2)];
  const normal = b.sub(a).cross(c.sub(a));
  return normal.dot(new Vector3(place[0] - point[0], place[1] - point[1], place[2] - point[2])) >= 0 ? 1 : -1;
};

/** The boxes registered to each other in the four ways that keep their longest sides together, and as the files have them. */
const startsOf = (from: TurnedBox, onto: TurnedBox): readonly RigidMove[] => {
  const ways = [
    [1, 1, 1],
    [1, -1, -1],
    [-1, 1, -1],
    [-1, -1, 1],
  ] as const;
  const turned = ways.map((signs): RigidMove => {
    const rows = [0, 1, 2].map((i) =>
      [0, 1, 2].map((j) => signs.reduce<number>((sum, sign, k) => sum + sign * onto.axes[k]![i]! * from.axes[k]![j]!, 0)),
    ) as unknown as RigidMove['rows'];
    const shift = onto.centre.map((x, i) => x - rows[i]!.reduce<number>((sum, r, j) => sum + r * from.centre[j]!, 0)) as unknown as Place;
    return { rows, shift, isMirrored: false };
  });
  const still: RigidMove = {
    rows: UPRIGHT,
    shift: onto.centre.map((x, i) => x - from.centre[i]!) as unknown as Place,
    isMirrored: false,
  };
  return [still, { ...still, shift: [0, 0, 0] }, ...turned];
};
