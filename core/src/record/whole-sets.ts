import { issue, type Issue } from '../shared';
import type { PRICE_PAID, ValuesOf } from './kinds/field';

/** True when either every one of the values is given or none. */
export const allOrNone = (values: readonly unknown[]): boolean => {
  const given = values.filter((value) => value !== null).length;
  return given === 0 || given === values.length;
};

/** A price is nothing without its currency and year. */
export const priceFaults = ({ price, priceCurrency, priceYear }: ValuesOf<typeof PRICE_PAID>, id: string): readonly Issue[] =>
  allOrNone([price, priceCurrency, priceYear]) ? [] : [issue('price-basis', 'A price needs its currency and year', 'price', id)];
