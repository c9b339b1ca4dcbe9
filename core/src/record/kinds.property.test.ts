import fc from 'fast-check';
import { fieldsOf, notValueOf } from '../../testing/arbitrary';
import { testId } from '../../testing/teardown';
import { ENTITIES, type Entity, type Op } from './entities';
import { fieldsIn } from './field-words';
import { readChange } from './read-change';

const read = (entity: Entity, fields: object): ReturnType<typeof readChange> =>
  readChange({ id: testId(9), ops: [{ kind: `${entity}.add`, id: testId(1), fields } as unknown as Op], undoes: null });

const KINDS = ENTITIES.map((entity) => [entity] as const);
const RUNS = { numRuns: 25 };

describe('a record of any kind', () => {
  it.each(KINDS)('%s: is taken with whatever its fields may hold, and is the same after a way through JSON', (entity) =>
    fc.assert(
      fc.property(fieldsOf(entity), (fields) => {
        const taken = read(entity, JSON.parse(JSON.stringify(fields)) as object);
        expect(taken.ok ? [] : taken.issues).toEqual([]);
        if (taken.ok) expect((taken.value.ops[0] as { fields: object }).fields).toEqual(JSON.parse(JSON.stringify(fields)));
      }),
      RUNS,
    ),
  );

  it.each(KINDS)('%s: is refused when one field holds what it may not, and the fault says which', (entity) => {
    const names = Object.keys(fieldsIn(entity));
    const wrong = fc.constantFrom(...names).chain((name) => fc.tuple(fc.constant(name), notValueOf(fieldsIn(entity)[name]!)));
    fc.assert(
      fc.property(fieldsOf(entity), wrong, (fields, [name, value]) => {
        // a field that came later may be missing: it then holds what is blank
        fc.pre(value !== undefined || fieldsIn(entity)[name]?.later !== true);
        const { [name]: _right, ...others } = fields;
        const refused = read(entity, value === undefined ? others : { ...others, [name]: value });
        expect(refused.ok).toBe(false);
        if (!refused.ok)
          for (const { field, message } of refused.issues)
            expect(`${field} ${message}`).toMatch(new RegExp(`fields\\.${name}\\b|${fieldsIn(entity)[name]!.label}`));
      }),
      { numRuns: 60 },
    );
  });
});
