import { tableStore, type Columns } from '../db/table';
import type { RecordRule } from '../ledger/store';
import { said } from '../record/ops';
import { brokenPictures, brokenPieces, circlingPieces, orphanSets } from './queries';

const MASS = { massEachKg: 'float8', massUKg: 'float8', massEvidence: 'text', massTyped: 'text' } as const;

export const pieceStore = tableStore('piece', 'piece', {
  vehicleId: 'uuid',
  subsystemId: 'uuid',
  parentId: 'uuid',
  sequence: 'integer',
  tag: 'text',
  name: 'text',
  function: 'text',
  quantity: 'integer',
  hand: 'text',
  materialId: 'text',
  materialDetail: 'text',
  processId: 'text',
  processDetail: 'text',
  ...MASS,
  lengthM: 'float8',
  widthM: 'float8',
  heightM: 'float8',
  wallThicknessM: 'float8',
  runLengthM: 'float8',
  runDiameterM: 'float8',
  xM: 'float8',
  yM: 'float8',
  zM: 'float8',
  location: 'text',
  markings: 'text',
  supplier: 'text',
  opened: 'text',
  closedReason: 'text',
  closedRisk: 'text',
  seenOutside: 'text',
  damage: 'text',
  damageFrom: 'text',
  notes: 'text',
  boughtPrice: 'money',
  boughtCurrency: 'text',
  boughtPriceYear: 'integer',
  boughtVolumePerYear: 'integer',
  boughtRegion: 'text',
  known: 'jsonb',
} satisfies Columns<'piece'>);

export const fastenerStore = tableStore('fasteners', 'fastener_set', {
  pieceId: 'uuid',
  sequence: 'integer',
  count: 'integer',
  kind: 'text',
  threadM: 'float8',
  pitchM: 'float8',
  lengthM: 'float8',
  drive: 'text',
  grade: 'text',
  direction: 'text',
  tighteningNm: 'float8',
  breakawayNm: 'float8',
  access: 'text',
  tool: 'text',
  removed: 'boolean',
  ...MASS,
  note: 'text',
  known: 'jsonb',
} satisfies Columns<'fasteners'>);

export const jointStore = tableStore('joints', 'joint_set', {
  pieceId: 'uuid',
  sequence: 'integer',
  count: 'integer',
  kind: 'text',
  lengthEachM: 'float8',
  note: 'text',
  known: 'jsonb',
});

export const pictureStore = tableStore('picture', 'picture', {
  pieceId: 'uuid',
  rigId: 'uuid',
  sequence: 'integer',
  sha256: 'text',
  widthPx: 'integer',
  heightPx: 'integer',
  shows: 'text',
  marks: 'jsonb',
});

export const pieceRule: RecordRule = async (db, studyId, touched) => (await brokenPieces(db, studyId, touched)).map(said);
export const circleRule: RecordRule = async (db, studyId, touched) => (await circlingPieces(db, studyId, touched)).map(said);
export const setRule: RecordRule = async (db, studyId, touched) => (await orphanSets(db, studyId, touched)).map(said);
export const pictureRule: RecordRule = async (db, studyId, touched) => (await brokenPictures(db, studyId, touched)).map(said);
