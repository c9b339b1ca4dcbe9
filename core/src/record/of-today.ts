import { LIST_OF } from './apply-ops';
import { blankValue } from './blank';
import { ENTITIES, type Entity, type Op, type StudyRecord } from './entities';
import { evidence } from './evidence';
import { KINDS } from './kinds';
import type { Evidence, Fields } from './kinds/field';

type Values = Readonly<Record<string, unknown>>;

const isPlain = (value: unknown): value is Values => typeof value === 'object' && value !== null && !Array.isArray(value);

// —— words of before 0.7 ——

type Words = ReadonlyMap<string, string>;
/** As maps: what is read may hold any name, also one that every object has. */
const words = (of: Readonly<Record<string, string>>): Words => new Map(Object.entries(of));

const KIND_NOW = words({
  piece: 'part',
  hoist: 'liftSetUp',
  unload: 'liftStep',
  gate: 'holdPoint',
  gauge: 'gaugeStudy',
  pattern: 'holePattern',
});

/** Names of fields and of lists; no kind has a field of today by one of these names. */
const NAME_NOW = words({
  pieces: 'parts',
  hoists: 'liftSetUps',
  unloads: 'liftSteps',
  gates: 'holdPoints',
  gauges: 'gaugeStudies',
  patterns: 'holePatterns',
  pieceId: 'partId',
  expectedPieces: 'expectedParts',
  known: 'evidence',
  leastS: 'optimisticS',
  likelyS: 'mostLikelyS',
  mostS: 'pessimisticS',
  smallestM: 'minimumM',
});

/** Words of choices, by the field that holds them. */
const CHOICE_NOW: ReadonlyMap<string, Words> = new Map([
  ['aboutKind', KIND_NOW],
  ['depth', words({ pieces: 'parts' })],
  ['assembliesAs', words({ pieces: 'parts' })],
]);

/** The same value in the words of today; the same object when all its words are of today, as with nearly all of thousands. */
export const wordsOfToday = (value: unknown): unknown => {
  if (Array.isArray(value)) {
    const now = value.map(wordsOfToday);
    return now.some((item, at) => item !== value[at]) ? now : value;
  }
  if (!isPlain(value)) return value;
  const now = Object.entries(value).map(([name, held]): readonly [string, unknown] => {
    const choices = CHOICE_NOW.get(name);
    return [NAME_NOW.get(name) ?? name, choices && typeof held === 'string' ? (choices.get(held) ?? held) : wordsOfToday(held)];
  });
  return now.some(([name, held]) => !Object.hasOwn(value, name) || value[name] !== held) ? Object.fromEntries(now) : value;
};

// —— fields that came later ——

const laterOf = (fields: Fields): object | null => {
  const later = Object.entries(fields).filter(([, field]) => field.later);
  return later.length === 0 ? null : Object.fromEntries(later.map(([name, field]) => [name, blankValue(field)]));
};

/** Fields that kinds of record got later, with what they hold where nothing was ever said. */
const LATER = Object.fromEntries(
  ENTITIES.flatMap((entity) => {
    const later = laterOf(KINDS[entity].fields);
    return later ? [[entity, later]] : [];
  }),
) as Readonly<Partial<Record<Entity, object>>>;

/** The fields with those that came later; the same object when nothing is missing. */
const withLater = (fields: Values, later: object | undefined): Values =>
  !later || Object.keys(later).every((field) => Object.hasOwn(fields, field)) ? fields : { ...later, ...fields };

// —— the mass, whose uncertainty, mark and typed text stood in fields of their own ——

const OWN_FIELDS = ['massUKg', 'massEvidence', 'massTyped'] as const;

/** A mass with its evidence, as far as it is known. What was said of a mass that was taken back stays until it is there again. */
interface MassNow {
  readonly kg: number | null;
  readonly said: Evidence | null;
}

const saidNow = ({ kg, said }: MassNow): Evidence | null => (kg === null ? null : said);

const WEIGHED: readonly Entity[] = ENTITIES.filter((entity) => 'massEachKg' in KINDS[entity].fields);
const isWeighed = (entity: Entity): boolean => WEIGHED.includes(entity);

const saysMass = (fields: Values): boolean =>
  'massEachKg' in fields || OWN_FIELDS.some((field) => field in fields) || (isPlain(fields.evidence) && 'massEachKg' in fields.evidence);
const saysOld = (fields: Values): boolean => OWN_FIELDS.some((field) => field in fields);

/** What a mass is once some of its old fields are laid over it. */
const massAfter = (before: MassNow, fields: Values): MassNow => {
  const kg = 'massEachKg' in fields ? (fields.massEachKg as number | null) : before.kg;
  const own = isPlain(fields.evidence) && 'massEachKg' in fields.evidence ? (fields.evidence.massEachKg as Evidence | null) : undefined;
  const was = before.said ?? evidence('?');
  const from = own === undefined ? was : { ...was, instrument: own?.instrument ?? '', source: own?.source ?? '' };
  const said = {
    ...from,
    ...('massUKg' in fields ? { u: fields.massUKg as number | null } : {}),
    ...('massEvidence' in fields && fields.massEvidence !== null ? { mark: fields.massEvidence as Evidence['mark'] } : {}),
    ...('massTyped' in fields ? { typed: fields.massTyped as string | null } : {}),
  };
  return { kg, said };
};

const withMass = (fields: Values, said: Evidence | null | undefined): Values => {
  const rest = Object.fromEntries(Object.entries(fields).filter(([field]) => !(OWN_FIELDS as readonly string[]).includes(field)));
  const { massEachKg: _before, ...others } = (isPlain(rest.evidence) ? rest.evidence : {}) as Readonly<Record<string, Evidence>>;
  if (said === undefined) return Object.keys(others).length > 0 ? { ...rest, evidence: others } : withoutEvidence(rest);
  return { ...rest, evidence: { ...others, massEachKg: said } };
};

const withoutEvidence = ({ evidence: _evidence, ...rest }: Values): Values => rest;

const NO_MASS: MassNow = { kg: null, said: null };

/** All fields of a row, as they are kept now. */
const whole = (entity: Entity, fields: Values): Values => {
  if (!isWeighed(entity) || !saysOld(fields)) return fields;
  return { evidence: {}, ...withMass(fields, saidNow(massAfter(NO_MASS, fields)) ?? undefined) };
};

/**
 * What the mass of each row was as the ops of before 0.7 went by. An edit of then may hold a part of a mass alone, a new uncertainty
 * or mark; what it leaves is told from what the row was.
 */
export type Masses = Map<string, MassNow>;

/** The masses of rows as they are now. */
export const massesOf = (record: StudyRecord): Masses => {
  const masses: Masses = new Map();
  for (const entity of WEIGHED)
    for (const row of record[LIST_OF[entity as keyof typeof LIST_OF]] as readonly {
      id: string;
      massEachKg: number | null;
      evidence: Values;
    }[])
      masses.set(row.id, { kg: row.massEachKg, said: (row.evidence.massEachKg as Evidence | undefined) ?? null });
  return masses;
};

interface AnyOp {
  readonly kind: string;
  readonly id: string;
  readonly fields?: Values;
  readonly was?: Values;
}

const isOp = (op: unknown): op is AnyOp =>
  isPlain(op) &&
  typeof op.kind === 'string' &&
  typeof op.id === 'string' &&
  [op.fields, op.was].every((said) => said === undefined || isPlain(said));

const entityOf = (op: AnyOp): Entity | null => {
  const entity = op.kind.split('.')[0] ?? '';
  return Object.hasOwn(KINDS, entity) ? (entity as Entity) : null;
};

const renamed = (op: AnyOp): AnyOp => {
  const [entity = '', verb = ''] = op.kind.split('.');
  const now = KIND_NOW.get(entity);
  const kind = now === undefined ? op.kind : `${now}.${verb}`;
  const [fields, was] = [wordsOfToday(op.fields), wordsOfToday(op.was)];
  if (kind === op.kind && fields === op.fields && was === op.was) return op;
  return { ...op, kind, ...(fields === undefined ? {} : { fields }), ...(was === undefined ? {} : { was }) } as AnyOp;
};

/** An edit that holds a part of a mass, which only what the row was can complete. */
const editOfMass = (op: AnyOp, before: MassNow | undefined): AnyOp => {
  const [was, fields] = [op.was ?? {}, op.fields ?? {}];
  if (before === undefined) return op;
  const seen = massAfter(before, was);
  const [from, to] = [saidNow(seen), saidNow(massAfter(seen, fields))];
  const isSame = JSON.stringify(from) === JSON.stringify(to);
  return { ...op, was: withMass(was, isSame ? undefined : from), fields: withMass(fields, isSame ? undefined : to) };
};

/**
 * An op that an older version of the program wrote, in the words of today. Anything else as it is.
 *
 * @param masses what the rows it edits weighed; it learns from the op. An edit of a part of a mass, of a row that is not among them,
 * keeps its old fields
 */
export const opOfToday = (op: unknown, masses: Masses = new Map()): unknown => {
  if (!isOp(op)) return op;
  const now = renamed(op);
  const entity = entityOf(now);
  if (entity === null) return now;
  const verb = now.kind.split('.')[1];
  if (verb === 'edit') {
    const [was, fields] = [now.was ?? {}, now.fields ?? {}];
    if (!isWeighed(entity) || !(saysMass(was) || saysMass(fields))) return now;
    const isOld = [op.was ?? {}, op.fields ?? {}].some((said) => saysOld(said) || 'known' in said);
    const before = masses.get(now.id);
    if (before !== undefined) masses.set(now.id, massAfter(before, isOld ? fields : inOwnFields(fields)));
    return isOld ? editOfMass(now, before) : now;
  }
  const fields = now.fields && withLater(whole(entity, now.fields), LATER[entity]);
  const was = now.was && whole(entity, now.was);
  if (now.fields && isWeighed(entity)) masses.set(now.id, massAfter(NO_MASS, saysOld(now.fields) ? now.fields : inOwnFields(now.fields)));
  return fields === now.fields && was === now.was ? now : { ...now, ...(fields ? { fields } : {}), ...(was ? { was } : {}) };
};

/** An edit of today as `massAfter` reads one. */
const inOwnFields = (fields: Values): Values => {
  const said = isPlain(fields.evidence) ? (fields.evidence.massEachKg as Evidence | null | undefined) : undefined;
  return said ? { ...fields, massUKg: said.u, massEvidence: said.mark, massTyped: said.typed } : fields;
};

/**
 * A change of an older version, with what undoes it, in the words of today.
 *
 * @param masses what the rows weighed before it; it learns from the ops
 */
export const changeOfToday = <C extends { readonly ops: readonly Op[]; readonly inverse: readonly Op[] | null }>(
  change: C,
  masses: Masses,
): C => {
  const before: Masses = new Map();
  for (const { id } of change.ops) if (masses.has(id) && !before.has(id)) before.set(id, masses.get(id)!);
  const ops = change.ops.map((op) => opOfToday(op, masses) as Op);
  // what undoes it begins where it ended, each row by itself
  const after = (id: string): Masses => new Map(masses.has(id) ? [[id, masses.get(id)!]] : []);
  const inverse = change.inverse?.map((op) => undoing(opOfToday(op, after(op.id)), before.get(op.id))) ?? null;
  const isSame = ops.every((op, at) => op === change.ops[at]) && (inverse ?? []).every((op, at) => op === change.inverse?.[at]);
  return isSame ? change : { ...change, ops, inverse };
};

/** What undoes an edit leaves the mass as it was, to the letter. */
const undoing = (op: unknown, before: MassNow | undefined): Op => {
  if (!isOp(op) || !op.fields || before === undefined || !isPlain(op.fields.evidence) || !('massEachKg' in op.fields.evidence))
    return op as Op;
  const now = { ...op, fields: { ...op.fields, evidence: { ...op.fields.evidence, massEachKg: saidNow(before) } } };
  return JSON.stringify(now) === JSON.stringify(op) ? (op as unknown as Op) : (now as unknown as Op);
};

/** A record that was kept by an older version, as a record of today. */
export const recordOfToday = (record: StudyRecord): StudyRecord => {
  const held = wordsOfToday(record) as StudyRecord;
  const lists = Object.entries(LIST_OF).map(([entity, list]) => {
    const rows = (held[list] as unknown as readonly Values[] | undefined) ?? [];
    return [list, rows.map((row) => withLater(whole(entity as Entity, row), LATER[entity as Entity]))];
  });
  return { ...held, ...Object.fromEntries(lists), study: { ...LATER.study, ...held.study } } as StudyRecord;
};

/** Whether an op of an older version holds a part of a mass that only what the row was can complete. */
export const isPartOfMass = (op: unknown): boolean => {
  if (!isOp(op)) return false;
  const entity = entityOf(renamed(op));
  return entity !== null && isWeighed(entity) && [op.fields, op.was].some((said) => said && (saysOld(said) || 'known' in said));
};
