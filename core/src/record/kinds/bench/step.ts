import { READ_IN, issue } from '../../../shared';
import { SEQUENCE, choice, flag, instant, list, notNegative, optional, reference, shown, text, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { DIRECTIONS, DIRECTION_WORD } from '../study/fasteners';

/** What goes on from one removal to the next until something else is said. */
export const CARRIED = ['tool', 'bit', 'people'] as const;
export type Carried = (typeof CARRIED)[number];

/** A week of work without a break is longer than any step. */
const MOST_S = 604_800;

/** One removal: what came off together, what had to come off first, and how. */
export const STEP = kind({
  list: 'steps',
  table: 'removal_step',
  words: ['removal', 'removals'],
  name: { of: 'parts', otherwise: 'a removal' },
  may: RECORDED,
  fields: {
    sessionId: reference('Session', 'session', 'clear', optional),
    vehicleId: reference('Vehicle', 'vehicle', 'refuse', { unsaid: true }),
    sequence: SEQUENCE,
    parts: list('Comes off', reference('Part', 'part', 'clear', { alike: 'vehicleId' }), 500),
    /** steps that had to be done first */
    after: list('Had to come off first', reference('Step', 'step', 'clear', { alike: 'vehicleId' }), 200),
    tool: text('Tool', 60),
    bit: text('Bit', 40),
    /** what of it went on from the removal before and was never said of this one */
    carried: list('Carried over', choice('Carried over', CARRIED), CARRIED.length, { later: true, unsaid: true }),
    direction: shown(choice('Comes off towards', DIRECTIONS, optional), (to) => DIRECTION_WORD[to]),
    people: whole('People', 1, 20, optional),
    /** false: blind */
    seen: flag('Seen or blind', { ...optional, words: ['seen', 'blind'] }),
    /** it stays in place by itself when its fasteners are out */
    holdsItself: flag('Without its fasteners', { ...optional, words: ['holds itself', 'must be held'] }),
    /** it fits in one way only */
    oneWay: flag('Goes back', { ...optional, words: ['one way only', 'more than one way'] }),
    connections: list('Connections released', reference('Connection', 'connection', 'clear'), 500),
    fluids: list('Fluids let out', reference('Fluid', 'fluid', 'clear'), 50),
    rigId: reference('Rig', 'rig', 'clear', { ...optional, unsaid: true }),
    startedAt: instant('Begun', optional),
    endedAt: instant('Ended', optional),
    /** time at work, pauses left out */
    workedS: notNegative('Time', 's', { readIn: READ_IN.min, ...optional, max: MOST_S, says: { max: '${label} may be at most a week' } }),
    /** why the precautions asked for were not all done before it */
    otherwise: text('Done otherwise because', 400),
    note: text('Remarks', 4000),
  },
  faults: (step) => [
    ...(step.after.includes(step.id) ? [issue('cycle', 'A step does not wait for itself', 'after', step.id)] : []),
    ...(step.startedAt !== null && step.endedAt !== null && step.endedAt < step.startedAt
      ? [issue('ended-before-begun', 'The step ended before it began: one of the two times is wrong', 'endedAt', step.id)]
      : []),
  ],
  noCircle: 'after',
});
