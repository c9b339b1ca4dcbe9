import {
  blank,
  type BoardFields,
  type ComponentSetFields,
  type ConnectionFields,
  type FastenerSetFields,
  type FieldsOf,
  type FluidFields,
  type JointSetFields,
  type PartFields,
  type Place,
  evidence,
  type EvidenceOf,
  type Weighed,
} from '../../record';
import type {
  BoardEntry,
  ComponentEntry,
  ConnectionEntry,
  FastenerEntry,
  FluidEntry,
  JointEntry,
  MassEntry,
  PartEntry,
  SetEntry,
} from './entry';

/** The fields of a row that a mass in shorthand fills, with what else is said of how values are known. */
export const massFields = (mass: MassEntry | null, said: EvidenceOf = {}): Weighed => {
  const { massEachKg: _without, ...others } = said;
  return mass === null
    ? { massEachKg: null, evidence: others }
    : { massEachKg: mass.eachKg, evidence: { ...others, massEachKg: evidence(mass.mark, { u: mass.uKg, typed: mass.typed }) } };
};

/** The fields of a new part from a line that was read, put at a place of the record. */
export const partFields = (entry: PartEntry, place: Place, sequence: number): PartFields => ({
  ...blank('part', place),
  sequence,
  tag: entry.tag,
  name: entry.name,
  quantity: entry.quantity,
  hand: entry.hand,
  materialId: entry.materialId,
  materialDetail: entry.materialDetail,
  processId: entry.processId,
  lengthM: entry.envelopeM?.[0] ?? null,
  widthM: entry.envelopeM?.[1] ?? null,
  heightM: entry.envelopeM?.[2] ?? null,
  wallThicknessM: entry.wallThicknessM,
  runLengthM: entry.runLengthM,
  runDiameterM: entry.runDiameterM,
  ...massFields(entry.mass, entry.evidence),
});

/** The fields of a new fastener set from a line that was read. */
export const fastenerFields = (entry: FastenerEntry, partId: string, sequence: number): FastenerSetFields => ({
  ...blank('fasteners', { partId }),
  sequence,
  count: entry.count,
  kind: entry.fastenerKind,
  threadM: entry.threadM,
  pitchM: entry.pitchM,
  lengthM: entry.lengthM,
  drive: entry.drive,
  grade: entry.grade,
  direction: entry.direction,
  tighteningNm: entry.tighteningNm,
  breakawayNm: entry.breakawayNm,
  access: entry.access,
  tool: entry.tool,
  removed: entry.removed,
  note: entry.note,
  ...massFields(entry.mass, entry.evidence),
});

/** The fields of a new joint set from a line that was read. */
export const jointFields = (entry: JointEntry, partId: string, sequence: number): JointSetFields => ({
  ...blank('joints', { partId }),
  sequence,
  count: entry.count,
  kind: entry.jointKind,
  lengthEachM: entry.lengthEachM,
  note: entry.note,
  evidence: entry.evidence,
});

const connectionFields = (entry: ConnectionEntry, partId: string, sequence: number): ConnectionFields => ({
  ...blank('connection', { partId, kind: entry.connectionKind }),
  sequence,
  count: entry.count,
  materialId: entry.materialId,
  poles: entry.poles,
  crossSectionM2: entry.crossSectionM2,
  shielded: entry.shielded,
  innerM: entry.innerM,
  lengthEachM: entry.lengthEachM,
  fluid: entry.fluid,
  lock: entry.lock,
  release: entry.release,
  note: entry.note,
  evidence: entry.evidence,
});

const componentFields = (entry: ComponentEntry, partId: string, sequence: number): ComponentSetFields => ({
  ...blank('components', { partId }),
  sequence,
  count: entry.count,
  componentClass: entry.componentClass,
  fitted: entry.fitted,
  marking: entry.marking,
  note: entry.note,
  evidence: entry.evidence,
});

const boardFields = (entry: BoardEntry, partId: string): BoardFields => ({
  ...blank('board', { partId }),
  lengthM: entry.lengthM,
  widthM: entry.widthM,
  sides: entry.sides,
  layers: entry.layers,
  note: entry.note,
  evidence: entry.evidence,
});

const fluidFields = (entry: FluidEntry, partId: string, sequence: number): FluidFields => ({
  ...blank('fluid', { partId, name: entry.name }),
  sequence,
  volumeM3: entry.volumeM3,
  drained: entry.drained,
  note: entry.note,
  ...massFields(entry.mass, entry.evidence),
});

/** Kinds of record that one line puts on a part. */
export const SET_KINDS = ['fasteners', 'joints', 'connection', 'components', 'board', 'fluid'] as const;
export type SetKind = (typeof SET_KINDS)[number];

/** The fields of what a line records on a part. */
export const setFields = (entry: SetEntry, partId: string, sequence: number): FieldsOf[SetKind] => {
  switch (entry.kind) {
    case 'fasteners':
      return fastenerFields(entry, partId, sequence);
    case 'joints':
      return jointFields(entry, partId, sequence);
    case 'connection':
      return connectionFields(entry, partId, sequence);
    case 'components':
      return componentFields(entry, partId, sequence);
    case 'board':
      return boardFields(entry, partId);
    case 'fluid':
      return fluidFields(entry, partId, sequence);
  }
};
