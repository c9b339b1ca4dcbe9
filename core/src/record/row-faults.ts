import { issue, type Issue } from '../shared';
import { allOrNone, priceFaults } from './whole-sets';
import {
  RUNNING_JOINTS,
  type Board,
  type ComponentSet,
  type Connection,
  type Entity,
  type FastenerSet,
  type Fluid,
  type JointSet,
  type KnownOf,
  type Picture,
  type Piece,
  type Question,
  type RowOf,
  type Subsystem,
  type Vehicle,
} from './entities';
import { countRange } from './known';
import { benchFaults } from './bench/row-faults';
import { measureFaults } from './measure/row-faults';
import { planFaults } from './plan/row-faults';

interface Weighed {
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: string | null;
}

const massFaults = (row: Weighed, id: string): readonly Issue[] =>
  allOrNone([row.massEachKg, row.massUKg, row.massEvidence])
    ? []
    : [issue('mass-incomplete', 'A mass needs its uncertainty and how it is known; give all three or none', 'massEachKg', id)];

/** A range goes around its value: two, perhaps three is 2 within 2 to 3. */
const rangeFaults = (field: string, value: number, known: KnownOf, id: string): readonly Issue[] => {
  const [low, high] = countRange(value, known[field]);
  return value >= low && value <= high ? [] : [issue('outside-range', `The count ${value} lies outside its own range`, field, id)];
};

const questionFaults = (question: Question): readonly Issue[] => [
  ...(question.state === 'answered' && question.answer.trim() === ''
    ? [issue('answer-missing', 'Say what the answer is', 'answer', question.id)]
    : []),
  ...(question.kind === 'promise' && question.owedTo.trim() === ''
    ? [issue('owed-to-missing', 'Say to whom the figure is promised', 'owedTo', question.id)]
    : []),
];

const pieceFaults = (piece: Piece): readonly Issue[] => [
  ...((piece.parentId === null) === (piece.subsystemId === null)
    ? [issue('place', 'A piece hangs either under a subsystem or inside another piece: give one of the two', 'parentId', piece.id)]
    : []),
  ...(piece.parentId === piece.id ? [issue('cycle', 'A piece cannot be inside itself', 'parentId', piece.id)] : []),
  ...massFaults(piece, piece.id),
  ...placeFaults(piece),
  ...rangeFaults('quantity', piece.quantity, piece.known, piece.id),
  ...(allOrNone([piece.lengthM, piece.widthM, piece.heightM])
    ? []
    : [issue('envelope-incomplete', 'An envelope needs length, width and height', 'lengthM', piece.id)]),
  ...(allOrNone([piece.boughtPrice, piece.boughtCurrency, piece.boughtPriceYear, piece.boughtVolumePerYear, piece.boughtRegion])
    ? []
    : [issue('price-basis', 'A price needs its currency, year, vehicles per year and region', 'boughtPrice', piece.id)]),
  ...(piece.opened === 'closed' && piece.closedReason.trim() === ''
    ? [issue('closed-reason', 'Say why the piece was left closed', 'closedReason', piece.id)]
    : []),
];

const fastenerFaults = (set: FastenerSet): readonly Issue[] => [
  ...massFaults(set, set.id),
  ...rangeFaults('count', set.count, set.known, set.id),
];

const jointFaults = (joints: JointSet): readonly Issue[] => [
  ...(joints.lengthEachM === null || RUNNING_JOINTS.includes(joints.kind)
    ? []
    : [issue('joint-length', `A ${joints.kind} is counted; it has no length`, 'lengthEachM', joints.id)]),
  ...rangeFaults('count', joints.count, joints.known, joints.id),
];

const subsystemFaults = (subsystem: Subsystem): readonly Issue[] =>
  subsystem.parentId === subsystem.id ? [issue('cycle', 'A subsystem cannot be inside itself', 'parentId', subsystem.id)] : [];

const placeFaults = (piece: Piece): readonly Issue[] =>
  allOrNone([piece.xM, piece.yM, piece.zM])
    ? []
    : [issue('place-incomplete', 'A place on the vehicle needs all three of x, y and z', 'xM', piece.id)];

const vehicleFaults = (vehicle: Vehicle): readonly Issue[] => [
  ...priceFaults(vehicle, vehicle.id),
  ...(vehicle.predecessorId === vehicle.id ? [issue('cycle', 'A vehicle does not follow itself', 'predecessorId', vehicle.id)] : []),
  ...(vehicle.builtOn !== null && vehicle.acquiredOn !== null && vehicle.builtOn > vehicle.acquiredOn
    ? [
        issue(
          'acquired-before-built',
          'The vehicle was acquired before it was built: one of the two dates is wrong',
          'acquiredOn',
          vehicle.id,
        ),
      ]
    : []),
];

const pictureFaults = (picture: Picture): readonly Issue[] =>
  (picture.pieceId === null) === (picture.rigId === null)
    ? [issue('place', 'A picture shows either a piece or a rig: give one of the two', 'pieceId', picture.id)]
    : [];

const boardFaults = (board: Board): readonly Issue[] =>
  allOrNone([board.lengthM, board.widthM])
    ? []
    : [issue('board-incomplete', 'The size of a board needs length and width', 'lengthM', board.id)];

/** Rules that need more than one field of a row. The same for the server, the forms and imported files. */
export const rowFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => {
  switch (entity) {
    case 'piece':
      return pieceFaults(row as unknown as Piece);
    case 'fasteners':
      return fastenerFaults(row as unknown as FastenerSet);
    case 'joints':
      return jointFaults(row as unknown as JointSet);
    case 'subsystem':
      return subsystemFaults(row as unknown as Subsystem);
    case 'question':
      return questionFaults(row as unknown as Question);
    case 'vehicle':
      return vehicleFaults(row as unknown as Vehicle);
    case 'picture':
      return pictureFaults(row as unknown as Picture);
    case 'connection':
      return rangeFaults('count', (row as unknown as Connection).count, (row as unknown as Connection).known, row.id);
    case 'components':
      return rangeFaults('count', (row as unknown as ComponentSet).count, (row as unknown as ComponentSet).known, row.id);
    case 'board':
      return boardFaults(row as unknown as Board);
    case 'fluid':
      return massFaults(row as unknown as Fluid, row.id);
    case 'session':
    case 'step':
    case 'reading':
      return benchFaults(entity, row);
    case 'section':
    case 'pattern':
    case 'gauge':
      return measureFaults(entity, row);
    default:
      return planFaults(entity, row);
  }
};
