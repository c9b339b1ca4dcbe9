import { READ_IN, issue } from '../../../shared';
import { EVIDENCE, REMARK, choice, length, list, mass, number, optional, positive, reference, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';
import { STATE, stateFaults } from './state-of';

/** How the coolant goes: once along each row, there and back along the same cells, or in a plate below that also spreads heat. */
export const COOLANT_WAYS = ['one pass', 'two passes', 'plate'] as const;
export type CoolantWay = (typeof COOLANT_WAYS)[number];

/** Whether a brick lies along the tubes, so that a tube passes its cells from end to end, or across them. */
export const BRICK_LAYS = ['along the tubes', 'across the tubes'] as const;
export type BrickLay = (typeof BRICK_LAYS)[number];

export const CELL_FORMATS = ['cylindrical', 'prismatic', 'pouch'] as const;

const MOST_CELLS = 100_000;
const LEAST_C = -273.15;

/** A battery pack as it is joined and cooled: as recorded, or a what-if beside it with its author and reason. */
export const PACK = kind({
  list: 'packs',
  table: 'pack',
  words: ['pack', 'packs'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    ...STATE,
    cellsInParallel: whole('Cells in parallel', 1, MOST_CELLS, { blank: 1, evidence: 'C' }),
    bricksPerModule: whole('Bricks per module', 1, MOST_CELLS, { blank: 1, evidence: 'C' }),
    modules: whole('Modules in series', 1, MOST_CELLS, { blank: 1, evidence: 'C' }),
    cellsCounted: whole('Cells counted in all', 1, MOST_CELLS, { ...optional, evidence: 'C' }),
    cellsInModule: whole('Cells counted in one module', 1, MOST_CELLS, { ...optional, evidence: 'C' }),
    tubes: whole('Tubes', 1, MOST_CELLS, { ...optional, evidence: 'C' }),
    cellsPerTube: whole('Cells each tube touches', 1, MOST_CELLS, { ...optional, evidence: 'C' }),
    cellFormat: choice('Cell format', CELL_FORMATS, { ...optional, evidence: 'S' }),
    capacityC: positive('Capacity of a cell', 'C', 1e8, { readIn: READ_IN.Ah, ...optional, evidence: 'S' }),
    nominalV: positive('Nominal voltage of a cell', 'V', 10, { readIn: READ_IN['V to 2'], ...optional, evidence: 'S' }),
    lowestV: positive('Lowest voltage of a cell', 'V', 10, { readIn: READ_IN['V to 2'], ...optional, evidence: 'S' }),
    highestV: positive('Highest voltage of a cell', 'V', 10, { readIn: READ_IN['V to 2'], ...optional, evidence: 'S' }),
    /** of a wound cell: outside of the roll, its core, and all layers of one turn */
    rollOuterM: length('Roll, outside', 1, { readIn: READ_IN['mm to 2'], evidence: 'M', later: true }),
    rollCoreM: length('Roll, core', 1, { readIn: READ_IN['mm to 2'], evidence: 'M', later: true }),
    rollLayerM: length('Roll, one turn', 0.01, { readIn: READ_IN['mm to 3'], evidence: 'M', later: true }),
    /** of a cell at 25 °C, and how it changes with its temperature */
    cellOhm: positive('Resistance of a cell', 'Ω', 100, { readIn: READ_IN['mΩ'], ...optional, evidence: 'I', later: true }),
    cellOhmPerK: number('Resistance per kelvin', '1/K', { min: -0.1, max: 0.1, ...optional, evidence: 'I', later: true }),
    /** of one brick */
    brickA: positive('Current of a brick', 'A', 1e5, { ...optional, evidence: 'I', later: true }),
    cellMassKg: mass('Mass of a cell', { readIn: READ_IN.g, evidence: 'M' }),
    /** the part whose count is the modules */
    modulesPartId: reference('Modules are', 'part', 'clear', optional),
    /** parts outside the pack that shield it */
    shields: list('Shields', reference('Shield', 'part', 'clear'), 20),
    chargerPartId: reference('Charger box', 'part', 'clear', optional),
    way: choice('Cooled in', COOLANT_WAYS, { blank: 'one pass', evidence: 'S' }),
    lay: choice('Bricks lie', BRICK_LAYS, { blank: 'along the tubes', evidence: 'S' }),
    rows: whole('Rows of cells in a module', 1, 1000, { ...optional, evidence: 'C' }),
    heatPerCellW: positive('Heat per cell', 'W', 1e4, { ...optional, evidence: 'I' }),
    cellToCoolantWPerK: positive('Cell to coolant', 'W/K', 1e4, { ...optional, evidence: 'I' }),
    cellToCellWPerK: number('Cell to cell', 'W/K', { min: 0, max: 1e4, blank: 0, evidence: 'I' }),
    flowM3PerS: positive('Coolant flow through the pack', 'm³/s', 1, { readIn: READ_IN['l/min'], ...optional, evidence: 'I' }),
    inletC: number('Coolant in', '°C', { min: LEAST_C, max: 200, ...optional, evidence: 'I' }),
    coolantKgPerM3: positive('Coolant density', 'kg/m³', 1e4, { ...optional, evidence: 'P' }),
    coolantJPerKgK: positive('Coolant heat capacity', 'J/(kg K)', 1e5, { ...optional, evidence: 'P' }),
    coolantPaS: positive('Coolant viscosity', 'Pa s', 100, { readIn: READ_IN['mPa s'], ...optional, evidence: 'P' }),
    channelWidthM: length('Channel width', 1, { evidence: 'M' }),
    channelHeightM: length('Channel height', 1, { evidence: 'M' }),
    channelLengthM: length('Channel length', 100, { evidence: 'M' }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (pack) => [
    ...stateFaults(pack),
    ...(pack.lowestV !== null && pack.highestV !== null && pack.lowestV >= pack.highestV
      ? [issue('voltages', 'The lowest voltage of a cell must be below the highest', 'lowestV', pack.id)]
      : []),
    ...(pack.rollOuterM !== null && pack.rollCoreM !== null && pack.rollCoreM >= pack.rollOuterM
      ? [issue('roll-core', 'The core of a roll must be thinner than the roll', 'rollCoreM', pack.id)]
      : []),
    ...(pack.rows !== null && (pack.cellsInParallel * pack.bricksPerModule) % pack.rows !== 0
      ? [
          issue(
            'rows-do-not-divide',
            `${pack.cellsInParallel * pack.bricksPerModule} cells of a module do not stand in ${pack.rows} rows of the same length`,
            'rows',
            pack.id,
          ),
        ]
      : []),
  ],
});
