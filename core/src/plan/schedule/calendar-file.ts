import { createEvents, type EventAttributes } from 'ics';
import type { StudyRecord } from '../../record';
import { hazardById, LOCAL_CODES } from '../safety/hazards';
import type { PlanSchedule } from './plan-schedule';
import { endTimeOfSlot, timeOfSlot, type WorkingCalendar } from './working-calendar';

type Stretch = readonly [from: string, to: string];

/** A package day by day: one stretch of working time for each day it lasts. */
const dailyStretches = (axis: WorkingCalendar, start: number, end: number): readonly Stretch[] => {
  const stretches: Stretch[] = [];
  for (let from = start; from < end;) {
    const to = Math.min(end, (Math.floor(from / axis.slotsPerDay) + 1) * axis.slotsPerDay);
    stretches.push([timeOfSlot(axis, from), endTimeOfSlot(axis, to)]);
    from = to;
  }
  return stretches;
};

const partsOf = (local: string): [number, number, number, number, number] => {
  const [date = '', time = ''] = local.split('T');
  const [y = 0, m = 0, d = 0] = date.split('-').map(Number);
  const [h = 0, min = 0] = time.split(':').map(Number);
  return [y, m, d, h, min];
};

/**
 * The calendar of one person as an iCalendar file: an event a day for every package of theirs that is still to be done.
 * Times are the workshop's, of no zone.
 *
 * @param stamp when it was made, ISO 8601 UTC
 * @throws Error when an event cannot be written
 * @source RFC 5545
 */
export const personCalendar = (
  record: Pick<StudyRecord, 'study' | 'packages' | 'resources' | 'rigs'>,
  schedule: PlanSchedule,
  personId: string,
  stamp: string,
): string => {
  const nameOf = new Map([...record.resources, ...record.rigs].map((r) => [r.id, r.name]));
  const packOf = new Map(record.packages.map((p) => [p.id, p]));
  const events = schedule.packages
    .filter((s) => s.state !== 'done' && s.holds.includes(personId))
    .flatMap((s): readonly EventAttributes[] => {
      const pack = packOf.get(s.packageId);
      if (!pack) return [];
      const others = s.holds.filter((id) => id !== personId).map((id) => nameOf.get(id) ?? '');
      const cautions = pack.hazards.map((h) => hazardById.get(h)?.name ?? h);
      const description = [
        others.length > 0 ? `With ${others.join(', ')}.` : '',
        cautions.length > 0 ? `Hazards: ${cautions.join(', ')}. ${LOCAL_CODES}` : '',
        pack.note,
      ].filter((line) => line !== '');
      const days = dailyStretches(schedule.axis, s.start, s.end);
      return days.map(([from, to], day) => ({
        uid: `${pack.id}-${personId}-${day + 1}`,
        title: days.length === 1 ? pack.name : `${pack.name}, day ${day + 1} of ${days.length}`,
        description: description.join('\n'),
        productId: '-//Each Bolt//Plan//EN',
        calName: `${record.study.title}: ${nameOf.get(personId) ?? ''}`,
        start: partsOf(from),
        startInputType: 'local',
        startOutputType: 'local',
        end: partsOf(to),
        endInputType: 'local',
        endOutputType: 'local',
        timestamp: Date.parse(stamp),
      }));
    });
  const { error, value } = createEvents(events);
  if (error) throw error;
  return value ?? '';
};
