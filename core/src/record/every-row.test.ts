import { BARE_ROWS, FULL_ROWS, ROW_ID } from '../../testing/rows';
import { testId } from '../../testing/teardown';
import { LIST_OF, applyOps, namedRows, rowsOf } from './apply-ops';
import { emptyRecord } from './blank';
import { editOp, editTo, removeOp } from './cells';
import { schemaOf } from './contract';
import { ENTITIES, type Entity, type FieldsOf, type Op, type RowOf, type StudyRecord } from './entities';
import { fieldLabel } from './field-words';
import { inverseOps, netEffect } from './net-effect';
import { readChange } from './read-change';
import { rowFaults } from './row-faults';

const ROWS = ENTITIES.map((entity) => [entity] as const);
const fieldNames = <E extends Entity>(entity: E): readonly (keyof FieldsOf[E] & string)[] =>
  Object.keys((schemaOf(entity) as unknown as { readonly fields: object }).fields) as (keyof FieldsOf[E] & string)[];
const FIELDS = ENTITIES.flatMap((entity) => fieldNames(entity).map((field) => [entity, field] as const));

const addOf = (entity: Entity, fields: object): Op => ({ kind: `${entity}.add`, id: ROW_ID[entity], fields }) as unknown as Op;
const faults = (op: unknown): readonly string[] => {
  const read = readChange({ id: testId(9), ops: [op], undoes: null });
  return read.ok ? [] : read.issues.map((i) => i.message);
};

/** A study with a full row of every kind. */
const full = (): StudyRecord => {
  const study = { id: ROW_ID.study, version: 1, ...FULL_ROWS.study };
  const ops = ENTITIES.filter((e) => e !== 'study').map((entity) => addOf(entity, FULL_ROWS[entity]));
  return applyOps(emptyRecord(study), ops, 1);
};
const rowIn = (record: StudyRecord, entity: Entity): RowOf<Entity> | undefined =>
  rowsOf(record, entity).find((row) => row.id === ROW_ID[entity]);

describe('a row of every kind', () => {
  it.each(ROWS)('%s: is taken full and bare, and breaks no rule of its own', (entity) => {
    for (const fields of [FULL_ROWS[entity], BARE_ROWS[entity]]) {
      expect(faults(addOf(entity, fields))).toEqual([]);
      expect(rowFaults(entity, { id: ROW_ID[entity], version: 1, ...fields })).toEqual([]);
    }
  });

  it.each(ROWS)('%s: every field of it is given in the full row, and no other', (entity) => {
    expect(Object.keys(FULL_ROWS[entity]).sort()).toEqual([...fieldNames(entity)].sort());
    expect(Object.keys(BARE_ROWS[entity]).sort()).toEqual([...fieldNames(entity)].sort());
  });

  it.each(FIELDS)('%s, %s: is named to people by words, and by them when it is left out', (entity, field) => {
    const label = fieldLabel(entity, field);
    // words begin with a capital and are not the name of the field
    expect(label).toMatch(/^[A-Z]/);
    expect(label).not.toBe(field);
    const { [field]: _left, ...rest } = FULL_ROWS[entity] as object;
    const read = readChange({ id: testId(9), ops: [addOf(entity, rest)], undoes: null });
    // a field that the record got later holds nothing in what was written before
    if (read.ok) expect((read.value.ops[0] as { fields: object }).fields).toHaveProperty(field, BARE_ROWS[entity][field]);
    else expect(read.issues.map((i) => i.message).join()).toContain(label);
  });

  it.each(FIELDS)('%s, %s: is refused when it is something of another kind, by its name', (entity, field) => {
    // nothing in the record is ever a row of empty objects, nor a bare symbol of code
    const said = faults(addOf(entity, { ...FULL_ROWS[entity], [field]: { colour: ['red'] } }));
    expect(said.length).toBeGreaterThan(0);
    expect(said.join()).not.toMatch(/NaN|undefined|\[object/);
  });

  it.each(ROWS.filter(([entity]) => entity !== 'study'))('%s: edited to the bare one and back is as it was, cell by cell', (entity) => {
    const record = full();
    const before = rowIn(record, entity)!;
    const edit = editTo(entity, before as never, BARE_ROWS[entity])!;
    const { effects, conflicts, issues } = netEffect([edit], namedRows(record, [edit]), 2);
    expect([conflicts, issues]).toEqual([[], []]);
    const edited = applyOps(record, [edit], 2);
    expect(rowIn(edited, entity)).toEqual({ id: ROW_ID[entity], version: 2, ...BARE_ROWS[entity] });
    const back = inverseOps(effects);
    expect(netEffect(back, namedRows(edited, back), 3).conflicts).toEqual([]);
    expect(rowIn(applyOps(edited, back, 3), entity)).toEqual({ ...before, version: 3 });
  });

  it.each(ROWS.filter(([entity]) => entity !== 'study'))('%s: taken off and brought back is the same row', (entity) => {
    const record = full();
    const remove = removeOp(entity, rowIn(record, entity) as never);
    const { effects } = netEffect([remove], namedRows(record, [remove]), 2);
    const without = applyOps(record, [remove], 2);
    expect(rowIn(without, entity)).toBeUndefined();
    // and no other list is touched
    for (const list of Object.values(LIST_OF))
      if (list !== LIST_OF[entity as Exclude<Entity, 'study'>]) expect(without[list]).toBe(record[list]);
    const back = applyOps(without, inverseOps(effects), 3);
    expect(rowIn(back, entity)).toEqual({ id: ROW_ID[entity], version: 3, ...FULL_ROWS[entity] });
  });

  it.each(ROWS)('%s: an edit that says what it already is, is none', (entity) =>
    expect(editOp(entity, { id: ROW_ID[entity], version: 1, ...FULL_ROWS[entity] }, FULL_ROWS[entity])).toBeNull(),
  );
});

describe('two people at one row', () => {
  /** cells of a row that differ between the full and the bare one */
  const differing = (entity: Entity): readonly string[] =>
    fieldNames(entity).filter((f) => f !== 'evidence' && JSON.stringify(FULL_ROWS[entity][f]) !== JSON.stringify(BARE_ROWS[entity][f]));

  it.each(ROWS.filter(([entity]) => differing(entity).length >= 2))(
    '%s: edits of two fields go together, in either order; of one field they clash, and both values are told',
    (entity) => {
      const record = full();
      const row = rowIn(record, entity)!;
      const [one, other] = differing(entity) as [string, string];
      const edit = (field: string, value: unknown): Op => editOp(entity, row as never, { [field]: value })!;
      const bare = (field: string): unknown => BARE_ROWS[entity][field as never];
      const [a, b] = [edit(one, bare(one)), edit(other, bare(other))];
      for (const [first, second] of [
        [a, b],
        [b, a],
      ] as const) {
        const after = applyOps(record, [first], 2);
        expect(netEffect([second], namedRows(after, [second]), 3).conflicts).toEqual([]);
        expect(rowIn(applyOps(after, [second], 3), entity)).toMatchObject({ [one]: bare(one), [other]: bare(other) });
      }
      const theirs = { ...row, [one]: 'something else' } as never;
      const { conflicts } = netEffect([a], new Map([[entity, new Map([[row.id, theirs]])]]), 3);
      expect(conflicts).toMatchObject([{ entity, verb: 'edit', cells: [{ cell: one, yours: bare(one), theirs: 'something else' }] }]);
      // who wants what is already there clashes with nobody
      const same = { ...row, [one]: bare(one) } as never;
      expect(netEffect([a], new Map([[entity, new Map([[row.id, same]])]]), 3).conflicts).toEqual([]);
    },
  );
});

describe('rules that need more than one field', () => {
  const broken: readonly (readonly [Entity, object, RegExp])[] = [
    ['part', { parentId: testId(5) }, /either under a subsystem or inside another part/],
    ['part', { subsystemId: null, parentId: ROW_ID.part }, /cannot be inside itself/],
    ['part', { evidence: {} }, /A mass needs its uncertainty/],
    ['part', { yM: null }, /all three of x, y and z/],
    ['part', { widthM: null }, /length, width and height/],
    ['part', { boughtRegion: null }, /currency, year, vehicles per year and region/],
    ['part', { closedReason: ' ' }, /why the part was left closed/],
    ['part', { quantity: 7 }, /The count 7 lies outside its own range/],
    ['fasteners', { evidence: {} }, /A mass needs its uncertainty/],
    ['fasteners', { count: 11 }, /The count 11 lies outside/],
    ['joints', { kind: 'clinch' }, /A clinch is counted; it has no length/],
    ['components', { count: 27 }, /The count 27 lies outside/],
    ['board', { widthM: null }, /needs length and width/],
    ['fluid', { evidence: {} }, /A mass needs its uncertainty/],
    ['subsystem', { parentId: ROW_ID.subsystem }, /cannot be inside itself/],
    ['question', { answer: '' }, /Say what the answer is/],
    ['question', { owedTo: ' ' }, /to whom the figure is promised/],
    ['vehicle', { price: null }, /price/],
    ['vehicle', { predecessorId: ROW_ID.vehicle }, /does not follow itself/],
    ['vehicle', { acquiredOn: '2025-12-31' }, /acquired before it was built/],
    ['picture', { rigId: ROW_ID.rig }, /either a part or a rig/],
    ['candidate', { priceYear: null }, /price/],
    ['scope', { reason: '' }, /why the subsystem stays closed/],
    ['package', { pessimisticS: null }, /optimistic, the most likely and the pessimistic time/],
    ['package', { optimisticS: 6000 }, /The optimistic time must not be above the most likely one/],
    ['package', { after: [ROW_ID.package] }, /does not wait for itself/],
    ['package', { people: 0 }, /1 people are named for a crew of 0/],
    ['package', { startedOn: null }, /that is done was started/],
    ['package', { doneOn: '2026-05-17' }, /done before it was started/],
    ['package', { agreedTo: null }, /Agreed start and finish go together/],
    ['holdPoint', { kind: 'text' }, /Only a reading has a number/],
    ['holdPoint', { low: 31 }, /lowest must not be above the highest/],
    ['liftSetUp', { pads: [] }, /three pads or more/],
    ['liftStep', { massUKg: null }, /A mass needs its uncertainty/],
    ['liftStep', { xM: null }, /both x and y/],
    ['session', { closedAt: '2026-05-19T09:00:00.000Z' }, /closed before it was opened/],
    ['step', { after: [ROW_ID.step] }, /does not wait for itself/],
    ['step', { endedAt: '2026-05-19T09:00:00.000Z' }, /ended before it began/],
    ['reading', { value: null }, /either one value or fractions/],
    ['reading', { stable: false }, /had not settled/],
    ['reading', { serial: '' }, /names its serial number/],
    ['section', { loops: [] }, /one loop of three points/],
    ['section', { loops: [[[0, 0], [1, 1]]] }, /three points at least/], // prettier-ignore
    ['section', { kind: 'channel' }, /either a shape with dimensions or an outline/],
    ['holePattern', { points: [[0, 0, 0]] }, /two points at least/],
    ['pack', { reason: ' ' }, /needs its reason/],
    ['pack', { lowestV: 4.3 }, /must be below the highest/],
    ['pack', { rollCoreM: 0.03 }, /core of a roll must be thinner/],
    ['port', { yM: null }, /all three of x, y and z/],
    ['passage', { toPortId: ROW_ID.port }, /from one port to another/],
    ['connection', { toPortId: ROW_ID.port }, /from one port to another/],
    ['boardDuty', { reason: '' }, /needs its reason/],
    ['boardDuty', { viaWallM: 2e-4 }, /at most half of what was drilled/],
    ['supply', { role: 'source', feedId: ROW_ID.port }, /source is not fed by another/],
    ['supply', { feedId: ROW_ID.supply }, /cannot feed itself/],
    ['heating', { condensesC: -10 }, /condense warmer than it evaporates/],
    ['runChange', { lengthEachM: null }, /Say the length/],
    ['runChange', { connectionId: null }, /Name the line/],
    ['runChange', { change: 'move a port', zM: null }, /all three of x, y and z/],
    ['pack', { rows: 17 }, /342 cells of a module do not stand in 17 rows/],
    ['gaugeStudy', { trials: 3 }, /a place for each person, part and time/],
    ['gaugeStudy', { persons: ['Odo'], readings: [FULL_ROWS.gaugeStudy.readings[0]] }, /two persons and two parts/],
  ];
  it.each(broken)('%s with %j is refused', (entity, fields, message) => {
    const row = { id: ROW_ID[entity], version: 1, ...FULL_ROWS[entity], ...fields } as never;
    expect(
      rowFaults(entity, row)
        .map((i) => i.message)
        .join('\n'),
    ).toMatch(message);
  });
});
