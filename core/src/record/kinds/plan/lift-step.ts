import { expandedIn, issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { SEQUENCE, optional, positive, reference, text } from '../field';
import { RECORDED, kind } from '../kind';
import { KILOGRAMS, metres } from './lift-set-up';

/** Something heavy that is planned to come off while the vehicle hangs on the lift. */
export const LIFT_STEP = kind({
  list: 'liftSteps',
  table: 'lift_step',
  words: ['lift step', 'lift steps'],
  name: { field: 'label' },
  may: RECORDED,
  fields: {
    vehicleId: reference('Vehicle', 'vehicle', 'remove too', { unsaid: true }),
    sequence: SEQUENCE,
    label: text('What comes off', 200, { needed: true }),
    /** the part whose recorded mass and position count; null where they are typed below */
    partId: reference('Part', 'part', 'remove too', { ...optional, unsaid: true }),
    /** the subsystem of the vehicle whose recorded mass counts, when it comes off as one and no single part holds it */
    subsystemId: reference('Subsystem', 'subsystem', 'clear', { ...optional, later: true, unsaid: true }),
    massKg: positive('Mass', 'kg', 100_000, { ...optional, readIn: KILOGRAMS }),
    massUKg: positive('Mass ±, k = 2', 'kg', 100_000, { ...optional, readIn: expandedIn(KILOGRAMS) }),
    xM: metres('Place behind the front axle', optional),
    yM: metres('Place right of the middle', optional),
  },
  faults: (liftStep) => [
    ...(allOrNone([liftStep.massKg, liftStep.massUKg])
      ? []
      : [issue('mass-incomplete', 'A mass needs its uncertainty', 'massKg', liftStep.id)]),
    ...(liftStep.partId === null || liftStep.subsystemId === null
      ? []
      : [issue('step-of-two', 'A step is a recorded part or a recorded subsystem, not both', 'partId', liftStep.id)]),
    ...(allOrNone([liftStep.xM, liftStep.yM]) ? [] : [issue('place-incomplete', 'A place needs both x and y', 'xM', liftStep.id)]),
  ],
});
