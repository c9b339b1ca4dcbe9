import {
  blankFasteners,
  blankJoints,
  blankPiece,
  type FastenerSetFields,
  type JointSetFields,
  type PieceFields,
  type Place,
} from '../../record';
import type { FastenerEntry, JointEntry, MassEntry, PieceEntry } from './entry';

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
  ...blankPiece(place),
  sequence,
  tag: entry.tag,
  name: entry.name,
  quantity: entry.quantity,
  hand: entry.hand,
  materialId: entry.materialId,
  processId: entry.processId,
  ...massFields(entry.mass),
  lengthM: entry.envelopeM?.[0] ?? null,
  widthM: entry.envelopeM?.[1] ?? null,
  heightM: entry.envelopeM?.[2] ?? null,
  wallThicknessM: entry.wallThicknessM,
  runLengthM: entry.runLengthM,
  known: entry.known,
});

export const fastenerFields = (entry: FastenerEntry, pieceId: string, sequence: number): FastenerSetFields => ({
  ...blankFasteners(pieceId),
  sequence,
  count: entry.count,
  kind: entry.fastenerKind,
  threadM: entry.threadM,
  pitchM: entry.pitchM,
  lengthM: entry.lengthM,
  drive: entry.drive,
  grade: entry.grade,
  direction: entry.direction,
  ...massFields(entry.mass),
  note: entry.note,
  known: entry.known,
});

export const jointFields = (entry: JointEntry, pieceId: string, sequence: number): JointSetFields => ({
  ...blankJoints(pieceId),
  sequence,
  count: entry.count,
  kind: entry.jointKind,
  lengthEachM: entry.lengthEachM,
  note: entry.note,
  known: entry.known,
});
