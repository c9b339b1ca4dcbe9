import Papa from 'papaparse';
import { defused } from '../../shared';
import type { StudyRecord } from '../../record';
import { numbered } from '../scope/package-edits';
import type { PlanSchedule } from './plan-schedule';

const HOUR_S = 3600;

/** The schedule as CSV for a spreadsheet, one package a line; text that a spreadsheet would take for a formula is defused. */
export const scheduleCsv = (record: Pick<StudyRecord, 'study' | 'packages' | 'resources' | 'rigs'>, schedule: PlanSchedule): string => {
  const nameOf = new Map([...record.resources, ...record.rigs].map((r) => [r.id, r.name]));
  const timesOf = new Map(schedule.packages.map((s) => [s.packageId, s]));
  const whyOf = new Map(schedule.leftOut.map((l) => [l.packageId, l.why]));
  const hours = (s: number | null): string => (s === null ? '' : String(Number((s / HOUR_S).toFixed(3))));
  const rows = numbered(record.packages).map((pack, at): readonly string[] => {
    const times = timesOf.get(pack.id);
    return [
      String(at + 1),
      pack.name,
      times?.state ?? 'left out',
      hours(pack.optimisticS),
      hours(pack.mostLikelyS),
      hours(pack.pessimisticS),
      String(pack.people),
      times?.from ?? '',
      times?.to ?? '',
      times?.holds.map((id) => nameOf.get(id) ?? '').join('; ') ?? '',
      times ? String(Number((times.slack / schedule.axis.slotsPerDay).toFixed(2))) : '',
      pack.pinnedOn ?? '',
      whyOf.get(pack.id) ?? '',
    ];
  });
  const head = [
    'no',
    'package',
    'state',
    'optimistic_h',
    'most_likely_h',
    'pessimistic_h',
    'people',
    'from',
    'to',
    'by_whom_where',
    'slack_days',
    'pinned_on',
    'why_left_out',
  ];
  return `${Papa.unparse([head, ...rows.map((row) => row.map(defused))])}\n`;
};
