import {
  blank,
  type BoardFields,
  type ComponentSetFields,
  type ConnectionFields,
  type FastenerSetFields,
  type FieldsOf,
  type FluidFields,
  type JointSetFields,
  type PieceFields,
  type Place,
} from '../../record';
import type {
  BoardEntry,
  ComponentEntry,
  ConnectionEntry,
  FastenerEntry,
  FluidEntry,
  JointEntry,
  MassEntry,
  PieceEntry,
  SetEntry,
} from './entry';

interface MassFields {
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: PieceFields['massEvidence'];
  readonly massTyped: string | null;
}

/** The fields of a row that a mass in shorthand fills. */
export const massFields = (mass: MassEntry | null): MassFields => ({
  massEachKg: mass?.eachKg ?? null,
  massUKg: mass?.uKg ?? null,
  massEvidence: mass?.evidence ?? null,
  massTyped: mass?.typed ?? null,
});

export const pieceFields = (entry: PieceEntry, place: Place, sequence: number): PieceFields => ({
  ...blank('piece', place),
  sequence,
  tag: entry.tag,
  name: entry.name,
  quantity: entry.quantity,
  hand: entry.hand,
  materialId: entry.materialId,
  materialDetail: entry.materialDetail,
  processId: entry.processId,
  ...massFields(entry.mass),
  lengthM: entry.envelopeM?.[0] ?? null,
  widthM: entry.envelopeM?.[1] ?? null,
  heightM: entry.envelopeM?.[2] ?? null,
  wallThicknessM: entry.wallThicknessM,
  runLengthM: entry.runLengthM,
  runDiameterM: entry.runDiameterM,
  known: entry.known,
});

export const fastenerFields = (entry: FastenerEntry, pieceId: string, sequence: number): FastenerSetFields => ({
  ...blank('fasteners', { pieceId }),
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
  ...massFields(entry.mass),
  note: entry.note,
  known: entry.known,
});

export const jointFields = (entry: JointEntry, pieceId: string, sequence: number): JointSetFields => ({
  ...blank('joints', { pieceId }),
  sequence,
  count: entry.count,
  kind: entry.jointKind,
  lengthEachM: entry.lengthEachM,
  note: entry.note,
  known: entry.known,
});

export const connectionFields = (entry: ConnectionEntry, pieceId: string, sequence: number): ConnectionFields => ({
  ...blank('connection', { pieceId, kind: entry.connectionKind }),
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
  known: entry.known,
});

export const componentFields = (entry: ComponentEntry, pieceId: string, sequence: number): ComponentSetFields => ({
  ...blank('components', { pieceId }),
  sequence,
  count: entry.count,
  componentClass: entry.componentClass,
  fitted: entry.fitted,
  marking: entry.marking,
  note: entry.note,
  known: entry.known,
});

export const boardFields = (entry: BoardEntry, pieceId: string): BoardFields => ({
  ...blank('board', { pieceId }),
  lengthM: entry.lengthM,
  widthM: entry.widthM,
  sides: entry.sides,
  layers: entry.layers,
  note: entry.note,
  known: entry.known,
});

export const fluidFields = (entry: FluidEntry, pieceId: string, sequence: number): FluidFields => ({
  ...blank('fluid', { pieceId, name: entry.name }),
  sequence,
  ...massFields(entry.mass),
  volumeM3: entry.volumeM3,
  drained: entry.drained,
  note: entry.note,
  known: entry.known,
});

/** Kinds of record that one line puts on a piece. */
export const SET_KINDS = ['fasteners', 'joints', 'connection', 'components', 'board', 'fluid'] as const;
export type SetKind = (typeof SET_KINDS)[number];

/** The fields of what a line records on a piece. */
export const setFields = (entry: SetEntry, pieceId: string, sequence: number): FieldsOf[SetKind] => {
  switch (entry.kind) {
    case 'fasteners':
      return fastenerFields(entry, pieceId, sequence);
    case 'joints':
      return jointFields(entry, pieceId, sequence);
    case 'connection':
      return connectionFields(entry, pieceId, sequence);
    case 'components':
      return componentFields(entry, pieceId, sequence);
    case 'board':
      return boardFields(entry, pieceId);
    case 'fluid':
      return fluidFields(entry, pieceId, sequence);
  }
};
