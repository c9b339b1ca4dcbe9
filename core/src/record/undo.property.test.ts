import fc from 'fast-check';
import { BARE_ROWS, FULL_ROWS } from '../../testing/rows';
import { recordOf, testId } from '../../testing/teardown';
import { LIST_OF, applyOps, namedRows, rowsOf } from './apply-ops';
import { editTo, fieldsOf, removeOp } from './cells';
import { ENTITIES, type Entity, type Op, type StudyRecord } from './entities';
import { inverseOps, netEffect } from './net-effect';

type Kind = Exclude<Entity, 'study'>;
const KINDS = ENTITIES.filter((entity): entity is Kind => entity !== 'study');

/** An act on the nth row of a kind: add one, make it full or bare, take it off. */
const ACT = fc.record({
  entity: fc.constantFrom(...KINDS),
  act: fc.constantFrom('add full', 'add bare', 'make full', 'make bare', 'remove'),
  at: fc.nat(3),
});
interface Act {
  readonly entity: Kind;
  readonly act: string;
  readonly at: number;
}

let made = 0;
const opOf = (record: StudyRecord, { entity, act, at }: Act): readonly Op[] => {
  if (act.startsWith('add'))
    return [
      { kind: `${entity}.add`, id: testId(10_000 + made++), fields: (act === 'add full' ? FULL_ROWS : BARE_ROWS)[entity] } as unknown as Op,
    ];
  const rows = rowsOf(record, entity);
  const row = rows[at % Math.max(1, rows.length)];
  if (!row) return [];
  if (act === 'remove') return [removeOp(entity, row as never)];
  const edit = editTo(entity, row as never, (act === 'make full' ? FULL_ROWS : BARE_ROWS)[entity]);
  return edit ? [edit] : [];
};

/** What a record says, whatever the order and the revisions of its rows. */
const said = (record: StudyRecord): object =>
  Object.fromEntries(
    Object.values(LIST_OF).map((list) => [
      list,
      [...record[list]].sort((a, b) => (a.id < b.id ? -1 : 1)).map((row) => [row.id, fieldsOf(row as never)]),
    ]),
  );

describe('changes of any kinds of record', () => {
  it('undone from the last to the first leave the record as it was, and done again as it had become', () =>
    fc.assert(
      fc.property(fc.array(fc.array(ACT, { minLength: 1, maxLength: 4 }), { maxLength: 10 }), (changes) => {
        let record = recordOf();
        const before = said(record);
        const undo: (readonly Op[])[] = [];
        for (const acts of changes) {
          // each act of a change sees what those before it made
          const ops: Op[] = [];
          let seen = record;
          for (const act of acts) {
            const more = opOf(seen, act);
            ops.push(...more);
            seen = applyOps(seen, more, record.revision + 1);
          }
          const { effects, conflicts } = netEffect(ops, namedRows(record, ops), record.revision + 1);
          expect(conflicts).toEqual([]);
          undo.push(inverseOps(effects));
          record = applyOps(record, ops, record.revision + 1);
          expect(said(record)).toEqual(said(seen));
        }
        const after = said(record);
        const redo: (readonly Op[])[] = [];
        for (const ops of [...undo].reverse()) {
          const { effects, conflicts } = netEffect(ops, namedRows(record, ops), record.revision + 1);
          expect(conflicts).toEqual([]);
          redo.push(inverseOps(effects));
          record = applyOps(record, ops, record.revision + 1);
        }
        expect(said(record)).toEqual(before);
        for (const ops of [...redo].reverse()) record = applyOps(record, ops, record.revision + 1);
        expect(said(record)).toEqual(after);
      }),
      { numRuns: 120 },
    ));
  it('that come to nothing in the end leave nothing to undo', () =>
    fc.assert(
      fc.property(fc.constantFrom(...KINDS), (entity) => {
        const record = recordOf();
        const [add] = opOf(record, { entity, act: 'add full', at: 0 });
        const row = rowsOf(applyOps(record, [add!], 1), entity).at(-1)!;
        const ops = [add!, removeOp(entity, row as never)];
        expect(netEffect(ops, namedRows(record, ops), 1)).toMatchObject({ effects: [], conflicts: [] });
      }),
    ));
});
