import { checkCharacter } from './check-character';

/** A printed tag taken apart: `A03-017Y` is number 17 of the sheet A03, with K to check it. */
export interface Tag {
  readonly prefix: string;
  readonly number: number;
}

const TAG = /^([A-Z0-9]{1,12})-(\d{3,6})([A-Z0-9])$/;
const DIGITS = 3;

/** The text of a tag. `tagText({ prefix: 'A03', number: 17 })` */
export const tagText = ({ prefix, number }: Tag): string => {
  const digits = String(number).padStart(DIGITS, '0');
  return `${prefix}-${digits}${checkCharacter(prefix + digits)}`;
};

/** What a scanner or a hand typed, as tags are written: capitals, no spaces. */
export const tidyTag = (text: string): string => text.replace(/\s+/g, '').toUpperCase();

type ReadTag =
  | { readonly kind: 'tag'; readonly tag: Tag }
  /** looks like a printed tag, but its check character does not fit */
  | { readonly kind: 'misread'; readonly tag: Tag; readonly expected: string }
  /** a word of another kind, such as a tag of one's own */
  | { readonly kind: 'other' };

/** Reads a printed tag. */
export const readTag = (text: string): ReadTag => {
  const match = TAG.exec(tidyTag(text));
  if (!match) return { kind: 'other' };
  const [, prefix = '', digits = '', check] = match;
  const tag = { prefix, number: Number(digits) };
  const expected = checkCharacter(prefix + digits);
  return check === expected ? { kind: 'tag', tag } : { kind: 'misread', tag, expected };
};
