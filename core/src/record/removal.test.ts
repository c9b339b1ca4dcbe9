import fc from 'fast-check';
import { FULL_ROWS, ROW_ID } from '../../testing/rows';
import { BLANK, STUDY, testId } from '../../testing/teardown';
import { applyOps, rowsOf } from './apply-ops';
import { blank, emptyRecord } from './blank';
import { ENTITIES, type Entity, type Op, type Part, type Scan, type Section, type StudyRecord } from './entities';
import { KINDS } from './kinds';
import type { May } from './kinds/kind';
import { ANY_REFERENCES, REFERENCES } from './references';
import { removalOps } from './removal';

const part = (n: number, parentId: string | null = null): Part => ({ ...BLANK, id: testId(n), version: 1, parentId });
const scan = (n: number, partId: string): Scan => ({ id: testId(n), version: 1, partId, sequence: 0 }) as Scan;
const section = (n: number, partId: string, scanId: string | null): Section =>
  ({ id: testId(n), version: 1, partId, sequence: 0, scanId }) as Section;

describe('taking a part off', () => {
  const record: StudyRecord = {
    ...emptyRecord(STUDY),
    parts: [part(10), part(11)],
    fastenerSets: [{ id: testId(20), version: 1, ...blank('fasteners', { partId: testId(10) }) }],
    scans: [scan(30, testId(10)), scan(31, testId(11))],
    sections: [section(40, testId(10), testId(30)), section(41, testId(11), testId(30)), section(42, testId(11), testId(31))],
  };
  const ops = removalOps(record, 'part', [testId(10)]);
  it('takes its sets, scans and sections with it', () =>
    expect(ops.filter((op) => op.kind.endsWith('.remove')).map((op) => [op.kind, op.id])).toEqual([
      ['section.remove', testId(40)],
      ['scan.remove', testId(30)],
      ['fasteners.remove', testId(20)],
      ['part.remove', testId(10)],
    ]));
  it('leaves a section of another part that was cut from its scan, without the scan', () =>
    expect(ops.filter((op) => op.kind === 'section.edit')).toEqual([
      { kind: 'section.edit', id: testId(41), was: { scanId: testId(30) }, fields: { scanId: null } },
    ]));
});

/** Every id that a row of the record names, and that is not there. */
const danglingIn = (record: StudyRecord): readonly string[] => {
  const there = new Set(ENTITIES.flatMap((entity) => rowsOf(record, entity).map((row) => `${entity} ${row.id}`)));
  const said = (row: object, field: string): unknown => (row as Readonly<Record<string, unknown>>)[field];
  return [
    ...REFERENCES.flatMap(({ entity, field, to }) =>
      rowsOf(record, entity).flatMap((row) =>
        ([said(row, field)].flat() as readonly (string | null)[]).flatMap((id) =>
          id === null || there.has(`${to} ${id}`) ? [] : [`${entity}.${field}`],
        ),
      ),
    ),
    ...ANY_REFERENCES.filter(({ whenGone }) => whenGone !== 'stays').flatMap(({ entity, field, toKindIn }) =>
      rowsOf(record, entity).flatMap((row) =>
        there.has(`${String(said(row, toKindIn))} ${String(said(row, field))}`) ? [] : [`${entity}.${field}`],
      ),
    ),
  ];
};

describe('taking off a record of any kind', () => {
  it.each(REFERENCES.filter(({ whenGone }) => whenGone === 'clear').map(({ entity, field }) => [entity, field] as const))(
    '%s, %s: is forgotten by somebody who may',
    (entity, field) => {
      const { roles, onlyFields }: May = KINDS[entity].may.edit;
      expect(roles.filter((role) => onlyFields?.[role]?.includes(field) ?? true)).toContain('lead');
    },
  );

  const full = applyOps(
    emptyRecord({ id: ROW_ID.study, version: 1, ...FULL_ROWS.study }),
    ENTITIES.filter((e) => e !== 'study').map(
      (entity) => ({ kind: `${entity}.add`, id: ROW_ID[entity], fields: FULL_ROWS[entity] }) as unknown as Op,
    ),
    1,
  );
  const refused = new Set<Entity>(REFERENCES.filter(({ whenGone }) => whenGone === 'refuse').map(({ to }) => to));
  const KINDS_OFF = ENTITIES.filter((entity) => entity !== 'study' && !refused.has(entity)).map((entity) => [entity] as const);

  it('begins with a study in which nothing is named that is not there', () => expect(danglingIn(full)).toEqual([]));
  it.each(KINDS_OFF)('%s: leaves nothing that names what is gone', (entity) => {
    const after = applyOps(full, removalOps(full, entity, [ROW_ID[entity]]), 2);
    expect(rowsOf(after, entity)).toEqual([]);
    expect(danglingIn(after)).toEqual([]);
  });
  it('takes an assembly off with everything inside it, however deep, and leaves the rest', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(20), { minLength: 1, maxLength: 20 }), fc.nat(19), (parents, off) => {
        const parts = parents.map((at, n) => part(n, at < n ? testId(at) : null));
        const inside = (p: Part): boolean =>
          p.id === testId(off) || (p.parentId !== null && inside(parts.find((q) => q.id === p.parentId)!));
        const record = { ...emptyRecord(STUDY), parts };
        const after = applyOps(record, removalOps(record, 'part', [testId(off)]), 2);
        expect(after.parts).toEqual(parts.filter((p) => !inside(p)));
      }),
    );
  });
});
