import type { FastenerKind } from '../../record';
import { CODE_END } from './quantity';

/** Words for each kind of fastener, in the languages engineers write in; plurals with an s are understood too. */
const WORDS: Readonly<Record<FastenerKind, readonly string[]>> = {
  bolt: ['bolt', 'capscrew', 'cap screw', 'bulloni', 'bullone', 'boulon', 'perno', 'tornillo'],
  nut: ['nut', 'locknut', 'mutter', 'muttern', 'écrou', 'ecrou', 'dado', 'dadi', 'tuerca'],
  washer: ['washer', 'unterlegscheibe', 'unterlegscheiben', 'scheibe', 'scheiben', 'rondelle', 'rondella', 'arandela'],
  stud: ['stud', 'stehbolzen', 'stiftschraube', 'stiftschrauben', 'goujon', 'prigioniero', 'prigionieri', 'espárrago'],
  screw: ['screw', 'schraube', 'schrauben', 'vis', 'vite', 'viti'],
  rivet: ['rivet', 'niet', 'niete', 'nieten', 'blindniet', 'blindnieten', 'rivetto', 'rivetti', 'remache'],
  clip: ['clip', 'agrafe', 'grapa'],
  'push pin': ['push pin', 'push-pin', 'push-in pin'],
  'cable tie': ['cable tie', 'cable-tie', 'zip tie', 'tie wrap'],
};
const KIND_OF: ReadonlyMap<string, FastenerKind> = new Map(
  Object.entries(WORDS).flatMap(([kind, words]) =>
    words.flatMap((word) => [word, `${word}s`].map((w) => [w, kind as FastenerKind] as const)),
  ),
);
const PATTERN = [...KIND_OF.keys()]
  .sort((a, b) => b.length - a.length)
  .map((word) => word.replaceAll(' ', String.raw`\s+`))
  .join('|');

/** Every word for a kind of fastener, as a pattern without groups. */
export const FASTENER_PATTERN = PATTERN;
/** A word that names a kind of fastener, where it stands. */
export const FASTENER_AT = new RegExp(`(?:${PATTERN})${CODE_END}`, 'iy');
/** The same as a whole text. */
export const FASTENER_WORD = new RegExp(`^(?:${PATTERN})$`, 'i');

export const fastenerKind = (word: string): FastenerKind | undefined => KIND_OF.get(word.toLowerCase().replace(/\s+/g, ' '));

/** Every kind of fastener a line names. */
export const kindsNamed = (line: string): ReadonlySet<FastenerKind> =>
  new Set(
    [...line.matchAll(new RegExp(String.raw`(?<![\p{L}-])(?:${PATTERN})(?![\p{L}-])`, 'giu'))].flatMap(
      ([word]) => fastenerKind(word) ?? [],
    ),
  );

/** The kind of fastener a name is one of: its last word before a comma, or none. */
export const headFastener = (name: string): boolean => new RegExp(`(?:^|\\s)(?:${PATTERN})(?:,.*)?$`, 'i').test(name);

/** Words before a kind that say which bolt or nut it is; they stay in the remark. */
export const ADJECTIVE =
  /^(?:flange|flanged|hex|hexagon|socket|cap|button|pan|round|countersunk|lock|locking|self-tapping|self-locking|self-drilling|tapping|weld|captive|shoulder|shouldered|banjo|dome|domed|blind|square|wing|special|black|zinc|plated|stainless|long|short|small|large|big|thin|plain|spring|metal|plastic|steel|security|eye|thread-forming|thread-rolling|fir-tree|stud|wheel|lug|set|grub|machine|wood|torx|allen|inbus|phillips|pozi|pozidriv|slotted|sems|patched|coated|bonded|flat|raised|low|high|m|metric)$/i;
