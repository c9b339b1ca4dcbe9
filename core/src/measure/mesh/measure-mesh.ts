import type { ScanFigures, ScanUnit, Triple } from '../../record';
import { boxWithoutSlivers } from './box-without-slivers';
import { METRES_PER } from './guess-unit';
import { hulls } from './hull';
import { triangleCount, type Mesh } from './mesh';
import { meshEdges } from './mesh-edges';
import { meshFigures } from './mesh-figures';
import { closedVolume } from './open-edges';
import { smallestBox, type TurnedBox } from './smallest-box';

/** Steps of the measuring, in order, as they are told while it goes on. */
export const MEASURE_STEPS = ['volume and area', 'edges', 'hull', 'smallest box', 'box without slivers'] as const;
export type MeasureStep = (typeof MEASURE_STEPS)[number];

/** The volume of a scan is known no better than this share of it (assumed: a structured-light scan of a part of a vehicle). */
export const SCAN_RELATIVE_U = 0.005;
/** Share the box without slivers holds, until somebody says otherwise. */
export const USUAL_SHARE = 0.98;
/** Below this share of its box a mesh encloses nothing to speak of. */
const ENCLOSES_FROM = 1e-6;

export interface MeasuredMesh {
  /** in the unit of the mesh: lengths, areas and volumes as in the file */
  readonly figures: ScanFigures;
  readonly smallest: TurnedBox;
  readonly trimmed: TurnedBox;
}

/**
 * Everything that is measured from a scan, still in the unit of its file (`inMetres` turns it into SI).
 *
 *   u(V)² = (0.005 V)² + u(holes)²
 *
 * @param told called before each step, so that whoever waits sees how far it is
 */
export const measureMesh = (mesh: Mesh, shareFraction: number, told: (step: MeasureStep) => void = () => undefined): MeasuredMesh => {
  told('volume and area');
  const { volume, area, centroid, low, high } = meshFigures(mesh);
  told('edges');
  const edges = meshEdges(mesh);
  const middle = low.map((x, i) => (x + high[i]!) / 2) as unknown as Triple;
  const closed = closedVolume(mesh, volume, middle);
  told('hull');
  const outer = hulls(mesh.positions);
  const hullVolume = outer.whole().volume;
  told('smallest box');
  const smallest = smallestBox(outer.rough, mesh.positions);
  // a mesh turned inside out encloses the same
  const enclosed = Math.abs(closed.volume);
  const isClosed = enclosed > ENCLOSES_FROM * smallest.volume;
  told('box without slivers');
  const trimmed = boxWithoutSlivers(mesh, smallest, shareFraction, edges.watertight);
  return {
    smallest,
    trimmed: trimmed.box,
    figures: {
      triangles: triangleCount(mesh),
      volumeM3: isClosed ? enclosed : null,
      volumeUM3: isClosed ? Math.hypot(SCAN_RELATIVE_U * enclosed, closed.u) : null,
      areaM2: area,
      centroidM: centroid,
      ...{ openEdges: edges.open, nonManifoldEdges: edges.nonManifold, turnedEdges: edges.turned, holes: closed.holes.length },
      sidesM: high.map((x, i) => x - low[i]!) as unknown as Triple,
      smallestM: smallest.sides,
      hullVolumeM3: hullVolume,
      trimmedM: [...trimmed.box.sides].sort((a, b) => b - a) as unknown as Triple,
      shareFraction,
      ...{ heldFraction: trimmed.heldFraction, heldOf: trimmed.heldOf },
    },
  };
};

const times = (k: number, [a, b, c]: Triple): Triple => [k * a, k * b, k * c];

/** Figures in SI of a scan whose file is in a unit. */
export const inMetres = (figures: ScanFigures, unit: ScanUnit): ScanFigures => {
  const k = METRES_PER[unit];
  return {
    ...figures,
    volumeM3: figures.volumeM3 === null ? null : figures.volumeM3 * k ** 3,
    volumeUM3: figures.volumeUM3 === null ? null : figures.volumeUM3 * k ** 3,
    areaM2: figures.areaM2 * k ** 2,
    hullVolumeM3: figures.hullVolumeM3 * k ** 3,
    centroidM: times(k, figures.centroidM),
    sidesM: times(k, figures.sidesM),
    smallestM: times(k, figures.smallestM),
    trimmedM: times(k, figures.trimmedM),
  };
};
