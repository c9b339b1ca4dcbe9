import { fixed } from '../../shared';
import type { FastenerSetFields, JointSetFields, PieceFields } from '../../record';
import type { FastenerEntry, JointEntry, MassEntry } from './entry';
import { printLine } from './print-line';

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
