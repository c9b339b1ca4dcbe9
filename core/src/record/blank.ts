import { ENTITIES, type Entity, type FieldsOf, type Study, type StudyRecord } from './entities';
import { KINDS } from './kinds';
import type { Field, Fields } from './kinds/field';

type HasBlank<F> = F extends { readonly optional: true } | { readonly blank: unknown }
  ? true
  : F extends { readonly type: 'text' | 'list' | 'by name' | 'evidence' }
    ? true
    : false;

type FieldsIn<E extends Entity> = (typeof KINDS)[E]['fields'];
type Told<E extends Entity> = {
  readonly [K in keyof FieldsIn<E> as HasBlank<FieldsIn<E>[K]> extends true ? never : K]: K extends keyof FieldsOf[E]
    ? FieldsOf[E][K]
    : never;
};
/** What must be said of a record that is new, and what may be. */
export type Given<E extends Entity> = Told<E> & Partial<FieldsOf[E]>;

/** What a field holds until somebody says otherwise; undefined where somebody must. */
export const blankValue = (field: Field): unknown => {
  if (field.blank !== undefined) return field.blank;
  if (field.optional) return null;
  switch (field.type) {
    case 'text':
      return '';
    case 'list':
      return [];
    case 'by name':
    case 'evidence':
      return {};
    case 'number':
    case 'choice':
    case 'flag':
    case 'date':
    case 'instant':
    case 'local time':
    case 'price':
    case 'reference':
    case 'any reference':
    case 'person':
    case 'library':
    case 'file':
    case 'tuple':
    case 'group':
      return undefined;
  }
};

const BLANK = Object.fromEntries(
  ENTITIES.map((entity) => [
    entity,
    Object.fromEntries(Object.entries(KINDS[entity].fields as Fields).map(([name, field]) => [name, blankValue(field)])),
  ]),
) as Readonly<Record<Entity, Readonly<Record<string, unknown>>>>;

/** A record of which nothing is known but what is given. */
export const blank = <E extends Entity>(entity: E, given: Given<E>): FieldsOf[E] => ({ ...BLANK[entity], ...given }) as FieldsOf[E];

/** The record of a study that holds nothing yet. */
export const emptyRecord = (study: Study): StudyRecord =>
  ({
    revision: 0,
    study,
    ...Object.fromEntries(ENTITIES.flatMap((entity) => (KINDS[entity].list === null ? [] : [[KINDS[entity].list, []]]))),
  }) as unknown as StudyRecord;
