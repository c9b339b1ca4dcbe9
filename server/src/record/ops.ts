import { issue, type Issue } from '@each-bolt/core/shared';
import type { RecordRule, Store } from '../ledger/store';
import {
  brokenMembers,
  brokenSubsystems,
  deleteMembers,
  deleteQuestions,
  insertMembers,
  insertQuestions,
  membersById,
  ownerlessQuestions,
  questionsById,
  updateMembers,
  updateQuestions,
  deleteSubsystems,
  deleteVehicles,
  insertStudy,
  insertSubsystems,
  insertVehicles,
  studyById,
  subsystemsById,
  updateStudy,
  updateSubsystems,
  updateVehicles,
  vehiclesById,
  type Broken,
} from './queries';
import { Problem } from '../http/problem';

export const studyStore: Store<'study'> = {
  entity: 'study',
  rows: async (db, studyId) => {
    const study = await studyById(db, studyId);
    return study ? [study] : [];
  },
  insert: async (db, _studyId, rows) => {
    for (const row of rows) await insertStudy(db, row);
  },
  update: async (db, _studyId, rows) => {
    for (const row of rows) await updateStudy(db, row);
  },
  remove: () => Promise.reject(new Problem('invalid', 'A study is not removed; its record stays')),
};

export const vehicleStore: Store<'vehicle'> = {
  entity: 'vehicle',
  rows: vehiclesById,
  insert: insertVehicles,
  update: updateVehicles,
  remove: deleteVehicles,
};

export const subsystemStore: Store<'subsystem'> = {
  entity: 'subsystem',
  rows: subsystemsById,
  insert: insertSubsystems,
  update: updateSubsystems,
  remove: deleteSubsystems,
};

export const memberStore: Store<'member'> = {
  entity: 'member',
  rows: membersById,
  insert: insertMembers,
  update: updateMembers,
  remove: deleteMembers,
};

export const questionStore: Store<'question'> = {
  entity: 'question',
  rows: questionsById,
  insert: insertQuestions,
  update: updateQuestions,
  remove: deleteQuestions,
};

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
