import { instant, reference, text, whole } from '../field';
import { LEADS, RECORDERS, UNCHANGING, kind } from '../kind';

/** A subsystem of a vehicle declared closed by a person: what stays open is written down with it. Later changes reopen it. */
export const SIGN_OFF = kind({
  list: 'signOffs',
  table: 'sign_off',
  words: ['sign-off', 'sign-offs'],
  name: { of: 'subsystemId', and: 'vehicleId', otherwise: 'a subsystem' },
  // what was signed stays as it was signed; a new one takes its place
  may: { add: RECORDERS, edit: UNCHANGING, remove: LEADS },
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    subsystemId: reference('Subsystem', 'subsystem', 'remove too', { unsaid: true }),
    by: text('Signed off by', 200, { needed: true }),
    at: instant('Signed off'),
    /** of the study when it was signed: what changed since has a later one */
    revision: whole('Revision', 0, 2_000_000_000),
    parts: whole('Parts', 0, 10_000_000),
    open: whole('Causes left open', 0, 1_000_000),
    explained: whole('Findings explained', 0, 1_000_000),
    /** what stays open, a line each, and why that may be */
    leftOpen: text('Left open', 4000, { lines: true }),
  },
});
