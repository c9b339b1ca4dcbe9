import { tableStore } from '../db/table';
import type { RecordRule } from '../ledger/store';
import { said } from '../record/ops';
import { danglingPlan, pieceless, twicePlanned } from './queries';

const PRICE = { price: 'money', priceCurrency: 'text', priceYear: 'integer' } as const;

export const candidateStore = tableStore('candidate', 'candidate', {
  sequence: 'integer',
  name: 'text',
  maker: 'text',
  modelYear: 'integer',
  vehicleClass: 'text',
  drive: 'text',
  voltageV: 'float8',
  novelty: 'float8',
  noveltyNote: 'text',
  waitDays: 'integer',
  ...PRICE,
  note: 'text',
  vehicleId: 'uuid',
});

export const requestStore = tableStore('request', 'request', {
  candidateId: 'uuid',
  sequence: 'integer',
  who: 'text',
  strength: 'integer',
  asks: 'text',
});

export const claimStore = tableStore('claim', 'claim', {
  sequence: 'integer',
  vehicleId: 'uuid',
  statement: 'text',
  sourceKind: 'text',
  source: 'text',
  test: 'text',
  state: 'text',
  outcome: 'text',
});

export const scopeStore = tableStore('scope', 'scope', {
  vehicleId: 'uuid',
  subsystemId: 'uuid',
  depth: 'text',
  reason: 'text',
  expectedPieces: 'integer',
  expectedS: 'float8',
});

export const resourceStore = tableStore('resource', 'resource', {
  sequence: 'integer',
  kind: 'text',
  name: 'text',
  personId: 'uuid',
  skills: 'jsonb',
  daysOff: 'jsonb',
  ratedKg: 'float8',
  note: 'text',
});

export const rigStore = tableStore('rig', 'rig', {
  sequence: 'integer',
  name: 'text',
  madeFor: 'text',
  hazards: 'jsonb',
  design: 'text',
  timeToMakeS: 'float8',
  ratedN: 'float8',
  factor: 'float8',
  wentWrong: 'text',
  state: 'text',
  copies: 'integer',
});

export const packageStore = tableStore('package', 'work_package', {
  sequence: 'integer',
  name: 'text',
  vehicleId: 'uuid',
  subsystemId: 'uuid',
  leastS: 'float8',
  likelyS: 'float8',
  mostS: 'float8',
  skill: 'text',
  people: 'integer',
  who: 'jsonb',
  place: 'text',
  rigId: 'uuid',
  hazards: 'jsonb',
  after: 'jsonb',
  pinnedOn: 'date',
  notBefore: 'date',
  startedOn: 'date',
  doneOn: 'date',
  workedS: 'float8',
  remainingS: 'float8',
  agreedFrom: 'text',
  agreedTo: 'text',
  note: 'text',
});

export const gateStore = tableStore('gate', 'gate', {
  packageId: 'uuid',
  sequence: 'integer',
  hazard: 'text',
  asks: 'text',
  kind: 'text',
  unit: 'text',
  low: 'float8',
  high: 'float8',
  value: 'float8',
  said: 'text',
  answeredBy: 'text',
  answeredAt: 'text',
});

export const hoistStore = tableStore('hoist', 'hoist', {
  vehicleId: 'uuid',
  resourceId: 'uuid',
  massKg: 'float8',
  massUKg: 'float8',
  xM: 'float8',
  yM: 'float8',
  placeUM: 'float8',
  pads: 'jsonb',
  marginM: 'float8',
});

export const unloadStore = tableStore('unload', 'unload', {
  vehicleId: 'uuid',
  sequence: 'integer',
  label: 'text',
  pieceId: 'uuid',
  subsystemId: 'uuid',
  massKg: 'float8',
  massUKg: 'float8',
  xM: 'float8',
  yM: 'float8',
});

export const planRule: RecordRule = async (db, studyId) => [
  ...(await danglingPlan(db, studyId)).map(said),
  ...(await twicePlanned(db, studyId)).map(said),
];

export const unloadRule: RecordRule = async (db, studyId, touched) => (await pieceless(db, studyId, touched)).map(said);
