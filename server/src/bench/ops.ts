import type { RecordRule, Store } from '../ledger/store';
import { said } from '../record/ops';
import {
  brokenPictures,
  brokenPieces,
  deletePictures,
  insertPictures,
  picturesById,
  updatePictures,
  circlingPieces,
  deleteFastenerSets,
  deleteJointSets,
  deletePieces,
  fastenerSetsById,
  insertFastenerSets,
  insertJointSets,
  insertPieces,
  jointSetsById,
  orphanSets,
  piecesById,
  updateFastenerSets,
  updateJointSets,
  updatePieces,
} from './queries';

export const pieceStore: Store<'piece'> = {
  entity: 'piece',
  rows: piecesById,
  insert: insertPieces,
  update: updatePieces,
  remove: deletePieces,
};
export const fastenerStore: Store<'fasteners'> = {
  entity: 'fasteners',
  rows: fastenerSetsById,
  insert: insertFastenerSets,
  update: updateFastenerSets,
  remove: deleteFastenerSets,
};
export const jointStore: Store<'joints'> = {
  entity: 'joints',
  rows: jointSetsById,
  insert: insertJointSets,
  update: updateJointSets,
  remove: deleteJointSets,
};
export const pictureStore: Store<'picture'> = {
  entity: 'picture',
  rows: picturesById,
  insert: insertPictures,
  update: updatePictures,
  remove: deletePictures,
};

export const pieceRule: RecordRule = async (db, studyId, touched) => (await brokenPieces(db, studyId, touched)).map(said);
export const circleRule: RecordRule = async (db, studyId, touched) => (await circlingPieces(db, studyId, touched)).map(said);
export const setRule: RecordRule = async (db, studyId, touched) => (await orphanSets(db, studyId, touched)).map(said);
export const pictureRule: RecordRule = async (db, studyId, touched) => (await brokenPictures(db, studyId, touched)).map(said);
