import { issue } from '../../../shared';
import { SEQUENCE, instant, list, number, optional, group, reference, text, anyReference, type ValueOf } from '../field';
import { RECORDED, kind } from '../kind';

const ACKNOWLEDGEMENT = group('Precaution read', {
  hazard: text('Hazard', 40, { needed: true }),
  by: text('Read by', 200, { needed: true }),
  /** ISO 8601, UTC */
  at: instant('At'),
});

const WAIVER = group('Left as it is', {
  check: text('Check', 40, { needed: true }),
  aboutId: anyReference('About', null, 'stays'),
  reason: text('Reason', 400, { needed: true }),
  by: text('By', 200, { needed: true }),
});
/** Something the end of a session found missing that stays so, with the reason. */
export type Waiver = ValueOf<typeof WAIVER>;

/** A stretch of work at the bench, usually of one package. */
export const SESSION = kind({
  list: 'sessions',
  table: 'bench_session',
  words: ['session', 'sessions'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
    packageId: reference('Work package', 'package', 'clear', { ...optional, unsaid: true }),
    vehicleId: reference('Vehicle', 'vehicle', 'refuse', { unsaid: true }),
    subsystemId: reference('Subsystem', 'subsystem', 'clear', { ...optional, unsaid: true }),
    /** who takes apart, and who writes; by name */
    remover: text('Takes apart', 200),
    recorder: text('Writes', 200),
    /** ISO 8601, UTC */
    openedAt: instant('Opened'),
    closedAt: instant('Closed', optional),
    /** the clock stops when nothing happens for so long */
    pauseAfterS: number('Pause after', 's', {
      min: 30,
      max: 14_400,
      says: { min: '${label} must be at least 30 s', max: '${label} may be at most 4 h' },
    }),
    acknowledged: list('Precautions read', ACKNOWLEDGEMENT, 100),
    waived: list('Left as it is', WAIVER, 1000),
    note: text('Remarks', 4000),
  },
  faults: (session) =>
    session.closedAt !== null && session.closedAt < session.openedAt
      ? [
          issue(
            'closed-before-opened',
            'The session was closed before it was opened: one of the two times is wrong',
            'closedAt',
            session.id,
          ),
        ]
      : [],
});
