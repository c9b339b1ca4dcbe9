import { COVERAGE_FACTOR, READ_IN, fixed, withU, type Issue } from '../../shared';
import { fieldInput, type Pack, type Part } from '../../record';
import { hydraulicDiameterM, pipeDrop } from '../flow/pipe';
import { carried, carriedDifference, type Carried, type Model } from '../systems/carried';
import type { FigureWord, FormulaLine } from '../systems/figure-rows';
import { brickOf, coolCells, parallelCurrents, powerAllowed, spreadInBrickK, type CoolantState } from './coolant';
import { energyPerMass, packFigures, rollLengthM, topologyIssues, type PackBoundary } from './topology';

/** Roughness of a drawn or extruded channel, m: smooth for all that matters here. Assumed. */
const SMOOTH_M = 1.5e-6;

const FIGURES = [
  ...([
    'energyJ',
    'nominalV',
    'lowestPackV',
    'highestPackV',
    'hottestC',
    'coldestC',
    'spreadK',
    'outletC',
    'dropPa',
    'unevenCurrent',
    'rollM',
  ] as const),
];
type Figure = (typeof FIGURES)[number];
/** Figures of a pack, SI, °C and differences in K; null where a field that it needs is not known. */
export type PackValues = Readonly<Record<Figure, number | null>>;

/** Fields that the figures rest on and whose uncertainty they carry. */
const CONTINUOUS = [
  ...(['capacityC', 'nominalV', 'heatPerCellW', 'cellToCoolantWPerK', 'cellToCellWPerK', 'flowM3PerS', 'inletC'] as const),
  ...(['coolantKgPerM3', 'coolantJPerKgK', 'coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM'] as const),
  ...(['rollOuterM', 'rollCoreM', 'rollLayerM', 'cellOhmPerK'] as const),
];
/** Fields whose uncertainty goes into what a pack comes to; the mass of a cell into its boundaries. */
export const PACK_U_FIELDS: readonly (keyof Pack)[] = [...CONTINUOUS, 'cellMassKg'];

const NEEDED_TO_COOL = ['rows', 'heatPerCellW', 'cellToCoolantWPerK', 'flowM3PerS', 'inletC', 'coolantKgPerM3', 'coolantJPerKgK'] as const;
const NEEDED_FOR_DROP = ['coolantPaS', 'channelWidthM', 'channelHeightM', 'channelLengthM'] as const;
const NEEDED_FOR_ROLL = ['rollOuterM', 'rollCoreM', 'rollLayerM'] as const;
const NEEDED_FOR_ENERGY = ['capacityC', 'nominalV'] as const;

const absent = (pack: Pack, fields: readonly (keyof Pack)[]): readonly (keyof Pack)[] => fields.filter((field) => pack[field] === null);

/** Channels of the whole pack: those that were counted, else one for each row of each module. */
const channelsOf = (pack: Pack): number => pack.tubes ?? (pack.rows ?? 0) * pack.modules;

/** Cells of one module, cooled as it is, each cut along its row into so many pieces; null where what that needs is not known. */
const packState = (pack: Pack, cut: number): CoolantState | null => {
  if (absent(pack, NEEDED_TO_COOL).length > 0) return null;
  const inModule = pack.cellsInParallel * pack.bricksPerModule;
  return coolCells({
    way: pack.way,
    rows: pack.rows!,
    cellsPerRow: (inModule / pack.rows!) * cut,
    heatPerCellW: pack.heatPerCellW! / cut,
    cellToCoolantWPerK: pack.cellToCoolantWPerK! / cut,
    cellToCellWPerK: pack.cellToCellWPerK * cut,
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
const cooled = (pack: Pack, cut = 1): { readonly state: CoolantState | null; readonly fault: string } => {
  try {
    return { state: packState(pack, cut), fault: '' };
  } catch (fault) {
    if (!(fault instanceof RangeError)) throw fault;
    return { state: null, fault: fault.message };
  }
};

/**
 * Largest current of a cell over the mean of its brick, less one: cells in parallel share by their resistance, which follows the
 * temperatures that were worked out. What an uneven share does to those temperatures is left out.
 */
const unevenCurrentOf = (pack: Pack, state: CoolantState): number | null => {
  if (pack.cellOhmPerK === null) return null;
  const bricks = new Map<number, number[]>();
  for (const [row, cells] of state.cellsC.entries())
    for (const [place, cellC] of cells.entries()) {
      const brick = brickOf(pack.lay, pack.bricksPerModule, state.cellsC.length, cells.length, row, place);
      bricks.set(brick, [...(bricks.get(brick) ?? []), cellC]);
    }
  // in proportion: whatever all cells have at 25 °C, and whatever flows through the brick
  const shares = [...bricks.values()].map((cellsC) => {
    const currents = parallelCurrents(
      cellsC.map((ambientC) => ({ ohmAt25: 1, ambientC })),
      cellsC.length,
      pack.cellOhmPerK!,
      0,
    );
    return Math.max(...currents.map(({ currentA }) => currentA)) - 1;
  });
  return Math.max(...shares);
};

const valuesOf = (pack: Pack): PackValues => {
  const { state } = cooled(pack);
  const energy =
    absent(pack, NEEDED_FOR_ENERGY).length > 0
      ? null
      : packFigures(pack, { ...pack, capacityC: pack.capacityC!, nominalV: pack.nominalV!, massKg: null });
  return {
    energyJ: energy?.energyJ ?? null,
    nominalV: energy?.nominalV ?? null,
    lowestPackV: energy?.lowestV ?? null,
    highestPackV: energy?.highestV ?? null,
    dropPa: channelDrop(pack),
    hottestC: state?.hottestC ?? null,
    coldestC: state?.coldestC ?? null,
    spreadK: state && spreadInBrickK(state, pack.lay, pack.bricksPerModule),
    outletC: state && state.outletC.reduce((sum, outlet) => sum + outlet, 0) / state.outletC.length,
    unevenCurrent: state && unevenCurrentOf(pack, state),
    rollM:
      absent(pack, NEEDED_FOR_ROLL).length > 0 || pack.rollCoreM! >= pack.rollOuterM!
        ? null
        : rollLengthM(pack.rollOuterM!, pack.rollCoreM!, pack.rollLayerM!),
  };
};

const MODEL: Model<Pack, Figure> = { inputs: CONTINUOUS, figures: FIGURES, valuesOf };

/** A mass with its standard uncertainty. */
export interface Weighed {
  readonly massKg: number;
  readonly uKg: number;
  /** box around one, times how many there are, m³; null without an envelope */
  readonly boxM3: number | null;
}

/** Boxes around all there are of a part where it hangs, m³; null without an envelope. */
export const boxesM3 = ({
  lengthM,
  widthM,
  heightM,
  quantity,
}: Pick<Part, 'lengthM' | 'widthM' | 'heightM' | 'quantity'>): number | null =>
  lengthM === null || widthM === null || heightM === null ? null : lengthM * widthM * heightM * quantity;

/** Masses by part, as the record has them with all that is inside and for as many as there are. */
export type MassOf = (partId: string) => Weighed | null;

const added = (name: string, masses: readonly (Weighed | null)[]): PackBoundary =>
  masses.every((m) => m !== null)
    ? {
        name,
        massKg: masses.reduce((sum, m) => sum + m.massKg, 0),
        uKg: Math.hypot(...masses.map((m) => m.uKg)),
        boxM3: masses.every((m) => m.boxM3 !== null) ? masses.reduce((sum, m) => sum + m.boxM3!, 0) : null,
      }
    : { name, massKg: null, uKg: 0, boxM3: null };

/** What may be counted as the pack, from the cells alone outwards. */
export const packBoundaries = (pack: Pack, massOf: MassOf): readonly PackBoundary[] => {
  const cells = pack.cellsInParallel * pack.bricksPerModule * pack.modules;
  const whole = massOf(pack.partId);
  const shields = pack.shields.map(massOf);
  const charger = pack.chargerPartId === null ? null : massOf(pack.chargerPartId);
  const ofCells =
    pack.cellMassKg === null ? null : { massKg: cells * pack.cellMassKg, uKg: cells * (pack.evidence.cellMassKg?.u ?? 0), boxM3: null };
  return [
    added('cells', [ofCells]),
    ...(pack.modulesPartId === null ? [] : [added('modules', [massOf(pack.modulesPartId)])]),
    added('pack', [whole]),
    ...(pack.shields.length === 0 ? [] : [added('pack with shield', [whole, ...shields])]),
    ...(pack.chargerPartId === null ? [] : [added('pack with shield and charger box', [whole, ...shields, charger])]),
  ];
};

export interface PackReport extends Carried<Figure> {
  readonly state: CoolantState | null;
  /** why there is no temperature, where something forbids it */
  readonly fault: string;
  /** labels of the fields that are still to be said, by what they are needed for */
  readonly missing: { readonly energy: readonly string[]; readonly cooling: readonly string[]; readonly drop: readonly string[] };
  readonly issues: readonly Issue[];
  readonly boundaries: readonly (PackBoundary & {
    readonly whPerKg: number | null;
    readonly uWhPerKg: number;
    /** over the boxes around them; null where one has no envelope */
    readonly whPerL: number | null;
  })[];
  readonly lines: readonly FormulaLine[];
}

const labels = (fields: readonly (keyof Pack)[]): readonly string[] => fields.map((field) => fieldInput(`pack.${field}` as never).label);

const linesOf = (
  pack: Pack,
  { energyJ, hottestC, outletC, dropPa, rollM, unevenCurrent }: PackValues,
  us: PackReport['us'],
): readonly FormulaLine[] => {
  const lines: FormulaLine[] = [];
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
  if (unevenCurrent !== null && pack.brickA !== null) {
    const mean = pack.brickA / pack.cellsInParallel;
    lines.push({
      word: 'Largest current of a cell',
      text: `${fixed(mean * (1 + unevenCurrent), 2)} A`,
      formula: `${fixed(pack.brickA, 1)} A / ${pack.cellsInParallel} cells × ${fixed(100 * (1 + unevenCurrent), 1)} %, shared by the resistance at each temperature`,
    });
    if (pack.cellOhm !== null)
      lines.push({
        word: 'Loss in the resistance of a cell',
        text: `${fixed(mean ** 2 * pack.cellOhm, 2)} W`,
        formula: `(${fixed(mean, 2)} A)² × ${fixed(pack.cellOhm * 1000, 1)} mΩ${pack.heatPerCellW === null ? '' : `; reckoned with ${fixed(pack.heatPerCellW, 2)} W`}`,
      });
  }
  if (rollM !== null)
    lines.push({
      word: 'Roll of a cell',
      text: us.rollM === 0 ? `${fixed(rollM, 3)} m` : `${withU(rollM, us.rollM, 3)} m`,
      formula: `π/4 × (${fixed(pack.rollOuterM! * 1000, 2)}² − ${fixed(pack.rollCoreM! * 1000, 2)}²) mm² / ${fixed(pack.rollLayerM! * 1000, 3)} mm`,
    });
  const finer = hottestC === null ? null : cutFiner(pack);
  if (finer !== null)
    lines.push({
      word: 'Row cut finer',
      text: `${finer.hottestC.map((c) => fixed(c, 2)).join(' → ')} °C`,
      formula: `a cell as 1, 2 and 4 pieces, each of one temperature${finer.order === null ? '' : `; the steps fall by order ${fixed(finer.order, 2)}`}`,
    });
  return lines;
};

/** What each step outwards adds to the mass, and takes from the energy per mass. */
const penaltyLines = (boundaries: PackReport['boundaries']): readonly FormulaLine[] => {
  const whole = boundaries.find(({ name }) => name === 'pack');
  return boundaries.flatMap((outer) => {
    if (!whole || !outer.name.startsWith('pack with') || outer.massKg === null || whole.massKg === null) return [];
    const by = outer.massKg - whole.massKg;
    const lost = outer.whPerKg === null || whole.whPerKg === null ? '' : `, ${fixed(whole.whPerKg - outer.whPerKg, 1)} Wh/kg less`;
    return [
      {
        word: outer.name.replace('pack with', 'Added by'),
        text: `${fixed(by, 2)} kg, ${fixed((100 * by) / outer.massKg, 1)} %${lost}`,
        formula: `${fixed(outer.massKg, 2)} kg − ${fixed(whole.massKg, 2)} kg, of ${fixed(outer.massKg, 2)} kg`,
      },
    ];
  });
};

/**
 * Hottest place of a row whose cells are cut into pieces, to see how much it matters that a cell has one temperature, and the order
 * at which the steps fall: log₂ of one step over the next.
 *
 * @returns null where there are no temperatures, or the way of the coolant is not one along the row
 */
export const cutFiner = (pack: Pack): { readonly hottestC: readonly number[]; readonly order: number | null } | null => {
  if (absent(pack, NEEDED_TO_COOL).length > 0 || pack.way !== 'one pass') return null;
  const states = [1, 2, 4].map((cut) => cooled(pack, cut).state);
  if (!states.every((state) => state !== null)) return null;
  const hottestC = states.map((state) => state.hottestC);
  const [first, second] = [hottestC[1]! - hottestC[0]!, hottestC[2]! - hottestC[1]!];
  return { hottestC, order: second === 0 || first / second <= 0 ? null : Math.log2(first / second) };
};

/**
 * All that a recorded pack comes to: topology checked, energy, mass boundaries, temperatures of one module, and what is missing
 * for each. What cannot be worked out is left out and named; nothing is filled in.
 */
export const packReport = (pack: Pack, massOf: MassOf): PackReport => {
  const { state, fault } = cooled(pack);
  const { values, us } = carried(MODEL, pack);
  const boundaries = packBoundaries(pack, massOf).map((boundary) => {
    const perMass = values.energyJ === null ? null : energyPerMass(values.energyJ, us.energyJ, boundary);
    return {
      ...boundary,
      whPerKg: perMass?.whPerKg ?? null,
      uWhPerKg: perMass?.u ?? 0,
      whPerL: values.energyJ === null || boundary.boxM3 === null ? null : values.energyJ / 3600 / (boundary.boxM3 * 1000),
    };
  });
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
    boundaries,
    lines: [...linesOf(pack, values, us), ...penaltyLines(boundaries)],
  };
};

export interface PackDifference extends Carried<Figure> {
  /** in words, with direction, uncertainty and what it rests on */
  readonly sentence: string;
}

/** One state of a pack against another; what two states of the same pack share cancels. */
export const packDifference = (before: Pack, now: Pack): PackDifference => {
  const difference = carriedDifference(MODEL, before, now);
  return { ...difference, sentence: differenceText(before, now, valuesOf(before), valuesOf(now), difference.values, difference.us) };
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

const celsius = { per: 1, unit: '°C', digits: 1 };
export const PACK_WORDS: readonly FigureWord<Figure>[] = [
  { figure: 'energyJ', word: 'Energy', shown: READ_IN.kWh },
  { figure: 'nominalV', word: 'Nominal voltage', shown: READ_IN.V },
  { figure: 'lowestPackV', word: 'Lowest voltage', shown: READ_IN.V },
  { figure: 'highestPackV', word: 'Highest voltage', shown: READ_IN.V },
  { figure: 'hottestC', word: 'Hottest cell', shown: celsius },
  { figure: 'coldestC', word: 'Coldest cell', shown: celsius },
  { figure: 'spreadK', word: 'Largest spread in a brick', shown: { per: 1, unit: 'K', digits: 1 } },
  { figure: 'outletC', word: 'Coolant out', shown: celsius },
  { figure: 'dropPa', word: 'Drop along a channel', shown: READ_IN.kPa },
  { figure: 'unevenCurrent', word: 'Largest current of a cell over the mean', shown: READ_IN['%'] },
  { figure: 'rollM', word: 'Roll of a cell', shown: READ_IN.m },
];
