import type { ScanFigures, ScanUnit, Triple } from '../../record';
import { trimmedBox } from './trimmed-box';
import { METRES_PER } from './guess-unit';
import { hulls } from './hull';
import { triangleCount, type Mesh } from './mesh';
import { meshEdges } from './mesh-edges';
import { facetDeficit } from './facet-deficit';
import { meshFigures } from './mesh-figures';
import { meshShells } from './mesh-shells';
import { closedVolume } from './open-edges';
import { minimumBox, type TurnedBox } from './minimum-box';

/** Steps of the measuring, in order, as they are told while it goes on. */
export const MEASURE_STEPS = ['volume and area', 'edges', 'hull', 'minimum bounding box', 'trimmed bounding box'] as const;
export type MeasureStep = (typeof MEASURE_STEPS)[number];

/** By how much a scanner may lay a surface too far out or in, standard uncertainty, m, until its own is stated (assumed: structured light on a coated part). */
export const USUAL_OFFSET_M = 0.00005;
/** Share the trimmed bounding box holds, until somebody says otherwise. */
export const USUAL_SHARE = 0.98;
/** More edges of three triangles and more than this share of all, and the surface is none. */
const MOST_NON_MANIFOLD = 0.01;
/** Below this share of its box a mesh encloses nothing to speak of. */
const ENCLOSES_FROM = 1e-6;

interface MeasuredMesh {
  /** in the unit of the mesh: lengths, areas and volumes as in the file */
  readonly figures: ScanFigures;
  readonly minimum: TurnedBox;
  readonly trimmed: TurnedBox;
  /** why it has no volume, and what leaves the volume unsure, in words */
  readonly notes: readonly string[];
}

/**
 * Everything that is measured from a scan, still in the unit of its file (`inMetres` turns it into SI).
 *
 *   u(V)² = (A δ)² + u(mesh)²     δ the offset of the scanner's surface, added by `inMetres`
 *   u(mesh)² = u(holes)² + u(facets)² + u(edges of three triangles and more)²
 *
 * A mesh in which a shell lies on itself twice, or more than one edge in a hundred joins three triangles or more, has no volume.
 *
 * @param told called before each step, so that whoever waits sees how far it is
 */
export const measureMesh = (mesh: Mesh, shareFraction: number, told: (step: MeasureStep) => void = () => undefined): MeasuredMesh => {
  told('volume and area');
  const { volume, area, centroid, low, high } = meshFigures(mesh);
  told('edges');
  const edges = meshEdges(mesh);
  const shells = meshShells(mesh);
  const middle = low.map((x, i) => (x + high[i]!) / 2) as unknown as Triple;
  const closed = closedVolume(mesh, volume, middle);
  told('hull');
  const outer = hulls(mesh.positions);
  const hullVolume = outer.whole().volume;
  told('minimum bounding box');
  const minimum = minimumBox(outer.rough, mesh.positions);
  // a mesh turned inside out encloses the same
  const enclosed = Math.abs(closed.volume);
  const isRagged = edges.nonManifold > MOST_NON_MANIFOLD * 1.5 * triangleCount(mesh);
  const isClosed = enclosed > ENCLOSES_FROM * minimum.volume && shells.doubled === 0 && !isRagged;
  told('trimmed bounding box');
  const trimmed = trimmedBox(mesh, minimum, shareFraction, edges.watertight);
  return {
    minimum,
    trimmed: trimmed.box,
    notes: [
      ...(shells.doubled > 0
        ? ['A surface lies on itself twice: its volume would count double, so none is given. Take one of the two out']
        : []),
      ...(isRagged
        ? ['More than one edge in a hundred joins three triangles or more: the surface encloses nothing for sure, so no volume is given']
        : []),
    ],
    figures: {
      triangles: triangleCount(mesh),
      volumeM3: isClosed ? enclosed : null,
      volumeUM3: isClosed ? Math.hypot(closed.u, facetDeficit(mesh), shells.unsureVolume) : null,
      areaM2: area,
      centroidM: centroid,
      ...{ openEdges: edges.open, nonManifoldEdges: edges.nonManifold, turnedEdges: edges.turned, holes: closed.holes.length },
      sidesM: high.map((x, i) => x - low[i]!) as unknown as Triple,
      minimumM: minimum.sides,
      hullVolumeM3: hullVolume,
      trimmedM: [...trimmed.box.sides].sort((a, b) => b - a) as unknown as Triple,
      shareFraction,
      ...{ heldFraction: trimmed.heldFraction, heldOf: trimmed.heldOf },
    },
  };
};

const times = (k: number, [a, b, c]: Triple): Triple => [k * a, k * b, k * c];

/**
 * Figures in SI of a scan whose file is in a unit, with the uncertainty that comes from the offset of the surface.
 *
 * @param offsetM standard uncertainty of where the scanner lays the surface, m
 */
export const inMetres = (figures: ScanFigures, unit: ScanUnit, offsetM: number = USUAL_OFFSET_M): ScanFigures => {
  const k = METRES_PER[unit];
  return {
    ...figures,
    volumeM3: figures.volumeM3 === null ? null : figures.volumeM3 * k ** 3,
    volumeUM3: figures.volumeUM3 === null ? null : Math.hypot(figures.volumeUM3 * k ** 3, figures.areaM2 * k ** 2 * offsetM),
    areaM2: figures.areaM2 * k ** 2,
    hullVolumeM3: figures.hullVolumeM3 * k ** 3,
    centroidM: times(k, figures.centroidM),
    sidesM: times(k, figures.sidesM),
    minimumM: times(k, figures.minimumM),
    trimmedM: times(k, figures.trimmedM),
  };
};

/** A share of the volume scans once had for their uncertainty, before an offset was stated. */
const FORMER_RELATIVE_U = 0.005;

/** Figures of a kept scan when the offset of its surface is stated anew; the mesh's own part stays. */
export const withOffset = (figures: ScanFigures, before: number | null, after: number): ScanFigures => {
  if (figures.volumeM3 === null || figures.volumeUM3 === null) return figures;
  const had = before === null ? FORMER_RELATIVE_U * figures.volumeM3 : figures.areaM2 * before;
  const own = Math.sqrt(Math.max(0, figures.volumeUM3 ** 2 - had ** 2));
  return { ...figures, volumeUM3: Math.hypot(own, figures.areaM2 * after) };
};
