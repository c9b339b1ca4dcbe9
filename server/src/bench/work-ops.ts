import { circleIn } from '@each-bolt/core/plan';
import type { Piece } from '@each-bolt/core/record';
import { tableStore } from '../db/table';
import type { RecordRule } from '../ledger/store';
import { said } from '../record/ops';
import type { Broken } from '../record/queries';
import { brokenBench, orphanParts, stepOrders, taggedTwice, type StepOrder } from './work-queries';

const OF_PIECE = { pieceId: 'uuid', sequence: 'integer', count: 'integer' } as const;

export const connectionStore = tableStore('connection', 'connection', {
  ...OF_PIECE,
  kind: 'text',
  materialId: 'text',
  poles: 'integer',
  crossSectionM2: 'float8',
  shielded: 'boolean',
  innerM: 'float8',
  lengthEachM: 'float8',
  fluid: 'text',
  lock: 'text',
  release: 'text',
  note: 'text',
  known: 'jsonb',
});

export const componentStore = tableStore('components', 'component_set', {
  ...OF_PIECE,
  componentClass: 'text',
  fitted: 'boolean',
  marking: 'text',
  note: 'text',
  known: 'jsonb',
});

export const boardStore = tableStore('board', 'board', {
  pieceId: 'uuid',
  lengthM: 'float8',
  widthM: 'float8',
  sides: 'integer',
  layers: 'integer',
  note: 'text',
  known: 'jsonb',
});

export const fluidStore = tableStore('fluid', 'fluid', {
  pieceId: 'uuid',
  sequence: 'integer',
  name: 'text',
  massEachKg: 'float8',
  massUKg: 'float8',
  massEvidence: 'text',
  massTyped: 'text',
  volumeM3: 'float8',
  drained: 'boolean',
  note: 'text',
  known: 'jsonb',
});

export const sessionStore = tableStore('session', 'bench_session', {
  sequence: 'integer',
  name: 'text',
  packageId: 'uuid',
  vehicleId: 'uuid',
  subsystemId: 'uuid',
  remover: 'text',
  recorder: 'text',
  openedAt: 'text',
  closedAt: 'text',
  pauseAfterS: 'float8',
  acknowledged: 'jsonb',
  waived: 'jsonb',
  note: 'text',
});

export const stepStore = tableStore('step', 'removal_step', {
  sessionId: 'uuid',
  vehicleId: 'uuid',
  sequence: 'integer',
  pieces: 'jsonb',
  after: 'jsonb',
  tool: 'text',
  bit: 'text',
  direction: 'text',
  people: 'integer',
  seen: 'boolean',
  holdsItself: 'boolean',
  oneWay: 'boolean',
  connections: 'jsonb',
  fluids: 'jsonb',
  rigId: 'uuid',
  startedAt: 'text',
  endedAt: 'text',
  workedS: 'float8',
  otherwise: 'text',
  note: 'text',
});

export const readingStore = tableStore('reading', 'reading', {
  aboutKind: 'text',
  aboutId: 'uuid',
  aboutField: 'text',
  quantity: 'text',
  value: 'float8',
  u: 'float8',
  tare: 'float8',
  elements: 'jsonb',
  raw: 'text',
  instrument: 'text',
  serial: 'text',
  stable: 'boolean',
  takenAt: 'text',
  takenBy: 'text',
  note: 'text',
});

export const recountStore = tableStore('recount', 'recount', {
  pieceId: 'uuid',
  by: 'text',
  countedAt: 'text',
  counts: 'jsonb',
  others: 'text',
  state: 'text',
  settled: 'text',
});

export const sheetStore = tableStore('sheet', 'tag_sheet', {
  vehicleId: 'uuid',
  subsystemId: 'uuid',
  packageId: 'uuid',
  prefix: 'text',
  firstNumber: 'integer',
  count: 'integer',
  stock: 'text',
  printedAt: 'text',
});

/** A circle among the steps, named by the pieces of one step of it. */
const circleFaults = (steps: readonly StepOrder[]): readonly Broken[] => {
  const placeOf = new Map(steps.map((step, place) => [step.id, place]));
  const circle = circleIn(steps.map((step) => step.after.flatMap((id) => placeOf.get(id) ?? [])));
  const first = steps[circle?.[0] ?? -1];
  return first ? [{ id: first.id, name: first.name, what: 'step-circle' }] : [];
};

export const partRule: RecordRule = async (db, studyId, touched) => (await orphanParts(db, studyId, touched)).map(said);
export const benchRule: RecordRule = async (db, studyId) => (await brokenBench(db, studyId)).map(said);
export const stepRule: RecordRule = async (db, studyId) => circleFaults(await stepOrders(db, studyId)).map(said);

/** A tag belongs to one piece. Pieces that share one since before are left alone until somebody changes a tag. */
export const tagRule: RecordRule = async (db, studyId, _touched, effects) => {
  const tagged = effects.flatMap(({ entity, before, after }) => {
    const [was, is] = [before, after] as readonly (Piece | null)[];
    return entity === 'piece' && is && is.tag !== '' && is.tag !== was?.tag ? [is.id] : [];
  });
  return tagged.length === 0 ? [] : (await taggedTwice(db, studyId, tagged)).map(said);
};
