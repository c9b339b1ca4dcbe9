import { READ_IN, issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { SEQUENCE, choice, date, list, localTime, notNegative, optional, positive, reference, shown, text, whole } from '../field';
import { LEADS, RECORDERS, kind } from '../kind';
import { HAZARDS } from '../study/of-study';
import { MOST_WORK_S } from './scope';

export const PLACES = ['none', 'bay', 'lift'] as const;
export type WorkPlace = (typeof PLACES)[number];
export const PLACE_WORD: Readonly<Record<WorkPlace, string>> = { none: 'anywhere', bay: 'a bay', lift: 'a lift' };

/** What the bench says of a package: what was started, done and spent. */
const ACTUAL_FIELDS = ['startedOn', 'doneOn', 'workedS', 'remainingS', 'note'];

const effort = (label: string) => positive(label, 's', MOST_WORK_S, { ...optional, readIn: READ_IN.h });
const spent = (label: string) =>
  notNegative(label, 's', { ...optional, readIn: READ_IN.h, max: MOST_WORK_S, says: { max: '${label} may be at most 5 000 hours' } });

/** A work package: one job that one crew does in one go, nights and days off apart. */
export const PACKAGE = kind({
  list: 'packages',
  table: 'work_package',
  words: ['work package', 'work packages'],
  name: { field: 'name' },
  may: { add: LEADS, edit: { ...RECORDERS, onlyFields: { recorder: ACTUAL_FIELDS } }, remove: LEADS },
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
    vehicleId: reference('Vehicle', 'vehicle', 'clear', { ...optional, unsaid: true }),
    subsystemId: reference('Subsystem', 'subsystem', 'clear', { ...optional, unsaid: true }),
    /** working time with the whole crew: optimistic, most likely and pessimistic; all three or none */
    optimisticS: effort('Optimistic time'),
    mostLikelyS: effort('Most likely time'),
    pessimisticS: effort('Pessimistic time'),
    /** what the crew must be able to do; empty is anybody */
    skill: text('Skill', 60),
    /** people of the crew */
    people: whole('People', 0, 40, { blank: 1 }),
    /** people (resources) who must be of the crew */
    who: list('Who', reference('Person', 'resource', 'clear'), 40),
    place: shown(choice('Place', PLACES, { blank: 'none' }), (place) => PLACE_WORD[place]),
    rigId: reference('Rig', 'rig', 'clear', { ...optional, unsaid: true }),
    hazards: HAZARDS,
    /** packages that must be done before */
    after: list('After', reference('Package', 'package', 'clear'), 200),
    /** calendar dates as YYYY-MM-DD */
    pinnedOn: date('Pinned on', optional),
    notBefore: date('Not before', optional),
    startedOn: date('Started on', optional),
    doneOn: date('Done on', optional),
    /** working time with the crew that was spent, and that is still needed */
    workedS: spent('Time spent'),
    remainingS: spent('Time still needed'),
    /** what was agreed, as local times YYYY-MM-DDTHH:MM; both or none */
    agreedFrom: localTime('Agreed start', optional),
    agreedTo: localTime('Agreed finish', optional),
    note: text('Note', 4000),
  },
  faults: (pack) => [
    ...(allOrNone([pack.optimisticS, pack.mostLikelyS, pack.pessimisticS])
      ? []
      : [
          issue(
            'effort-incomplete',
            'Give the optimistic, the most likely and the pessimistic time, or none of them',
            'mostLikelyS',
            pack.id,
          ),
        ]),
    ...(pack.optimisticS !== null &&
    pack.mostLikelyS !== null &&
    pack.pessimisticS !== null &&
    !(pack.optimisticS <= pack.mostLikelyS && pack.mostLikelyS <= pack.pessimisticS)
      ? [
          issue(
            'effort-order',
            'The optimistic time must not be above the most likely one, nor that above the pessimistic',
            'mostLikelyS',
            pack.id,
          ),
        ]
      : []),
    ...(pack.after.includes(pack.id) ? [issue('cycle', 'A package does not wait for itself', 'after', pack.id)] : []),
    ...(pack.who.length > pack.people
      ? [
          issue(
            'crew',
            `${pack.who.length} people are named for a crew of ${pack.people}; make the crew larger or name fewer`,
            'people',
            pack.id,
          ),
        ]
      : []),
    ...(pack.doneOn !== null && pack.startedOn === null
      ? [issue('not-started', 'A package that is done was started: say on which day', 'startedOn', pack.id)]
      : []),
    ...(pack.doneOn !== null && pack.startedOn !== null && pack.doneOn < pack.startedOn
      ? [issue('done-before-started', 'The package was done before it was started: one of the two dates is wrong', 'doneOn', pack.id)]
      : []),
    ...(allOrNone([pack.agreedFrom, pack.agreedTo])
      ? []
      : [issue('agreed-incomplete', 'Agreed start and finish go together', 'agreedFrom', pack.id)]),
  ],
});
