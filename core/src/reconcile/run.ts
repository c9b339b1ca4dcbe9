import type { Explanation, StudyRecord } from '../record';
import { CHECKS, checkById } from './checks';
import { causesOf, type Cause, type WeighedGroups } from './causes';
import type { Compared, Finding } from './finding';
import { Ground } from './ground';
import { findingKey } from './said';

const PART_CHECKS = CHECKS.filter((check) => check.ofPart !== undefined);
const RECORD_CHECKS = CHECKS.filter((check) => check.ofRecord !== undefined);
/** Lists that checks of parts look into beyond their part and what is around it: when one changes, all parts are looked at again. */
const BEHIND_ALL = ['vehicles', 'subsystems', 'sheets', 'ports'] as const;

/** The figures of a finding in few signs: when these are others, what was explained is open again. */
export const sawText = ({ compared, says }: Pick<Finding, 'compared' | 'says'>): string =>
  compared === null
    ? says.slice(0, 200)
    : [compared.recorded, compared.against].map(({ value }: Compared['recorded']) => value.toPrecision(4)).join(' ~ ');

/** A finding that was explained, with the explanation. */
export interface ExplainedFinding {
  readonly finding: Finding;
  readonly explanation: Explanation;
}

/** What the checks say of a record. */
export interface Reconciled {
  readonly findings: readonly Finding[];
  /** open ones, joined by cause */
  readonly causes: readonly Cause[];
  readonly explained: readonly ExplainedFinding[];
  /** explanations whose finding has other figures by now: they are open again */
  readonly outdated: readonly ExplainedFinding[];
}

/** Splits findings into open and explained ones. */
const explainedOf = (findings: readonly Finding[], { explanations, sessions }: StudyRecord): Pick<Reconciled, 'explained' | 'outdated'> & { readonly open: readonly Finding[] } => {
  const by = new Map<string, { readonly explanation: Explanation; readonly saw: string }>();
  for (const explanation of [...explanations].sort((a, b) => (a.at < b.at ? -1 : 1)))
    for (const own of explanation.findings) by.set(findingKey(own), { explanation, saw: own.saw });
  // what was left as it is at the end of a session was explained there
  const waived = new Map(sessions.flatMap((session) => session.waived.map((waiver) => [`${waiver.check} ${waiver.aboutId}`, { waiver, session }] as const)));
  const [open, explained, outdated]: [Finding[], ExplainedFinding[], ExplainedFinding[]] = [[], [], []];
  for (const finding of findings) {
    const known = by.get(finding.key);
    const left = waived.get(`${finding.check} ${finding.about.id}`);
    if (known?.saw === sawText(finding)) explained.push({ finding, explanation: known.explanation });
    else if (left) {
      const { waiver, session } = left;
      const explanation: Explanation = { id: session.id, version: session.version, says: finding.says, reason: waiver.reason, by: waiver.by, at: session.closedAt ?? session.openedAt, findings: [] }; // prettier-ignore
      explained.push({ finding, explanation });
    } else {
      if (known) outdated.push({ finding, explanation: known.explanation });
      open.push(finding);
    }
  }
  return { open, explained, outdated };
}; // prettier-ignore

/**
 * The checks run over a record, and again over what a change touched. It follows one study; what it says after any number of changes is
 * what a run over the whole record says.
 */
export class Checking {
  private ground: Ground;
  private readonly ofParts = new Map<string, readonly Finding[]>();
  private readonly ofRecord = new Map<string, readonly Finding[]>();
  private readonly weighed: WeighedGroups = new Map();

  /** @param today YYYY-MM-DD, of whoever looks: what is overdue is so by then */
  constructor(record: StudyRecord, today: string) {
    this.ground = new Ground(record, today);
    for (const part of record.parts) this.lookAt(part.id);
    for (const check of RECORD_CHECKS) this.ofRecord.set(check.id, check.ofRecord!(this.ground));
  }

  /** Goes on to another state of the record and looks again at what that touched. */
  moveTo(record: StudyRecord): void {
    if (record === this.ground.record) return;
    const { partIds, lists, study } = this.ground.moveTo(record);
    if (study || BEHIND_ALL.some((list) => lists.has(list))) {
      this.ofParts.clear();
      for (const part of record.parts) this.lookAt(part.id);
    } else for (const id of partIds) this.lookAt(id);
    for (const check of RECORD_CHECKS)
      if (study || (check.reads ?? []).some((list) => (lists as ReadonlySet<string>).has(list)))
        this.ofRecord.set(check.id, check.ofRecord!(this.ground));
  }

  get record(): StudyRecord {
    return this.ground.record;
  }

  findings(): readonly Finding[] {
    return [...[...this.ofParts.values()].flat(), ...[...this.ofRecord.values()].flat()];
  }

  reconciled(): Reconciled {
    const findings = this.findings();
    const { open, explained, outdated } = explainedOf(findings, this.ground.record);
    return { findings, causes: causesOf(open, checkById, this.weighed), explained, outdated };
  }

  private lookAt(partId: string): void {
    const part = this.ground.parts.get(partId);
    const found: Finding[] = [];
    if (part) for (const check of PART_CHECKS) for (const finding of check.ofPart!(this.ground, part)) found.push(finding);
    if (found.length > 0) this.ofParts.set(partId, found);
    else this.ofParts.delete(partId);
  }
}

/** All checks over a whole record. */
export const reconcile = (record: StudyRecord, today: string): Reconciled => new Checking(record, today).reconciled();
