import { fixed } from '../../shared';
import { isMassOfAll, massSaid, type EvidenceOf, type Weighed } from '../../record';
import type {
  BoardFields,
  ComponentSetFields,
  ConnectionFields,
  FastenerSetFields,
  FieldsOf,
  FluidFields,
  JointSetFields,
} from '../../record';
import type { FastenerEntry, JointEntry, MassEntry } from './entry';
import { printLine } from './print-line';
import type { SetKind } from './to-fields';

const plain = (massKg: number): string =>
  `${fixed(massKg, 6)
    .replaceAll('\u202f', '')
    .replace(/\.?0+$/, '')} kg`;

const massEntry = (row: Weighed): MassEntry | null => {
  const said = massSaid(row);
  return row.massEachKg === null || said === null
    ? null
    : { eachKg: row.massEachKg, uKg: said.u ?? 0, mark: said.mark, typed: said.typed ?? plain(row.massEachKg) };
};

/** What is said of how values are known beside the mass, which a line holds with its mark. */
const besideMass = ({ massEachKg: _mass, ...others }: EvidenceOf): EvidenceOf => others;

/** The mass each of a row as people would type it; empty when there is none. */
export const massEachText = (row: Weighed): string => {
  if (row.massEachKg === null) return '';
  const typed = massSaid(row)?.typed ?? null;
  return typed === null || isMassOfAll(row) ? plain(row.massEachKg) : typed;
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
  evidence: besideMass(set.evidence),
});

const jointEntry = (set: JointSetFields): JointEntry => ({
  kind: 'joints',
  count: set.count,
  jointKind: set.kind,
  lengthEachM: set.lengthEachM,
  note: set.note,
  evidence: set.evidence,
});

/** A recorded fastener set as the shorthand line that reads back as it. */
export const fastenerLine = (set: FastenerSetFields): string => printLine(fastenerEntry(set));

/** A recorded joint set as the shorthand line that reads back as it. */
export const jointLine = (set: JointSetFields): string => printLine(jointEntry(set));

const connectionLine = (set: ConnectionFields): string => {
  const { kind, partId: _part, sequence: _sequence, ...fields } = set;
  return printLine({ ...fields, kind: 'connection', connectionKind: kind });
};

const componentLine = ({ partId: _part, sequence: _sequence, ...fields }: ComponentSetFields): string =>
  printLine({ ...fields, kind: 'components' });

const boardLine = ({ partId: _part, ...fields }: BoardFields): string => printLine({ ...fields, kind: 'board' });

const fluidLine = (fluid: FluidFields): string =>
  printLine({
    kind: 'fluid',
    name: fluid.name,
    mass: massEntry(fluid),
    volumeM3: fluid.volumeM3,
    drained: fluid.drained,
    note: fluid.note,
    evidence: besideMass(fluid.evidence),
  });

const LINE_OF: { readonly [K in SetKind]: (fields: FieldsOf[K]) => string } = {
  fasteners: fastenerLine,
  joints: jointLine,
  connection: connectionLine,
  components: componentLine,
  board: boardLine,
  fluid: fluidLine,
};

/** What is recorded on a part, as the shorthand line that reads back as it. */
export const setLineOf = <K extends SetKind>(kind: K, fields: FieldsOf[K]): string => LINE_OF[kind](fields);
