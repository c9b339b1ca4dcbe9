import type { Issue } from '../../shared';
import type { Fields, ValuesOf } from './field';

/** Every row carries its id and the revision of the study at which it last changed. */
export interface Row {
  readonly id: string;
  readonly version: number;
}

/** What a person may do in a study: everything; record; cost; or read. */
export const ROLES = ['lead', 'recorder', 'cost', 'reader'] as const;
export type Role = (typeof ROLES)[number];

/** What a record is called: by what stands in a field, by the record that a field names, or by several fields in a row. */
export type NameFrom<K> =
  | { readonly field: K; readonly otherwise?: string }
  | { readonly of: K; readonly and?: K; readonly otherwise: string }
  | { readonly fields: readonly K[] };

/** Who may make an op; where a role is limited to some fields, which. */
export interface May {
  readonly roles: readonly Role[];
  readonly onlyFields?: Partial<Readonly<Record<Role, readonly string[]>>>;
}

export interface MayDo {
  readonly add: May;
  readonly edit: May;
  readonly remove: May;
}

const NOBODY: May = { roles: [] };
export const READERS: May = { roles: ROLES };
export const WRITERS: May = { roles: ['lead', 'recorder', 'cost'] };
export const RECORDERS: May = { roles: ['lead', 'recorder'] };
export const LEADS: May = { roles: ['lead'] };

/** Whoever records may do everything with it. */
export const RECORDED: MayDo = { add: RECORDERS, edit: RECORDERS, remove: RECORDERS };
/** Whoever writes may do everything with it. */
export const WRITTEN: MayDo = { add: WRITERS, edit: WRITERS, remove: WRITERS };
/** Leads of the study may do everything with it, and nobody else. */
export const LED: MayDo = { add: LEADS, edit: LEADS, remove: LEADS };
/** It is never changed: another corrects it. */
export const UNCHANGING: May = NOBODY;

/** Fields that only one record of the study may have alike. */
export interface Unique<K> {
  readonly code: string;
  readonly fields: readonly K[];
  /** what is said of the one there is too many; `\${name}` stands for its name */
  readonly says: string;
}

/** One kind of record: everything there is to say of it. */
export interface Kind<F extends Fields = Fields, L extends string | null = string | null> {
  /** where a record of a study keeps its rows; null for the study itself */
  readonly list: L;
  /** its table in the database */
  readonly table: string;
  /** what one is called, and several */
  readonly words: readonly [one: string, many: string];
  readonly fields: F;
  readonly name: NameFrom<keyof F & string>;
  readonly may: MayDo;
  /** faults of a row by itself that need more than one of its fields */
  readonly faults?: (row: Row & ValuesOf<F>) => readonly Issue[];
  readonly unique?: readonly Unique<keyof F & string>[];
  /** the reference to its own kind that must not go in a circle */
  readonly noCircle?: keyof F & string;
}

export const kind = <const F extends Fields, const L extends string | null>(declared: Kind<F, L>): Kind<F, L> => declared;
