import { millimetres } from '../../../shared';
import {
  REMARK,
  choice,
  file,
  instant,
  notNegative,
  number,
  optional,
  group,
  positive,
  text,
  tuple,
  whole,
  type Field,
  type TupleField,
  type ValueOf,
  shown,
} from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** Formats of scan files, and units they may be in; the files themselves do not say their unit. */
const MESH_FORMATS = ['STL', 'PLY', 'OBJ'] as const;
export type MeshFormat = (typeof MESH_FORMATS)[number];
export const SCAN_UNITS = ['mm', 'cm', 'in', 'm'] as const;
export type ScanUnit = (typeof SCAN_UNITS)[number];

export type Triple = readonly [number, number, number];
export const triple = <const I extends Field>(label: string, each: I): TupleField<I, 3> => tuple(label, each, 3);

const CM3 = 1e6;

const fraction = (label: string) => notNegative(label, '', { max: 1, says: { max: '${label} may be at most 1' } });
const edges = (label: string) => whole(label, 0, 100_000_000);

const FIGURES = shown(
  group('Figures', {
    triangles: whole('Triangles', 1, 100_000_000),
    /** enclosed volume, holes closed flat; null where nothing is enclosed */
    volumeM3: positive('Volume', 'm³', 1000, optional),
    /** standard uncertainty of the volume: of the mesh itself and of its holes */
    volumeUM3: positive('Uncertainty of the volume', 'm³', 1000, optional),
    areaM2: positive('Area', 'm²', 100_000),
    centroidM: triple('Centroid', number('Centroid', 'm')),
    openEdges: edges('Open edges'),
    nonManifoldEdges: edges('Edges of three triangles and more'),
    turnedEdges: edges('Edges that run the same way twice'),
    holes: edges('Holes'),
    /** sides of the upright box */
    sidesM: triple('Upright box', notNegative('Side', 'm')),
    /** sides of the minimum bounding box in any orientation, the longest first */
    minimumM: triple('Minimum bounding box', notNegative('Side', 'm')),
    hullVolumeM3: notNegative('Volume of the hull', 'm³'),
    /** sides of the trimmed bounding box, the share it was to hold and what it holds */
    trimmedM: triple('Trimmed bounding box', notNegative('Side', 'm')),
    shareFraction: fraction('Enclosed share of volume'),
    heldFraction: fraction('Share held'),
    heldOf: choice('Share of', ['volume', 'surface']),
  }),
  ({ volumeM3, minimumM, openEdges }) =>
    [
      volumeM3 === null ? 'encloses nothing' : `volume ${Number((volumeM3 * CM3).toPrecision(4))} cm³`,
      `minimum bounding box ${minimumM.map((side) => Number(millimetres(side).toFixed(1))).join(' × ')} mm`,
      openEdges === 0 ? 'watertight' : `${openEdges} open edges`,
    ].join(', '),
);
/** What was measured from a scan, SI. */
export type ScanFigures = ValueOf<typeof FIGURES>;

/** A scan of a part. Its file is kept once, under its content hash. */
export const SCAN = kind({
  list: 'scans',
  table: 'scan',
  words: ['scan', 'scans'],
  name: { field: 'fileName' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    sha256: file('File', 'mesh'),
    fileName: text('Name of the file', 200, { needed: true }),
    format: choice('Format', MESH_FORMATS),
    bytes: whole('Size', 1, 1_000_000_000),
    unit: choice('Unit of the file', SCAN_UNITS),
    /** what the unit was chosen by */
    unitBy: text('Unit chosen by', 400),
    figures: FIGURES,
    /** by how much the scanner may lay the surface too far out or in, standard uncertainty, m; null: not said */
    offsetM: positive('Surface offset of the scanner', 'm', 0.01, { ...optional, later: true }),
    instrument: text('Instrument', 200),
    serial: text('Serial number', 100),
    takenAt: instant('Taken'),
    takenBy: text('Taken by', 200),
    note: REMARK,
  },
});
