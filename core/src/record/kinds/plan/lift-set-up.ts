import { READ_IN, expandedIn, issue } from '../../../shared';
import {
  list,
  notNegative,
  number,
  optional,
  group,
  positive,
  reference,
  type As,
  type NumberField,
  type NumberOptions,
  type ValueOf,
  shown,
} from '../field';
import { RECORDED, kind } from '../kind';
import { padsOnOnePlace } from './pads';

/** A vehicle and what comes off it is weighed to the hectogram at best. */
export const KILOGRAMS = { ...READ_IN.kg, digits: 1 } as const;

export const metres = <const O extends NumberOptions = object>(label: string, options?: O): As<NumberField, O> =>
  number(label, 'm', { min: -100, max: 100, readIn: READ_IN.m, ...options }) as As<NumberField, O>;

const PAD = group('Pad', { xM: metres('Pad'), yM: metres('Pad') });
/** A point on the ground plane of the vehicle: x from the front axle rearwards, y from the middle to the right. */
export type PadPoint = ValueOf<typeof PAD>;

/** A vehicle on a lift: its mass, where its centre of mass is, and where the pads carry it. */
export const LIFT_SET_UP = kind({
  list: 'liftSetUps',
  table: 'lift_set_up',
  words: ['lift set-up', 'lift set-ups'],
  name: { of: 'vehicleId', otherwise: 'a vehicle' },
  may: RECORDED,
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    resourceId: reference('Lift', 'resource', 'clear', optional),
    massKg: positive('Mass of the vehicle', 'kg', 100_000, { readIn: KILOGRAMS }),
    massUKg: positive('Its mass ±, k = 2', 'kg', 100_000, { readIn: expandedIn(KILOGRAMS) }),
    xM: metres('Centre of mass, behind the front axle'),
    yM: metres('Centre of mass, right of the middle'),
    /** standard uncertainty of the place of the centre of mass, in x and in y */
    placeUM: positive('Its place ±, k = 2', 'm', 10, { readIn: expandedIn(READ_IN.m) }),
    pads: shown(list('Pads', PAD, 8), (pads) => pads.map(({ xM, yM }) => `(${xM}, ${yM})`).join(' ')),
    /** the centre of mass must stay this far inside the line between the pads */
    marginM: notNegative('Margin to the line of the pads', 'm', { max: 5, readIn: READ_IN.m }),
  },
  faults: (liftSetUp) => [
    ...(liftSetUp.pads.length >= 3 ? [] : [issue('pads', 'A vehicle hangs on three pads or more', 'pads', liftSetUp.id)]),
    ...padsOnOnePlace(liftSetUp),
  ],
  unique: [{ code: 'lift-set-up-twice', fields: ['vehicleId'], says: '“${name}” is on a lift already; change that one' }],
});
