import { blank, emptyRecord, USUAL_STUDY, type Resource, type StudyRecord, type LiftStep } from '@each-bolt/core/record';
import { burnUp, planSchedule, type Balance, type LiftBalance } from '@each-bolt/core/plan';
import type { ChartInk } from '../shared/chart-ink';
import { burnChart, chartSummary, liftChart, scheduleChart, scheduleRows } from './schedule-chart';

const ink: ChartInk = {
  ink: '#111',
  soft: '#555',
  line: '#ddd',
  sheet: '#fff',
  dye: '#00f',
  amber: '#f90',
  red: '#f00',
  vehicles: ['#00f', '#f60'],
};
const id = (n: number): string => `00000000-0000-4000-8000-00000000000${n}`;
const resource = (n: number, kind: Resource['kind'], name: string): Resource => ({
  ...{ id: id(n), version: 1, sequence: n, kind, name, personId: null, skills: [], daysOff: [], ratedKg: null, note: '' },
});
const RECORD: StudyRecord = {
  ...emptyRecord({
    ...{
      id: id(1),
      version: 1,
      title: 'Vans',
      questions: '',
      lead: '',
      currency: 'EUR',
      priceYear: 2026,
      volumePerYear: 1,
      productionYears: 1,
    },
    ...{ region: '', fastenersIn: true, assembliesAs: 'parts', ...USUAL_STUDY },
    calendar: { ...USUAL_STUDY.calendar, startsOn: '2026-06-01' },
  }),
  vehicles: [
    { id: id(2), version: 1, ...blank('vehicle', { name: 'Drayman II', role: 'subject', sequence: 0 }), acquiredOn: '2026-05-01' },
  ],
  resources: [resource(3, 'person', 'Odo'), resource(4, 'bay', 'Bay 1')],
  packages: [
    {
      id: id(5),
      version: 1,
      ...blank('package', { name: '<b>door</b>', sequence: 0 }),
      optimisticS: 28_800,
      mostLikelyS: 28_800,
      pessimisticS: 28_800,
      vehicleId: id(2),
      place: 'bay',
    },
    {
      id: id(6),
      version: 1,
      ...blank('package', { name: 'seat', sequence: 1 }),
      optimisticS: 14_400,
      mostLikelyS: 14_400,
      pessimisticS: 14_400,
      pinnedOn: '2026-06-03',
    },
  ],
};
const schedule = planSchedule(RECORD, { today: '2026-06-01', tries: 20, samples: 10 }).schedule!;
const order = RECORD.packages.map((p) => p.id);

describe('the schedule as a chart', () => {
  it('has a row a package, or a row for whoever and whatever it holds', () => {
    const byPackage = scheduleRows(RECORD, schedule, order, 'packages');
    expect(byPackage.labels).toEqual(['1  <b>door</b>', '2  seat']);
    expect(byPackage.bars.map((b) => [b.row, b.vehiclePlace, b.pinned])).toEqual([[0, 0, false], [1, -1, true]]); // prettier-ignore
    const byHolder = scheduleRows(RECORD, schedule, order, 'holders');
    expect(byHolder.labels).toEqual(['Odo', 'Bay 1']);
    expect(byHolder.bars.map((b) => [b.row, b.name])).toEqual([[0, '<b>door</b>'], [0, 'seat'], [1, '<b>door</b>']]); // prettier-ignore
    expect(chartSummary(schedule, byHolder)).toContain('3 bars in 2 rows');
  });
  it('measures in working days: a day of eight hours is one, a pin on Wednesday is two from Monday', () => {
    const { series } = scheduleChart(schedule, scheduleRows(RECORD, schedule, order, 'packages'), ink) as {
      series: { id: string; data: unknown }[];
    };
    expect(series.find((s) => s.id === 'bars')!.data).toEqual([[0, 1, 0], [2, 2.5, 1]]); // prettier-ignore
  });
  it('shows names as text, never as HTML', () => {
    const { tooltip } = scheduleChart(schedule, scheduleRows(RECORD, schedule, order, 'packages'), ink) as {
      tooltip: { formatter: (at: object) => string };
    };
    expect(tooltip.formatter({ seriesId: 'bars', dataIndex: 0 })).toContain('&lt;b&gt;door&lt;/b&gt;');
  });
  it('forecasts all of the work by the end', () => {
    const { series, yAxis } = burnChart(burnUp(RECORD, schedule, '2026-06-01'), '2026-06-01', ink) as {
      series: { name: string; data: [string, number | null][] }[];
      yAxis: { max: number };
    };
    expect([series.find((s) => s.name === 'forecast')!.data.at(-1), yAxis.max]).toEqual([['2026-06-03', 12], 12]);
  });
});

describe('the pads from above', () => {
  it('name steps that hardly move the centre of mass together, and those that do each by its own number', () => {
    const at = (xM: number): Balance => ({ ...{ massKg: 2000, xM, yM: 0 }, ...{ uM: 0.02, insideM: 0.7, tipFraction: 0 } });
    const liftStep: LiftStep = {
      ...{ id: id(1), version: 1, vehicleId: id(2), partId: null, subsystemId: null, sequence: 0 },
      ...{ label: 'seat', massKg: 27, massUKg: 2, xM: 0.95, yM: -0.42 },
    };
    const step = (xM: number): LiftBalance['steps'][number] => ({ liftStep, after: at(xM), state: 'stays' });
    const balance: LiftBalance = {
      ...{ start: at(1.46), startState: 'stays', firstBad: null, issues: [] },
      steps: [step(1.45), step(1.44), step(1.18), step(0.9)],
    };
    const pads = [0.62, 2.38].flatMap((xM) => [-0.76, 0.76].map((yM) => ({ xM, yM })));
    const { series } = liftChart(pads, balance, ink) as { series: { type: string; data: { label: { formatter: string } }[] }[] };
    const names = series.find((s) => s.type === 'scatter')!.data.map((d) => d.label.formatter);
    expect(names).toEqual(['whole', '', '1–2', '3', '4']);
  });
});
