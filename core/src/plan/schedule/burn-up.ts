import type { StudyRecord } from '../../record';
import { packageState } from './plan-network';
import type { PlanSchedule } from './plan-schedule';

/** People-hours of a plan, cumulated day by day. */
interface BurnDay {
  /** YYYY-MM-DD */
  readonly day: string;
  /** what was agreed to be done by then; null when nothing was agreed */
  readonly agreedS: number | null;
  /** what is done, up to today; null after */
  readonly doneS: number | null;
  /** what the schedule says will be done, from today; null before */
  readonly forecastS: number | null;
}

export interface BurnUp {
  /** most likely working time of people of all packages that are estimated */
  readonly wholeS: number;
  readonly doneS: number;
  readonly days: readonly BurnDay[];
  /** packages that were to be done by now as agreed, and are not */
  readonly behind: readonly string[];
}

type Plan = Pick<StudyRecord, 'packages'>;

const mostLikelyPeopleS = (plan: Plan, id: string): number => {
  const pack = plan.packages.find((p) => p.id === id);
  return (pack?.mostLikelyS ?? 0) * Math.max(1, pack?.people ?? 1);
};

/** How far a package is, 0 … 1: done, or by what is still needed, or by what was spent. */
export const progressFraction = (pack: Plan['packages'][number]): number => {
  if (pack.doneOn !== null) return 1;
  if (pack.startedOn === null || pack.mostLikelyS === null) return 0;
  if (pack.remainingS !== null) return Math.max(0, Math.min(1, 1 - pack.remainingS / pack.mostLikelyS));
  return Math.max(0, Math.min(0.95, (pack.workedS ?? 0) / pack.mostLikelyS));
};

/**
 * Planned, done and forecast work by day.
 *
 * A package counts with its most likely working time times its people: when it is done in whole, while it runs by how far it is.
 */
export const burnUp = (plan: Plan, schedule: PlanSchedule, today: string): BurnUp => {
  const whole = plan.packages.reduce((sum, p) => sum + mostLikelyPeopleS(plan, p.id), 0);
  const running = plan.packages
    .filter((p) => packageState(p) === 'running')
    .reduce((sum, p) => sum + progressFraction(p) * mostLikelyPeopleS(plan, p.id), 0);
  const doneBy = (day: string): number =>
    plan.packages.reduce((sum, p) => (p.doneOn !== null && p.doneOn <= day ? sum + mostLikelyPeopleS(plan, p.id) : sum), 0);
  const doneS = doneBy(today) + running;
  const agreed = plan.packages.filter((p) => p.agreedTo !== null);
  const agreedBy = (day: string): number =>
    agreed.reduce((sum, p) => (p.agreedTo!.slice(0, 10) <= day ? sum + mostLikelyPeopleS(plan, p.id) : sum), 0);
  const forecastBy = (day: string): number =>
    schedule.packages.reduce((sum, s) => {
      if (s.state === 'done') return sum;
      const pack = plan.packages.find((p) => p.id === s.packageId);
      const left = (1 - (pack ? progressFraction(pack) : 0)) * mostLikelyPeopleS(plan, s.packageId);
      return s.to.slice(0, 10) <= day ? sum + left : sum;
    }, doneS);
  const ends = [
    ...schedule.packages.flatMap((s) => [s.from.slice(0, 10), s.to.slice(0, 10)]),
    ...agreed.map((p) => p.agreedTo!.slice(0, 10)),
    today,
  ];
  const days = [...new Set(ends)].sort();
  return {
    wholeS: whole,
    doneS,
    days: days.map((day) => ({
      day,
      agreedS: agreed.length === 0 ? null : agreedBy(day),
      doneS: day < today ? doneBy(day) : day === today ? doneS : null,
      forecastS: day < today ? null : forecastBy(day),
    })),
    behind: agreed.filter((p) => p.doneOn === null && p.agreedTo!.slice(0, 10) < today).map((p) => p.id),
  };
};
