import { circleIn } from '@each-bolt/core/plan';
import { issue, type Issue } from '@each-bolt/core/shared';
import { ENTITIES, KINDS, fieldsIn, REFERENCES, type Entity, type RowEffect, type Unique } from '@each-bolt/core/record';
import { tagRule } from '../bench/rules';
import type { Db } from '../db/pool';
import { circling, checkHeld, danglingHeld, danglingLookedAt, named, tooMany, type Dangling, type OneTooMany } from '../db/references';
import { memberRule, questionRule } from '../record/rules';
import { planForMany } from './queries';
import { LARGE_OPS, type RecordRule } from '../db/store';

/** Rules across rows that a declaration does not say, by the kinds they are about. */
const RULES: readonly { readonly rule: RecordRule; readonly of: readonly Entity[] }[] = [
  { rule: memberRule, of: ['study', 'member'] },
  { rule: questionRule, of: ['question'] },
  { rule: tagRule, of: ['part'] },
];

const oneOf = (kind: Entity): string => KINDS[kind].words[0];

/** The word for what a row and the one it names must both be of. */
const ownerOf = (entity: Entity, field: string): string => {
  const alike = REFERENCES.find((reference) => reference.entity === entity && reference.field === field)?.alike ?? null;
  const owner = REFERENCES.find((reference) => reference.entity === entity && reference.field === alike);
  return owner ? oneOf(owner.to) : 'owner';
};

const danglingText = ({ name, entity, field, to, isElsewhere }: Dangling): Issue => {
  if (to === 'person') return issue('person-missing', 'There is no account for this person', field);
  if (to === 'file') return issue('file-missing', `The file of the ${oneOf(entity)} “${name}” has not arrived; send it first`, field);
  const owner = ownerOf(entity, field);
  if (isElsewhere) return issue(`${to}-elsewhere`, `“${name}” names a ${oneOf(to)} of another ${owner}; choose one of its own`, field);
  const declared = fieldsIn(entity)[field];
  const choose = declared?.type === 'list' ? 'take it out' : declared?.optional ? 'choose another or none' : 'choose another';
  return issue(
    `${to}-missing`,
    `“${name}” would name a ${oneOf(to)} that is not in this study; ${choose}, or take “${name}” off in the same change`,
    field,
  );
};

const of = (found: Dangling): Issue => ({ ...danglingText(found), recordId: found.id });

const uniqueOf = (entity: Entity): readonly Unique<string>[] =>
  (KINDS[entity] as { readonly unique?: readonly Unique<string>[] }).unique ?? [];

const tooManyText = ({ id, name, entity, code }: OneTooMany): Issue => {
  const { says, fields } = uniqueOf(entity).find((unique) => unique.code === code)!;
  return issue(code, says.replace('${name}', name), fields[0] ?? 'id', id);
};

/** What rows of a change name and is not there, and what is there twice. */
const heldTogether = async (
  db: Db,
  studyId: string,
  effects: readonly RowEffect[],
  written: ReadonlySet<Entity>,
  inWords: boolean,
): Promise<readonly Issue[]> => {
  const ids = effects.map(({ id }) => id);
  const changed = new Set(effects.flatMap((effect) => (wasAdded(effect) ? [] : [effect.entity])));
  const held = inWords ? [...(await danglingHeld(db, studyId, ids)).map(of), ...(await tooMany(db, studyId, ids)).map(tooManyText)] : [];
  const found = [...held, ...(await danglingLookedAt(db, studyId, ids, written, changed)).map(of)];
  if (found.length === 0) await checkHeld(db);
  return found;
};

const wasAdded = ({ before, after }: RowEffect): boolean => before === null && after !== null;

const circles = async (db: Db, studyId: string, entity: Entity, field: string, touched: readonly string[]): Promise<readonly Issue[]> => {
  const says = (name: string): string => `“${name}” would be inside itself, or wait for itself, by way of others`;
  if (fieldsIn(entity)[field]?.type !== 'list')
    return (await circling(db, studyId, entity, field, touched)).map(({ id, name }) => issue('cycle', says(name), field, id));
  const rows = await named(db, studyId, entity, field);
  const placeOf = new Map(rows.map(({ id }, place) => [id, place]));
  const circle = circleIn(rows.map(({ names }) => names.flatMap((id) => placeOf.get(id) ?? [])));
  const first = rows[circle?.[0] ?? -1];
  return first ? [issue('cycle', says(first.name), field, first.id)] : [];
};

/** New rows that name each other in a circle, found without asking the database; of lists, all of them. */
const inCircle = (added: readonly RowEffect[], field: string): readonly RowEffect[] => {
  const valueOf = ({ after }: RowEffect): unknown => (after as Readonly<Record<string, unknown>> | null)?.[field];
  const byId = new Map(added.map((effect) => [effect.id, effect]));
  // what is known to lead to an end
  const ending = new Set<unknown>();
  return added.filter((first) => {
    const path = new Set<unknown>();
    for (let at: RowEffect | undefined = first; at && !ending.has(at.id);) {
      if (path.has(at.id)) return true;
      path.add(at.id);
      const next = valueOf(at);
      if (Array.isArray(next)) return true;
      at = typeof next === 'string' ? byId.get(next) : undefined;
    }
    for (const id of path) ending.add(id);
    return false;
  });
};

/**
 * What the rows of a change leave broken across rows. References that the database holds are not looked for: where one is broken it
 * throws, and who kept the change does so once more, to be told in words.
 *
 * @param inWords look for those too
 */
export const brokenRules = async (db: Db, studyId: string, effects: readonly RowEffect[], inWords: boolean): Promise<readonly Issue[]> => {
  const isMany = effects.length > LARGE_OPS;
  const written = new Set(effects.flatMap(({ entity, after }) => (after === null ? [] : [entity])));
  const issues = [...(await heldTogether(db, studyId, effects, written, inWords))];
  if (isMany) await planForMany(db, true);
  for (const entity of ENTITIES) {
    const { noCircle } = KINDS[entity] as { readonly noCircle?: string };
    if (noCircle === undefined || !written.has(entity)) continue;
    const ofKind = effects.filter((effect) => effect.entity === entity);
    // nothing that was there before is inside what was only just added: a circle of new rows is one of new rows alone
    const touched = (ofKind.every(wasAdded) ? inCircle(ofKind, noCircle) : ofKind).map(({ id }) => id);
    if (touched.length === 0) continue;
    issues.push(...(await circles(db, studyId, entity, noCircle, touched)));
  }
  for (const { rule, of: kinds } of RULES) {
    const touched = effects.filter(({ entity }) => kinds.includes(entity));
    if (touched.length > 0) issues.push(...(await rule(db, studyId, touched)));
  }
  if (isMany) await planForMany(db, false);
  return issues;
};
