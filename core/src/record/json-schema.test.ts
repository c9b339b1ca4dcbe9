import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { fieldsOf } from '../../testing/arbitrary';
import { testId } from '../../testing/teardown';
import { ENTITIES } from './entities';
import { fieldsIn } from './field-words';
import { STUDY_FILE_SCHEMA } from './json-schema';

// ajv 8: a checker of JSON Schema that was not made here
const ajv = new Ajv({ strict: true, allowUnionTypes: true });
addFormats(ajv);
ajv.addSchema(STUDY_FILE_SCHEMA, 'study.json');
const KINDS = ENTITIES.map((entity) => [entity] as const);
const row = (fields: object): object => ({ id: testId(7), version: 3, ...fields });

describe('the JSON Schema of a study', () => {
  it.each(KINDS)('%s: takes whatever the record takes, and nothing that has a field too much or too few', (entity) => {
    const isRow = ajv.getSchema(`study.json#/$defs/${entity}`)!;
    fc.assert(
      fc.property(fieldsOf(entity), (fields) => {
        const written = JSON.parse(JSON.stringify(row(fields))) as Readonly<Record<string, unknown>>;
        expect([isRow(written), isRow.errors ?? []]).toEqual([true, []]);
        expect(isRow({ ...written, colour: 'red' })).toBe(false);
        const { version: _version, ...less } = written;
        expect(isRow(less)).toBe(false);
      }),
      { numRuns: 15 },
    );
  });
  it.each(KINDS)('%s: refuses a number where words stand, and words where a number stands', (entity) => {
    const isRow = ajv.getSchema(`study.json#/$defs/${entity}`)!;
    const plain = Object.entries(fieldsIn(entity)).filter(([, { type }]) => type === 'number' || type === 'choice' || type === 'flag');
    fc.assert(
      fc.property(
        fieldsOf(entity),
        fc.constantFrom(...(plain.length > 0 ? plain : Object.entries(fieldsIn(entity)))),
        (fields, [name, field]) => {
          const wrong = field.type === 'number' ? 'seven' : 7;
          expect(isRow(JSON.parse(JSON.stringify(row({ ...fields, [name]: wrong }))))).toBe(false);
        },
      ),
      { numRuns: 15 },
    );
  });
  it('names every field with its unit', () => {
    const { $defs } = STUDY_FILE_SCHEMA as {
      readonly $defs: Readonly<Record<string, { readonly properties: Readonly<Record<string, { readonly title?: string }>> }>>;
    };
    expect($defs.part!.properties.massEachKg!.title).toBe('Mass each, kg');
    for (const entity of ENTITIES)
      for (const [field, { title }] of Object.entries($defs[entity]!.properties))
        expect([entity, field, typeof title]).toEqual([entity, field, 'string']);
  });
});
