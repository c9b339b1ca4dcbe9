import ICAL from 'ical.js';
import { plan } from '../../../testing/plan';
import { testId } from '../../../testing/teardown';
import { personCalendar } from './calendar-file';
import { planSchedule } from './plan-schedule';

// read back with ical.js, which had no part in writing it
const eventsOf = (file: string): readonly ICAL.Event[] =>
  new ICAL.Component(ICAL.parse(file) as unknown[]).getAllSubcomponents('vevent').map((c) => new ICAL.Event(c));

describe('the calendar of a person', () => {
  const record = plan(`
    “Door”; off, with seals\\clips äöü | 4 | | 2 people | lift
    a job of two days whose name is much longer than the seventy-five octets that a line of the format may have at most | 12 | | 1 person, high voltage | bay
  `);
  const withNote = {
    ...record,
    packages: record.packages.map((p, n) => (n === 0 ? { ...p, hazards: ['high-voltage'], note: 'bring gloves,\nand the key' } : p)),
  };
  const { schedule } = planSchedule(withNote, { today: '2026-06-01', tries: 50, samples: 10 });
  const file = personCalendar(withNote, schedule!, testId(802), '2026-06-01T06:00:00.000Z');
  const events = eventsOf(file);

  it('has an event a day of each package, at the workshop’s own times', () => {
    const held = schedule!.packages.filter((s) => s.holds.includes(testId(802)));
    expect(held).toHaveLength(2);
    expect(events.map((e) => `${e.startDate.toString()} ${e.endDate.toString()}`).sort()).toEqual([
      '2026-06-01T08:00:00 2026-06-01T12:00:00',
      '2026-06-01T12:00:00 2026-06-01T16:00:00',
      '2026-06-02T08:00:00 2026-06-02T16:00:00',
    ]);
    expect(events.every((e) => e.startDate.zone.tzid === 'floating')).toBe(true);
    expect(new Set(events.map((e) => e.uid)).size).toBe(3);
  });
  it('keeps names and notes to the letter, commas, line breaks and all', () => {
    const door = events.find((e) => e.summary.includes('Door'))!;
    expect(door.summary).toBe('“Door”; off, with seals\\clips äöü');
    expect(door.description).toContain('bring gloves,\nand the key');
    expect(door.description).toContain('With Wenna, lift 1.');
    expect(door.description).toContain('local codes and licensed practice decide');
    expect(events.filter((e) => e.summary.startsWith('a job of two days')).map((e) => e.summary.slice(-12)).sort()).toEqual(['day 1 of 2', 'day 2 of 2'].map((d) => `, ${d}`)); // prettier-ignore
  });
  it('has lines of at most 75 octets that end as the format wants', () => {
    const lines = file.split('\r\n');
    expect(Math.max(...lines.map((line) => Buffer.byteLength(line)))).toBeLessThanOrEqual(75);
    expect(file.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/);
  });
  it('is a valid, empty calendar for somebody with nothing to do', () =>
    expect(eventsOf(personCalendar(withNote, schedule!, testId(899), '2026-06-01T06:00:00.000Z'))).toEqual([]));
});
