import type { EvidenceMark, ShownUnit } from '../shared';
import type { Entity, Op, Part } from '../record';
import type { Ground } from './ground';

/** What can not be begun with good conscience while a finding is open, the nearest first. */
export const BLOCKED = ['cost', 'assembly', 'compare', 'report'] as const;
export type Blocked = (typeof BLOCKED)[number];
export const BLOCKED_WORD: Readonly<Record<Blocked, string>> = {
  cost: 'Cost',
  assembly: 'Assembly',
  compare: 'Compare',
  report: 'Report',
};

/** `wrong`: two figures cannot both be right. `doubtful`: one of them is unlikely. `missing`: something is not recorded. */
export type Severity = 'wrong' | 'doubtful' | 'missing';

/** The record and field a finding is about. */
export interface About {
  readonly entity: Entity;
  readonly id: string;
  readonly field: string | null;
}

/** A figure as it enters a finding, SI, with its standard uncertainty and how it is known. */
export interface Told {
  readonly value: number;
  readonly u: number;
  readonly mark: EvidenceMark | null;
}

/** Two figures held against each other. */
export interface Compared {
  readonly recorded: Told;
  readonly against: Told;
  readonly readIn: ShownUnit;
}

/** Rules by which a cause is held likely. */
export type Rule =
  | 'unit'
  | 'decimal point'
  | 'weighed together'
  | 'not recorded'
  | 'counted wrong'
  | 'typed wrong'
  | 'other material'
  | 'other process'
  | 'wrong tag'
  | 'hollow'
  | 'twice'
  | 'not said'
  | 'instrument'
  | 'as it is';

/** What would explain a finding, and how to mend it. */
export interface Suspect {
  /** the same cause has the same key in every finding it explains */
  readonly key: string;
  readonly rule: Rule;
  /** the cause in words: “Mass of Bracket, lower looks like ounces” */
  readonly says: string;
  /** the same in two or three words: “ounces typed as g” */
  readonly short: string;
  /** how well it would explain the finding, 0 … 1 */
  readonly fit: number;
  readonly mend: Mend | null;
}

/** A change that would take the cause away, written out before it is taken. */
export interface Mend {
  /** the field, in words: “Mass each” */
  readonly field: string;
  readonly from: string;
  readonly to: string;
  readonly ops: readonly Op[];
}

/** Something that does not close. */
export interface Finding {
  /** the same finding has the same key after every run */
  readonly key: string;
  readonly check: string;
  readonly about: About;
  /** tells two findings of one check about one field apart; empty mostly */
  readonly beside: string;
  /** part beside which it is marked; null where it is of no part */
  readonly partId: string | null;
  readonly vehicleId: string | null;
  /** what was held together: “Closure, Carrier module” */
  readonly title: string;
  /** what is wrong, in a sentence */
  readonly says: string;
  readonly compared: Compared | null;
  readonly suspects: readonly Suspect[];
}

/** Nothing found: the same list for all, for most checks of most parts find nothing. */
export const NOTHING: readonly Finding[] = [];

/** One check of the record, declared once. */
export interface Check {
  readonly id: string;
  readonly name: string;
  /** the question it asks of the record */
  readonly asks: string;
  /** what has to be recorded for it to say anything */
  readonly needs: string;
  readonly severity: Severity;
  readonly blocks: Blocked;
  /** of one part: looked at again whenever the part, what is around it or what is alike changes */
  readonly ofPart?: (ground: Ground, part: Part) => readonly Finding[];
  /** of the whole record: looked at again when one of the lists it reads changes */
  readonly ofRecord?: (ground: Ground) => readonly Finding[];
  readonly reads?: readonly string[];
}
