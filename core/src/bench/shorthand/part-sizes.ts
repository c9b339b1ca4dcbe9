import { millimetres, readNumber, resolutionU } from '../../shared';
import { evidence } from '../../record';
import { ask, figureAt, nanometre, type Figure } from './common-matchers';
import { matchAt } from './matching';
import { statedAt, type Stated } from './quantity';
import { keepAsWords, leaveOut, quote, type Match, type Matcher } from './reader';
import { LENGTH } from './unit-words';

import { RUNS, boxText, type SizeDraft } from './part-box';

export type { SizeDraft } from './part-box';
export { envelopeMatcher, profileMatcher, sidesMatcher } from './part-box';

const DIAMETER = /(?:ø|Ø|⌀|φ|(?:dia\.?|diam\.?|diameter|durchmesser|diamètre|diámetro|diametro)\s|od\s?)\s*=?\s*/iy;
const LONG_BEFORE = /\s*(?:[x×*,]|\s)\s*(?:L\s?=?\s?|lg\.?\s|length\s|long\s)?/iy;
const LONG = /\s*(?:long|lg\.?|length)\b/iy;

const TUBE =
  /(?:(?:ø|Ø|⌀|φ|dia\.?|diam\.?|od)\s*=?\s*)?(\d+(?:[.,]\d+)?)\s?[x×*]\s?(\d+(?:[.,]\d+)?)(?:\s?[x×*]\s?(\d+(?:[.,]\d+)?))?(?:\s?mm)?(?=[\s,;)]|$)(?!\s?(?:m|cm|in|ft)(?![\p{L}\d]))/iuy;

/** `ø8x1x410`, `pipe 12x1.5`: a tube by its outer diameter, its wall and its length, where it is said. */
export const tubeMatcher: Matcher<SizeDraft> = (line, at) => {
  const runs = RUNS.test(line);
  const hasSign = /[øØ⌀φdo]/i.test(line[at] ?? '');
  const match = hasSign || runs ? matchAt(TUBE, line, at) : null;
  if (!match || (match[3] === undefined && !runs)) return null;
  const [across = 0, wall = 0, along] = match.slice(1).map((digits: string | undefined) => {
    const read = readNumber(digits ?? '', true);
    return read.kind === 'number' ? nanometre(read.number.value / 1000) : undefined;
  });
  // without a sign of the diameter only a thin wall tells a tube from a box
  if (!(wall > 0 && wall < across / (hasSign ? 2 : 4) && across <= 1)) return null;
  if (match[3] !== undefined && !(along !== undefined && along > across && along <= 100)) return null;
  const text = match[0];
  const [d, t] = [across, wall].map((metres) => `${millimetres(metres)} mm`);
  const l = along === undefined ? '' : `${millimetres(along)} mm`;
  const asTube =
    along === undefined || runs
      ? `run ø${d} t${t}${l === '' ? '' : ` run ${l}`}`
      : `${[along, across, across].map(millimetres).join('x')} mm t${t}`;
  const box = `${[across, wall, ...(along === undefined ? [] : [along])].map(millimetres).join('x')} mm`;
  return ask(
    at + text.length,
    'tube',
    `“${text}”: a tube?`,
    [
      { label: `${d} across, wall ${t}${l === '' ? '' : `, ${l} long`}`, replacement: asTube },
      ...(along === undefined ? [] : [{ label: `a box of ${box.replaceAll('x', ' × ')}`, replacement: box }]),
      keepAsWords(text),
    ],
    0.8,
  );
};

/** A diameter without a length: of what runs, or asked. */
const loneDiameter = (line: string, at: number, across: Stated, runs: boolean): Match<SizeDraft> => {
  const [text, diameter, plain] = [line.slice(at, across.end), across.value?.si ?? 0, across.plain];
  if (runs)
    return {
      end: across.end,
      cost: 1,
      label: 'run diameter',
      value: plain,
      put: { runDiameterM: diameter },
      about: 'runDiameterM',
      evidence: evidence('M', { u: across.value?.u ?? null, typed: plain }),
      plain: `run ø${plain}`,
    };
  const discs = [...line.slice(across.end).matchAll(/(?:^|\s)t\s?(\d+(?:\.\d+)?)(?=\s|$)/g)].map(([, t = '']) => ({
    label: `a disc, ${plain} across and ${t} mm thick`,
    replacement: `${t}x${millimetres(diameter)}x${millimetres(diameter)}`,
  }));
  return ask(
    across.end,
    'diameter-of-what',
    `${text}: of what, and how long is it?`,
    [{ label: `run diameter ${plain}`, replacement: `run ø${plain}` }, ...discs, keepAsWords(text), leaveOut],
    2.5,
  );
};

/** `ø30x210`, `ø30 210 long`: a round part in its box; of what runs, its diameter and its length. */
export const roundMatcher: Matcher<SizeDraft> = (line, at) => {
  const lead = matchAt(DIAMETER, line, at);
  if (!lead) return null;
  const across = statedAt(line, at + lead[0].length, { table: LENGTH, usual: 'mm', decimals: 9 }) ?? bySize(line, at + lead[0].length);
  if (!across?.value) return null;
  const gap = matchAt(LONG_BEFORE, line, across.end);
  const isJoined = gap !== null && /[x×*L]|lg|length|long/i.test(gap[0]);
  const along = gap ? statedAt(line, across.end + gap[0].length, { table: LENGTH, usual: 'mm', decimals: 9 }) : null;
  const tail = along ? matchAt(LONG, line, along.end) : null;
  const runs = RUNS.test(line);
  const diameter = across.value.si;
  if (!along?.value || !(isJoined || tail)) return loneDiameter(line, at, across, runs);
  const end = along.end + (tail?.[0].length ?? 0);
  const length = along.value.si;
  if (!(diameter > 0 && diameter <= 100 && length > 0 && length <= 100))
    return [ask(end, 'length-limit', 'The envelope must be more than 0 and at most 100 m', [keepAsWords(line.slice(at, end)), leaveOut])];
  const envelopeM = [length, diameter, diameter] as const;
  const typed = `${envelopeM.map(millimetres).join('x')} mm`;
  const isAbout = across.isAbout || along.isAbout;
  const u = Math.max(across.value.u, along.value.u);
  const box: Match<SizeDraft> = {
    end,
    label: 'envelope',
    value: boxText(envelopeM),
    put: { envelopeM },
    about: 'lengthM',
    evidence: evidence(isAbout ? 'I' : 'M', { u, typed: `${isAbout ? '~' : ''}${typed}` }),
    plain: `${isAbout ? '~' : ''}${typed}`,
    cost: runs ? 1.3 : 0.9,
  };
  if (!runs) return [box];
  return [
    {
      end,
      label: 'run',
      value: `${millimetres(length)} mm, ${millimetres(diameter)} mm across`,
      put: { runLengthM: length, runDiameterM: diameter },
      plain: `run ${along.plain} run ø${across.plain}`,
      cost: 0.9,
    },
    box,
  ];
};

/** A diameter right before an “x”, as in ø30x210. */
const bySize = (line: string, at: number): ReturnType<typeof statedAt> => {
  const digits = /^(\d+(?:[.,]\d+)?)\s?(?:mm)?\s?(?=[x×*])/i.exec(line.slice(at));
  const read = digits ? readNumber((digits[1] ?? '').trim()) : null;
  if (!digits || read?.kind !== 'number') return null;
  return {
    end: at + digits[0].length,
    isAbout: false,
    isTotal: false,
    bound: null,
    symbol: 'mm',
    hasUnit: false,
    mark: null,
    isSure: false,
    plain: `${read.number.text} mm`,
    digits: digits[1] ?? '',
    value: { si: nanometre(read.number.value / 1000), u: resolutionU(read.number.step / 1000), spread: '', isRange: false },
    fault: null,
  };
};

const WALL: Figure = {
  before:
    /(?:wall thickness|thickness|thick|thk\.?|th\.?|wall|wt|wandstärke|wanddicke|dicke|stärke|épaisseur|ép\.?|ep\.|espesor|esp\.|spessore|sp\.|t)(?:\s*[=:]\s*|\s+|(?=[~\d.,½¼¾⅛⅜⅝⅞]))/iy,
  behind: /\s*(?:thick|thk\.?|wall|wt\.?)(?=[\s,;)]|$)/iy,
  table: LENGTH,
  usual: 'mm',
  label: 'thickness',
  inAll: null,
  field: 'wallThicknessM',
  most: 1,
  mostText: '1 m',
  spelling: (text) => `t${text}`,
  shown: (si) => `${millimetres(si)} mm`,
};
/** T30 is a drive, t30 hardly a wall: a whole number from 10 up, or a capital T before a whole number */
const LIKE_A_DRIVE = /T\d{1,3}(?=[\s,;?)@]|$)|t\d{2,3}(?=[\s,;?)@]|$)/y;
/** “1.5T”: a thickness as sheet is called, or tonnes */
const SHEET = /(\d+(?:[.,]\d+)?)(?:\s?T|t)(?=[\s,;)]|$)/y;

export const thicknessMatcher: Matcher<SizeDraft> = (line, at) => {
  const sheet = matchAt(SHEET, line, at);
  const sheetRead = sheet ? readNumber(sheet[1] ?? '') : null;
  if (sheet && sheetRead?.kind === 'number' && sheetRead.number.value > 0 && sheetRead.number.value <= 100) {
    const { value, step, text } = sheetRead.number;
    const metres = nanometre(value / 1000);
    return {
      end: at + sheet[0].length,
      label: 'thickness',
      value: `${millimetres(metres)} mm`,
      put: { wallThicknessM: metres },
      about: 'wallThicknessM',
      evidence: evidence('M', { u: resolutionU(step / 1000), typed: `${text} mm` }),
      plain: `t${text} mm`,
      cost: 1,
    };
  }
  const found = figureAt(line, at, WALL);
  if (!found) return null;
  const { match, read } = found;
  const drive = matchAt(LIKE_A_DRIVE, line, at)?.[0];
  if (read && drive !== undefined && match.end === at + drive.length)
    return ask(
      at + drive.length,
      'thickness-or-drive',
      `Is ${drive} a drive, or ${drive.slice(1)} mm thick?`,
      [
        { label: `${drive.slice(1)} mm thick`, replacement: `t${drive.slice(1)} mm` },
        { label: 'part of the name', replacement: quote(drive) },
        { label: 'a drive: leave it out here', replacement: '' },
      ],
      1.5,
    );
  return read ? { ...match, put: { wallThicknessM: read.si } } : match;
};

const GAUGE = /gauge\s+/iy;

/** “gauge 0.8 mm”: the thickness of sheet, or a gauge is what it is. */
export const gaugeMatcher: Matcher<SizeDraft> = (line, at) => {
  const word = matchAt(GAUGE, line, at)?.[0];
  const stated = word === undefined ? null : statedAt(line, at + word.length, { table: LENGTH, usual: null, decimals: 9 });
  if (word === undefined || !stated || stated.fault) return null;
  const text = line.slice(at, stated.end);
  return ask(
    stated.end,
    'length-of-what',
    `${text}: the thickness of the sheet?`,
    [
      { label: `thickness ${stated.plain}`, replacement: `t${stated.plain}` },
      {
        label: `thickness ${stated.plain}, and “${word.trim()}” is part of the name`,
        replacement: `${quote(word.trim())} t${stated.plain}`,
      },
      keepAsWords(text),
    ],
    3,
  );
};

const RUN: Figure = {
  before: /(?:run|length|len\.?|lg\.?|länge|longueur|longitud|largo|lunghezza|L)(?:\s*[=:]\s*|\s+|(?<=L)(?=[~\d]))/iy,
  behind: null,
  table: LENGTH,
  usual: null,
  label: 'run length',
  inAll: null,
  field: 'runLengthM',
  most: 1000,
  mostText: '1000 m',
  spelling: (text) => `run ${text}`,
  unitAsked: ['m', 'mm'],
  shown: (si) => `${millimetres(si)} mm`,
};

/** `run 1.4 m` */
export const runMatcher: Matcher<SizeDraft> = (line, at) => {
  const found = figureAt(line, at, RUN);
  if (!found) return null;
  const { match, read } = found;
  return read ? { ...match, put: { runLengthM: read.si } } : match;
};

const RUN_DIAMETER: Figure = {
  before: /run\s+(?:ø|Ø|⌀)\s*|(?:od|outer diameter|outside diameter)\s*=?\s*/iy,
  behind: null,
  table: LENGTH,
  usual: 'mm',
  label: 'run diameter',
  inAll: null,
  field: 'runDiameterM',
  most: 1,
  mostText: '1 m',
  spelling: (text) => `run ø${text}`,
  shown: (si) => `${millimetres(si)} mm`,
};

/** `run ø19`, `od 19 mm`: the outer diameter of what runs */
export const runDiameterMatcher: Matcher<SizeDraft> = (line, at) => {
  const found = figureAt(line, at, RUN_DIAMETER);
  if (!found) return null;
  const { match, read } = found;
  return read ? { ...match, cost: 0.9, put: { runDiameterM: read.si } } : match;
};

/** “1.4 m long”: a run, or a box whose other sides are not said. */
export const longMatcher: Matcher<SizeDraft> = (line, at) => {
  const stated = statedAt(line, at, { table: LENGTH, usual: 'mm', decimals: 9 });
  const tail = stated && matchAt(LONG, line, stated.end);
  if (!stated || !tail || stated.fault) return null;
  const end = stated.end + tail[0].length;
  const text = line.slice(at, end);
  return ask(
    end,
    'length-of-what',
    `${text}: a run, or one side of a box?`,
    [{ label: `run length ${stated.plain}`, replacement: `run ${stated.plain}` }, keepAsWords(text), leaveOut],
    2.2,
  );
};
