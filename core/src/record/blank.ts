import type { FastenerSetFields, JointSetFields, PieceFields } from './entities';

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
  location: '',
  markings: '',
  supplier: '',
  opened: null,
  closedReason: '',
  damage: '',
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
