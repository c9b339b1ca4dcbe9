import { issue, type Issue } from '@each-bolt/core/shared';
import type { Study } from '@each-bolt/core/record';
import type { Db } from '../db/pool';
import { tableStore } from '../db/table';
import type { RecordRule, Store } from '../ledger/store';
import {
  brokenMembers,
  brokenSubsystems,
  holdStudy,
  insertStudy,
  ownerlessQuestions,
  studyById,
  updateStudy,
  type Broken,
} from './queries';
import { Problem } from '../http/problem';

const theStudy = async (db: Db, studyId: string): Promise<readonly Study[]> => {
  const study = await studyById(db, studyId);
  return study ? [study] : [];
};

const insertStudies: Store<'study'>['insert'] = async (db, _studyId, rows) => {
  for (const row of rows) await insertStudy(db, row);
};

export const studyStore: Store<'study'> = {
  entity: 'study',
  table: 'study',
  allText: async (db, studyId) => JSON.stringify(await theStudy(db, studyId)),
  rows: theStudy,
  hold: holdStudy,
  insert: insertStudies,
  insertMany: insertStudies,
  update: async (db, _studyId, rows) => {
    for (const row of rows) await updateStudy(db, row);
  },
  remove: () => Promise.reject(new Problem('invalid', 'A study is not removed; its record stays')),
};

export const vehicleStore = tableStore('vehicle', 'vehicle', {
  sequence: 'integer',
  name: 'text',
  maker: 'text',
  role: 'text',
  modelYear: 'integer',
  generation: 'text',
  predecessorId: 'uuid',
  variant: 'text',
  vehicleClass: 'text',
  drive: 'text',
  builtOn: 'date',
  acquiredOn: 'date',
  expectedOn: 'date',
  odometerM: 'float8',
  obtained: 'text',
  price: 'money',
  priceCurrency: 'text',
  priceYear: 'integer',
  changes: 'text',
  wear: 'text',
  kerbMassKg: 'float8',
  powerW: 'float8',
  batteryJ: 'float8',
  voltageV: 'float8',
  rangeM: 'float8',
  consumptionJPerM: 'float8',
  turningCircleM: 'float8',
  wheelbaseM: 'float8',
  trackM: 'float8',
  notes: 'text',
  known: 'jsonb',
});

export const subsystemStore = tableStore('subsystem', 'subsystem', { parentId: 'uuid', sequence: 'integer', name: 'text' });

export const memberStore = tableStore('member', 'member', { personId: 'uuid', role: 'text' });

export const questionStore = tableStore('question', 'question', {
  kind: 'text',
  aboutKind: 'text',
  aboutId: 'uuid',
  aboutField: 'text',
  text: 'text',
  ownerId: 'uuid',
  dueOn: 'date',
  owedTo: 'text',
  state: 'text',
  answer: 'text',
});

const SAID: Readonly<Record<string, readonly [string, (name: string) => string]>> = {
  'vehicle-missing': ['vehicleId', (name) => `“${name}” would be on a vehicle that is not in this study; take the pieces off first`],
  'subsystem-missing': ['subsystemId', (name) => `“${name}” would hang under a subsystem that is not in this study; move it first`],
  'parent-missing': [
    'parentId',
    (name) => `“${name}” would be inside something that is not in this study; move or remove it in the same change`,
  ],
  'parent-elsewhere': ['parentId', (name) => `“${name}” cannot be inside a piece of another vehicle`],
  'piece-missing': ['pieceId', (name) => `“${name}” would hold a piece that is not in this study; remove it in the same change`],
  cycle: ['parentId', (name) => `“${name}” would be inside itself`],
  'lead-missing': ['role', (name) => `“${name}” would have nobody who leads it; make someone else a lead first`],
  'person-missing': ['personId', () => 'There is no account for this person'],
  'owner-missing': ['ownerId', (name) => `“${name}” would be owned by somebody who is not of this study`],
  'vehicle-gone': [
    'vehicleId',
    (name) => `“${name}” would be about a vehicle that is not in this study; take it off or choose another first`,
  ],
  'subsystem-gone': [
    'subsystemId',
    (name) => `“${name}” would be about a subsystem that is not in this study; take it off or choose another first`,
  ],
  'piece-gone': ['pieceId', (name) => `“${name}” would be about a piece that is not in this study; take it off or choose another first`],
  'candidate-gone': ['candidateId', (name) => `“${name}” would ask for a candidate that is not in this study; take it off first`],
  'package-gone': ['packageId', (name) => `“${name}” would belong to a work package that is not in this study; take it off first`],
  'rig-gone': ['rigId', (name) => `“${name}” would need a rig that is not in this study; choose another or none first`],
  'resource-gone': ['resourceId', (name) => `“${name}” would stand on a lift that is not in this study; choose another or none first`],
  'after-gone': [
    'after',
    (name) => `“${name}” would wait for a package that is not in this study; let it wait for others in the same change`,
  ],
  'who-gone': ['who', (name) => `“${name}” names somebody who is not in the plan; name others in the same change`],
  'predecessor-gone': ['predecessorId', (name) => `“${name}” would follow a vehicle that is not in this study`],
  'scope-twice': ['subsystemId', (name) => `The scope of “${name}” on this vehicle is there already; change that one`],
  'hoist-twice': ['vehicleId', (name) => `“${name}” is on a lift already; change that one`],
  'about-gone': ['aboutId', (name) => `The reading “${name}” would be about something that is not in this study; take it off with it`],
  'board-twice': ['pieceId', (name) => `The board of “${name}” is there already; change that one`],
  'session-gone': ['sessionId', (name) => `The removal of “${name}” would belong to a session that is not in this study`],
  'step-piece-gone': [
    'pieces',
    (name) => `The removal of “${name}” names a piece that is not on its vehicle; take it out of the step in the same change`,
  ],
  'step-after-gone': [
    'after',
    (name) => `The removal of “${name}” waits for a step that is not on its vehicle; let it wait for others in the same change`,
  ],
  'step-part-gone': [
    'connections',
    (name) => `The removal of “${name}” names a connection or fluid that is not in this study; take it out in the same change`,
  ],
  'step-circle': ['after', (name) => `The removal of “${name}” would wait for itself by way of other steps`],
  'tag-twice': ['tag', (name) => `The tag ${name} is on that piece already: a tag belongs to one piece`],
  'scan-file-missing': ['sha256', (name) => `The file of the scan “${name}” has not arrived; send it first`],
  'scan-gone': [
    'scanId',
    (name) => `The scan that the section “${name}” was cut from is no longer in the study; take the section off it first`,
  ],
  'reading-gone': ['readingId', () => 'The alloy reading that an identification rests on is no longer in the study'],
  'file-missing': ['sha256', (name) => `The file of the picture “${name}” has not arrived; send it first`],
};

/** A broken row as an issue in words. */
export const said = ({ id, name, what }: Broken): Issue => {
  const [field, message] = SAID[what] ?? ['id', (n: string) => `“${n}” does not fit the record`];
  return issue(what, message(name), field, id);
};

export const subsystemRule: RecordRule = async (db, studyId) => (await brokenSubsystems(db, studyId)).map(said);
export const memberRule: RecordRule = async (db, studyId) => (await brokenMembers(db, studyId)).map(said);
export const questionRule: RecordRule = async (db, studyId, touched) => (await ownerlessQuestions(db, studyId, touched)).map(said);
