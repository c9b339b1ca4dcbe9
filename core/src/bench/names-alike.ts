/** Words of a name that tell a side or a place: what two parts that differ in them only have in common is the rest. */
export const SIDE_WORDS = /\b(?:left|right|lh|rh|l\.?h\.?|r\.?h\.?|inner|outer|front|rear|upper|lower)\b/gi;
/** Those of them that tell the hand. */
export const HAND_WORDS = /\b(?:left|right|lh|rh)\b/gi;

/** A name without some of its words, in lower case, commas and spaces tidied. */
export const nameWithout = (name: string, words: RegExp): string =>
  name
    .toLowerCase()
    .replace(words, '')
    .replace(/[\s,]+/g, ' ')
    .trim();
