import type { EvidenceMark } from '../shared';
import { evidenceFor, type KnowingEntity, type Entity, type EvidenceOf, type Explained, type Op, type Part } from '../record';
import type { About, Finding, Suspect, Told } from './finding';
import type { Ground } from './ground';

/** A figure of a row with its uncertainty and mark. */
export const told = (entity: KnowingEntity, row: { readonly evidence: EvidenceOf }, field: string): Told => {
  const said = evidenceFor(entity, row, field);
  return { value: Number((row as unknown as Record<string, unknown>)[field]), u: said?.u ?? 0, mark: said?.mark ?? null };
};

/** A figure that was worked out. */
export const worked = (value: number, u: number, mark: EvidenceMark | null = null): Told => ({ value, u, mark });

type Said = Pick<Finding, 'title' | 'says'> &
  Partial<Pick<Finding, 'compared' | 'suspects'>> & { readonly part?: Part | undefined; readonly beside?: string };

/** What a finding is known by, from one run to the next. */
export const findingKey = ({ check, aboutId, field, beside }: Pick<Explained, 'check' | 'aboutId' | 'field' | 'beside'>): string =>
  [check, aboutId, field, beside].join(' ').trimEnd();

/** A finding about a record; `beside` tells two of one check about one field apart. */
export const finding = (check: string, about: About, { part, beside = '', ...said }: Said, vehicleId: string | null = null): Finding => ({
  ...{ key: findingKey({ check, aboutId: about.id, field: about.field ?? '', beside }), check, about, compared: null, suspects: [] },
  ...{ beside, partId: part?.id ?? null, vehicleId: part?.vehicleId ?? vehicleId },
  ...said,
});

/** A finding about a field of a part. */
export const ofPart = (check: string, part: Part, field: string | null, said: Omit<Said, 'part'>): Finding =>
  finding(check, { entity: 'part', id: part.id, field }, { ...said, part });

/** The edit of one field of a row. */
export const editOp = (entity: Entity, row: { readonly id: string }, field: string, value: unknown): Op =>
  ({
    kind: `${entity}.edit`,
    id: row.id,
    was: { [field]: (row as Readonly<Record<string, unknown>>)[field] },
    fields: { [field]: value },
  }) as unknown as Op;

/** A cause that nobody can mend by a value: somebody has to look. */
export const toLookAt = (key: string, rule: Suspect['rule'], says: string, short: string, fit: number): Suspect => ({
  ...{ key, rule, says, short, fit, mend: null },
});

export const nameOf = (ground: Ground, part: Part): string => `${part.name}, ${ground.vehicleName(part.vehicleId)}`;
