import Papa from 'papaparse';
import { plan } from '../../../testing/plan';
import { planSchedule } from './plan-schedule';
import { scheduleCsv } from './schedule-csv';

it('the schedule as CSV has a line a package, what was left out with its reason, and no formula', () => {
  const record = plan('=1+1 | 2/4/6 | | 2 people | lift\n"cut", wide | 1\nlost | 3 | | 5 people');
  const { schedule } = planSchedule(record, { today: '2026-06-01', tries: 20, samples: 10 });
  const rows = Papa.parse<Record<string, string>>(scheduleCsv(record, schedule!), { header: true, skipEmptyLines: true }).data;
  expect(rows.map((r) => [r.no, r.package, r.state, r.most_likely_h, r.from])).toEqual([
    ['1', "'=1+1", 'planned', '4', '2026-06-01T08:00'],
    ['2', '"cut", wide', 'planned', '1', expect.stringMatching(/^2026-06-01T/) as string],
    ['3', 'lost', 'left out', '3', ''],
  ]);
  expect(rows[0]!.by_whom_where).toBe('Wenna; Odo; lift 1');
  expect(rows[2]!.why_left_out).toContain('needs 5 people; the plan has 2');
});
