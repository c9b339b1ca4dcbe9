import { massFaults, rangeFaults } from '../../row-rules';
import { EVIDENCE, MASS_EACH, REMARK, choice, flag, length, optional, positive, text, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from './of-part';

export const FASTENER_KINDS = ['bolt', 'nut', 'washer', 'stud', 'screw', 'rivet', 'clip', 'push pin', 'cable tie'] as const;
export type FastenerKind = (typeof FASTENER_KINDS)[number];

/** Directions in the vehicle's axes: X fore and aft, Y left and right, Z up and down. @source ISO 4130:1978 */
export const DIRECTIONS = ['+x', '-x', '+y', '-y', '+z', '-z'] as const;
export type Direction = (typeof DIRECTIONS)[number];
/** Directions in words; X points aft, Y to the right, Z up. @source ISO 4130:1978, from memory */
export const DIRECTION_WORD: Readonly<Record<Direction, string>> = {
  '+x': '+X aft',
  '-x': '−X forward',
  '+y': '+Y to the right',
  '-y': '−Y to the left',
  '+z': '+Z up',
  '-z': '−Z down',
};

/** How the fasteners of a set are reached. */
export const ACCESSES = ['free', 'from below', 'blind', 'through a hole', 'behind a cover', 'with an extension'] as const;
export type Access = (typeof ACCESSES)[number];

/** Fasteners of one kind that hold a part. */
export const FASTENERS = kind({
  list: 'fastenerSets',
  table: 'fastener_set',
  words: ['fasteners', 'fasteners'],
  name: { fields: ['count', 'kind'] },
  may: RECORDED,
  fields: {
    ...OF_PART,
    /** how many hold one such part */
    count: whole('Count', 1, 100_000, { blank: 1, evidence: 'C' }),
    kind: choice('Kind', FASTENER_KINDS, { blank: 'bolt', evidence: 'S' }),
    /** nominal thread diameter */
    threadM: length('Thread', 0.2, { evidence: 'S' }),
    /** null is the coarse pitch */
    pitchM: length('Pitch', 0.02, { evidence: 'S' }),
    lengthM: length('Length', 2, { evidence: 'S' }),
    drive: text('Drive', 20, { evidence: 'S' }),
    grade: text('Grade', 20, { evidence: 'S' }),
    direction: choice('Direction', DIRECTIONS, { ...optional, evidence: 'S' }),
    /** torque it was tightened with, and the torque at which it let go */
    tighteningNm: positive('Tightening torque', 'N m', 10_000, { ...optional, evidence: 'M', later: true }),
    breakawayNm: positive('Breakaway torque', 'N m', 10_000, { ...optional, evidence: 'M', later: true }),
    access: choice('Access', ACCESSES, { ...optional, evidence: 'S', later: true }),
    tool: text('Tool', 60, { evidence: 'S', later: true }),
    /** null: not said; false: it stayed in */
    removed: flag('Removed', { ...optional, evidence: 'S', later: true }),
    massEachKg: MASS_EACH,
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (set) => [...massFaults(set, set.id), ...rangeFaults('count', set.count, set.evidence, set.id)],
});
