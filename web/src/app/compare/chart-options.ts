import type { ChartInk } from '../shared/chart-ink';
import { EVIDENCE_WORD, fixed, threeDigits, type EvidenceMark, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';
import { shareOrder, type Comparison, type Side } from '@each-bolt/core/compare';
import type { EChartsCoreOption } from 'echarts/core';
import { VEHICLE_SHAPES } from '../shared/vehicle-mark';

export interface ChartVehicle {
  readonly name: string;
  readonly place: number;
}

interface FamilyMass {
  readonly family: string;
  readonly left: number;
  readonly right: number;
  readonly leftMark: EvidenceMark | null;
  readonly rightMark: EvidenceMark | null;
}

/** Mass by material family on both sides, in the order of the catalogue; 0 where a side uses none of it. */
export const familyMasses = ({ left, right }: Comparison): readonly FamilyMass[] => {
  const share = (side: Side, family: string): Side['shares']['family'][number] | undefined =>
    side.shares.family.find((s) => s.key === family);
  const mass = (side: Side, family: string): number => readAs(READ_IN.kg, share(side, family)?.massKg ?? 0);
  const mark = (side: Side, family: string): EvidenceMark | null => share(side, family)?.marks.mass ?? null;
  const families = [...new Set([...left.shares.family, ...right.shares.family].map((share) => share.key))].sort(shareOrder);
  return families
    .map((family) => ({
      family,
      left: mass(left, family),
      right: mass(right, family),
      leftMark: mark(left, family),
      rightMark: mark(right, family),
    }))
    .filter(({ left: l, right: r }) => l > 0 || r > 0);
};

const FONT = 'Barlow, sans-serif';
const FIGURES = 'IBM Plex Mono, monospace';

const shapeOf = (place: number): string => `path://${VEHICLE_SHAPES[place % VEHICLE_SHAPES.length] ?? ''}`;
const hueOf = (ink: ChartInk, place: number): string => ink.vehicles[place % ink.vehicles.length] ?? ink.ink;

const axis = (ink: ChartInk, name: string): object => ({
  name,
  nameLocation: 'middle',
  nameGap: 28,
  nameTextStyle: { color: ink.soft, fontFamily: FONT, fontSize: 12 },
  axisLabel: { color: ink.soft, fontFamily: FIGURES, fontSize: 11 },
  axisLine: { show: true, lineStyle: { color: ink.ink } },
  splitLine: { lineStyle: { color: ink.line } },
});

const DECALS: readonly (object | undefined)[] = [
  undefined,
  { symbol: 'rect', dashArrayX: [1, 0], dashArrayY: [2, 4], rotation: -Math.PI / 4, color: 'rgba(255,255,255,0.55)' },
];

/** Bars of mass by material family, one per vehicle, each labelled; the axis starts at 0. Told apart by hue and hatching. */
export const familyChart = (masses: readonly FamilyMass[], left: ChartVehicle, right: ChartVehicle, ink: ChartInk): EChartsCoreOption => {
  const series = ([vehicle, side, i]: readonly [ChartVehicle, 'left' | 'right', number]): object => ({
    type: 'bar',
    name: vehicle.name,
    barMaxWidth: 13,
    barGap: '15%',
    itemStyle: { color: hueOf(ink, vehicle.place), decal: DECALS[i] },
    label: {
      show: true,
      position: 'right',
      color: ink.ink,
      fontFamily: FIGURES,
      fontSize: 11,
      // the weakest mark stands behind the figure
      formatter: ({ value, dataIndex }: { value: number; dataIndex: number }) =>
        value === 0 ? 'none' : `${fixed(value, 2)} ${masses[dataIndex]?.[`${side}Mark`] ?? ''}`.trim(),
    },
    data: masses.map((mass) => mass[side]),
  });
  return {
    animation: false,
    aria: { enabled: true, label: { description: `Mass in ${unitWord('kg')} by material family of ${left.name} and ${right.name}` } },
    grid: { left: 8, right: 56, top: 6, bottom: 44, containLabel: true },
    tooltip: {
      trigger: 'axis',
      axisPointer: { type: 'shadow' },
      valueFormatter: (value: unknown) => `${fixed(Number(value), 3)} ${unitWord('kg')}`,
    },
    xAxis: { type: 'value', min: 0, ...axis(ink, `${unitWord('kg')}, from 0`) },
    yAxis: {
      type: 'category',
      inverse: true,
      data: masses.map(({ family }) => family),
      axisTick: { show: false },
      axisLine: { lineStyle: { color: ink.ink } },
      axisLabel: { color: ink.ink, fontFamily: FONT, fontSize: 12, width: 112, overflow: 'break' },
    },
    series: [series([left, 'left', 0]), series([right, 'right', 1])],
  };
};

interface Point {
  readonly name: string;
  readonly value: readonly [number, number];
  /** weakest mark in the mass */
  readonly mark: EvidenceMark | null;
}

const pointsOf = (side: Side): readonly Point[] =>
  side.groups.flatMap((group) =>
    group.massKg === null || group.massKg <= 0
      ? []
      : [{ name: group.name, value: [group.parts, readAs(READ_IN.kg, group.massKg)] as const, mark: group.massMark }],
  );

/** How many of the largest points of each vehicle carry their name. */
const NAMED = 3;

const named = (points: readonly Point[]): ReadonlySet<string> =>
  new Set(
    [...points]
      .sort((a, b) => b.value[1] - a.value[1])
      .slice(0, NAMED)
      .map((point) => point.name),
  );

/** One marker for each part straight under the subsystem with all inside it: how many parts against what mass. */
export const partsAgainstMass = (comparison: Comparison, left: ChartVehicle, right: ChartVehicle, ink: ChartInk): EChartsCoreOption => {
  // names stand above the marks of one vehicle and below those of the other, so that counterparts do not cover each other
  const series = (side: Side, vehicle: ChartVehicle, labels: 'top' | 'bottom'): object => {
    const points = pointsOf(side);
    const names = named(points);
    return {
      type: 'scatter',
      name: vehicle.name,
      symbol: shapeOf(vehicle.place),
      symbolSize: 11,
      itemStyle: { color: hueOf(ink, vehicle.place), opacity: 0.9 },
      label: {
        show: true,
        position: labels,
        color: ink.ink,
        fontFamily: FONT,
        fontSize: 11.5,
        formatter: ({ name, data }: { name: string; data: Point }) => (names.has(name) ? `${name} ${data.mark ?? ''}`.trim() : ''),
      },
      labelLayout: { hideOverlap: true },
      data: points,
    };
  };
  return {
    animation: false,
    aria: { enabled: true, label: { description: `Parts against mass of the assemblies of ${left.name} and ${right.name}` } },
    grid: { left: 26, right: 60, top: 10, bottom: 40, containLabel: true },
    tooltip: {
      trigger: 'item',
      formatter: ({ seriesName, name, value, data }: { seriesName: string; name: string; value: readonly [number, number]; data: Point }) =>
        `${escaped(seriesName)}: ${escaped(name)}<br>${fixed(value[0], 0)} counted, ${threeDigits(value[1])} ${unitWord('kg')}${data.mark === null ? '' : `, weakest evidence ${EVIDENCE_WORD[data.mark]}`}`,
    },
    xAxis: { type: 'value', min: 0, minInterval: 1, ...axis(ink, 'counted by the rule, from 0') },
    // masses span grams to tens of kilograms; on a straight axis all but a few would lie on the floor
    yAxis: { type: 'log', ...axis(ink, `${unitWord('kg')}, logarithmic`), nameGap: 42 },
    series: [series(comparison.left, left, 'top'), series(comparison.right, right, 'bottom')],
  };
};

/** Text as HTML shows it: chart tooltips are HTML, names are people's words. */
const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
