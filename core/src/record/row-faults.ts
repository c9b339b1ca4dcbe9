import { issue, type Issue } from '../shared';
import { RUNNING_JOINTS, type Entity, type FastenerSet, type JointSet, type Piece, type RowOf, type Subsystem } from './contract';

const allOrNone = (values: readonly unknown[]): boolean => {
  const given = values.filter((value) => value !== null).length;
  return given === 0 || given === values.length;
};

interface Weighed {
  readonly massEachKg: number | null;
  readonly massUKg: number | null;
  readonly massEvidence: string | null;
}

const massFaults = (row: Weighed, id: string): readonly Issue[] =>
  allOrNone([row.massEachKg, row.massUKg, row.massEvidence])
    ? []
    : [issue('mass-incomplete', 'A mass needs its uncertainty and how it is known; give all three or none', 'massEachKg', id)];

const pieceFaults = (piece: Piece): readonly Issue[] => [
  ...((piece.parentId === null) === (piece.subsystemId === null)
    ? [issue('place', 'A piece hangs either under a subsystem or inside another piece: give one of the two', 'parentId', piece.id)]
    : []),
  ...(piece.parentId === piece.id ? [issue('cycle', 'A piece cannot be inside itself', 'parentId', piece.id)] : []),
  ...massFaults(piece, piece.id),
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

const jointFaults = (joints: JointSet): readonly Issue[] =>
  joints.lengthEachM === null || RUNNING_JOINTS.includes(joints.kind)
    ? []
    : [issue('joint-length', `A ${joints.kind} is counted; it has no length`, 'lengthEachM', joints.id)];

const subsystemFaults = (subsystem: Subsystem): readonly Issue[] =>
  subsystem.parentId === subsystem.id ? [issue('cycle', 'A subsystem cannot be inside itself', 'parentId', subsystem.id)] : [];

/** Rules that need more than one field of a row. The same for the server, the forms and imported files. */
export const rowFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => {
  switch (entity) {
    case 'piece':
      return pieceFaults(row as unknown as Piece);
    case 'fasteners':
      return massFaults(row as unknown as FastenerSet, row.id);
    case 'joints':
      return jointFaults(row as unknown as JointSet);
    case 'subsystem':
      return subsystemFaults(row as unknown as Subsystem);
    default:
      return [];
  }
};
