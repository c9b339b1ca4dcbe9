import { tableStore } from '../db/table';
import type { RecordRule } from '../ledger/store';
import { said } from '../record/ops';
import { orphanMeasures } from './queries';

const OF_PIECE = { pieceId: 'uuid', sequence: 'integer' } as const;

export const scanStore = tableStore('scan', 'scan', {
  ...OF_PIECE,
  sha256: 'text',
  fileName: 'text',
  format: 'text',
  bytes: 'integer',
  unit: 'text',
  unitBy: 'text',
  figures: 'jsonb',
  offsetM: 'float8',
  instrument: 'text',
  serial: 'text',
  takenAt: 'text',
  takenBy: 'text',
  note: 'text',
});

export const identificationStore = tableStore('identification', 'identification', {
  ...OF_PIECE,
  cues: 'jsonb',
  readingId: 'uuid',
  marking: 'text',
  materialId: 'text',
  grade: 'text',
  processId: 'text',
  reason: 'text',
  decidedAt: 'text',
  decidedBy: 'text',
});

export const sectionStore = tableStore('section', 'section', {
  ...OF_PIECE,
  name: 'text',
  kind: 'text',
  dimensions: 'jsonb',
  loops: 'jsonb',
  scanId: 'uuid',
  materialId: 'text',
  note: 'text',
});

export const patternStore = tableStore('pattern', 'pattern', {
  ...OF_PIECE,
  name: 'text',
  points: 'jsonb',
  source: 'text',
  note: 'text',
});

export const gaugeStore = tableStore('gauge', 'gauge', {
  sequence: 'integer',
  name: 'text',
  quantity: 'text',
  persons: 'jsonb',
  parts: 'jsonb',
  trials: 'integer',
  readings: 'jsonb',
  instrument: 'text',
  note: 'text',
});

/** What was measured belongs to a piece, and a scan has its file. */
export const measureRule: RecordRule = async (db, studyId, touched) => (await orphanMeasures(db, studyId, touched)).map(said);
