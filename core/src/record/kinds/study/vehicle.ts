import { READ_IN, issue } from '../../../shared';
import { priceFaults } from '../../whole-sets';
import {
  EVIDENCE,
  PRICE_PAID,
  SEQUENCE,
  choice,
  date,
  length,
  mass,
  number,
  optional,
  positive,
  reference,
  shown,
  text,
  year,
} from '../field';
import { RECORDED, kind } from '../kind';

export const VEHICLE_ROLES = ['subject', 'earlier', 'competitor'] as const;
export type VehicleRole = (typeof VEHICLE_ROLES)[number];
export const VEHICLE_ROLE_WORD: Readonly<Record<VehicleRole, string>> = {
  subject: 'subject',
  earlier: 'earlier model',
  competitor: 'competitor',
};

/** Kinds of vehicle, by size and use; what our own record already holds is told by them. */
export const VEHICLE_CLASSES = [
  'small car',
  'medium car',
  'large car',
  'off-road car',
  'people carrier',
  'small van',
  'medium van',
  'large van',
  'pick-up',
  'light truck',
] as const;

export const DRIVES = ['front wheels', 'rear wheels', 'all wheels'] as const;
export type Drive = (typeof DRIVES)[number];

const later = { optional: true, later: true } as const;
/** A headline figure is told by somebody. */
const told = { ...later, evidence: 'T' } as const;

/** A vehicle of the study and the passport of the sample that is taken apart. The price is what was paid for it. */
export const VEHICLE = kind({
  list: 'vehicles',
  table: 'vehicle',
  words: ['vehicle', 'vehicles'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    sequence: SEQUENCE,
    name: text('Name', 200, { needed: true, unsaid: true }),
    maker: text('Maker', 200),
    role: shown(choice('Role', VEHICLE_ROLES), (role) => VEHICLE_ROLE_WORD[role]),
    modelYear: year('Model year', optional),
    generation: text('Generation', 60, { later: true }),
    /** the vehicle of the study it follows */
    predecessorId: reference('Follows', 'vehicle', 'clear', later),
    /** trim, battery or body variant that the comparison is meant for */
    variant: text('Variant', 200, { later: true }),
    vehicleClass: choice('Class', VEHICLE_CLASSES, later),
    drive: choice('Driven', DRIVES, later),
    builtOn: date('Built on', optional),
    acquiredOn: date('Acquired on', optional),
    /** when a vehicle that is not there yet will stand in the workshop */
    expectedOn: date('Expected on', later),
    odometerM: number('Odometer', 'm', {
      ...later,
      readIn: READ_IN.km,
      min: 0,
      max: 5e9,
      says: { min: '${label} must not be less than 0', max: '${label} may be at most 5 000 000 km' },
    }),
    obtained: text('How obtained', 200, { later: true }),
    price: { ...PRICE_PAID.price, label: 'Price paid', later: true },
    priceCurrency: { ...PRICE_PAID.priceCurrency, later: true },
    priceYear: { ...PRICE_PAID.priceYear, later: true },
    /** parts of the sample that are not as the maker delivered them */
    changes: text('Changes from standard', 4000, { later: true }),
    wear: text('Wear and damage', 4000, { later: true }),
    kerbMassKg: mass('Kerb mass', { ...told, readIn: READ_IN.kg }),
    powerW: positive('Power', 'W', 1e7, { ...told, readIn: READ_IN.kW }),
    batteryJ: positive('Battery energy', 'J', 1e11, { ...told, readIn: READ_IN.kWh }),
    voltageV: positive('Battery voltage', 'V', 10_000, { ...told, readIn: READ_IN.V }),
    rangeM: positive('Range', 'm', 1e8, { ...told, readIn: READ_IN.km }),
    /** energy per distance */
    consumptionJPerM: positive('Consumption', 'J/m', 1e6, { ...told, readIn: READ_IN['kWh/100 km'] }),
    turningCircleM: length('Turning circle', 100, { ...told, readIn: { ...READ_IN.m, digits: 2 } }),
    wheelbaseM: length('Wheelbase', 30, { ...told, readIn: READ_IN.mm }),
    trackM: length('Track', 10, { ...told, readIn: READ_IN.mm }),
    notes: text('Notes', 4000),
    evidence: { ...EVIDENCE, later: true },
  },
  faults: (vehicle) => [
    ...priceFaults(vehicle, vehicle.id),
    ...(vehicle.predecessorId === vehicle.id ? [issue('cycle', 'A vehicle does not follow itself', 'predecessorId', vehicle.id)] : []),
    ...(vehicle.builtOn !== null && vehicle.acquiredOn !== null && vehicle.builtOn > vehicle.acquiredOn
      ? [
          issue(
            'acquired-before-built',
            'The vehicle was acquired before it was built: one of the two dates is wrong',
            'acquiredOn',
            vehicle.id,
          ),
        ]
      : []),
  ],
});
