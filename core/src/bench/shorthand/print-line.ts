import type { Entry } from './entry';
import { parseLine } from './parse-line';
import { printQuoted, printWith, wordsOf } from './print-entry';

/** The shortest plain line that reads back as the entry; words that would be read as codes are put in quotation marks. */
export const printLine = (entry: Entry): string => {
  const words = wordsOf(entry);
  const plain = printWith(entry, words);
  if (words === '') return plain;
  const back = parseLine(plain).entry;
  return back !== null && JSON.stringify(back) === JSON.stringify(entry) ? plain : printQuoted(entry);
};
