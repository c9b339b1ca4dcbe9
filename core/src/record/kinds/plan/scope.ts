import { READ_IN, issue } from '../../../shared';
import { choice, optional, positive, reference, shown, text, whole } from '../field';
import { LED, kind } from '../kind';

/** How far a subsystem is opened, from not at all to sections. */
export const DEPTHS = ['closed', 'module', 'parts', 'cut'] as const;
export type Depth = (typeof DEPTHS)[number];
export const DEPTH_WORD: Readonly<Record<Depth, string>> = {
  closed: 'leave closed',
  module: 'as a module',
  parts: 'to parts',
  cut: 'cut open',
};

/** Five thousand hours: longer than any one package or subsystem. */
export const MOST_WORK_S = 18_000_000;

/** How deep one subsystem of one vehicle is opened, and what that is expected to be. */
export const SCOPE = kind({
  list: 'scopes',
  table: 'scope',
  words: ['scope', 'scopes'],
  name: { of: 'subsystemId', and: 'vehicleId', otherwise: 'a subsystem' },
  may: LED,
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    subsystemId: reference('Subsystem', 'subsystem', 'remove too', { unsaid: true }),
    depth: shown(choice('Depth', DEPTHS), (depth) => DEPTH_WORD[depth]),
    /** why it stays closed */
    reason: text('Why it stays closed', 400),
    /** parts expected, where a person knows better than the earlier studies; fasteners not counted */
    expectedParts: whole('Parts expected', 0, 100_000, optional),
    /** working time of people expected, where a person knows better */
    expectedS: positive('Working time expected', 's', MOST_WORK_S, { ...optional, readIn: READ_IN.h }),
  },
  faults: (scope) =>
    scope.depth === 'closed' && scope.reason.trim() === ''
      ? [issue('closed-reason', 'Say why the subsystem stays closed', 'reason', scope.id)]
      : [],
  unique: [
    {
      code: 'scope-twice',
      fields: ['vehicleId', 'subsystemId'],
      says: 'The scope of “${name}” is there already; change that one',
    },
  ],
});
