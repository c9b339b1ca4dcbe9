import { READ_IN } from '../../../shared';
import { SEQUENCE, choice, number, optional, positive, text, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { HAZARDS } from '../study/of-study';
import { MOST_WORK_S } from './scope';

export const RIG_STATES = ['idea', 'made', 'scrapped'] as const;

/** A device made for taking something apart: a guide, a puller, a lifting frame. */
export const RIG = kind({
  list: 'rigs',
  table: 'rig',
  words: ['rig', 'rigs'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
    /** the parts it was made for, in words */
    madeFor: text('Made for these parts', 400),
    hazards: HAZARDS,
    design: text('Design', 4000),
    timeToMakeS: positive('Time to make', 's', MOST_WORK_S, { ...optional, readIn: READ_IN.h }),
    /** the pull or lift it may take */
    ratedN: positive('Rated load', 'N', 1e7, { ...optional, readIn: READ_IN.kN }),
    /** the load is taken this many times against the rating */
    factor: number('Load is taken', '', { min: 1, max: 20, readIn: READ_IN.times }),
    /** what went wrong last time, and what to do about it */
    wentWrong: text('What went wrong last time', 4000),
    state: choice('State', RIG_STATES, { blank: 'idea' }),
    /** how many there are */
    copies: whole('How many there are', 0, 100),
  },
});
