import { instant, optional, reference, text, whole } from '../field';
import { LEADS, RECORDERS, kind } from '../kind';

/** Tags printed for one part of the teardown: `A03-001`, `A03-002` … each with its check character. */
export const SHEET = kind({
  list: 'sheets',
  table: 'tag_sheet',
  words: ['sheet of tags', 'sheets of tags'],
  name: { field: 'prefix' },
  // what was printed stays as it was printed; that it forgets a package which is taken off is all that changes
  may: { add: RECORDERS, edit: { ...LEADS, onlyFields: { lead: ['subsystemId', 'packageId'] } }, remove: LEADS },
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'refuse', { unsaid: true }),
    subsystemId: reference('Subsystem', 'subsystem', 'clear', { ...optional, unsaid: true }),
    packageId: reference('Work package', 'package', 'clear', { ...optional, unsaid: true }),
    prefix: text('Prefix', 12, { pattern: { is: /^[A-Z0-9]{1,12}$/, says: '${label} holds capital letters and digits only' } }),
    firstNumber: whole('First number', 1, 999_999),
    count: whole('Tags', 1, 2000),
    /** size of the labels, by its name */
    stock: text('Label size', 60, { needed: true }),
    printedAt: instant('Printed'),
  },
});
