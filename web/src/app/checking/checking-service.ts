import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { unitsShown } from '@each-bolt/core/shared';
import { recordDiff, type Cause } from '@each-bolt/core/reconcile';
import type { StudyRecord } from '@each-bolt/core/record';
import { OpenStudy } from '../record/open-study';
import { todayHere } from '../record/when';
import type { CheckingAsked, CheckingSaid, CheckingTold, Tried } from './checking-told';
import { makeCheckingWorker } from './make-checking-worker';

/** The page is let come up before the checks begin. */
const BEGIN_AFTER_MS = 600;

/** The checks of the open study, run beside the page: once over all of it, then over what each change touches. */
@Injectable({ providedIn: 'root' })
export class CheckingService {
  private readonly open = inject(OpenStudy);
  private worker: Worker | null = null;
  /** the record as the worker has it */
  private sent: StudyRecord | null = null;
  private begins: ReturnType<typeof setTimeout> | null = null;

  /** null until the checks have run once */
  readonly said = signal<CheckingSaid | null>(null);
  readonly tried = signal<Tried | null>(null);
  readonly failed = signal('');
  readonly causes = computed<readonly Cause[]>(() => this.said()?.causes ?? []);
  /** causes by the part beside which they are marked */
  readonly causesOfPart = computed<ReadonlyMap<string, readonly Cause[]>>(() => {
    const by = new Map<string, Cause[]>();
    for (const cause of this.causes())
      for (const partId of new Set([cause.partId, ...cause.findings.map((finding) => finding.partId)])) {
        if (partId === null) continue;
        const own = by.get(partId);
        if (own) own.push(cause);
        else by.set(partId, [cause]);
      }
    return by;
  });
  /** causes in and below every node of the outline; each counts once, beside the part it is marked at. [node] */
  readonly countAt = computed<Int32Array>(() => {
    const { nodes, placeOf, parentOf } = this.open.outline();
    const counts = new Int32Array(nodes.length);
    for (const { partId } of this.causes()) {
      const place = partId === null ? undefined : placeOf.get(partId);
      if (place !== undefined) counts[place]! += 1;
    }
    for (let at = nodes.length - 1; at >= 0; at--) {
      const parent = parentOf[at]!;
      if (parent >= 0) counts[parent]! += counts[at]!;
    }
    return counts;
  });

  constructor() {
    effect(() => this.follow(this.open.record()));
  }

  /** Asks what a mend would leave. */
  try(cause: Cause): void {
    this.tried.set(null);
    if (cause.mend) this.ask({ kind: 'try', key: cause.key, ops: cause.mend.ops });
  }

  private follow(record: StudyRecord): void {
    if (record.study.id !== (this.sent?.study.id ?? record.study.id)) this.forget();
    if (record.vehicles.length === 0 && record.parts.length === 0) {
      this.forget();
      return;
    }
    if (this.sent !== null) {
      const diff = recordDiff(this.sent, record);
      this.sent = record;
      if (diff.study !== null || diff.lists.length > 0) this.ask({ kind: 'move', diff });
      return;
    }
    // what comes meanwhile is in the record that is sent
    this.begins ??= setTimeout(() => {
      const now = this.open.record();
      this.sent = now;
      this.ask({ kind: 'open', record: now, today: todayHere(), units: unitsShown() });
    }, BEGIN_AFTER_MS);
  }

  private ask(asked: CheckingAsked): void {
    if (this.worker === null) {
      this.worker = makeCheckingWorker();
      this.worker.onmessage = ({ data }: MessageEvent<CheckingTold>) => {
        this.failed.set('');
        if (data.kind === 'said') this.said.set(data);
        else this.tried.set(data);
      };
      this.worker.onerror = (fault) => {
        this.forget();
        this.failed.set(`The checks stopped: ${fault.message}. Nothing is lost; open the study again to run them`);
      };
    }
    this.worker.postMessage(asked);
  }

  private forget(): void {
    if (this.begins !== null) clearTimeout(this.begins);
    this.begins = null;
    this.worker?.terminate();
    this.worker = null;
    this.sent = null;
    this.said.set(null);
    this.tried.set(null);
  }
}
