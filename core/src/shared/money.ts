/** An amount of money with the basis it was worked out on. Never a bare number. */
export interface Money {
  /** decimal digits, e.g. "4.20" */
  readonly amount: string;
  readonly currency: string;
  readonly priceYear: number;
  /** vehicles per year the price holds for */
  readonly volumePerYear: number;
  readonly region: string;
}

/** What every cost in a study stands on. */
export interface CostBasis {
  readonly currency: string;
  readonly priceYear: number;
  /** vehicles built per year */
  readonly volumePerYear: number;
  /** years the design stays in production; tooling is spread over all of them */
  readonly productionYears: number;
  readonly region: string;
}

/** What keeps a price from being counted on a basis, in words; empty when they agree. */
export const basisDifferences = (price: Money, basis: CostBasis): readonly string[] => [
  ...(price.currency === basis.currency ? [] : [`${price.currency}, not ${basis.currency}`]),
  ...(price.priceYear === basis.priceYear ? [] : [`prices of ${price.priceYear}, not ${basis.priceYear}`]),
  ...(price.volumePerYear === basis.volumePerYear ? [] : [`${price.volumePerYear} vehicles a year, not ${basis.volumePerYear}`]),
  ...(price.region === basis.region ? [] : [`${price.region}, not ${basis.region}`]),
];
