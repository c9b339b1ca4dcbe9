import { type BurnUp, type LiftBalance, type PlanSchedule, type Scheduled, stepNames } from '@each-bolt/core/plan';
import { counted, dayText, fixed, isoDay, weekdayOf, READ_IN, readAs } from '@each-bolt/core/shared';
import type { PadPoint, StudyRecord } from '@each-bolt/core/record';
import type { EChartsCoreOption } from 'echarts/core';
import type { ChartInk } from '../shared/chart-ink';

export type ChartRows = 'packages' | 'holders';

/** One bar of the chart: a package in the row of its own, or in the row of somebody or something it holds. */
interface Bar {
  readonly row: number;
  readonly scheduled: Scheduled;
  readonly name: string;
  readonly number: number;
  /** place of its vehicle in the study, −1 for none */
  readonly vehiclePlace: number;
  readonly pinned: boolean;
  /** agreed stretch in working days, or null */
  readonly agreedDays: readonly [number, number] | null;
  /** slack and what was agreed are drawn too */
  readonly rail: boolean;
}

interface ScheduleRows {
  readonly labels: readonly string[];
  readonly bars: readonly Bar[];
}

const dayOfTime = (schedule: PlanSchedule, local: string): number => {
  const place = schedule.axis.days.findIndex((day) => isoDay(day) >= local.slice(0, 10));
  const [h = 0, m = 0] = local.slice(11).split(':').map(Number);
  const slots = (h * 60 + m - schedule.axis.opensMin) / 15;
  return Math.max(place, 0) + slots / schedule.axis.slotsPerDay;
};

/** Rows and bars of a schedule, in the order of the plan or by people and places. */
export const scheduleRows = (record: StudyRecord, schedule: PlanSchedule, order: readonly string[], rows: ChartRows): ScheduleRows => {
  const packOf = new Map(record.packages.map((p) => [p.id, p]));
  const placeOf = new Map(record.vehicles.map((v, place) => [v.id, place]));
  const numberOf = new Map(order.map((id, at) => [id, at + 1]));
  const timesOf = new Map(schedule.packages.map((s) => [s.packageId, s]));
  const bar = (id: string, row: number): Bar | null => {
    const [pack, scheduled] = [packOf.get(id), timesOf.get(id)];
    if (!pack || !scheduled) return null;
    return {
      row,
      scheduled,
      name: pack.name,
      number: numberOf.get(id) ?? 0,
      vehiclePlace: placeOf.get(pack.vehicleId ?? '') ?? -1,
      pinned: pack.pinnedOn !== null,
      rail: rows === 'packages',
      agreedDays:
        pack.agreedFrom === null || pack.agreedTo === null
          ? null
          : [dayOfTime(schedule, pack.agreedFrom), dayOfTime(schedule, pack.agreedTo)],
    };
  };
  if (rows === 'packages') {
    const shown = order.filter((id) => timesOf.has(id));
    return {
      labels: shown.map((id) => `${numberOf.get(id) ?? ''}  ${packOf.get(id)?.name ?? ''}`),
      bars: shown.flatMap((id, row) => bar(id, row) ?? []),
    };
  }
  const holders = [...record.resources].sort((a, b) => a.kind.localeCompare(b.kind) * -1 || a.sequence - b.sequence);
  const used = [...holders, ...record.rigs.filter((rig) => schedule.packages.some((s) => s.holds.includes(rig.id)))];
  return {
    labels: used.map((holder) => holder.name),
    bars: used.flatMap((holder, row) =>
      schedule.packages.filter((s) => s.holds.includes(holder.id)).flatMap((s) => bar(s.packageId, row) ?? []),
    ),
  };
};

export const ROW_PX = 24;
const LEFT_PX = 276;
const TOP_PX = 46;
const FONT = { fontFamily: 'Barlow, sans-serif' };

export const chartHeightPx = (rows: number): number => rows * ROW_PX + TOP_PX + 14;

/** The Mondays of a schedule (or the first day worked of a week), as working days from its first. */
const weekStarts = ({ axis }: PlanSchedule, days: number): readonly number[] =>
  axis.days.slice(0, days + 1).flatMap((day, at) => {
    const before = axis.days[at - 1];
    return before === undefined || weekdayOf(day) <= weekdayOf(before) || day - before >= 7 ? [at] : [];
  });

const STATE_WORD = { planned: 'planned', running: 'running', done: 'done' } as const;

/** A line across all rows: today, or a likely end. */
interface Upright {
  readonly at: number;
  readonly text: string;
  readonly hue: string;
  readonly dash: boolean;
}

const uprights = (schedule: PlanSchedule, ink: ChartInk): readonly Upright[] => {
  const first = isoDay(schedule.axis.days[0] ?? 0);
  return [
    // a plan that is still to begin has no today
    ...(schedule.asOf >= first ? [{ at: schedule.today / schedule.axis.slotsPerDay, text: 'today', hue: ink.dye, dash: false }] : []),
    { at: dayOfTime(schedule, schedule.spread.p50At), text: 'P50', hue: ink.soft, dash: true },
    { at: dayOfTime(schedule, schedule.spread.p90At), text: 'P90', hue: ink.soft, dash: true },
  ];
};

const daysAxis = (schedule: PlanSchedule, days: number, starts: readonly number[], ink: ChartInk): object => ({
  type: 'value',
  position: 'top',
  min: 0,
  max: days,
  axisLine: { lineStyle: { color: ink.ink } },
  axisTick: { show: true, customValues: starts, length: 4, lineStyle: { color: ink.ink } },
  axisLabel: {
    customValues: starts.filter((_, i) => starts.length <= 14 || i % 2 === 0),
    color: ink.soft,
    fontSize: 11.5,
    formatter: (value: number) => dayText(isoDay(schedule.axis.days[value] ?? 0)).slice(4),
  },
  splitLine: { show: false },
});

const rowsAxis = (labels: readonly string[], ink: ChartInk): object => ({
  type: 'category',
  inverse: true,
  data: [...labels],
  axisLine: { show: false },
  axisTick: { show: false },
  axisLabel: {
    color: ink.ink,
    fontSize: 12,
    width: LEFT_PX - 14,
    overflow: 'truncate',
    align: 'left',
    margin: LEFT_PX - 6,
    interval: 0,
  },
});

/** The schedule as bars on working time: one plate a package, its slack as a thin rail, today and the likely ends across all rows. */
export const scheduleChart = (schedule: PlanSchedule, { labels, bars }: ScheduleRows, ink: ChartInk): EChartsCoreOption => {
  const per = schedule.axis.slotsPerDay;
  const days = Math.ceil(Math.max(schedule.finish, ...schedule.spread.histogram.map(([slot]) => slot)) / per) + 1;
  const starts = weekStarts(schedule, days);
  const lines = uprights(schedule, ink);
  return {
    animation: false,
    textStyle: FONT,
    aria: { enabled: true, label: { enabled: false } },
    grid: { left: LEFT_PX, right: 22, top: TOP_PX, bottom: 8 },
    tooltip: {
      trigger: 'item',
      confine: true,
      backgroundColor: ink.sheet,
      borderColor: ink.ink,
      textStyle: { color: ink.ink, fontSize: 13 },
      formatter: ({ seriesId, dataIndex }: { readonly seriesId: string; readonly dataIndex: number }) => {
        const bar = bars[dataIndex];
        return seriesId === 'bars' && bar ? tooltipOf(bar, per) : '';
      },
    },
    xAxis: daysAxis(schedule, days, starts, ink),
    yAxis: rowsAxis(labels, ink),
    series: [
      {
        ...{ id: 'weeks', type: 'custom', silent: true, data: starts },
        renderItem: (params: CoordParams, api: CoordApi) => upright(params, api, { hue: ink.line, dash: false, text: '' }),
      },
      {
        ...{ id: 'bars', type: 'custom', encode: { x: [0, 1], y: 2 } },
        data: bars.map((bar) => [bar.scheduled.start / per, bar.scheduled.end / per, bar.row]),
        renderItem: (params: CoordParams, api: CoordApi) => {
          const bar = bars[params.dataIndex];
          return bar ? plate(bar, api, ink, per) : null;
        },
      },
      {
        ...{ id: 'lines', type: 'custom', silent: true, z: 5, data: lines.map((line) => line.at) },
        renderItem: (params: CoordParams, api: CoordApi) => upright(params, api, lines[params.dataIndex]!),
      },
    ],
  };
};

interface CoordParams {
  readonly dataIndex: number;
  readonly coordSys: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
}

interface CoordApi {
  value(dimension: number): number;
  coord(point: readonly [number, number]): readonly [number, number];
}

const upright = (
  { coordSys }: CoordParams,
  api: CoordApi,
  { hue, dash, text }: { readonly hue: string; readonly dash: boolean; readonly text: string },
): object => {
  const [x] = api.coord([api.value(0), 0]);
  const stroke = { stroke: hue, lineWidth: text === '' ? 1 : 1.5, ...(dash && { lineDash: [4, 3] }) };
  return {
    type: 'group',
    children: [
      { type: 'line', shape: { x1: x, y1: text === '' ? coordSys.y : 2, x2: x, y2: coordSys.y + coordSys.height }, style: stroke },
      { type: 'text', style: { ...FONT, text, x: x + 4, y: 2, fill: hue, fontSize: 11.5, fontWeight: 600 } },
    ],
  };
};

const HEIGHT_PX = 14;

/** A package: filled when done, half when running, open when planned; ends cut like a sheared plate. */
const plate = ({ scheduled, row, vehiclePlace, pinned, agreedDays, rail }: Bar, api: CoordApi, ink: ChartInk, per: number): object => {
  const [x1, middle] = api.coord([scheduled.start / per, row]);
  const [x2] = api.coord([scheduled.end / per, row]);
  const y = middle - HEIGHT_PX / 2;
  const width = Math.max(3, x2 - x1);
  const hue = vehiclePlace < 0 ? ink.ink : (ink.vehicles[vehiclePlace % ink.vehicles.length] ?? ink.ink);
  const children: object[] = [];
  if (agreedDays && rail) {
    const [a] = api.coord([agreedDays[0], row]);
    const [b] = api.coord([agreedDays[1], row]);
    children.push({ type: 'rect', shape: { x: a, y: y + HEIGHT_PX + 1, width: Math.max(2, b - a), height: 2 }, style: { fill: ink.soft } });
  }
  if (scheduled.slack > 0 && rail) {
    const [end] = api.coord([(scheduled.end + scheduled.slack) / per, row]);
    children.push(
      { type: 'line', shape: { x1: x1 + width, y1: middle, x2: end, y2: middle }, style: { stroke: ink.soft, lineWidth: 1 } },
      { type: 'line', shape: { x1: end, y1: middle - 3, x2: end, y2: middle + 3 }, style: { stroke: ink.soft, lineWidth: 1 } },
    );
  }
  const isTight = scheduled.state === 'planned' && scheduled.slack === 0;
  children.push({
    type: 'rect',
    shape: { x: x1, y, width, height: HEIGHT_PX },
    style: { fill: scheduled.state === 'done' ? hue : ink.sheet, stroke: hue, lineWidth: isTight ? 2.5 : 1.2 },
  });
  if (scheduled.state === 'running')
    children.push({ type: 'rect', shape: { x: x1, y: middle, width, height: HEIGHT_PX / 2 }, style: { fill: hue } });
  if (pinned && scheduled.state === 'planned')
    children.push({ type: 'polygon', shape: { points: [[x1 - 4, y - 4], [x1 + 4, y - 4], [x1, y + 2]] }, style: { fill: ink.amber } }); // prettier-ignore
  return { type: 'group', children };
};

const tooltipOf = ({ scheduled, name, number, pinned }: Bar, per: number): string => {
  const when = (local: string): string => `${dayText(local.slice(0, 10))} ${local.slice(11)}`;
  const slack = scheduled.state === 'planned' ? `slack ${fixed(scheduled.slack / per, 1)} d` : STATE_WORD[scheduled.state];
  return `${number} · ${escaped(name)}<br>${when(scheduled.from)} – ${when(scheduled.to)}<br>${slack}${pinned ? ', pinned' : ''}`;
};

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign] ?? sign);

/** Work agreed, done and forecast, in hours of people, by day. */
export const burnChart = (burn: BurnUp, today: string, ink: ChartInk): EChartsCoreOption => {
  const hours = (seconds: number | null): number | null => (seconds === null ? null : readAs(READ_IN.h, seconds));
  const line = (name: string, values: readonly (number | null)[], hue: string, more: object): object => ({
    ...{ name, type: 'line', step: 'end', symbol: 'none', connectNulls: true },
    lineStyle: { color: hue, width: 2, ...more },
    itemStyle: { color: hue },
    data: burn.days.map((day, i) => [day.day, values[i]]),
  });
  return {
    animation: false,
    textStyle: FONT,
    aria: { enabled: true, label: { enabled: false } },
    grid: { left: 56, right: 24, top: 28, bottom: 28 },
    tooltip: {
      trigger: 'axis',
      backgroundColor: ink.sheet,
      borderColor: ink.ink,
      textStyle: { color: ink.ink, fontSize: 13 },
      valueFormatter: (v: unknown) => (typeof v === 'number' ? `${fixed(v, 0)} h` : '–'),
    },
    xAxis: {
      type: 'time',
      axisLine: { lineStyle: { color: ink.ink } },
      axisLabel: {
        color: ink.soft,
        formatter: (value: number) => dayText(new Date(value).toISOString().slice(0, 10)).slice(4),
        hideOverlap: true,
      },
    },
    yAxis: {
      type: 'value',
      name: `hours of people, ${fixed(readAs(READ_IN.h, burn.wholeS), 0)} in all`,
      nameTextStyle: { color: ink.soft, align: 'left' },
      max: Math.ceil(readAs(READ_IN.h, burn.wholeS)),
      axisLabel: { color: ink.soft, formatter: (v: number) => fixed(v, 0), showMaxLabel: false },
      splitLine: { lineStyle: { color: ink.line } },
    },
    series: [
      line(
        'agreed',
        burn.days.map((d) => hours(d.agreedS)),
        ink.soft,
        { type: 'dotted' },
      ),
      line(
        'forecast',
        burn.days.map((d) => (d.day >= today ? hours(d.forecastS) : null)),
        ink.dye,
        { type: 'dashed' },
      ),
      line(
        'done',
        burn.days.map((d) => hours(d.doneS)),
        ink.ink,
        {},
      ),
    ],
  };
};

/** Where the vehicle balances after each step, by its name. */
const liftPlaces = (
  path: readonly { readonly at: number; readonly xM: number; readonly yM: number }[],
  namesOf: ReadonlyMap<number, string>,
  hueOf: (at: number) => string,
): object => ({
  type: 'scatter',
  symbolSize: 11,
  data: path.map((p) => ({
    value: [p.xM, p.yM],
    itemStyle: { color: hueOf(p.at) },
    label: {
      show: true,
      position: p.at < 0 ? 'bottom' : 'top',
      formatter: namesOf.get(p.at) ?? '',
      color: hueOf(p.at),
      fontSize: 11.5,
      fontWeight: 600,
    },
  })),
});

/** The pads from above, and how the centre of mass wanders while things come off. */
export const liftChart = (pads: readonly PadPoint[], balance: LiftBalance, ink: ChartInk): EChartsCoreOption => {
  const steps = balance.steps.flatMap((step, at) => (step.after ? [{ step, at, after: step.after }] : []));
  const path = [{ at: -1, ...balance.start }, ...steps.map(({ at, after }) => ({ at, ...after }))];
  const xs = [...pads.map((p) => p.xM), ...path.map((p) => p.xM)];
  const ys = [...pads.map((p) => p.yM), ...path.map((p) => p.yM)];
  const pad = 0.35;
  const hueOf = (at: number): string => {
    const state = at < 0 ? balance.startState : balance.steps[at]?.state;
    return state === 'tips' ? ink.red : state === 'near' ? ink.amber : ink.ink;
  };
  const namesOf = stepNames(path, (Math.max(...xs) - Math.min(...xs)) / 12);
  const ring = [...pads, pads[0]!].map((p) => [p.xM, p.yM]);
  const axis = (name: string, values: readonly number[]): object => ({
    type: 'value',
    name,
    nameLocation: 'middle',
    nameGap: 24,
    nameTextStyle: { color: ink.soft },
    min: Math.floor((Math.min(...values) - pad) * 2) / 2,
    max: Math.ceil((Math.max(...values) + pad) * 2) / 2,
    axisLine: { onZero: false, lineStyle: { color: ink.ink } },
    axisLabel: { color: ink.soft, formatter: (v: number) => fixed(v, 1) },
    splitLine: { lineStyle: { color: ink.line } },
  });
  return {
    animation: false,
    textStyle: FONT,
    aria: { enabled: true, label: { enabled: false } },
    grid: { left: 52, right: 18, top: 12, bottom: 40 },
    xAxis: axis('m from the front axle rearwards', xs),
    yAxis: { ...axis('m to the right', ys), inverse: true, nameGap: 34 },
    series: [
      {
        type: 'line',
        data: ring,
        symbol: 'rect',
        symbolSize: 9,
        lineStyle: { color: ink.soft, width: 1.5 },
        itemStyle: { color: ink.soft },
        silent: true,
      },
      {
        type: 'line',
        data: path.map((p) => [p.xM, p.yM]),
        symbol: 'none',
        lineStyle: { color: ink.ink, width: 1, type: 'dashed' },
        silent: true,
      },
      liftPlaces(path, namesOf, hueOf),
    ],
  };
};

/** What the chart says, for those who do not see it. */
export const chartSummary = (schedule: PlanSchedule, rows: ScheduleRows): string =>
  `${counted(rows.bars.length, 'bar')} in ${counted(rows.labels.length, 'row')} from ${schedule.packages[0]?.from.slice(0, 10) ?? ''} to ${schedule.finishAt.slice(0, 10)}; the table view says the same`;
