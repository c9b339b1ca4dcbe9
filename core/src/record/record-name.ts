import type { Entity } from './entities';
import { KINDS } from './kinds';
import type { NameFrom } from './kinds/kind';

/** The name of a record or person by its id, as far as it is known. */
export type NameOf = (id: string) => string | null;

/** What one record of a kind is called, as a word: "work package". */
export const kindWord = (entity: Entity): string => KINDS[entity].words[0];

/** What records of a kind are called: one, and several. */
export const kindWords = (entity: Entity): readonly [one: string, many: string] => KINDS[entity].words;

/** What is said of a record that is named but is there no more. */
export const GONE = 'something taken off since';

/** What a record is called, by its fields and those it refers to. */
export const recordName = (entity: Entity, fields: object, nameOf: NameOf): string => {
  const name: NameFrom<string> = KINDS[entity].name;
  const value = (field: string): unknown => (fields as Readonly<Record<string, unknown>>)[field];
  const words = (field: string): string => {
    const said = value(field);
    return typeof said === 'string' || typeof said === 'number' ? String(said) : '';
  };
  const named = (field: string): string | null => {
    const said = value(field);
    if (!Array.isArray(said)) return nameOf(words(field));
    return said.length === 0 ? null : (said as readonly string[]).map((id) => nameOf(id) ?? GONE).join(', ');
  };
  if ('fields' in name) return name.fields.map(words).join(' ').trim();
  if ('field' in name) return words(name.field) === '' ? (name.otherwise ?? '') : words(name.field);
  const [first, second] = [named(name.of), name.and === undefined ? null : named(name.and)];
  return first === null ? name.otherwise : second === null ? first : `${first} of ${second}`;
};
