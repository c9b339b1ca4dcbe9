import { issue, type Issue } from '../../shared';

/** How the cells of a pack are joined. */
export interface Topology {
  readonly cellsInParallel: number;
  readonly bricksPerModule: number;
  readonly modules: number;
  /** tubes of all modules together; null where not counted or where there is a plate */
  readonly tubes: number | null;
  /** cells that each tube touches; null where not counted */
  readonly cellsPerTube: number | null;
}

/** What a cell is. SI. */
export interface CellFigures {
  readonly capacityC: number;
  readonly nominalV: number;
  readonly lowestV: number | null;
  readonly highestV: number | null;
  readonly massKg: number | null;
}

export interface PackFigures {
  readonly cells: number;
  readonly bricksInSeries: number;
  readonly nominalV: number;
  readonly lowestV: number | null;
  readonly highestV: number | null;
  readonly energyJ: number;
  readonly cellsKg: number | null;
}

/**
 * Energy and voltage of a pack: bricks in series × cells in parallel.
 *
 * @returns J, V, kg
 * @example
 * // 96 bricks of 4 cells of 3.65 V and 5 Ah (18 000 C): 350.4 V and 7.008 kWh
 * packFigures({ cellsInParallel: 4, bricksPerModule: 8, modules: 12, tubes: null, cellsPerTube: null },
 *   { capacityC: 18000, nominalV: 3.65, lowestV: null, highestV: null, massKg: 0.07 }).energyJ / 3.6e6 // => 7.008
 */
export const packFigures = (topology: Topology, cell: CellFigures): PackFigures => {
  const bricksInSeries = topology.bricksPerModule * topology.modules;
  const cells = bricksInSeries * topology.cellsInParallel;
  const times = (volts: number | null): number | null => (volts === null ? null : volts * bricksInSeries);
  return {
    cells,
    bricksInSeries,
    nominalV: cell.nominalV * bricksInSeries,
    lowestV: times(cell.lowestV),
    highestV: times(cell.highestV),
    energyJ: cells * cell.capacityC * cell.nominalV,
    cellsKg: cell.massKg === null ? null : cells * cell.massKg,
  };
};

/** What was counted independently of the topology. */
export interface Counted {
  /** cells counted in all, or in the module that was opened */
  readonly cells: number | null;
  readonly cellsInModule: number | null;
}

/**
 * Whether the counts multiply: cells in parallel × bricks × modules against the cells counted, tubes × cells of each against
 * the cells.
 *
 * @returns issues named by the field at fault, with the numbers multiplied out
 */
export const topologyIssues = (topology: Topology, counted: Counted, aboutId: string): readonly Issue[] => {
  const { cellsInParallel, bricksPerModule, modules, tubes, cellsPerTube } = topology;
  const inModule = cellsInParallel * bricksPerModule;
  const cells = inModule * modules;
  const found: Issue[] = [];
  if (counted.cells !== null && counted.cells !== cells)
    found.push(
      issue(
        'cells-do-not-multiply',
        `${cellsInParallel} in parallel × ${bricksPerModule} bricks × ${modules} modules is ${cells} cells, ${counted.cells} were counted`,
        'cellsCounted',
        aboutId,
      ),
    );
  if (counted.cellsInModule !== null && counted.cellsInModule !== inModule)
    found.push(
      issue(
        'module-does-not-multiply',
        `${cellsInParallel} in parallel × ${bricksPerModule} bricks is ${inModule} cells, ${counted.cellsInModule} were counted in the opened module`,
        'cellsInModule',
        aboutId,
      ),
    );
  if (tubes !== null && cellsPerTube !== null && tubes * cellsPerTube !== cells)
    found.push(
      issue(
        'tubes-do-not-touch-all',
        `${tubes} tubes × ${cellsPerTube} cells is ${tubes * cellsPerTube}, not the ${cells} cells of the pack: a tube between two rows touches both, an outer one only one`,
        'cellsPerTube',
        aboutId,
      ),
    );
  return found;
};

/** One boundary of a pack: what of it is counted in. */
export interface PackBoundary {
  readonly name: string;
  /** kg and its standard uncertainty; null where a mass in it is not known */
  readonly massKg: number | null;
  readonly uKg: number;
  /** boxes around what is counted, m³; null where one is not known */
  readonly boxM3: number | null;
}

/**
 * Energy per mass inside a boundary. Which masses are in it must be said with the figure: the cells alone and the whole pack
 * with its shield are easily a third apart.
 *
 * @returns Wh/kg and its standard uncertainty; null without a mass
 */
export const energyPerMass = (
  energyJ: number,
  uEnergyJ: number,
  { massKg, uKg }: PackBoundary,
): { readonly whPerKg: number; readonly u: number } | null => {
  if (massKg === null || massKg <= 0) return null;
  const whPerKg = energyJ / 3600 / massKg;
  return { whPerKg, u: whPerKg * Math.hypot(energyJ === 0 ? 0 : uEnergyJ / energyJ, uKg / massKg) };
};

/**
 * Length of the strip in a rolled cell: the cross-section of the roll over the thickness of one turn.
 *
 *   L = π (D² − d²) / (4 t)
 *
 * @param outerM diameter of the roll, m
 * @param innerM diameter of the hole it is rolled around, m
 * @param turnM thickness of all layers of one turn, m
 * @returns m
 * @throws RangeError when the hole is not smaller than the roll or a turn has no thickness
 */
export const rollLengthM = (outerM: number, innerM: number, turnM: number): number => {
  if (!(turnM > 0)) throw new RangeError('The thickness of a turn must be more than 0');
  if (!(innerM >= 0 && outerM > innerM)) throw new RangeError('The roll must be wider than the hole in it');
  return (Math.PI * (outerM ** 2 - innerM ** 2)) / (4 * turnM);
};
