import { fixed } from '../../shared';
import type {
  BoardFields,
  ComponentSetFields,
  ConnectionFields,
  FastenerSetFields,
  FieldsOf,
  FluidFields,
  JointSetFields,
  PieceFields,
} from '../../record';
import type { FastenerEntry, JointEntry, MassEntry } from './entry';
import { printLine } from './print-line';
import type { SetKind } from './to-fields';

type Weighed = Pick<PieceFields, 'massEachKg' | 'massUKg' | 'massEvidence' | 'massTyped'>;

const plain = (massKg: number): string =>
  `${fixed(massKg, 6)
    .replaceAll('\u202f', '')
    .replace(/\.?0+$/, '')} kg`;

const massEntry = (row: Weighed): MassEntry | null =>
  row.massEachKg === null
    ? null
    : { eachKg: row.massEachKg, uKg: row.massUKg ?? 0, evidence: row.massEvidence ?? '?', typed: row.massTyped ?? plain(row.massEachKg) };

/** The mass each of a row as people would type it; empty when there is none. */
export const massEachText = (row: Weighed): string => {
  if (row.massEachKg === null) return '';
  return row.massTyped === null || row.massTyped.startsWith('total') ? plain(row.massEachKg) : row.massTyped;
};

const fastenerEntry = (set: FastenerSetFields): FastenerEntry => ({
  kind: 'fasteners',
  count: set.count,
  fastenerKind: set.kind,
  threadM: set.threadM,
  pitchM: set.pitchM,
  lengthM: set.lengthM,
  drive: set.drive,
  grade: set.grade,
  direction: set.direction,
  tighteningNm: set.tighteningNm,
  breakawayNm: set.breakawayNm,
  access: set.access,
  tool: set.tool,
  removed: set.removed,
  mass: massEntry(set),
  note: set.note,
  known: set.known,
});

const jointEntry = (set: JointSetFields): JointEntry => ({
  kind: 'joints',
  count: set.count,
  jointKind: set.kind,
  lengthEachM: set.lengthEachM,
  note: set.note,
  known: set.known,
});

/** A recorded fastener set as the shorthand line that reads back as it. */
export const fastenerLine = (set: FastenerSetFields): string => printLine(fastenerEntry(set));

/** A recorded joint set as the shorthand line that reads back as it. */
export const jointLine = (set: JointSetFields): string => printLine(jointEntry(set));

export const connectionLine = (set: ConnectionFields): string => {
  const { kind, pieceId: _piece, sequence: _sequence, ...fields } = set;
  return printLine({ ...fields, kind: 'connection', connectionKind: kind });
};

export const componentLine = ({ pieceId: _piece, sequence: _sequence, ...fields }: ComponentSetFields): string =>
  printLine({ ...fields, kind: 'components' });

export const boardLine = ({ pieceId: _piece, ...fields }: BoardFields): string => printLine({ ...fields, kind: 'board' });

export const fluidLine = (fluid: FluidFields): string =>
  printLine({
    kind: 'fluid',
    name: fluid.name,
    mass: massEntry(fluid),
    volumeM3: fluid.volumeM3,
    drained: fluid.drained,
    note: fluid.note,
    known: fluid.known,
  });

const LINE_OF: { readonly [K in SetKind]: (fields: FieldsOf[K]) => string } = {
  fasteners: fastenerLine,
  joints: jointLine,
  connection: connectionLine,
  components: componentLine,
  board: boardLine,
  fluid: fluidLine,
};

/** What is recorded on a piece, as the shorthand line that reads back as it. */
export const setLineOf = <K extends SetKind>(kind: K, fields: FieldsOf[K]): string => LINE_OF[kind](fields);
