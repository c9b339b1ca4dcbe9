import { array, mixed, tuple, type Schema } from 'yup';
import { finite, oneOf, positive, requiredText, shape, text, uuid, whole } from '../../shared';
import { instant, listOf, nullable, optionalUuid, sequence } from '../field-limits';
import {
  MESH_FORMATS,
  PATTERN_SOURCES,
  SCAN_UNITS,
  SECTION_KINDS,
  type GaugeFields,
  type IdentificationFields,
  type PatternFields,
  type ScanFields,
  type ScanFigures,
  type SectionFields,
  type Triple,
} from './entities';

/** The largest part of a vehicle is shorter than this. */
const MOST_M = 100;
const MOST_PERSONS = 10;
const MOST_PARTS = 50;
const MOST_TRIALS = 20;

const place = (label: string): Schema<number> =>
  finite(label).min(-MOST_M, '${label} must be at least ${min} m').max(MOST_M, '${label} may be at most ${max} m');
const notNegative = (label: string): Schema<number> => finite(label).min(0, '${label} must not be less than 0');
const fraction = (label: string): Schema<number> => notNegative(label).test('most', `${label} may be at most 1`, (v) => !(v > 1));
const edges = (label: string): Schema<number> => whole(label, 0, 100_000_000);
const triple = (label: string, each: Schema<number>): Schema<Triple> =>
  tuple([each, each, each] as never)
    .label(label)
    .defined()
    .typeError(`${label} must be three numbers`) as unknown as Schema<Triple>;
const pair = (label: string): Schema<readonly [number, number]> =>
  tuple([place(label), place(label)] as never)
    .label(label)
    .defined()
    .typeError(`${label} must be two numbers`) as unknown as Schema<readonly [number, number]>;

const FIGURES: Schema<ScanFigures> = shape<ScanFigures>({
  triangles: whole('Triangles', 1, 100_000_000),
  volumeM3: nullable(positive('Volume', 'm³', 1000)),
  volumeUM3: nullable(positive('Uncertainty of the volume', 'm³', 1000)),
  areaM2: positive('Area', 'm²', 100_000),
  centroidM: triple('Centroid', finite('Centroid')),
  openEdges: edges('Open edges'),
  nonManifoldEdges: edges('Edges of three triangles and more'),
  turnedEdges: edges('Edges that run the same way twice'),
  holes: edges('Holes'),
  sidesM: triple('Upright box', notNegative('Side')),
  smallestM: triple('Smallest box', notNegative('Side')),
  hullVolumeM3: notNegative('Volume of the hull'),
  trimmedM: triple('Box without slivers', notNegative('Side')),
  shareFraction: fraction('Share to hold'),
  heldFraction: fraction('Share held'),
  heldOf: oneOf('Share of', ['volume', 'surface'] as const),
}).label('Figures');

const DIMENSIONS = mixed<Readonly<Record<string, number>>>(
  (value): value is Readonly<Record<string, number>> =>
    typeof value === 'object' &&
    value !== null &&
    !Array.isArray(value) &&
    Object.values(value as Readonly<Record<string, unknown>>).every((v) => typeof v === 'number' && v >= 0 && v <= 10),
)
  .label('Dimensions')
  .defined()
  .typeError('Dimensions must be lengths from 0 to 10 m by name') as unknown as Schema<Readonly<Record<string, number>>>;

const sha256 = (): Schema<string> => text('File', 64).matches(/^[0-9a-f]{64}$/, '${label} must be named by its SHA-256');

/** The records of measuring: labels, limits and what is said when they are broken. */
export const MEASURE_SCHEMAS: {
  readonly scan: Schema<ScanFields>;
  readonly identification: Schema<IdentificationFields>;
  readonly section: Schema<SectionFields>;
  readonly pattern: Schema<PatternFields>;
  readonly gauge: Schema<GaugeFields>;
} = {
  scan: shape<ScanFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    sha256: sha256(),
    fileName: requiredText('Name of the file', 200),
    format: oneOf('Format', MESH_FORMATS),
    bytes: whole('Size', 1, 1_000_000_000),
    unit: oneOf('Unit of the file', SCAN_UNITS),
    unitBy: text('Unit chosen by', 400),
    figures: FIGURES,
    offsetM: nullable(positive('Surface offset of the scanner', 'm', 0.01)),
    instrument: text('Instrument', 200),
    serial: text('Serial number', 100),
    takenAt: instant('Taken'),
    takenBy: text('Taken by', 200),
    note: text('Remark', 400),
  }),
  identification: shape<IdentificationFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    cues: listOf('Seen', text('Cue', 40), 60),
    readingId: optionalUuid('Alloy reading'),
    marking: text('Marking', 200),
    materialId: text('Material', 60).nullable(),
    grade: text('Grade', 100),
    processId: text('Process', 60).nullable(),
    reason: text('Reason', 1000),
    decidedAt: instant('Decided'),
    decidedBy: text('Decided by', 200),
  }),
  section: shape<SectionFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    name: requiredText('Name', 100),
    kind: oneOf('Shape', SECTION_KINDS),
    dimensions: DIMENSIONS,
    loops: listOf('Outline', listOf('Loop', pair('Point'), 5000), 50),
    scanId: optionalUuid('Scan'),
    materialId: text('Material', 60).nullable(),
    note: text('Remark', 400),
  }),
  pattern: shape<PatternFields>({
    pieceId: uuid('Piece'),
    sequence: sequence(),
    name: requiredText('Name', 100),
    points: listOf('Points', triple('Point', place('Place')), 40),
    source: oneOf('Taken from', PATTERN_SOURCES),
    note: text('Remark', 400),
  }),
  gauge: shape<GaugeFields>({
    sequence: sequence(),
    name: requiredText('Name', 100),
    quantity: oneOf('Quantity', ['length', 'mass'] as const),
    persons: listOf('Persons', requiredText('Person', 100), MOST_PERSONS),
    parts: listOf('Parts', requiredText('Part', 100), MOST_PARTS),
    trials: whole('Times each', 2, MOST_TRIALS),
    readings: listOf(
      'Readings',
      listOf(
        'Readings of a person',
        array(nullable(finite('Reading')) as never)
          .label('Readings of a part')
          .defined()
          .max(MOST_TRIALS) as never,
        MOST_PARTS,
      ),
      MOST_PERSONS,
    ),
    instrument: text('Instrument', 200),
    note: text('Remark', 400),
  }),
};
