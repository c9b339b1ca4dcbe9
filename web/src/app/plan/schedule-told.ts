import type { ScheduleOptions, ScheduleResult } from '@each-bolt/core/plan';
import type { StudyRecord } from '@each-bolt/core/record';

/** What the schedule is made from. */
export type PlanParts = Pick<StudyRecord, 'study' | 'packages' | 'resources' | 'rigs' | 'vehicles'>;

export interface ScheduleAsked {
  readonly plan: PlanParts;
  readonly options: Omit<ScheduleOptions, 'progress'>;
}

export type ScheduleTold =
  { readonly kind: 'progress'; readonly doneFraction: number } | { readonly kind: 'result'; readonly result: ScheduleResult };
