import { compareVehicles } from '@each-bolt/core/compare';
import { studyRollUp } from '@each-bolt/core/cost';
import { DOOR, LEFT, RIGHT, recordOf, teardown } from '../../../testing/record';
import { familyChart, familyMasses, partsAgainstMass } from './chart-options';
import type { ChartInk } from '../shared/chart-ink';

const record = recordOf(
  teardown('module\n  plate dc04 2 kg\n  guide pom 50 g\narm aw-6082 1 kg'),
  teardown('plate dc04 1 kg\n<b>seal</b> epdm 400 g\nlabel', RIGHT, 500),
);
const comparison = compareVehicles(record, studyRollUp(record), LEFT.id, RIGHT.id, DOOR.id)!;
const [left, right] = [
  { name: 'Left van', place: 0 },
  { name: 'Right van', place: 1 },
];
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
interface Chart {
  readonly series: readonly {
    readonly name: string;
    readonly data: readonly unknown[];
    readonly symbol?: string;
    readonly label: { readonly formatter: (bar: object) => string };
    readonly itemStyle: { readonly color: string; readonly decal?: object };
  }[];
  readonly xAxis: { readonly min: number; readonly name: string };
  readonly yAxis: { readonly type: string; readonly data?: readonly string[] };
  readonly tooltip: { readonly formatter: (point: object) => string };
}

describe('mass by material family', () => {
  it('stands in the order of the catalogue, with 0 where a side uses none', () => {
    expect(familyMasses(comparison)).toEqual([
      { family: 'steel', left: 2, right: 1, leftMark: 'M', rightMark: 'M' },
      { family: 'aluminium', left: 1, right: 0, leftMark: 'M', rightMark: null },
      { family: 'plastic', left: 0.05, right: 0, leftMark: 'M', rightMark: null },
      { family: 'rubber and foam', left: 0, right: 0.4, leftMark: null, rightMark: 'M' },
    ]);
  });
  it('is drawn from 0, each vehicle in its hue, the second hatched too', () => {
    const chart = familyChart(familyMasses(comparison), left, right, ink) as unknown as Chart;
    expect(chart.xAxis).toMatchObject({ min: 0, name: 'kg, from 0' });
    expect(chart.series.map((s) => [s.name, s.itemStyle.color, s.itemStyle.decal !== undefined])).toEqual([
      ['Left van', '#00f', false],
      ['Right van', '#f60', true],
    ]);
    expect(chart.series[0]?.data).toEqual([2, 1, 0.05, 0]);
    expect(chart.series[0]?.label.formatter({ value: 2, dataIndex: 0 })).toBe('2.00 M');
  });
});

describe('count against mass', () => {
  const chart = partsAgainstMass(comparison, left, right, ink) as unknown as Chart;
  it('has a point for each part straight under the subsystem that has a mass', () => {
    expect(chart.series.map((s) => s.data)).toEqual([
      [
        { name: 'module', value: [2, 2.05], mark: 'M' },
        { name: 'arm', value: [1, 1], mark: 'M' },
      ],
      [
        { name: 'plate', value: [1, 1], mark: 'M' },
        { name: '<b>seal</b>', value: [1, 0.4], mark: 'M' },
      ],
    ]);
  });
  it('tells vehicles apart by shape as well as hue', () => expect(new Set(chart.series.map((s) => s.symbol)).size).toBe(2));
  it('shows names as text, never as HTML', () => {
    expect(chart.tooltip.formatter({ seriesName: 'Right van', name: '<b>seal</b>', value: [1, 0.4], data: { mark: 'I' } })).toBe(
      'Right van: &lt;b&gt;seal&lt;/b&gt;<br>1 counted, 0.400 kg, weakest evidence inferred',
    );
  });
});
