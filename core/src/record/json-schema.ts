import { ENTITIES, type Entity } from './entities';
import { KINDS } from './kinds';
import type { Field, Fields } from './kinds/field';

/** A JSON Schema, draft 2020-12. */
type JsonSchema = Readonly<Record<string, unknown>>;

const UUID = '^[0-9a-f]{8}-[0-9a-f]{4}-[1-5][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$';

const ofObject = (fields: Fields, more: JsonSchema = {}): JsonSchema => {
  const properties = { ...more, ...Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, ofField(field)])) };
  return { type: 'object', properties, required: Object.keys(properties), additionalProperties: false };
};

const bare = (field: Field): JsonSchema => {
  switch (field.type) {
    case 'text':
      return {
        ...{ type: 'string', maxLength: field.max },
        ...(field.needed ? { pattern: '\\S' } : {}),
        ...(field.pattern ? { pattern: field.pattern.is.source } : {}),
      };
    case 'number':
      return {
        type: field.whole ? 'integer' : 'number',
        ...(field.above === undefined ? {} : { exclusiveMinimum: field.above }),
        ...(field.min === undefined ? {} : { minimum: field.min }),
        ...(field.max === undefined ? {} : { maximum: field.max }),
      };
    case 'choice':
      return { enum: field.choices };
    case 'flag':
      return { type: 'boolean' };
    case 'date':
      return { type: 'string', format: 'date' };
    case 'instant':
      return { type: 'string', format: 'date-time' };
    case 'local time':
      return { type: 'string', pattern: '^\\d{4}-\\d{2}-\\d{2}T\\d{2}:\\d{2}$' };
    case 'price':
      return { type: 'string', pattern: '^\\d{1,9}(\\.\\d{1,4})?$' };
    case 'reference':
    case 'any reference':
    case 'person':
      return { type: 'string', pattern: UUID };
    case 'library':
      return { type: 'string', maxLength: 60 };
    case 'file':
      return { type: 'string', pattern: '^[0-9a-f]{64}$' };
    case 'list':
      return { type: 'array', items: ofField(field.item as Field), maxItems: field.most };
    case 'tuple':
      return { type: 'array', items: ofField(field.item as Field), minItems: field.size, maxItems: field.size };
    case 'group':
      return ofObject(field.fields as Fields);
    case 'by name':
      return { type: 'object', additionalProperties: ofField(field.item as Field) };
    case 'evidence':
      return { type: 'object', additionalProperties: { $ref: '#/$defs/evidence' } };
  }
};

/** What the field is, in words: its label and its unit. */
const titled = (field: Field): JsonSchema => ({
  title: field.type === 'number' && field.unit !== '' ? `${field.label}, ${field.unit}` : field.label,
});

const ofField = (field: Field): JsonSchema => {
  const schema = bare(field);
  return { ...titled(field), ...(field.optional ? { anyOf: [schema, { type: 'null' }] } : schema) };
};

const EVIDENCE: JsonSchema = {
  title: 'How a value is known',
  type: 'object',
  properties: {
    mark: { enum: ['M', 'C', 'S', 'P', 'T', 'R', 'I', '?'] },
    u: { title: 'Standard uncertainty in the unit of the field', type: ['number', 'null'] },
    low: { type: ['number', 'null'] },
    high: { type: ['number', 'null'] },
    typed: { title: 'As typed, with its unit', type: ['string', 'null'] },
    instrument: { type: 'string' },
    source: { type: 'string' },
  },
  required: ['mark', 'u', 'low', 'high', 'typed', 'instrument', 'source'],
  additionalProperties: false,
};

const ROW: JsonSchema = {
  id: { title: 'Id of the record', type: 'string', pattern: UUID },
  version: { title: 'Revision of the study that wrote it last', type: 'integer', minimum: 1 },
};

/** The JSON Schema of a row of a kind, with its id and version; it refers to `$defs` of `recordSchema`. */
const rowSchema = (entity: Entity): JsonSchema => ({ title: KINDS[entity].words[0], ...ofObject(KINDS[entity].fields, ROW) });

/** Definitions that the schema of a record refers to: every kind of row, and how values are known. */
const DEFINITIONS: JsonSchema = { evidence: EVIDENCE, ...Object.fromEntries(ENTITIES.map((entity) => [entity, rowSchema(entity)])) };

const RECORD: JsonSchema = {
  type: 'object',
  properties: {
    revision: { title: 'Number of the last change', type: 'integer', minimum: 1 },
    ...Object.fromEntries(
      ENTITIES.map((entity) => {
        const row = { $ref: `#/$defs/${entity}` };
        const { list, words } = KINDS[entity];
        return list === null ? [entity, row] : [list, { title: words[1], type: 'array', items: row }];
      }),
    ),
  },
  required: ['revision', ...ENTITIES.map((entity) => KINDS[entity].list ?? entity)],
  additionalProperties: false,
};

const PERSON: JsonSchema = {
  type: 'object',
  properties: { id: { type: 'string', pattern: UUID }, login: { type: 'string' }, name: { type: 'string' } },
  required: ['id', 'login', 'name'],
  additionalProperties: false,
};

/** The JSON Schema of `study.json` of an archive, for programs of others: the record of a study and the people it names. */
export const STUDY_FILE_SCHEMA: JsonSchema = {
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: 'A study',
  type: 'object',
  properties: { record: RECORD, people: { type: 'array', items: PERSON } },
  required: ['record', 'people'],
  additionalProperties: false,
  $defs: DEFINITIONS,
};
