/** White space of other widths, and dashes that stand for a minus or a range where a digit or an axis follows. */
const SPACES = /[\u3000\u2000-\u2008\u200a\u205f]/g;
const DASH = /[–−‒](?=[\dxyzXYZ.,])/g;
/** Latin letters, digits and signs of full width. */
const FULL_WIDTH = /[\uff01-\uff5e]/g;

/**
 * The line with characters that are only drawn differently written the usual way: full-width digits and letters, wide
 * spaces, dashes. Every character keeps its place, so that a stretch of the result is the same stretch of the line.
 * @source Unicode 15, Halfwidth and Fullwidth Forms: U+FF01…FF5E are U+0021…007E
 */
export const usualCharacters = (line: string): string =>
  line
    .replace(FULL_WIDTH, (c) => String.fromCharCode(c.charCodeAt(0) - 0xfee0))
    .replace(SPACES, ' ')
    .replace(DASH, '-');

/** Is there a digit, of any script, or a sign that stands for a number? */
export const hasDigit = (text: string): boolean => /\p{N}/u.test(text);
