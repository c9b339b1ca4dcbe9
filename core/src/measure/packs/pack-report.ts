import { ABSENT, COVERAGE_FACTOR, READ_IN, fixed, withU, type Issue } from '../../shared';
import { fieldInput, type Pack } from '../../record';
import { hydraulicDiameterM, pipeDrop } from '../flow/pipe';
import { coolCells, powerAllowed, spreadInBrickK, type CoolantState } from './coolant';
import { energyPerMass, packFigures, topologyIssues, type PackBoundary } from './topology';

/** Roughness of a drawn or extruded channel, m: smooth for all that matters here. Assumed. */
const SMOOTH_M = 1.5e-6;

/** Figures of a pack, SI, °C and differences in K; null where a field that it needs is not known. */
export interface PackValues {
  readonly energyJ: number | null;
  readonly nominalV: number | null;
  readonly hottestC: number | null;
  readonly coldestC: number | null;
  readonly spreadK: number | null;
  readonly outletC: number | null;
  readonly dropPa: number | null;
}
type Figure = keyof PackValues;
const FIGURES: readonly Figure[] = ['energyJ', 'nominalV', 'hottestC', 'coldestC', 'spreadK', 'outletC', 'dropPa'];

const NOTHING: PackValues = {
  ...{ energyJ: null, nominalV: null, hottestC: null, coldestC: null, spreadK: null, outletC: null, dropPa: null },
};

/** Fields that the figures rest on and whose uncertainty they carry. */
const CONTINUOUS = [
  ...(['capacityC', 'nominalV', 'heatPerCellW', 'cellToCoolantWPerK', 'cellToCellWPerK', 'flowM3PerS', 'inletC'] as const),
  ...(['coolantKgPerM3', 'coolantJPerKgK', 'coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM'] as const),
];
type Continuous = (typeof CONTINUOUS)[number];
/** Fields whose uncertainty goes into what a pack comes to; the mass of a cell into its boundaries. */
export const PACK_U_FIELDS: readonly (keyof Pack)[] = [...CONTINUOUS, 'cellMassKg'];

const NEEDED_TO_COOL = ['rows', 'heatPerCellW', 'cellToCoolantWPerK', 'flowM3PerS', 'inletC', 'coolantKgPerM3', 'coolantJPerKgK'] as const;
const NEEDED_FOR_DROP = ['coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM'] as const;
const NEEDED_FOR_ENERGY = ['capacityC', 'nominalV'] as const;

const absent = (pack: Pack, fields: readonly (keyof Pack)[]): readonly (keyof Pack)[] => fields.filter((field) => pack[field] === null);

/** Channels of the whole pack: those that were counted, else one for each row of each module. */
const channelsOf = (pack: Pack): number => pack.tubes ?? (pack.rows ?? 0) * pack.modules;

/** Cells of one module, cooled as it is; null where what that needs is not known. */
export const packState = (pack: Pack): CoolantState | null => {
  if (absent(pack, NEEDED_TO_COOL).length > 0) return null;
  const inModule = pack.cellsInParallel * pack.bricksPerModule;
  return coolCells({
    way: pack.way,
    rows: pack.rows!,
    cellsPerRow: inModule / pack.rows!,
    heatPerCellW: pack.heatPerCellW!,
    cellToCoolantWPerK: pack.cellToCoolantWPerK!,
    cellToCellWPerK: pack.cellToCellWPerK,
    // each row takes its share of the flow, however many channels lie between the rows
    flowWPerK: (pack.flowM3PerS! / (pack.rows! * pack.modules)) * pack.coolantKgPerM3! * pack.coolantJPerKgK!,
    inletC: pack.inletC!,
  });
};

/** Drop along one channel; there and back halves the channel and doubles its length. */
const channelDrop = (pack: Pack): number | null => {
  if (absent(pack, [...NEEDED_FOR_DROP, 'flowM3PerS', 'coolantKgPerM3']).length > 0 || channelsOf(pack) === 0) return null;
  const passes = pack.way === 'two passes' ? 2 : 1;
  const [width, height] = [pack.channelWidthM! / passes, pack.channelHeightM!];
  const innerM = hydraulicDiameterM(width, height);
  // the friction goes by the hydraulic diameter, the speed by the true cross-section
  const asRound = (Math.PI * innerM ** 2) / 4;
  const flow = ((pack.flowM3PerS! / channelsOf(pack)) * asRound) / (width * height);
  return pipeDrop(
    { innerM, lengthM: passes * pack.channelLengthM!, roughnessM: SMOOTH_M, minor: passes === 2 ? 1.5 : 0 },
    { densityKgPerM3: pack.coolantKgPerM3!, viscosityPaS: pack.coolantPaS! },
    flow,
  ).dropPa;
};

/** What cooling comes to, or what forbids it. */
const cooled = (pack: Pack): { readonly state: CoolantState | null; readonly fault: string } => {
  try {
    return { state: packState(pack), fault: '' };
  } catch (fault) {
    if (!(fault instanceof RangeError)) throw fault;
    return { state: null, fault: fault.message };
  }
};

const valuesOf = (pack: Pack): PackValues => {
  const { state } = cooled(pack);
  const energy =
    absent(pack, NEEDED_FOR_ENERGY).length > 0
      ? null
      : packFigures(pack, { ...pack, capacityC: pack.capacityC!, nominalV: pack.nominalV!, massKg: null });
  return {
    ...NOTHING,
    energyJ: energy?.energyJ ?? null,
    nominalV: energy?.nominalV ?? null,
    dropPa: channelDrop(pack),
    ...(state && {
      hottestC: state.hottestC,
      coldestC: state.coldestC,
      spreadK: spreadInBrickK(state, pack.lay, pack.bricksPerModule),
      outletC: state.outletC.reduce((sum, outlet) => sum + outlet, 0) / state.outletC.length,
    }),
  };
};

const uOf = (pack: Pack, field: Continuous): number => pack.evidence[field]?.u ?? 0;

/** Moved by one standard uncertainty up and down: half the difference is what it adds. */
const moved = (pack: Pack, field: Continuous, by: number): Pack => ({ ...pack, [field]: (pack[field] ?? 0) + by });

const half = (up: number | null, down: number | null): number => (up === null || down === null ? 0 : (up - down) / 2);

/** Standard uncertainties of the figures, from those of the fields, each moved by its own; independent. JCGM 100:2008, 5.1.3 note 2. */
const uncertainties = (pack: Pack): Readonly<Record<Figure, number>> => {
  const square = Object.fromEntries(FIGURES.map((figure) => [figure, 0])) as Record<Figure, number>;
  for (const field of CONTINUOUS) {
    const u = uOf(pack, field);
    if (u === 0 || pack[field] === null) continue;
    const [up, down] = [valuesOf(moved(pack, field, u)), valuesOf(moved(pack, field, -u))];
    for (const figure of FIGURES) square[figure] += half(up[figure], down[figure]) ** 2;
  }
  return Object.fromEntries(FIGURES.map((figure) => [figure, Math.sqrt(square[figure])])) as Record<Figure, number>;
};

/** A mass with its standard uncertainty. */
export interface Weighed {
  readonly massKg: number;
  readonly uKg: number;
}

/** Masses by part, as the record has them with all that is inside and for as many as there are. */
export type MassOf = (partId: string) => Weighed | null;

const added = (name: string, masses: readonly (Weighed | null)[]): PackBoundary =>
  masses.every((m) => m !== null)
    ? { name, massKg: masses.reduce((sum, m) => sum + m.massKg, 0), uKg: Math.hypot(...masses.map((m) => m.uKg)) }
    : { name, massKg: null, uKg: 0 };

/** What may be counted as the pack, from the cells alone outwards. */
export const packBoundaries = (pack: Pack, massOf: MassOf): readonly PackBoundary[] => {
  const cells = pack.cellsInParallel * pack.bricksPerModule * pack.modules;
  const whole = massOf(pack.partId);
  const shields = pack.shields.map(massOf);
  const charger = pack.chargerPartId === null ? null : massOf(pack.chargerPartId);
  const ofCells = pack.cellMassKg === null ? null : { massKg: cells * pack.cellMassKg, uKg: cells * (pack.evidence.cellMassKg?.u ?? 0) };
  return [
    added('cells', [ofCells]),
    ...(pack.modulesPartId === null ? [] : [added('modules', [massOf(pack.modulesPartId)])]),
    added('pack', [whole]),
    ...(pack.shields.length === 0 ? [] : [added('pack with shield', [whole, ...shields])]),
    ...(pack.chargerPartId === null ? [] : [added('pack with shield and charger box', [whole, ...shields, charger])]),
  ];
};

/** A figure of a pack, as it is shown: SI, its standard uncertainty, and the sum it comes from with its numbers. */
export interface PackLine {
  readonly word: string;
  readonly text: string;
  readonly formula: string;
}

export interface PackReport {
  readonly values: PackValues;
  readonly us: Readonly<Record<Figure, number>>;
  readonly state: CoolantState | null;
  /** why there is no temperature, where something forbids it */
  readonly fault: string;
  /** labels of the fields that are still to be said, by what they are needed for */
  readonly missing: { readonly energy: readonly string[]; readonly cooling: readonly string[]; readonly drop: readonly string[] };
  readonly issues: readonly Issue[];
  readonly boundaries: readonly (PackBoundary & { readonly whPerKg: number | null; readonly uWhPerKg: number })[];
  readonly lines: readonly PackLine[];
}

const labels = (fields: readonly (keyof Pack)[]): readonly string[] => fields.map((field) => fieldInput(`pack.${field}` as never).label);

const linesOf = (pack: Pack, { energyJ, hottestC, outletC, dropPa }: PackValues, us: PackReport['us']): readonly PackLine[] => {
  const lines: PackLine[] = [];
  const bricks = pack.bricksPerModule * pack.modules;
  if (energyJ !== null)
    lines.push({
      word: 'Energy',
      text: `${withU(energyJ / 3.6e6, us.energyJ / 3.6e6, 3)} kWh`,
      formula: `${bricks} bricks × ${fixed(pack.nominalV!, 2)} V × ${pack.cellsInParallel} cells × ${fixed(pack.capacityC! / 3600, 2)} Ah`,
    });
  if (outletC !== null && hottestC !== null) {
    const cells = pack.cellsInParallel * bricks;
    const heatW = cells * pack.heatPerCellW!;
    lines.push(
      {
        word: 'Rise of the coolant',
        text: `${fixed(outletC - pack.inletC!, 2)} K`,
        formula: `${fixed(heatW, 0)} W / (${fixed(pack.flowM3PerS! * 60e3, 1)} l/min × ${fixed(pack.coolantKgPerM3!, 0)} kg/m³ × ${fixed(pack.coolantJPerKgK!, 0)} J/(kg K))`,
      },
      {
        word: 'Cell over the coolant beside it',
        text: `about ${fixed(pack.heatPerCellW! / pack.cellToCoolantWPerK!, 2)} K`,
        formula: `${fixed(pack.heatPerCellW!, 2)} W / ${fixed(pack.cellToCoolantWPerK!, 3)} W/K`,
      },
    );
  }
  if (dropPa !== null)
    lines.push({
      word: 'Drop along a channel',
      text: `${withU(dropPa / 1000, us.dropPa / 1000, 3)} kPa`,
      formula: `Darcy–Weisbach, ${channelsOf(pack)} channels${pack.way === 'two passes' ? ', each halved and twice as long, with one turn' : ''}`,
    });
  return lines;
};

/**
 * All that a recorded pack comes to: topology checked, energy, mass boundaries, temperatures of one module, and what is missing
 * for each. What cannot be worked out is left out and named; nothing is filled in.
 */
export const packReport = (pack: Pack, massOf: MassOf): PackReport => {
  const { state, fault } = cooled(pack);
  const [values, us] = [valuesOf(pack), uncertainties(pack)];
  const energyU = us.energyJ;
  return {
    values,
    us,
    state,
    fault,
    missing: {
      energy: labels(absent(pack, NEEDED_FOR_ENERGY)),
      cooling: labels(absent(pack, NEEDED_TO_COOL)),
      drop: labels(absent(pack, NEEDED_FOR_DROP)),
    },
    issues: topologyIssues(pack, { cells: pack.cellsCounted, cellsInModule: pack.cellsInModule }, pack.id),
    boundaries: packBoundaries(pack, massOf).map((boundary) => {
      const perMass = values.energyJ === null ? null : energyPerMass(values.energyJ, energyU, boundary);
      return { ...boundary, whPerKg: perMass?.whPerKg ?? null, uWhPerKg: perMass?.u ?? 0 };
    }),
    lines: linesOf(pack, values, us),
  };
};

export interface PackDifference {
  readonly by: PackValues;
  readonly us: Readonly<Record<Figure, number>>;
  /** in words, with direction, uncertainty and what it rests on */
  readonly sentence: string;
}

/**
 * One state of a pack against another. A field that two states of the same part have with the same value is the same quantity: it
 * moves both together, and what they share cancels. Two packs share nothing, however alike their figures are.
 */
export const packDifference = (before: Pack, now: Pack): PackDifference => {
  const [a, b] = [valuesOf(before), valuesOf(now)];
  const gap = (x: PackValues, y: PackValues, figure: Figure): number | null =>
    x[figure] === null || y[figure] === null ? null : y[figure] - x[figure];
  const square = Object.fromEntries(FIGURES.map((figure) => [figure, 0])) as Record<Figure, number>;
  for (const field of CONTINUOUS) {
    const isShared = before.partId === now.partId && before[field] === now[field] && uOf(before, field) === uOf(now, field);
    const moves: readonly (readonly [Pack, Pack, Pack, Pack])[] = isShared
      ? [
          [
            moved(before, field, uOf(before, field)),
            moved(now, field, uOf(now, field)),
            moved(before, field, -uOf(before, field)),
            moved(now, field, -uOf(now, field)),
          ],
        ]
      : [
          [moved(before, field, uOf(before, field)), now, moved(before, field, -uOf(before, field)), now],
          [before, moved(now, field, uOf(now, field)), before, moved(now, field, -uOf(now, field))],
        ];
    if ((uOf(before, field) === 0 && uOf(now, field) === 0) || before[field] === null || now[field] === null) continue;
    for (const [beforeUp, nowUp, beforeDown, nowDown] of moves) {
      const [up, down] = [[valuesOf(beforeUp), valuesOf(nowUp)] as const, [valuesOf(beforeDown), valuesOf(nowDown)] as const];
      for (const figure of FIGURES) square[figure] += half(gap(...up, figure), gap(...down, figure)) ** 2;
    }
  }
  const us = Object.fromEntries(FIGURES.map((figure) => [figure, Math.sqrt(square[figure])])) as Record<Figure, number>;
  const by = Object.fromEntries(FIGURES.map((figure) => [figure, gap(a, b, figure)])) as unknown as PackValues;
  return { by, us, sentence: differenceText(before, now, a, b, by, us) };
};

const differenceText = (before: Pack, now: Pack, a: PackValues, b: PackValues, by: PackValues, us: PackDifference['us']): string => {
  if (a.hottestC === null || b.hottestC === null || by.hottestC === null)
    return 'Temperatures of both states are needed to hold them against each other';
  const gapK = by.hottestC;
  if (Math.abs(gapK) <= COVERAGE_FACTOR * us.hottestC)
    return `The hottest cell of “${now.name}” is not distinguishable from that of “${before.name}”: ${withU(gapK, us.hottestC, 2)} K apart`;
  const than = `${withU(Math.abs(gapK), us.hottestC, 2)} K ${gapK < 0 ? 'cooler' : 'warmer'}`;
  const spread =
    a.spreadK === null || b.spreadK === null
      ? ''
      : `, and the spread within a brick ${fixed(b.spreadK, 1)} K instead of ${fixed(a.spreadK, 1)} K`;
  const drop =
    a.dropPa === null || b.dropPa === null || a.dropPa === 0 ? '' : `, at ${fixed(b.dropPa / a.dropPa, 1)} times the drop along a channel`;
  const allowed = powerAllowed(before.inletC!, a.hottestC, b.hottestC);
  const power =
    allowed === null || before.inletC !== now.inletC || gapK > 0
      ? ''
      : `. At the hottest cell of “${before.name}” it allows ${fixed(100 * (allowed.square - 1), 0)} % more power if heat goes with the square of power, ${fixed(100 * (allowed.proportional - 1), 0)} % if in proportion`;
  return `The hottest cell of “${now.name}” is at ${fixed(b.hottestC, 1)} °C instead of ${fixed(a.hottestC, 1)} °C, ${than}${spread}${drop}${power}`;
};

/** A difference below this is none: what is left of sums that cancel. */
const NO_MORE = 1e-9;

const figureText = (value: number, u: number): string =>
  Math.abs(value) < NO_MORE ? '0' : u < NO_MORE ? fixed(value, 2) : withU(value, u, 4);

const ROWS: readonly (readonly [word: string, figure: Figure, per: number])[] = [
  ['Energy, kWh', 'energyJ', READ_IN.kWh.per],
  ['Nominal voltage, V', 'nominalV', 1],
  ['Hottest cell, °C', 'hottestC', 1],
  ['Coldest cell, °C', 'coldestC', 1],
  ['Largest spread in a brick, K', 'spreadK', 1],
  ['Coolant out, °C', 'outletC', 1],
  ['Drop along a channel, kPa', 'dropPa', READ_IN.kPa.per],
];

/** The figures of a pack in a table, as text with ±: of one state, of the one beside it, and what they differ by. */
export const packRows = (
  now: Pick<PackReport, 'values' | 'us'>,
  beside: Pick<PackReport, 'values' | 'us'> | null,
  difference: Pick<PackDifference, 'by' | 'us'> | null,
): readonly { readonly word: string; readonly now: string; readonly beside: string; readonly change: string }[] => {
  const text = (value: number | null | undefined, u: number | undefined, per: number): string =>
    value === null || value === undefined ? ABSENT : figureText(value / per, (u ?? 0) / per);
  return ROWS.map(([word, figure, per]) => {
    const by = difference?.by[figure];
    const sign = by !== null && by !== undefined && by / per > NO_MORE ? '+' : '';
    return {
      word,
      now: text(now.values[figure], now.us[figure], per),
      beside: text(beside?.values[figure], beside?.us[figure], per),
      change: sign + text(by, difference?.us[figure], per),
    };
  });
};
