import type { EvidenceMark } from '../shared';
import type { Entity } from './entities';
import { KINDS } from './kinds';
import type { Fields, Evidence, EvidenceOf } from './kinds/field';
import { evidence } from './evidence';

/** Kinds of record whose values say how they are known. */
export type KnowingEntity = {
  readonly [E in Entity]: 'evidence' extends keyof (typeof KINDS)[E]['fields'] ? E : never;
}[Entity];
/** Whether rows of this kind say how their fields are known. */
export const isKnowing = (entity: Entity): entity is KnowingEntity => 'evidence' in KINDS[entity].fields;

const fieldsOf = (entity: Entity): Fields => KINDS[entity].fields;

/** Fields that say how they are known, in the order of the record. */
export const knowingFields = (entity: KnowingEntity): readonly string[] =>
  Object.entries(fieldsOf(entity)).flatMap(([name, { evidence }]) => (evidence === undefined ? [] : [name]));

/**
 * What goes without saying of a field: unless something else is said, a count was counted, a dimension measured, and everything else
 * seen on the part. A price and the headline figures of a vehicle are told by somebody.
 */
export const impliedMark = (entity: KnowingEntity, field: string): EvidenceMark | null => fieldsOf(entity)[field]?.evidence ?? null;

/** How a value of a row is known, or null where the field holds nothing or says nothing. */
export const evidenceFor = (entity: KnowingEntity, row: { readonly evidence: EvidenceOf }, field: string): Evidence | null => {
  const value = (row as unknown as Readonly<Record<string, unknown>>)[field];
  if (value === null || value === undefined || value === '') return null;
  const said = row.evidence[field] ?? null;
  const mark = impliedMark(entity, field);
  return said ?? (mark === null ? null : evidence(mark));
};
