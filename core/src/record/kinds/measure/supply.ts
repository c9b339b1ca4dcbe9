import { issue } from '../../../shared';
import { EVIDENCE, REMARK, choice, fraction, optional, positive, reference, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** What a point of the supply does: it gives, passes on, makes another voltage, or takes. */
export const SUPPLY_ROLES = ['source', 'passes on', 'converts', 'load'] as const;
export type SupplyRole = (typeof SUPPLY_ROLES)[number];

/** A point of the electrical supply on a part: a source, a fuse or rail, a converter, a load; and what it is fed from. */
export const SUPPLY = kind({
  list: 'supplies',
  table: 'supply',
  words: ['supply point', 'supply points'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 100, { needed: true, unsaid: true }),
    role: choice('Role', SUPPLY_ROLES, { blank: 'load', evidence: 'S' }),
    feedId: reference('Fed from', 'supply', 'clear', optional),
    /** the cable or connector that leads from there to here */
    connectionId: reference('Through', 'connection', 'clear', optional),
    /** of a source or converter what it gives, of a load what it is made for */
    voltageV: positive('Voltage', 'V', 1e5, { ...optional, evidence: 'S' }),
    /** of a load what it takes, of a source or converter the most it gives */
    currentA: positive('Current', 'A', 1e5, { ...optional, evidence: 'S' }),
    fuseA: positive('Fuse', 'A', 1e5, { ...optional, evidence: 'S' }),
    /** of a converter, what comes out of what goes in */
    efficiency: fraction('Efficiency', { ...optional, evidence: 'P' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (point) => [
    ...(point.role === 'source' && point.feedId !== null
      ? [issue('source-fed', 'A source is not fed by another point; what makes one voltage of another converts', 'feedId', point.id)]
      : []),
    ...(point.feedId === point.id ? [issue('cycle', 'A point cannot feed itself', 'feedId', point.id)] : []),
  ],
  noCircle: 'feedId',
});
