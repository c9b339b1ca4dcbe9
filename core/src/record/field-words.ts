import type { Entity, FieldsOf } from './entities';
import { KINDS } from './kinds';
import type { Field, Fields } from './kinds/field';

/** The fields of a kind of record, by name and in their order. */
export const fieldsIn = (entity: Entity): Fields => KINDS[entity].fields;

/** The declaration of a field, or null for a name that is none. */
export const fieldIn = (entity: Entity, field: string): Field | null => fieldsIn(entity)[field] ?? null;

/** The label of a field, as forms, tables, faults and exports show it. */
export const fieldLabel = <E extends Entity>(entity: E, field: keyof FieldsOf[E] & string): string =>
  fieldIn(entity, field)?.label ?? field;
