import Papa from 'papaparse';
import { defused, millimetres } from '../../shared';
import { outline, type Piece, type StudyRecord, type Vehicle } from '../../record';
import { CSV_COLUMNS, type CsvHeading } from '../import/csv-columns';
import { groupByPiece } from '../own-figures';
import { fastenerLine, jointLine, massEachText } from '../shorthand/from-row';
import { countText, markSuffix } from '../shorthand/how-known';

type Cells = Readonly<Partial<Record<CsvHeading, string>>>;

const marked = (piece: Piece, field: string, text: string): string =>
  text === '' ? '' : text + markSuffix('piece', field, piece.known[field]);

const lengthCell = (piece: Piece, field: 'wallThicknessM' | 'runLengthM' | 'runDiameterM'): string => {
  const lengthM = piece[field];
  return lengthM === null ? '' : marked(piece, field, piece.known[field]?.typed ?? `${millimetres(lengthM)} mm`);
};

const envelopeCell = (piece: Piece): string => {
  const { lengthM, widthM, heightM } = piece;
  if (lengthM === null || widthM === null || heightM === null) return '';
  return marked(piece, 'lengthM', piece.known.lengthM?.typed ?? `${[lengthM, widthM, heightM].map(millimetres).join('x')} mm`);
};

const pieceCells = (piece: Piece): Cells => ({
  tag: piece.tag,
  name: piece.name,
  function: piece.function,
  quantity: countText('piece', 'quantity', piece.quantity, piece.known),
  hand: piece.hand === 'none' ? '' : piece.hand,
  material: marked(piece, 'materialId', piece.materialId ?? ''),
  grade_detail: piece.materialDetail,
  made_by: marked(piece, 'processId', piece.processId ?? ''),
  process_detail: piece.processDetail,
  mass: massEachText(piece),
  thickness: lengthCell(piece, 'wallThicknessM'),
  envelope: envelopeCell(piece),
  run_length: lengthCell(piece, 'runLengthM'),
  run_diameter: lengthCell(piece, 'runDiameterM'),
  location: piece.location,
  markings: piece.markings,
  supplier: piece.supplier,
  opened: piece.opened ?? '',
  closed_reason: piece.closedReason,
  damage: piece.damage,
  price: piece.boughtPrice ?? '',
  notes: piece.notes,
});

const ROWS_IN_PART = 100;

/**
 * The pieces of one vehicle as a CSV file that can be imported again, in parts: the same columns, parents before what is inside
 * them. Text that a spreadsheet would take for a formula is defused with a leading apostrophe.
 */
export function* piecesCsv(record: StudyRecord, vehicle: Vehicle): Generator<string> {
  const { nodes } = outline(record);
  const pieces = new Map(record.pieces.map((piece) => [piece.id, piece]));
  const [fasteners, joints] = [groupByPiece(record.fastenerSets), groupByPiece(record.jointSets)];
  const subsystems = new Map(record.subsystems.map((s) => [s.id, s.name]));
  const noOf = new Map<string, string>();
  let before = '';
  let rows: (readonly string[])[] = [CSV_COLUMNS.map(({ heading }) => heading)];
  for (const node of nodes) {
    const piece = node.kind === 'piece' && node.vehicleId === vehicle.id ? pieces.get(node.id) : undefined;
    if (!piece) continue;
    noOf.set(piece.id, String(noOf.size + 1));
    const cells: Cells = {
      ...pieceCells(piece),
      no: noOf.get(piece.id) ?? '',
      inside_of: noOf.get(piece.parentId ?? '') ?? '',
      subsystem: subsystems.get(piece.subsystemId ?? '') ?? '',
      fasteners: (fasteners.get(piece.id) ?? []).map(fastenerLine).join('; '),
      joints: (joints.get(piece.id) ?? []).map(jointLine).join('; '),
    };
    rows.push(CSV_COLUMNS.map(({ heading }) => defused(cells[heading] ?? '')));
    if (rows.length < ROWS_IN_PART) continue;
    yield before + Papa.unparse(rows);
    [before, rows] = ['\r\n', []];
  }
  yield rows.length > 0 ? `${before}${Papa.unparse(rows)}\n` : '\n';
}
