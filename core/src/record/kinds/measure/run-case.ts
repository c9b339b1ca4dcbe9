import { issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { REMARK, SEQUENCE, choice, length, number, optional, reference, text } from '../field';
import { RECORDED, kind } from '../kind';

/** A what-if of the lines of a vehicle, with its author and reason; what would change stands in its changes. */
export const RUN_CASE = kind({
  list: 'runCases',
  table: 'run_case',
  words: ['what-if of lines', 'what-ifs of lines'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    name: text('Name', 100, { needed: true, unsaid: true }),
    author: text('Author', 100),
    reason: text('Reason', 400, { needed: true }),
    note: REMARK,
  },
});

export const RUN_CHANGES = ['move a port', 'another length', 'leave out'] as const;
export type RunChangeKind = (typeof RUN_CHANGES)[number];

const onVehicle = { ...optional, min: -100, max: 100 } as const;

/** One change of a what-if of lines: a port elsewhere, a line of another length, or a line that is not there. */
export const RUN_CHANGE = kind({
  list: 'runChanges',
  table: 'run_change',
  words: ['change of lines', 'changes of lines'],
  name: { fields: ['change'] },
  may: RECORDED,
  fields: {
    caseId: reference('What-if', 'runCase', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    change: choice('Change', RUN_CHANGES, { blank: 'move a port' }),
    portId: reference('Port', 'port', 'remove too', optional),
    xM: number('Place from the front axle', 'm', onVehicle),
    yM: number('Place from the middle', 'm', onVehicle),
    zM: number('Place above the ground', 'm', onVehicle),
    connectionId: reference('Line', 'connection', 'remove too', optional),
    lengthEachM: length('Length each', 1000),
  },
  faults: (row) => [
    ...(row.change === 'move a port' && (row.portId === null || row.xM === null || !allOrNone([row.xM, row.yM, row.zM]))
      ? [issue('change-incomplete', 'To move a port, name it and say all three of x, y and z of its new place', 'portId', row.id)]
      : []),
    ...(row.change !== 'move a port' && row.connectionId === null
      ? [issue('change-incomplete', 'Name the line that would change', 'connectionId', row.id)]
      : []),
    ...(row.change === 'another length' && row.lengthEachM === null
      ? [issue('change-incomplete', 'Say the length that the line would have', 'lengthEachM', row.id)]
      : []),
  ],
});
