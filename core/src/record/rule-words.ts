import type { Study } from './entities';

/** The counting rule in words, as the basis line and exports say it. */
export const countingRuleText = (study: Pick<Study, 'fastenersIn' | 'assembliesAs'>): string =>
  `${study.assembliesAs === 'parts' ? 'loose parts' : 'opened assemblies as one'}${study.fastenersIn ? ' + fasteners' : ', fasteners left out'}`;

/** The cost basis in words. */
export const costBasisText = (study: Pick<Study, 'currency' | 'priceYear' | 'volumePerYear' | 'productionYears' | 'region'>): string =>
  `${study.currency} ${study.priceYear}, ${study.volumePerYear} vehicles a year for ${study.productionYears} years, ${study.region}`;
