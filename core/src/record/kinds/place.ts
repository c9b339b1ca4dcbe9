import { number, type NumberField } from './field';

/** The largest part of a vehicle is shorter than this. */
const MOST_M = 100;

/** A coordinate on a part. */
export const place = (label: string): NumberField => number(label, 'm', { min: -MOST_M, max: MOST_M });
