import { issue } from '../../../shared';
import { rangeFaults } from '../../row-rules';
import { EVIDENCE, REMARK, choice, length, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from './of-part';

export const JOINT_KINDS = [
  'spot weld',
  'self-piercing rivet',
  'flow-drill screw',
  'clinch',
  'press fit',
  'snap fit',
  'adhesive bead',
  'seam weld',
  'laser weld',
  'friction-stir weld',
  'braze',
  'solder',
  'hem',
] as const;
export type JointKind = (typeof JOINT_KINDS)[number];

/** Joints that are known by their length as well as their number. */
export const RUNNING_JOINTS: readonly JointKind[] = [
  'adhesive bead',
  'seam weld',
  'laser weld',
  'friction-stir weld',
  'braze',
  'solder',
  'hem',
];

/** Joints of one kind that hold a part for good. */
export const JOINTS = kind({
  list: 'jointSets',
  table: 'joint_set',
  words: ['joints', 'joints'],
  name: { fields: ['count', 'kind'] },
  may: RECORDED,
  fields: {
    ...OF_PART,
    count: whole('Count', 1, 1_000_000, { blank: 1, evidence: 'C' }),
    kind: choice('Kind', JOINT_KINDS, { blank: 'spot weld', evidence: 'S' }),
    /** length of one joint, of the running kinds only */
    lengthEachM: length('Length each', 1000, { evidence: 'M' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (joints) => [
    ...(joints.lengthEachM === null || RUNNING_JOINTS.includes(joints.kind)
      ? []
      : [issue('joint-length', `A ${joints.kind} is counted; it has no length`, 'lengthEachM', joints.id)]),
    ...rangeFaults('count', joints.count, joints.evidence, joints.id),
  ],
});
