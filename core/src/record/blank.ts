import type { BoardFields, ComponentSetFields, ConnectionFields, ConnectionKind, FluidFields, StepFields } from './bench/entities';
import type {
  FastenerSetFields,
  JointSetFields,
  PieceFields,
  Study,
  StudyFields,
  StudyRecord,
  VehicleFields,
  VehicleRole,
} from './entities';
import { EVEN_WEIGHTS, USUAL_CALENDAR, USUAL_HAZARDS, type GateFields, type PackageFields } from './plan/entities';

/** What a study begins with until somebody says otherwise. */
export const USUAL_STUDY: Pick<StudyFields, 'state' | 'choiceWeights' | 'usualHazards' | 'calendar'> = {
  state: 'open',
  choiceWeights: EVEN_WEIGHTS,
  usualHazards: USUAL_HAZARDS,
  calendar: USUAL_CALENDAR,
};

/** The record of a study that holds nothing yet. */
export const emptyRecord = (study: Study): StudyRecord => ({
  revision: 0,
  study,
  vehicles: [],
  subsystems: [],
  pieces: [],
  fastenerSets: [],
  jointSets: [],
  members: [],
  questions: [],
  pictures: [],
  candidates: [],
  requests: [],
  claims: [],
  scopes: [],
  resources: [],
  rigs: [],
  packages: [],
  gates: [],
  hoists: [],
  unloads: [],
  connections: [],
  componentSets: [],
  boards: [],
  fluids: [],
  sessions: [],
  steps: [],
  readings: [],
  recounts: [],
  sheets: [],
  scans: [],
  identifications: [],
  sections: [],
  patterns: [],
  gauges: [],
});

/** A vehicle of which nothing is known but its name and what it is in the study. */
export const blankVehicle = (name: string, role: VehicleRole, sequence: number): VehicleFields => ({
  sequence,
  name,
  maker: '',
  role,
  modelYear: null,
  generation: '',
  predecessorId: null,
  variant: '',
  vehicleClass: null,
  drive: null,
  builtOn: null,
  acquiredOn: null,
  expectedOn: null,
  odometerM: null,
  obtained: '',
  price: null,
  priceCurrency: null,
  priceYear: null,
  changes: '',
  wear: '',
  kerbMassKg: null,
  powerW: null,
  batteryJ: null,
  voltageV: null,
  rangeM: null,
  consumptionJPerM: null,
  turningCircleM: null,
  wheelbaseM: null,
  trackM: null,
  notes: '',
  known: {},
});

/** A work package of which only the name is known. */
export const blankPackage = (name: string, sequence: number): PackageFields => ({
  sequence,
  name,
  vehicleId: null,
  subsystemId: null,
  leastS: null,
  likelyS: null,
  mostS: null,
  skill: '',
  people: 1,
  who: [],
  place: 'none',
  rigId: null,
  hazards: [],
  after: [],
  pinnedOn: null,
  notBefore: null,
  startedOn: null,
  doneOn: null,
  workedS: null,
  remainingS: null,
  agreedFrom: null,
  agreedTo: null,
  note: '',
});

/** A reading before work that nobody has taken yet. */
export const UNANSWERED: Pick<GateFields, 'value' | 'said' | 'answeredBy' | 'answeredAt'> = {
  value: null,
  said: '',
  answeredBy: '',
  answeredAt: null,
};

/** Where a new piece goes. */
export interface Place {
  readonly vehicleId: string;
  readonly subsystemId: string | null;
  readonly parentId: string | null;
}

/** A piece of which nothing is known but where it hangs. */
export const blankPiece = (place: Place): PieceFields => ({
  ...place,
  sequence: 0,
  tag: '',
  name: '',
  function: '',
  quantity: 1,
  hand: 'none',
  materialId: null,
  materialDetail: '',
  processId: null,
  processDetail: '',
  massEachKg: null,
  massUKg: null,
  massEvidence: null,
  massTyped: null,
  lengthM: null,
  widthM: null,
  heightM: null,
  wallThicknessM: null,
  runLengthM: null,
  runDiameterM: null,
  xM: null,
  yM: null,
  zM: null,
  location: '',
  markings: '',
  supplier: '',
  opened: null,
  closedReason: '',
  closedRisk: '',
  seenOutside: '',
  damage: '',
  damageFrom: null,
  notes: '',
  boughtPrice: null,
  boughtCurrency: null,
  boughtPriceYear: null,
  boughtVolumePerYear: null,
  boughtRegion: null,
  known: {},
});

/** A fastener set of which only the piece it holds is known. */
export const blankFasteners = (pieceId: string): FastenerSetFields => ({
  pieceId,
  sequence: 0,
  count: 1,
  kind: 'bolt',
  threadM: null,
  pitchM: null,
  lengthM: null,
  drive: '',
  grade: '',
  direction: null,
  tighteningNm: null,
  breakawayNm: null,
  access: null,
  tool: '',
  removed: null,
  massEachKg: null,
  massUKg: null,
  massEvidence: null,
  massTyped: null,
  note: '',
  known: {},
});

/** A joint set of which only its piece is known. */
export const blankJoints = (pieceId: string): JointSetFields => ({
  pieceId,
  sequence: 0,
  count: 1,
  kind: 'spot weld',
  lengthEachM: null,
  note: '',
  known: {},
});

/** A connection of which only its piece and kind are known. */
export const blankConnection = (pieceId: string, kind: ConnectionKind): ConnectionFields => ({
  pieceId,
  sequence: 0,
  count: 1,
  kind,
  materialId: null,
  poles: null,
  crossSectionM2: null,
  shielded: null,
  innerM: null,
  lengthEachM: null,
  fluid: '',
  lock: null,
  release: null,
  note: '',
  known: {},
});

/** Components of which only the piece they are placed on is known. */
export const blankComponents = (pieceId: string): ComponentSetFields => ({
  pieceId,
  sequence: 0,
  count: 1,
  componentClass: 'integrated circuit',
  fitted: true,
  marking: '',
  note: '',
  known: {},
});

/** A board of which only its piece is known. */
export const blankBoard = (pieceId: string): BoardFields => ({
  pieceId,
  lengthM: null,
  widthM: null,
  sides: null,
  layers: null,
  note: '',
  known: {},
});

/** A fluid of which only its piece and name are known. */
export const blankFluid = (pieceId: string, name: string): FluidFields => ({
  pieceId,
  sequence: 0,
  name,
  massEachKg: null,
  massUKg: null,
  massEvidence: null,
  massTyped: null,
  volumeM3: null,
  drained: true,
  note: '',
  known: {},
});

/** A removal of which nothing is known but where it stands. */
export const blankStep = (vehicleId: string, sessionId: string | null, sequence: number): StepFields => ({
  sessionId,
  vehicleId,
  sequence,
  pieces: [],
  after: [],
  tool: '',
  bit: '',
  direction: null,
  people: null,
  seen: null,
  holdsItself: null,
  oneWay: null,
  connections: [],
  fluids: [],
  rigId: null,
  startedAt: null,
  endedAt: null,
  workedS: null,
  otherwise: '',
  note: '',
});
