import { showUnits, type UnitSystem } from '@each-bolt/core/shared';
import { applyOps, type Op, type StudyRecord } from '@each-bolt/core/record';
import { Checking, withDiff, type Cause, type ExplainedFinding, type RecordDiff } from '@each-bolt/core/reconcile';

/** What the page asks of the worker that runs the checks. */
export type CheckingAsked =
  | { readonly kind: 'open'; readonly record: StudyRecord; readonly today: string; readonly units: UnitSystem }
  | { readonly kind: 'move'; readonly diff: RecordDiff }
  /** what would be left of a cause after its mend */
  | { readonly kind: 'try'; readonly key: string; readonly ops: readonly Op[] };

/** What the checks say of a state of the record. */
export interface CheckingSaid {
  readonly kind: 'said';
  readonly revision: number;
  readonly causes: readonly Cause[];
  readonly explained: readonly ExplainedFinding[];
  readonly outdated: readonly ExplainedFinding[];
  readonly parts: number;
  readonly tookMs: number;
}

/** What a mend would leave, and what it would bring. */
export interface Tried {
  readonly kind: 'tried';
  readonly key: string;
  /** findings of the cause that would still be there */
  readonly left: readonly string[];
  /** findings that would be new, in words */
  readonly brings: readonly string[];
}

export type CheckingTold = CheckingSaid | Tried;

let checking: Checking | null = null;

const said = (since: number): CheckingSaid => {
  const { causes, explained, outdated } = checking!.reconciled();
  const { revision, parts } = checking!.record;
  return { kind: 'said', revision, causes, explained, outdated, parts: parts.length, tookMs: performance.now() - since };
};

const tried = (key: string, ops: readonly Op[]): Tried => {
  const { record } = checking!;
  const before = new Set(checking!.findings().map((finding) => finding.key));
  checking!.moveTo(applyOps(record, ops, record.revision));
  const after = checking!.findings();
  checking!.moveTo(record);
  return {
    ...{ kind: 'tried', key, left: after.flatMap((finding) => (before.has(finding.key) ? [finding.key] : [])) },
    brings: after.flatMap((finding) => (before.has(finding.key) ? [] : [finding.says])),
  };
};

/** Does what was asked; a state is told after every change. */
export const toldOf = (asked: CheckingAsked): CheckingTold => {
  const since = performance.now();
  if (asked.kind === 'try') return tried(asked.key, asked.ops);
  if (asked.kind === 'open') {
    // sentences are made here, in the units that the page shows
    showUnits(asked.units);
    checking = new Checking(asked.record, asked.today);
  } else checking!.moveTo(withDiff(checking!.record, asked.diff));
  return said(since);
};
