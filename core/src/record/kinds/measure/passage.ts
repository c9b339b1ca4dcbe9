import { READ_IN, issue } from '../../../shared';
import { EVIDENCE, REMARK, choice, optional, positive, reference, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** What a part does to the fluid that goes through it. */
export const PASSAGE_DOES = ['resists', 'pumps'] as const;

/**
 * A way through a part from port to port: one that resists has a drop at a flow, in proportion to its square; a pump has its
 * pressure at no flow and its flow at no pressure.
 */
export const PASSAGE = kind({
  list: 'passages',
  table: 'passage',
  words: ['passage', 'passages'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 100, { needed: true, unsaid: true }),
    fromPortId: reference('From port', 'port', 'clear', optional),
    toPortId: reference('To port', 'port', 'clear', optional),
    does: choice('Does', PASSAGE_DOES, { blank: 'resists', evidence: 'S' }),
    pressurePa: positive('Pressure', 'Pa', 1e8, { readIn: READ_IN.kPa, ...optional, evidence: 'P' }),
    flowM3PerS: positive('Flow', 'm³/s', 1, { readIn: READ_IN['l/min'], ...optional, evidence: 'P' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (passage) =>
    passage.fromPortId !== null && passage.fromPortId === passage.toPortId
      ? [issue('passage-ends', 'A passage leads from one port to another', 'toPortId', passage.id)]
      : [],
});
