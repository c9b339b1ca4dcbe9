import {
  atMass,
  basisDifferences,
  issue,
  materialById,
  processById,
  type CostBasis,
  type Issue,
  type Material,
  type Money,
  type Process,
} from '../shared';
import type { Part, Study } from '../record';
import type { CostTerms } from './cost-measures';

/** Currency and price year of the shipped catalogue. */
const CATALOGUE_CURRENCY = 'EUR';
const CATALOGUE_YEAR = 2026;

/** One term of a cost: what it is, how it was worked out, and the amount each. */
export interface CostTerm {
  readonly label: string;
  readonly working: string;
  readonly amount: number;
  readonly source: string;
}

export interface PartCost {
  /** cost each in the currency of the basis, null when it cannot be worked out */
  readonly amount: number | null;
  readonly terms: readonly CostTerm[];
  readonly boughtWhole: boolean;
  readonly issues: readonly Issue[];
}

/** Inputs of the general model, all for one part. */
export interface ProcessCostInputs {
  readonly netMassKg: number;
  readonly pricePerKg: number;
  readonly scrapFraction: number;
  readonly tooling: number;
  readonly toolLifeParts: number;
  readonly partsOverLife: number;
  readonly cycleS: number;
  readonly ratePerH: number;
  readonly yieldFraction: number;
}

/**
 * The three terms of the general should-cost model, each in the currency of its inputs, per good part.
 *
 *   material   m p / (1 − f)
 *   tooling    (T / n) ⌈n / n_t⌉
 *   conversion t r / (3600 y)
 *
 * @param inputs net mass m kg, price p per kg, scrap f and yield y as fractions, tooling T per set, tool life n_t and
 *   volume n in parts, cycle t in s, rate r per hour
 * @throws RangeError when an input is outside what the model means
 * @source M. F. Ashby, Materials Selection in Mechanical Design, the cost model with batch-limited tooling
 * @example
 * generalCost({ netMassKg: 1.5, pricePerKg: 2, scrapFraction: 0.25, tooling: 60_000, toolLifeParts: 100_000, partsOverLife: 100_000, cycleS: 60, ratePerH: 80, yieldFraction: 1 })
 * // => { material: 4, tooling: 0.6, conversion: 1.3333333333333333 }
 */
export const generalCost = (
  inputs: ProcessCostInputs,
): { readonly material: number; readonly tooling: number; readonly conversion: number } => {
  const { netMassKg, pricePerKg, scrapFraction, tooling, toolLifeParts, partsOverLife, cycleS, ratePerH, yieldFraction } = inputs;
  if (!(scrapFraction >= 0 && scrapFraction < 1)) throw new RangeError(`scrapFraction ${scrapFraction} is not in [0, 1)`);
  if (!(yieldFraction > 0 && yieldFraction <= 1)) throw new RangeError(`yieldFraction ${yieldFraction} is not in (0, 1]`);
  if (!(partsOverLife >= 1 && toolLifeParts >= 1)) throw new RangeError('volumes are at least one part');
  return {
    material: (netMassKg * pricePerKg) / (1 - scrapFraction),
    tooling: (tooling / partsOverLife) * Math.ceil(partsOverLife / toolLifeParts),
    conversion: (cycleS * ratePerH) / 3600 / yieldFraction,
  };
};

const figure = (value: number): string => String(Number(value.toPrecision(4)));

const processInputs = (netMassKg: number, material: Material, process: Process, partsOverLife: number): ProcessCostInputs => ({
  netMassKg,
  pricePerKg: material.priceEurPerKg,
  scrapFraction: process.scrapFraction,
  tooling: atMass(process.toolingEur, netMassKg),
  toolLifeParts: process.toolLifeParts,
  partsOverLife,
  cycleS: atMass(process.cycleS, netMassKg),
  ratePerH: atMass(process.rateEurPerH, netMassKg),
  yieldFraction: process.yieldFraction,
});

const processTerms = (inputs: ProcessCostInputs, material: Material, process: Process): readonly CostTerm[] => {
  const cost = generalCost(inputs);
  const sets = Math.ceil(inputs.partsOverLife / process.toolLifeParts);
  return [
    {
      label: 'Material',
      working: `${figure(inputs.netMassKg)} kg × ${material.priceEurPerKg} EUR/kg ÷ (1 − ${process.scrapFraction} scrap)`,
      amount: cost.material,
      source: `${material.name}: price ${material.year}, assumed`,
    },
    {
      label: 'Tooling',
      working: `${figure(inputs.tooling)} EUR × ${sets} ${sets === 1 ? 'set' : 'sets'} ÷ ${figure(inputs.partsOverLife)} parts over life`,
      amount: cost.tooling,
      source: `${process.name}: ${process.source} ${process.year}`,
    },
    {
      label: 'Conversion',
      working: `${figure(inputs.cycleS)} s × ${figure(inputs.ratePerH)} EUR/h ÷ 3600 ÷ ${process.yieldFraction} yield`,
      amount: cost.conversion,
      source: `${process.name}: ${process.source} ${process.year}`,
    },
  ];
};

const priceOf = (part: Part): Money | null =>
  part.boughtPrice === null
    ? null
    : {
        amount: part.boughtPrice,
        currency: part.boughtCurrency ?? '',
        priceYear: part.boughtPriceYear ?? 0,
        volumePerYear: part.boughtVolumePerYear ?? 0,
        region: part.boughtRegion ?? '',
      };

const notCosted = (issues: readonly Issue[], boughtWhole = false): PartCost => ({ amount: null, terms: [], boughtWhole, issues });

const boughtCost = (price: Money, basis: CostBasis, partId: string): PartCost => {
  const differences = basisDifferences(price, basis);
  if (differences.length > 0)
    return notCosted(
      [issue('other-basis', `The price stands on another basis (${differences.join('; ')}) and is not counted`, 'boughtPrice', partId)],
      true,
    );
  const term: CostTerm = {
    label: 'Bought out',
    working: `price each, ${price.currency} ${price.priceYear}, ${price.volumePerYear} vehicles a year, ${price.region}`,
    amount: Number(price.amount),
    source: 'as recorded on the part',
  };
  return { amount: term.amount, terms: [term], boughtWhole: true, issues: [] };
};

const missing = (part: Part): readonly Issue[] => [
  ...(part.massEachKg === null ? [issue('no-mass', 'No mass yet', 'massEachKg', part.id)] : []),
  ...(part.materialId === null || !materialById.has(part.materialId)
    ? [
        issue(
          'no-material',
          part.materialId === null ? 'No material yet' : `The catalogue has no material “${part.materialId}”`,
          'materialId',
          part.id,
        ),
      ]
    : []),
  ...(part.processId === null || !processById.has(part.processId)
    ? [
        issue(
          'no-process',
          part.processId === null ? 'Not said how it is made' : `The catalogue has no process “${part.processId}”`,
          'processId',
          part.id,
        ),
      ]
    : []),
];

const catalogueServes = (basis: CostBasis): boolean => basis.currency === CATALOGUE_CURRENCY && basis.priceYear === CATALOGUE_YEAR;

/** Basis faults that keep the shipped catalogue from being used at all. */
export const catalogueIssues = (basis: CostBasis): readonly Issue[] =>
  catalogueServes(basis)
    ? []
    : [
        issue(
          'catalogue-basis',
          `The catalogue is in ${CATALOGUE_CURRENCY} of ${CATALOGUE_YEAR}; the study asks for ${basis.currency} of ${basis.priceYear}. Only bought-out prices are counted`,
          null,
        ),
      ];

/** The basis on which costs of a study stand: currency, price year, volume, years and region. */
export const basisOf = (study: Study): CostBasis => ({
  currency: study.currency,
  priceYear: study.priceYear,
  volumePerYear: study.volumePerYear,
  productionYears: study.productionYears,
  region: study.region,
});

/**
 * Cost of one part on the study's basis: the bought-out price where there is one, else the general model.
 *
 * @param part the part
 * @param perVehicle how many of it one vehicle has, all levels multiplied
 * @param basis what the cost stands on
 */
export const partCost = (part: Part, perVehicle: number, basis: CostBasis): PartCost => {
  const price = priceOf(part);
  if (price) return boughtCost(price, basis, part.id);
  const issues = [...missing(part), ...catalogueIssues(basis)];
  const material = materialById.get(part.materialId ?? '');
  const process = processById.get(part.processId ?? '');
  if (issues.length > 0 || !material || !process || part.massEachKg === null) return notCosted(issues);
  const inputs = processInputs(part.massEachKg, material, process, partsOverLife(basis, perVehicle));
  const terms = processTerms(inputs, material, process);
  return { amount: sumOfTerms(generalCost(inputs)), terms, boughtWhole: false, issues: [] };
};

const partsOverLife = (basis: CostBasis, perVehicle: number): number => basis.volumePerYear * basis.productionYears * perVehicle;

const sumOfTerms = ({ material, tooling, conversion }: ReturnType<typeof generalCost>): number => material + tooling + conversion;

/** The terms of `partCost` alone, without the words: what roll-ups of many thousand parts ask for. Null where there is no cost. */
export const partTerms = (
  part: Part,
  perVehicle: number,
  basis: CostBasis,
): { readonly terms: CostTerms | null; readonly boughtWhole: boolean } => {
  const price = priceOf(part);
  if (price)
    return {
      terms: basisDifferences(price, basis).length > 0 ? null : { material: 0, tooling: 0, conversion: 0, bought: Number(price.amount) },
      boughtWhole: true,
    };
  const material = materialById.get(part.materialId ?? '');
  const process = processById.get(part.processId ?? '');
  const isCosted = part.massEachKg !== null && material !== undefined && process !== undefined && catalogueServes(basis);
  return {
    terms: isCosted
      ? { ...generalCost(processInputs(part.massEachKg, material, process, partsOverLife(basis, perVehicle))), bought: 0 }
      : null,
    boughtWhole: false,
  };
};
