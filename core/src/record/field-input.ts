import { unitShape, type FieldShape, type ShownUnit } from '../shared';
import type { Entity, FieldsOf } from './entities';
import { fieldIn } from './field-words';
import type { Field } from './kinds/field';

/** A field by kind and name: `rig.ratedN`. */
export type FieldName = { [E in Entity]: `${E}.${keyof FieldsOf[E] & string}` }[Entity];

/** One value that may be chosen, and its word. */
export interface FieldChoice {
  readonly value: string;
  readonly word: string;
}

/** What a form needs to show and take a field: its label, how it is typed, what may be chosen, a line of help. */
interface FieldInput {
  readonly label: string;
  readonly shape: FieldShape;
  /** empty where anything may be typed */
  readonly choices: readonly FieldChoice[];
  readonly help: string;
}

const NOT_SAID: FieldChoice = { value: '', word: 'not said' };
/** Text this long is written in several lines. */
const LINES = 1000;

/** The unit in which a figure is read where the declaration names none: its SI unit, a length in millimetres. */
const readIn = ({ unit, readIn: said }: Field & { readonly type: 'number' }): ShownUnit =>
  said ?? (unit === 'm' ? { per: 0.001, unit: 'mm', digits: 1 } : { per: 1, unit, digits: 3 });

const shapeOf = (field: Field): FieldShape => {
  switch (field.type) {
    case 'number':
      return field.whole === true && field.readIn === undefined ? { kind: 'whole' } : unitShape(readIn(field));
    case 'date':
      return { kind: 'date' };
    case 'price':
      return { kind: 'money' };
    case 'text':
      return { kind: field.lines === true || field.max >= LINES ? 'lines' : 'text' };
    case 'list':
      return { kind: 'words' };
    case 'choice':
    case 'flag':
    case 'instant':
    case 'local time':
    case 'reference':
    case 'any reference':
    case 'person':
    case 'library':
    case 'file':
    case 'tuple':
    case 'group':
    case 'by name':
    case 'evidence':
      return { kind: 'text' };
  }
};

const choicesOf = (field: Field): readonly FieldChoice[] => {
  if (field.type === 'flag') {
    const [yes, no] = field.words ?? ['yes', 'no'];
    return [NOT_SAID, { value: 'yes', word: yes }, { value: 'no', word: no }];
  }
  if (field.type !== 'choice') return [];
  const word = field.shows as ((value: string) => string) | undefined;
  const all = field.choices.map((value) => ({ value, word: word?.(value) ?? value }));
  return field.optional === true ? [NOT_SAID, ...all] : all;
};

const declared = (name: FieldName): Field => {
  const [entity, field] = name.split('.') as [Entity, string];
  const found = fieldIn(entity, field);
  if (!found) throw new RangeError(`no kind declares ${name}`);
  return found;
};

/** The label of a field, as forms, tables, faults and exports show it. */
export const labelOf = (name: FieldName): string => declared(name).label;

/** How a field is shown and typed, from its declaration. */
export const fieldInput = (name: FieldName): FieldInput => {
  const field = declared(name);
  return { label: field.label, shape: shapeOf(field), choices: choicesOf(field), help: field.help ?? '' };
};

/** Fields of one kind as the lines of a form, in the order given. */
export const fieldLines = <E extends Entity, F extends keyof FieldsOf[E] & string>(
  entity: E,
  fields: readonly F[],
): readonly { readonly field: F; readonly name: FieldName; readonly label: string }[] =>
  fields.map((field) => {
    const name = `${entity}.${field}` as FieldName;
    return { field, name, label: labelOf(name) };
  });

/** The unit in which people read a figure of a record, or null for one that is a count or is read in SI. */
export const readUnit = (entity: Entity, field: string): ShownUnit | null => {
  const found = fieldIn(entity, field);
  return found?.type === 'number' ? (found.readIn ?? null) : null;
};
