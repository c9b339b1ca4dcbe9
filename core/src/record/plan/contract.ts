import { array, type Schema } from 'yup';
import { finite, oneOf, positive, requiredText, shape, text, uuid, whole } from '../../shared';
import {
  calendarDate,
  currency,
  instant,
  isCalendarDate,
  listOf,
  nullable,
  optionalUuid,
  priceDigits,
  sequence,
  year,
} from '../field-limits';
import {
  CLAIM_SOURCES,
  CLAIM_STATES,
  DEPTHS,
  DRIVES,
  GATE_KINDS,
  PLACES,
  RESOURCE_KINDS,
  RIG_STATES,
  VEHICLE_CLASSES,
  type CandidateFields,
  type ChoiceWeights,
  type ClaimFields,
  type DaysOff,
  type GateFields,
  type HoistFields,
  type PackageFields,
  type PadPoint,
  type RequestFields,
  type ResourceFields,
  type RigFields,
  type ScopeFields,
  type UnloadFields,
  type UsualHazards,
  type WorkCalendar,
} from './entities';

/** Five thousand hours: longer than any one package or subsystem. */
const MOST_S = 18_000_000;

const weight = (label: string): Schema<number> =>
  finite(label).min(0, '${label} must not be less than 0').max(1000, '${label} may be at most ${max}');
const workS = (label: string): Schema<number | null> => nullable(positive(label, 's', MOST_S));
const spentS = (label: string): Schema<number | null> =>
  nullable(finite(label).min(0, '${label} must not be less than 0').max(MOST_S, '${label} may be at most 5 000 hours'));
const metres = (label: string): ReturnType<typeof finite> =>
  finite(label).min(-100, '${label} must be at least ${min} m').max(100, '${label} may be at most ${max} m');
const date = (label: string): Schema<string> =>
  text(label, 10).test(
    'calendar-date',
    `${label} must be a date such as 2026-03-31`,
    (value) => typeof value !== 'string' || isCalendarDate(value),
  );
const localTime = (label: string): Schema<string | null> =>
  text(label, 16)
    .nullable()
    .matches(/^\d{4}-\d{2}-\d{2}T([01]\d|2[0-3]):[0-5]\d$/, '${label} must be a time such as 2026-03-31T08:00');

const DAYS_OFF = shape<DaysOff>({ from: date('From'), to: date('To'), why: text('Why', 100) }).test(
  'order',
  'Days off end before they begin',
  (off) => off.from <= off.to,
);

export const CHOICE_WEIGHTS = shape<ChoiceWeights>({
  requests: weight('Weight of requests'),
  gap: weight('Weight of the gap'),
  novelty: weight('Weight of novelty'),
  wait: weight('Weight of the wait'),
  price: weight('Weight of the price'),
}).label('Weights of the choice');

export const USUAL_HAZARDS_OF = array(
  shape<UsualHazards>({
    words: listOf('Words of the subsystem', requiredText('Word', 60), 20),
    hazards: listOf('Hazards', requiredText('Hazard', 40), 40),
  }),
)
  .max(60, 'At most 60 lines of usual hazards')
  .label('Usual hazards')
  .defined() as unknown as Schema<readonly UsualHazards[]>;

export const CALENDAR = shape<WorkCalendar>({
  startsOn: calendarDate('First day'),
  weekdays: listOf('Working days', whole('Working day', 1, 7), 7),
  opensMin: whole('The day begins', 0, 1439),
  dayMin: whole('Working time of a day', 15, 1440),
  daysOff: listOf('Days off', DAYS_OFF, 400),
})
  .test(
    'day',
    'The working day must end by midnight',
    // an edit of other fields has none
    (calendar?: WorkCalendar) => calendar === undefined || calendar.opensMin + calendar.dayMin <= 1440,
  )
  .label('Working calendar');

const PAD = shape<PadPoint>({ xM: metres('Pad'), yM: metres('Pad') });

const price = {
  price: priceDigits('Price'),
  priceCurrency: currency('Currency of the price').nullable() as Schema<string | null>,
  priceYear: nullable(year('Year of the price')),
};

/** The records of planning: labels, limits and what is said when they are broken. */
export const PLAN_SCHEMAS = {
  candidate: shape<CandidateFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    maker: text('Maker', 200),
    modelYear: nullable(year('Model year')),
    vehicleClass: nullable(oneOf('Class', VEHICLE_CLASSES)),
    drive: nullable(oneOf('Driven', DRIVES)),
    voltageV: nullable(positive('Voltage', 'V', 10_000)),
    novelty: nullable(finite('Novelty').min(0, '${label} goes from 0 to 10').max(10, '${label} goes from 0 to 10')),
    noveltyNote: text('What is new', 1000),
    waitDays: nullable(whole('Days to obtain', 0, 3650)),
    ...price,
    note: text('Note', 1000),
    vehicleId: optionalUuid('Vehicle'),
  }),
  request: shape<RequestFields>({
    candidateId: uuid('Candidate'),
    sequence: sequence(),
    who: requiredText('Who asks', 200),
    strength: whole('How strongly', 1, 5),
    asks: text('What is asked', 1000),
  }),
  claim: shape<ClaimFields>({
    sequence: sequence(),
    vehicleId: optionalUuid('Vehicle'),
    statement: requiredText('Claim', 1000),
    sourceKind: oneOf('Said by', CLAIM_SOURCES),
    source: text('Where and when', 400),
    test: text('How it will be tested', 1000),
    state: oneOf('State', CLAIM_STATES),
    outcome: text('What the test showed', 4000),
  }),
  scope: shape<ScopeFields>({
    vehicleId: uuid('Vehicle'),
    subsystemId: uuid('Subsystem'),
    depth: oneOf('Depth', DEPTHS),
    reason: text('Reason', 400),
    expectedPieces: nullable(whole('Pieces expected', 0, 100_000)),
    expectedS: workS('Hours expected'),
  }),
  resource: shape<ResourceFields>({
    sequence: sequence(),
    kind: oneOf('Kind', RESOURCE_KINDS),
    name: requiredText('Name', 100),
    personId: optionalUuid('Account'),
    skills: listOf('Skills', requiredText('Skill', 60), 40),
    daysOff: listOf('Days off', DAYS_OFF, 400),
    ratedKg: nullable(positive('Rated load', 'kg', 100_000)),
    note: text('Note', 1000),
  }),
  rig: shape<RigFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    madeFor: text('Made for', 400),
    hazards: listOf('Hazards', requiredText('Hazard', 40), 40),
    design: text('Design', 4000),
    timeToMakeS: workS('Time to make'),
    ratedN: nullable(positive('Rated load', 'N', 1e7)),
    factor: finite('Load factor').min(1, '${label} must be at least ${min}').max(20, '${label} may be at most ${max}'),
    wentWrong: text('What went wrong', 4000),
    state: oneOf('State', RIG_STATES),
    copies: whole('How many there are', 0, 100),
  }),
  package: shape<PackageFields>({
    sequence: sequence(),
    name: requiredText('Name', 200),
    vehicleId: optionalUuid('Vehicle'),
    subsystemId: optionalUuid('Subsystem'),
    leastS: workS('Least time'),
    likelyS: workS('Likely time'),
    mostS: workS('Most time'),
    skill: text('Skill', 60),
    people: whole('People', 0, 40),
    who: listOf('Who', uuid('Person'), 40),
    place: oneOf('Place', PLACES),
    rigId: optionalUuid('Rig'),
    hazards: listOf('Hazards', requiredText('Hazard', 40), 40),
    after: listOf('After', uuid('Package'), 200),
    pinnedOn: calendarDate('Pinned on'),
    notBefore: calendarDate('Not before'),
    startedOn: calendarDate('Started on'),
    doneOn: calendarDate('Done on'),
    workedS: spentS('Time spent'),
    remainingS: spentS('Time still needed'),
    agreedFrom: localTime('Agreed start'),
    agreedTo: localTime('Agreed finish'),
    note: text('Note', 4000),
  }),
  gate: shape<GateFields>({
    packageId: uuid('Package'),
    sequence: sequence(),
    hazard: text('Hazard', 40),
    asks: requiredText('What is asked', 200),
    kind: oneOf('Kind of answer', GATE_KINDS),
    unit: text('Unit', 20),
    low: nullable(finite('Lowest')),
    high: nullable(finite('Highest')),
    value: nullable(finite('Reading')),
    said: text('Answer', 400),
    answeredBy: text('Answered by', 200),
    answeredAt: nullable(instant('Answered')),
  }),
  hoist: shape<HoistFields>({
    vehicleId: uuid('Vehicle'),
    resourceId: optionalUuid('Lift'),
    massKg: positive('Mass', 'kg', 100_000),
    massUKg: positive('Uncertainty of the mass', 'kg', 100_000),
    xM: metres('Centre of mass from the front axle'),
    yM: metres('Centre of mass from the middle'),
    placeUM: positive('Uncertainty of its place', 'm', 10),
    pads: listOf('Pads', PAD, 8),
    marginM: finite('Margin').min(0, '${label} must not be less than 0').max(5, '${label} may be at most ${max} m'),
  }),
  unload: shape<UnloadFields>({
    vehicleId: uuid('Vehicle'),
    sequence: sequence(),
    label: requiredText('What comes off', 200),
    pieceId: optionalUuid('Piece'),
    subsystemId: optionalUuid('Subsystem'),
    massKg: nullable(positive('Mass', 'kg', 100_000)),
    massUKg: nullable(positive('Uncertainty of the mass', 'kg', 100_000)),
    xM: nullable(metres('Place from the front axle')),
    yM: nullable(metres('Place from the middle')),
  }),
};
