import type { FastenerSet } from '../record';

/** What makes two fasteners the same to buy and to drive. */
const variantKey = (set: FastenerSet): string => [set.kind, set.threadM, set.pitchM, set.lengthM, set.drive, set.grade].join('|');

/** How many different fasteners there are among sets. */
export const fastenerVariants = (sets: readonly FastenerSet[]): number => new Set(sets.map(variantKey)).size;
