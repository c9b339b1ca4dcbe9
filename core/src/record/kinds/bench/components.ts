import { rangeFaults } from '../../row-rules';
import { EVIDENCE, REMARK, choice, flag, text, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

export const COMPONENT_CLASSES = [
  'controller',
  'memory',
  'integrated circuit',
  'power switch',
  'gate driver',
  'shunt',
  'transformer',
  'inductor',
  'capacitor',
  'resistor',
  'diode',
  'relay',
  'fuse',
  'sensor',
  'oscillator',
  'lamp',
  'board connector',
  'test point',
] as const;
export type ComponentClass = (typeof COMPONENT_CLASSES)[number];

/** Components of one class on a circuit board, or places for them that were left empty. */
export const COMPONENTS = kind({
  list: 'componentSets',
  table: 'component_set',
  words: ['board components', 'board components'],
  name: { fields: ['count', 'componentClass'] },
  may: RECORDED,
  fields: {
    ...OF_PART,
    count: whole('Count', 1, 100_000, { blank: 1, evidence: 'C' }),
    componentClass: choice('Class', COMPONENT_CLASSES, { blank: 'integrated circuit', evidence: 'S' }),
    /** false: places on the board that nothing is placed on */
    fitted: flag('Fitted', { blank: true }),
    /** number or words marked on each */
    marking: text('Marking', 200, { evidence: 'S' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (set) => rangeFaults('count', set.count, set.evidence, set.id),
});
