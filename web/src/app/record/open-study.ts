import { Injectable, computed, inject } from '@angular/core';
import {
  USUAL_STUDY,
  emptyRecord,
  rowsOf,
  subsystemKey,
  type FastenerSet,
  type JointSet,
  type RowOf,
  type Picture,
  type Part,
  type Question,
  type StudyRecord,
  type Subsystem,
  type Vehicle,
} from '@each-bolt/core/record';
import { SET_KINDS, closedBelow, closedWords, groupByPart, removedParts, shown, totalsOf, type SetKind } from '@each-bolt/core/bench';
import { studyRollUp, type StudyRollUp } from '@each-bolt/core/cost';
import { RecordService } from './record-service';

const NO_STUDY: StudyRecord = emptyRecord({
  id: '',
  version: 0,
  title: '',
  questions: '',
  lead: '',
  currency: 'EUR',
  priceYear: 2026,
  volumePerYear: 1,
  productionYears: 1,
  region: '',
  fastenersIn: true,
  assembliesAs: 'parts',
  ...USUAL_STUDY,
});
const NO_ROLL_UP = studyRollUp(NO_STUDY);

/** What is recorded on a part, with what kind of record it is. */
export interface RecordedSet {
  readonly kind: SetKind;
  readonly row: RowOf<SetKind>;
}

/** The open study, ready to look things up in. Empty until the record is read; pages are only shown after that. */
@Injectable({ providedIn: 'root' })
export class OpenStudy {
  private readonly service = inject(RecordService);
  readonly record = computed<StudyRecord>(() => {
    const state = this.service.state();
    return state.kind === 'ready' ? state.record : NO_STUDY;
  });
  readonly rollUp = computed<StudyRollUp>(() => {
    const state = this.service.state();
    return state.kind === 'ready' ? state.rollUp : NO_ROLL_UP;
  });
  readonly study = computed(() => this.record().study);
  readonly outline = computed(() => this.rollUp().rolled.outline);
  private readonly parts = computed(() => this.record().parts);
  readonly partById = computed<ReadonlyMap<string, Part>>(() => new Map(this.parts().map((part) => [part.id, part])));
  readonly vehicleById = computed<ReadonlyMap<string, Vehicle>>(() => new Map(this.record().vehicles.map((v) => [v.id, v])));
  readonly subsystemById = computed<ReadonlyMap<string, Subsystem>>(() => new Map(this.record().subsystems.map((s) => [s.id, s])));
  private readonly fastenerSets = computed(() => this.record().fastenerSets);
  private readonly jointSets = computed(() => this.record().jointSets);
  readonly fastenersOf = computed<ReadonlyMap<string, readonly FastenerSet[]>>(() => groupByPart(this.fastenerSets()));
  readonly jointsOf = computed<ReadonlyMap<string, readonly JointSet[]>>(() => groupByPart(this.jointSets()));
  private readonly sets = computed(() => {
    const record = this.record();
    return SET_KINDS.map((kind) => ({ kind, rows: grouped<RowOf<SetKind>>(rowsOf(record, kind), (row) => row.partId) }));
  });
  /** what holds and feeds a part, and what is on its board */
  setsOf(partId: string): readonly RecordedSet[] {
    return this.sets().flatMap(({ kind, rows }) =>
      [...(rows.get(partId) ?? [])]
        .sort((a, b) => ('sequence' in a && 'sequence' in b ? a.sequence - b.sequence : 0))
        .map((row): RecordedSet => ({ kind, row })),
    );
  }
  private readonly questions = computed(() => this.record().questions);
  readonly openQuestions = computed<readonly Question[]>(() => this.questions().filter((q) => q.state === 'open'));
  /** questions by the record they are about */
  readonly questionsOf = computed<ReadonlyMap<string, readonly Question[]>>(() => grouped(this.questions(), (q) => q.aboutId));
  private readonly pictures = computed(() => this.record().pictures);
  /** loose parts recorded in a subsystem of a vehicle, fasteners not counted */
  looseParts(vehicleId: string, subsystemId: string): number {
    const totals = totalsOf(this.rollUp().rolled, subsystemKey(vehicleId, subsystemId));
    return totals ? shown(totals, false).parts : 0;
  }
  private readonly steps = computed(() => this.record().steps);
  /** parts that some removal names */
  readonly removed = computed(() => removedParts(this.steps()));
  /** [place in the outline] parts left closed in and below it */
  readonly closed = computed(() => closedBelow(this.outline(), this.partById()));
  /** what the figures of a place do not hold because it was left closed; empty when all was opened */
  closedWordsOf(key: string): string {
    const at = this.outline().placeOf.get(key);
    return at === undefined ? '' : closedWords(this.closed()[at] ?? 0);
  }
  /** mass of a part with all inside it and what holds it, on one vehicle; null unless every part of it has one */
  massOf(partId: string): { readonly kg: number; readonly uKg: number } | null {
    return this.wholeMass(partId);
  }
  /** mass of all that is recorded of a subsystem of a vehicle; null unless every part of it has one */
  massOfSubsystem(vehicleId: string, subsystemId: string): { readonly kg: number; readonly uKg: number } | null {
    return this.wholeMass(subsystemKey(vehicleId, subsystemId));
  }
  private wholeMass(key: string): { readonly kg: number; readonly uKg: number } | null {
    const totals = totalsOf(this.rollUp().rolled, key);
    const all = totals && shown(totals, true);
    const { massKg = null, massUKg = null } = all ?? {};
    return massKg === null || massUKg === null || !all || all.partsMassed < all.partsOfMass ? null : { kg: massKg, uKg: massUKg };
  }
  /** pictures by the part or rig they show */
  readonly picturesOf = computed<ReadonlyMap<string, readonly Picture[]>>(() =>
    grouped(this.pictures(), (picture) => picture.partId ?? picture.rigId ?? ''),
  );
}

const grouped = <T>(rows: readonly T[], keyOf: (row: T) => string): ReadonlyMap<string, readonly T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const group = groups.get(keyOf(row));
    if (group) group.push(row);
    else groups.set(keyOf(row), [row]);
  }
  return groups;
};
