import { ABSENT, EVIDENCE_WORD, fixed, inShownUnit, materialById, millimetres, processById } from '../shared';
import {
  SCHEMAS,
  cellsOf,
  fieldLabel,
  fieldOfCell,
  measuredText,
  partsText,
  rangeText,
  splitKind,
  type Entity,
  type FieldsOf,
  type Known,
  type Op,
} from '../record';

/** A value that became another, in words. */
export interface CellWords {
  readonly label: string;
  readonly was: string;
  readonly now: string;
}

/** What a change did to one record, in words. */
export interface OpWords {
  readonly entity: Entity;
  readonly id: string;
  readonly did: 'added' | 'changed' | 'taken off';
  /** what the record is called, e.g. "carrier plate" */
  readonly name: string;
  /** for a change: what became of what; for an addition or removal: what there was beside the name */
  readonly cells: readonly CellWords[];
}

/** The name of a record or person by its id, as far as it is known. */
export type NameOf = (id: string) => string | null;

export const ENTITY_WORD: Readonly<Record<Entity, string>> = {
  study: 'study',
  member: 'person',
  vehicle: 'vehicle',
  subsystem: 'subsystem',
  piece: 'piece',
  fasteners: 'fasteners',
  joints: 'joints',
  question: 'question',
  picture: 'picture',
  candidate: 'candidate',
  request: 'request',
  claim: 'claim',
  scope: 'scope',
  resource: 'person or place',
  rig: 'rig',
  package: 'work package',
  gate: 'reading before work',
  hoist: 'vehicle on a lift',
  unload: 'lift step',
  connection: 'connection',
  components: 'board components',
  board: 'board',
  fluid: 'fluid',
  session: 'session',
  step: 'removal',
  reading: 'reading',
  recount: 'second count',
  sheet: 'sheet of tags',
  scan: 'scan',
  identification: 'identification',
  section: 'section',
  pattern: 'pattern of holes',
  gauge: 'gauge study',
};

/** How a value is known, in a line: "counted, 2 to 3, floor scale, told by the supplier". */
export const knownText = (said: Known, unit: (value: number) => string = String): string =>
  [
    EVIDENCE_WORD[said.mark],
    rangeText(said) ?? '',
    said.u === null ? '' : `± ${unit(said.u)}`,
    said.typed === null ? '' : `typed ${said.typed}`,
    said.instrument,
    said.source,
  ]
    .filter((part) => part !== '')
    .join(', ');

const isId = (field: string): boolean => field.endsWith('Id') && field !== 'materialId' && field !== 'processId';

const numberText = (field: string, value: number): string => {
  const inUnit = inShownUnit(field, value);
  if (inUnit !== null) return inUnit;
  if (field.endsWith('Kg')) return `${Number(value.toPrecision(7))} kg`;
  if (field.endsWith('M')) return `${millimetres(value)} mm`;
  if (/[yY]ear$/.test(field) || field === 'sequence') return String(value);
  return fixed(value, Number.isInteger(value) ? 0 : 3);
};

/** An uncertainty to two digits, in the unit of its value. */
export const uText = (field: string, u: number): string => numberText(field, Number(u.toPrecision(2)));

const textOf = (field: string, value: string, nameOf: NameOf): string => {
  if (field === 'materialId') return materialById.get(value)?.name ?? value;
  if (field === 'processId') return processById.get(value)?.name ?? value;
  if (field === 'massEvidence') return EVIDENCE_WORD[value as Known['mark']];
  if (isId(field)) return nameOf(value) ?? 'something taken off since';
  return field === 'sha256' ? 'a file' : value;
};

/** A value of a cell as people read it. */
export const valueText = (cell: string, value: unknown, nameOf: NameOf): string => {
  const field = fieldOfCell(cell);
  if (value === null || value === undefined || value === '') return ABSENT;
  if (field !== cell) return knownText(value as Known, (u) => uText(field, u));
  if (typeof value === 'string') return textOf(field, value, nameOf);
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'number') return numberText(field, value);
  return (
    partsText(field, value) ?? measuredText(field, value) ?? (Array.isArray(value) ? listText(value as readonly unknown[], nameOf) : ABSENT)
  );
};

const UUID = /^[0-9a-f]{8}(?:-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

/** A list of words or of records by name; of anything else, how many there are. */
const listText = (list: readonly unknown[], nameOf: NameOf): string => {
  if (list.length === 0) return 'none';
  if (!list.every((item) => typeof item === 'string')) return fixed(list.length, 0);
  return list.map((item) => (UUID.test(item) ? (nameOf(item) ?? 'something taken off since') : item)).join(', ');
};

/** The label of a cell. */
export const cellLabel = (entity: Entity, cell: string): string => {
  const field = fieldOfCell(cell);
  const label = fieldLabel(entity, field as keyof FieldsOf[Entity]);
  return field === cell ? label : `${label}, how known`;
};

const namesOf = (ids: unknown, nameOf: NameOf, none: string): string =>
  Array.isArray(ids) && ids.length > 0
    ? (ids as readonly string[]).map((id) => nameOf(id) ?? 'something taken off since').join(', ')
    : none;

const nameIn = (entity: Entity, fields: Readonly<Record<string, unknown>>, nameOf: NameOf): string => {
  const text = (field: string): string => (typeof fields[field] === 'string' ? fields[field] : '');
  switch (entity) {
    case 'study':
      return text('title');
    case 'member':
      return nameOf(text('personId')) ?? 'somebody';
    case 'question':
      return text('text');
    case 'picture':
      return text('shows') === '' ? 'picture' : text('shows');
    case 'request':
      return text('who');
    case 'claim':
      return text('statement');
    case 'gate':
      return text('asks');
    case 'unload':
      return text('label');
    case 'scope':
      return nameOf(text('subsystemId')) ?? 'a subsystem';
    case 'hoist':
      return nameOf(text('vehicleId')) ?? 'a vehicle';
    case 'step':
      return namesOf(fields.pieces, nameOf, 'a removal');
    case 'reading':
      return text('raw');
    case 'board':
    case 'recount':
      return nameOf(text('pieceId')) ?? 'a piece';
    case 'sheet':
      return text('prefix');
    case 'scan':
      return text('fileName');
    case 'identification':
      return nameOf(text('pieceId')) ?? 'a piece';
    case 'components':
      return `${typeof fields.count === 'number' ? fields.count : ''} ${text('componentClass')}`.trim();
    case 'fasteners':
    case 'connection':
    case 'joints':
      return `${typeof fields.count === 'number' ? fields.count : ''} ${text('kind')}`.trim();
    default:
      return text('name');
  }
};

// what says nothing to people, or is said by the name already
const UNSAID = new Set([
  'sequence',
  'name',
  'title',
  'vehicleId',
  'subsystemId',
  'parentId',
  'pieceId',
  'packageId',
  'candidateId',
  'rigId',
  'sha256',
  'known',
  'aboutId',
  'personId',
  'widthPx',
  'heightPx',
  'massTyped',
  'loops',
]);

/** Place of a field in the record, so that values read in the same order everywhere; how it is known right behind it. */
const placeOf = (entity: Entity, cell: string): number => {
  const fields = Object.keys((SCHEMAS[entity] as unknown as { readonly fields: object }).fields);
  return fields.indexOf(fieldOfCell(cell)) * 2 + (fieldOfCell(cell) === cell ? 0 : 1);
};

const inOrder = <T>(entity: Entity, cells: Iterable<readonly [string, T]>): readonly (readonly [string, T])[] =>
  [...cells].sort(([a], [b]) => placeOf(entity, a) - placeOf(entity, b));

const stated = (entity: Entity, fields: object, nameOf: NameOf, side: 'was' | 'now'): readonly CellWords[] =>
  inOrder(entity, cellsOf(fields))
    .filter(
      ([cell, value]) =>
        !UNSAID.has(cell) &&
        value !== 'none' &&
        value !== null &&
        value !== '' &&
        value !== false &&
        !(Array.isArray(value) && value.length === 0),
    )
    .map(([cell, value]) => {
      const text = valueText(cell, value, nameOf);
      return { label: cellLabel(entity, cell), was: side === 'was' ? text : ABSENT, now: side === 'now' ? text : ABSENT };
    });

interface Inverse {
  readonly ops: readonly Op[];
  readonly inverse?: readonly Op[];
}

/** What a change did, record by record, in words. */
export const changeWords = ({ ops, inverse = [] }: Inverse, nameOf: NameOf): readonly OpWords[] => {
  const backOf = new Map([...inverse].reverse().map((op) => [op.id, op]));
  return ops.map((op): OpWords => {
    const { entity, verb } = splitKind(op.kind);
    const back = backOf.get(op.id);
    if (verb === 'add') {
      const fields = 'fields' in op ? op.fields : {};
      return {
        entity,
        id: op.id,
        did: 'added',
        name: nameIn(entity, fields, nameOf),
        cells: stated(entity, fields, nameOf, 'now'),
      };
    }
    const was = 'was' in op && Object.keys(op.was).length > 0 ? op.was : back && 'fields' in back ? back.fields : {};
    const name = nameOf(op.id) ?? nameIn(entity, was, nameOf);
    if (verb === 'remove') return { entity, id: op.id, did: 'taken off', name, cells: stated(entity, was, nameOf, 'was') };
    const before = cellsOf(was);
    const cells = inOrder(entity, cellsOf('fields' in op ? op.fields : {}))
      .filter(([cell]) => cell !== 'massTyped')
      .map(([cell, value]) => ({
        label: cellLabel(entity, cell),
        was: valueText(cell, before.get(cell), nameOf),
        now: valueText(cell, value, nameOf),
      }));
    return { entity, id: op.id, did: 'changed', name, cells };
  });
};

/** A change in one line: "changed carrier plate: Mass each", "added 12 records". */
export const changeLine = (words: readonly OpWords[]): string => {
  const [first] = words;
  if (!first) return 'nothing';
  if (words.length > 3) return `${first.did} ${fixed(words.length, 0)} records, first ${ENTITY_WORD[first.entity]} “${first.name}”`;
  return words
    .map((w) => `${w.did} ${ENTITY_WORD[w.entity]} “${w.name}”${w.did === 'changed' ? `: ${w.cells.map((c) => c.label).join(', ')}` : ''}`)
    .join('; ');
};
