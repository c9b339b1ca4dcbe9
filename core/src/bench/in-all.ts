import { fixed } from '../shared';
import type { Entry } from './shorthand/entry';

/**
 * What the count of a set comes to on a part that is there more than once: "4 each on 2 = 8". Empty where the entry is no
 * counted set, or the part is there once.
 *
 * @param entry what was understood
 * @param quantity how many of the part there are per parent
 */
export const inAllText = (entry: Entry | null, quantity: number): string =>
  entry !== null && 'count' in entry && quantity > 1
    ? `${fixed(entry.count, 0)} each on ${fixed(quantity, 0)} = ${fixed(entry.count * quantity, 0)}`
    : '';
