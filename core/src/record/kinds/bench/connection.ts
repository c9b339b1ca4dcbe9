import { issue } from '../../../shared';
import { rangeFaults } from '../../row-rules';
import { EVIDENCE, REMARK, choice, flag, length, library, list, optional, positive, reference, text, tuple, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { place } from '../place';
import { OF_PART } from '../study/of-part';

export const CONNECTION_KINDS = ['connector', 'cable', 'hose', 'pipe'] as const;
export type ConnectionKind = (typeof CONNECTION_KINDS)[number];

export const LOCKS = ['latch', 'lever lock', 'secondary lock', 'bolted', 'screw collar', 'quick coupling', 'clamp'] as const;
export type Lock = (typeof LOCKS)[number];

/** How hard a connector was to release with the hand. */
export const RELEASES = ['easy', 'firm', 'hard'] as const;
export type Release = (typeof RELEASES)[number];

/** What leads current or fluid to or from a part: an electrical connector, a cable, a hose, a pipe. */
export const CONNECTION = kind({
  list: 'connections',
  table: 'connection',
  words: ['connection', 'connections'],
  name: { fields: ['count', 'kind'] },
  may: RECORDED,
  fields: {
    ...OF_PART,
    count: whole('Count', 1, 100_000, { blank: 1, evidence: 'C' }),
    kind: choice('Kind', CONNECTION_KINDS, { blank: 'connector', evidence: 'S' }),
    /** conductor metal, or what a hose or pipe is made of */
    materialId: library('Material', 'material', { ...optional, evidence: 'S' }),
    /** poles of a connector, cores of a cable */
    poles: whole('Poles or cores', 1, 1000, { ...optional, evidence: 'C' }),
    /** conductor of each core of a cable */
    crossSectionM2: positive('Cross-section', 'm²', 0.01, { ...optional, evidence: 'S' }),
    shielded: flag('Shielded', { ...optional, evidence: 'S' }),
    /** inner diameter of a hose or pipe */
    innerM: length('Inner diameter', 1, { evidence: 'M' }),
    lengthEachM: length('Length each', 1000, { evidence: 'M' }),
    /** ports it leads from and to, and the points it is led over between them */
    fromPortId: reference('From port', 'port', 'clear', { ...optional, later: true }),
    toPortId: reference('To port', 'port', 'clear', { ...optional, later: true }),
    route: list('Route points', tuple('Route point', place('Place'), 3), 40, { later: true, blank: [] }),
    fluid: text('Fluid', 60, { evidence: 'S' }),
    lock: choice('Lock', LOCKS, { ...optional, evidence: 'S' }),
    release: choice('Released', RELEASES, { ...optional, evidence: 'S' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (connection) => [
    ...rangeFaults('count', connection.count, connection.evidence, connection.id),
    ...(connection.fromPortId !== null && connection.fromPortId === connection.toPortId
      ? [issue('line-ends', 'A line leads from one port to another', 'toPortId', connection.id)]
      : []),
  ],
});
