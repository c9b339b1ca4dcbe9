import {
  ABSENT,
  EVIDENCE_WORD,
  expandedU,
  fixed,
  inUnit,
  materialById,
  processById,
  READ_IN,
  readAs,
  unitWord,
  lengthText,
  asShown,
} from '../shared';
import {
  GONE,
  cellsOf,
  fieldIn,
  fieldLabel,
  fieldOfCell,
  fieldsIn,
  kindWord,
  rangeText,
  readUnit,
  recordName,
  splitKind,
  type Entity,
  type Field,
  type FieldsOf,
  type Evidence,
  type NameOf,
  type Op,
} from '../record';

/** A value that became another, in words. */
interface CellWords {
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

/** How a value is known, in a line: "counted, 2 to 3, floor scale, told by the supplier". */
export const evidenceText = (said: Evidence, unit: (value: number) => string = String): string =>
  [
    EVIDENCE_WORD[said.mark],
    rangeText(said) ?? '',
    said.u === null ? '' : `± ${unit(expandedU(said.u))}`,
    said.typed === null ? '' : `typed ${said.typed}`,
    said.instrument,
    said.source,
  ]
    .filter((text) => text !== '')
    .join(', ');

const numberText = (entity: Entity, field: string, value: number): string => {
  const unit = readUnit(entity, field);
  if (unit !== null) return inUnit(unit, value);
  if (field.endsWith('Kg')) return `${Number(readAs(READ_IN.kg, value).toPrecision(7))} ${unitWord('kg')}`;
  if (field.endsWith('M')) return lengthText(value);
  if (/[yY]ear$/.test(field) || field === 'sequence') return String(value);
  return fixed(value, Number.isInteger(value) ? 0 : 3);
};

/** An uncertainty to two digits, in the unit of its value. */
export const uText = (entity: Entity, field: string, u: number): string => {
  const read = readUnit(entity, field);
  const unit = read && asShown(read);
  return unit === null ? numberText(entity, field, Number(u.toPrecision(2))) : `${Number((u / unit.per).toPrecision(2))} ${unit.unit}`;
};

const textOf = (declared: Field | null, value: string, nameOf: NameOf): string => {
  switch (declared?.type) {
    case 'library':
      return (declared.of === 'material' ? materialById : processById).get(value)?.name ?? value;
    case 'reference':
    case 'any reference':
    case 'person':
      return nameOf(value) ?? GONE;
    case 'file':
      return 'a file';
    default:
      return value;
  }
};

/** A list of words or of records by name; of anything else, how many there are. */
const listText = (list: readonly unknown[], item: Field | null, nameOf: NameOf): string => {
  if (list.length === 0) return 'none';
  if (!list.every((entry) => typeof entry === 'string')) return fixed(list.length, 0);
  return list.map((entry) => textOf(item, entry, nameOf)).join(', ');
};

/** A value of a cell as people read it. */
export const valueText = (entity: Entity, cell: string, value: unknown, nameOf: NameOf): string => {
  const field = fieldOfCell(cell);
  if (value === null || value === undefined || value === '') return ABSENT;
  if (field !== cell) return evidenceText(value as Evidence, (u) => uText(entity, field, u));
  const declared = fieldIn(entity, field);
  if (typeof value === 'string') return declared?.shows ? declared.shows(value as never) : textOf(declared, value, nameOf);
  if (typeof value === 'boolean') {
    const [yes, no] = (declared?.type === 'flag' ? declared.words : undefined) ?? ['yes', 'no'];
    return value ? yes : no;
  }
  if (typeof value === 'number') return numberText(entity, field, value);
  if (declared?.shows) return declared.shows(value as never);
  return Array.isArray(value) ? listText(value, declared?.type === 'list' ? (declared.item as Field) : null, nameOf) : ABSENT;
};

/** The label of a cell. */
export const cellLabel = (entity: Entity, cell: string): string => {
  const field = fieldOfCell(cell);
  const label = fieldLabel(entity, field as keyof FieldsOf[Entity]);
  return field === cell ? label : `${label}, evidence`;
};

/** Place of a field in the record, so that values read in the same order everywhere; how it is known right behind it. */
const placeOf = (entity: Entity, cell: string): number => {
  const fields = Object.keys(fieldsIn(entity));
  return fields.indexOf(fieldOfCell(cell)) * 2 + (fieldOfCell(cell) === cell ? 0 : 1);
};

const inOrder = <T>(entity: Entity, cells: Iterable<readonly [string, T]>): readonly (readonly [string, T])[] =>
  [...cells].sort(([a], [b]) => placeOf(entity, a) - placeOf(entity, b));

const stated = (entity: Entity, fields: object, nameOf: NameOf, side: 'was' | 'now'): readonly CellWords[] =>
  inOrder(entity, cellsOf(fields))
    .filter(
      ([cell, value]) =>
        fieldIn(entity, cell)?.unsaid !== true &&
        value !== 'none' &&
        value !== null &&
        value !== '' &&
        value !== false &&
        !(Array.isArray(value) && value.length === 0),
    )
    .map(([cell, value]) => {
      const text = valueText(entity, cell, value, nameOf);
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
        name: recordName(entity, fields, nameOf),
        cells: stated(entity, fields, nameOf, 'now'),
      };
    }
    const was = 'was' in op && Object.keys(op.was).length > 0 ? op.was : back && 'fields' in back ? back.fields : {};
    const name = nameOf(op.id) ?? recordName(entity, was, nameOf);
    if (verb === 'remove') return { entity, id: op.id, did: 'taken off', name, cells: stated(entity, was, nameOf, 'was') };
    const before = cellsOf(was);
    const cells = inOrder(entity, cellsOf('fields' in op ? op.fields : {})).map(([cell, value]) => ({
      label: cellLabel(entity, cell),
      was: valueText(entity, cell, before.get(cell), nameOf),
      now: valueText(entity, cell, value, nameOf),
    }));
    return { entity, id: op.id, did: 'changed', name, cells };
  });
};

/** A change in one line: "changed carrier plate: Mass each", "added 12 records". */
export const changeLine = (words: readonly OpWords[]): string => {
  const [first] = words;
  if (!first) return 'nothing';
  if (words.length > 3) return `${first.did} ${fixed(words.length, 0)} records, first ${kindWord(first.entity)} “${first.name}”`;
  return words
    .map((w) => `${w.did} ${kindWord(w.entity)} “${w.name}”${w.did === 'changed' ? `: ${w.cells.map((c) => c.label).join(', ')}` : ''}`)
    .join('; ');
};
