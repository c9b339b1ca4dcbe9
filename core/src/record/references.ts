import { ENTITIES, type Entity } from './entities';
import { KINDS } from './kinds';
import type { Field, Fields, FileField, ListField, ReferenceField, WhenGone } from './kinds/field';

/** A field by which records of one kind refer to records of another. */
export interface Reference {
  readonly entity: Entity;
  readonly field: string;
  readonly to: Entity;
  /** the field holds several of them */
  readonly isList: boolean;
  readonly isOptional: boolean;
  readonly whenGone: WhenGone;
  /** a field that both records have, and that must be the same in both; null where there is none */
  readonly alike: string | null;
}

/** A field by which records refer to one of several kinds: the one named in another field. */
interface AnyReference {
  readonly entity: Entity;
  readonly field: string;
  readonly toKindIn: string;
  readonly to: readonly Entity[];
  readonly whenGone: WhenGone | 'stays';
}

const isEntity = (name: string): name is Entity => name in KINDS;

const kindNamed = (name: string, where: string): Entity => {
  if (!isEntity(name)) throw new RangeError(`${where} refers to ${name}, which is no kind of record`);
  return name;
};

const everyField = ENTITIES.flatMap((entity) =>
  Object.entries(KINDS[entity].fields as Fields).map(([field, declared]) => ({ entity, field, declared })),
);

const itemOf = (field: Field): Field => (field.type === 'list' ? (field as ListField<Field>).item : field);

/** Every field by which a record refers to another of a kind that is known beforehand. */
export const REFERENCES: readonly Reference[] = everyField.flatMap(({ entity, field, declared }) => {
  const item = itemOf(declared);
  if (item.type !== 'reference') return [];
  const { to, whenGone, alike }: ReferenceField = item;
  const isList = declared.type === 'list';
  return [
    {
      entity,
      field,
      to: kindNamed(to, `${entity}.${field}`),
      isList,
      isOptional: declared.optional ?? isList,
      whenGone,
      alike: alike ?? null,
    },
  ];
});

/** Every field by which a record refers to one whose kind stands in another field. */
export const ANY_REFERENCES: readonly AnyReference[] = everyField.flatMap(({ entity, field, declared }) => {
  if (declared.type !== 'any reference' || declared.toKindIn === null) return [];
  const kinds = (KINDS[entity].fields as Fields)[declared.toKindIn];
  if (kinds?.type !== 'choice') throw new RangeError(`${entity}.${field} has no field that says its kind`);
  const to = kinds.choices.map((name) => kindNamed(name, `${entity}.${field}`));
  return [{ entity, field, toKindIn: declared.toKindIn, to, whenGone: declared.whenGone }];
});

/** Every field that names an account of the organisation. */
export const PERSON_FIELDS: readonly { readonly entity: Entity; readonly field: string }[] = everyField.filter(
  ({ declared }) => declared.type === 'person',
);

/** Every field that names a file of the study, and what is in it. */
export const FILE_FIELDS: readonly { readonly entity: Entity; readonly field: string; readonly holds: FileField['holds'] }[] =
  everyField.flatMap(({ entity, field, declared }) => (declared.type === 'file' ? [{ entity, field, holds: declared.holds }] : []));
