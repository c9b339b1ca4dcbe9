import { issue, type Issue } from '../../shared';
import type { Candidate, Entity, Gate, Hoist, RowOf, Scope, Unload, WorkPackage } from '../entities';
import { allOrNone, priceFaults } from '../whole-sets';
import { padsOnOnePlace } from './pads';

const scopeFaults = (scope: Scope): readonly Issue[] =>
  scope.depth === 'closed' && scope.reason.trim() === ''
    ? [issue('closed-reason', 'Say why the subsystem stays closed', 'reason', scope.id)]
    : [];

const packageFaults = (pack: WorkPackage): readonly Issue[] => [
  ...(allOrNone([pack.leastS, pack.likelyS, pack.mostS])
    ? []
    : [issue('effort-incomplete', 'Give the least, the likely and the most time, or none of them', 'likelyS', pack.id)]),
  ...(pack.leastS !== null && pack.likelyS !== null && pack.mostS !== null && !(pack.leastS <= pack.likelyS && pack.likelyS <= pack.mostS)
    ? [issue('effort-order', 'The least time must not be above the likely one, nor that above the most', 'likelyS', pack.id)]
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
];

const gateFaults = (gate: Gate): readonly Issue[] => [
  ...(gate.kind === 'number' || (gate.value === null && gate.low === null && gate.high === null)
    ? []
    : [issue('gate-kind', 'Only a reading has a number and limits', 'value', gate.id)]),
  ...(gate.low !== null && gate.high !== null && gate.low > gate.high
    ? [issue('gate-limits', 'The lowest must not be above the highest', 'low', gate.id)]
    : []),
];

const hoistFaults = (hoist: Hoist): readonly Issue[] => [
  ...(hoist.pads.length >= 3 ? [] : [issue('pads', 'A vehicle hangs on three pads or more', 'pads', hoist.id)]),
  ...padsOnOnePlace(hoist),
];

const unloadFaults = (unload: Unload): readonly Issue[] => [
  ...(allOrNone([unload.massKg, unload.massUKg]) ? [] : [issue('mass-incomplete', 'A mass needs its uncertainty', 'massKg', unload.id)]),
  ...(unload.pieceId === null || unload.subsystemId === null
    ? []
    : [issue('step-of-two', 'A step is a recorded piece or a recorded subsystem, not both', 'pieceId', unload.id)]),
  ...(allOrNone([unload.xM, unload.yM]) ? [] : [issue('place-incomplete', 'A place needs both x and y', 'xM', unload.id)]),
];

const candidateFaults = (candidate: Candidate): readonly Issue[] => priceFaults(candidate, candidate.id);

const FAULTS: { readonly [E in Entity]?: (row: RowOf<E>) => readonly Issue[] } = {
  candidate: candidateFaults,
  scope: scopeFaults,
  package: packageFaults,
  gate: gateFaults,
  hoist: hoistFaults,
  unload: unloadFaults,
};

/** Rules of one record of planning that need more than one of its fields. */
export const planFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => FAULTS[entity]?.(row) ?? [];
