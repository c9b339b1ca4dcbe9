import { ABSENT, fixed, threeDigits, withU, type ShownUnit } from '../../shared';
import { asShown } from '../../shared';
import type { Carried } from './carried';

/** A figure in a table: its word, and the unit it is read in. */
export interface FigureWord<F extends string> {
  readonly figure: F;
  readonly word: string;
  readonly shown: ShownUnit;
}

export interface FigureRow {
  readonly word: string;
  readonly now: string;
  readonly beside: string;
  readonly change: string;
}

/** A sum with its numbers. */
export interface FormulaLine {
  readonly word: string;
  readonly text: string;
  readonly formula: string;
}

/** A figure below this share of its unit is none: what is left of sums that cancel. */
const NO_MORE = 1e-9;
const MOST_DECIMALS = 4;

const textOf = (value: number | null | undefined, u: number | undefined, per: number): string => {
  if (value === null || value === undefined) return ABSENT;
  const [own, uOwn] = [value / per, (u ?? 0) / per];
  if (Math.abs(own) < NO_MORE) return fixed(0, 0);
  return uOwn < NO_MORE ? (Math.abs(own) >= 100 ? fixed(own, 1) : threeDigits(own)) : withU(own, uOwn, MOST_DECIMALS);
};

/** Figures as the rows of a table, with ±: of one state, of the one beside it, and what they differ by. */
export const figureRows = <F extends string>(
  words: readonly FigureWord<F>[],
  now: Carried<F>,
  beside: Carried<F> | null,
  difference: Carried<F> | null,
): readonly FigureRow[] =>
  words
    .filter(({ figure }) => now.values[figure] !== null || (beside?.values[figure] ?? null) !== null)
    .map(({ figure, word, shown }) => {
      const { per, unit } = asShown(shown);
      const by = difference?.values[figure] ?? null;
      return {
        word: unit === '' ? word : `${word}, ${unit}`,
        now: textOf(now.values[figure], now.us[figure], per),
        beside: textOf(beside?.values[figure], beside?.us[figure], per),
        change: (by !== null && by / per > NO_MORE ? '+' : '') + textOf(by, difference?.us[figure], per),
      };
    });
