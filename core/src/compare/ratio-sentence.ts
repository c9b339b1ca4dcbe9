import { fixed, threeDigits } from '../shared';

/** Words for one measure in a comparison. */
export interface MeasureWords {
  /** "as heavy", "as many parts" */
  readonly asMuch: string;
  /** "more", "fewer" or "less" */
  readonly more: string;
  readonly less: string;
}

/** Percent by which a fraction differs, to a whole number from 10 % up and one decimal below. */
export const percentText = (fraction: number): string => {
  const percent = Math.abs(fraction) * 100;
  return `${fixed(percent, percent >= 9.95 ? 0 : 1)} %`;
};

/** Change from one figure to another as a fraction of the first, −0.356 for 810.54 → 522, or null where it means nothing. */
export const changeFraction = (from: number | null, to: number | null): number | null =>
  from === null || to === null || !(from > 0) ? null : to / from - 1;

/**
 * "2.32 times as heavy, 132 % more". The ratio and the percent are worked out from the unrounded figures, and "more" is
 * only ever said of the difference, never of the ratio.
 *
 * @param value the figure spoken of, above 0
 * @param against the figure it is held against, above 0
 * @param words how the measure is spoken of
 * @returns the phrase, or null when a ratio means nothing (a figure is absent, zero or below)
 * @example
 * ratioPhrase(11.15, 4.81, { asMuch: 'as heavy', more: 'more', less: 'less' }) // => '2.32 times as heavy, 132 % more'
 */
export const ratioPhrase = (value: number | null, against: number | null, words: MeasureWords): string | null => {
  const difference = changeFraction(against, value);
  if (value === null || against === null || difference === null || !(value > 0)) return null;
  const ratio = value / against;
  if (difference === 0) return `exactly ${words.asMuch}`;
  if (Math.abs(difference) < 0.0005) return `${words.asMuch} to within 0.1 %`;
  return `${threeDigits(ratio)} times ${words.asMuch}, ${percentText(difference)} ${difference > 0 ? words.more : words.less}`;
};
