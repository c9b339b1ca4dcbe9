import Papa from 'papaparse';
import { defused, millimetres } from '../../shared';
import { outline, type Part, type StudyRecord, type Vehicle } from '../../record';
import { CSV_COLUMNS, TEXT_COLUMNS, type CsvHeading } from '../import/csv-columns';
import { groupByPart } from '../roll-up/own-figures';
import { fastenerLine, jointLine, massEachText } from '../shorthand/from-row';
import { countText, markSuffix } from '../shorthand/how-known';

type Cells = Readonly<Partial<Record<CsvHeading, string>>>;

const marked = (part: Part, field: string, text: string): string =>
  text === '' ? '' : text + markSuffix('part', field, part.evidence[field]);

const lengthCell = (part: Part, field: 'wallThicknessM' | 'runLengthM' | 'runDiameterM'): string => {
  const lengthM = part[field];
  return lengthM === null ? '' : marked(part, field, part.evidence[field]?.typed ?? `${millimetres(lengthM)} mm`);
};

const envelopeCell = (part: Part): string => {
  const { lengthM, widthM, heightM } = part;
  if (lengthM === null || widthM === null || heightM === null) return '';
  return marked(part, 'lengthM', part.evidence.lengthM?.typed ?? `${[lengthM, widthM, heightM].map(millimetres).join('x')} mm`);
};

const placeCell = ({ xM, yM, zM }: Part): string =>
  xM === null || yM === null || zM === null ? '' : [xM, yM, zM].map(millimetres).join(' ');

/** Text goes as it is; the rest as it can be read again. */
const partCells = (part: Part): Cells => ({
  ...Object.fromEntries([...TEXT_COLUMNS].map(([heading, { name }]) => [heading, part[name]])),
  quantity: countText('part', 'quantity', part.quantity, part.evidence),
  hand: part.hand === 'none' ? '' : part.hand,
  material: marked(part, 'materialId', part.materialId ?? ''),
  made_by: marked(part, 'processId', part.processId ?? ''),
  mass: massEachText(part),
  thickness: lengthCell(part, 'wallThicknessM'),
  envelope: envelopeCell(part),
  run_length: lengthCell(part, 'runLengthM'),
  run_diameter: lengthCell(part, 'runDiameterM'),
  place: placeCell(part),
  state: part.state ?? '',
  opened: part.opened ?? '',
  damage_from: part.damageFrom ?? '',
  price: part.boughtPrice ?? '',
});

const ROWS_IN_PART = 100;

/**
 * The parts of one vehicle as a CSV file that can be imported again, in parts: the same columns, parents before what is inside
 * them. Text that a spreadsheet would take for a formula is defused with a leading apostrophe.
 */
export function* partsCsv(record: StudyRecord, vehicle: Vehicle): Generator<string> {
  const { nodes } = outline(record);
  const parts = new Map(record.parts.map((part) => [part.id, part]));
  const [fasteners, joints] = [groupByPart(record.fastenerSets), groupByPart(record.jointSets)];
  const subsystems = new Map(record.subsystems.map((s) => [s.id, s.name]));
  const noOf = new Map<string, string>();
  let before = '';
  let rows: (readonly string[])[] = [CSV_COLUMNS.map(({ heading }) => heading)];
  for (const node of nodes) {
    const part = node.kind === 'part' && node.vehicleId === vehicle.id ? parts.get(node.id) : undefined;
    if (!part) continue;
    noOf.set(part.id, String(noOf.size + 1));
    const cells: Cells = {
      ...partCells(part),
      no: noOf.get(part.id) ?? '',
      inside_of: noOf.get(part.parentId ?? '') ?? '',
      subsystem: subsystems.get(part.subsystemId ?? '') ?? '',
      fasteners: (fasteners.get(part.id) ?? []).map(fastenerLine).join('; '),
      joints: (joints.get(part.id) ?? []).map(jointLine).join('; '),
    };
    rows.push(CSV_COLUMNS.map(({ heading }) => defused(cells[heading] ?? '')));
    if (rows.length < ROWS_IN_PART) continue;
    yield before + Papa.unparse(rows);
    [before, rows] = ['\r\n', []];
  }
  yield rows.length > 0 ? `${before}${Papa.unparse(rows)}\n` : '\n';
}
