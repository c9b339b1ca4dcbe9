import { counted, fixed, withU } from '../shared';
import type { Shown } from '../bench';
import type { Comparison, Side } from './compare-vehicles';
import { percentText, ratioPhrase, type MeasureWords } from './ratio-sentence';

/** A sentence with the stretches that carry figures marked, so that they can stand out. */
export interface Sentence {
  readonly code: string;
  readonly parts: readonly { readonly text: string; readonly strong: boolean }[];
}

/** The sentence as plain text. */
export const plainText = (sentence: Sentence): string => sentence.parts.map((part) => part.text).join('');

const say = (code: string, ...texts: readonly (string | readonly [string])[]): Sentence => ({
  code,
  parts: texts.map((text) => (typeof text === 'string' ? { text, strong: false } : { text: text[0], strong: true })),
});

const HEAVY: MeasureWords = { asMuch: 'as heavy', more: 'more', less: 'less' };
const DEAR: MeasureWords = { asMuch: 'as costly', more: 'more', less: 'less' };
const MANY: MeasureWords = { asMuch: 'as many', more: 'more', less: 'fewer' };

const MANY_OF: Readonly<Record<string, string>> = { 'kind of fastener': 'kinds of fastener', 'piece or fastener': 'pieces and fasteners' };

const manyOf = (one: string): string => MANY_OF[one] ?? `${one}s`;

const countSentence = (code: string, one: string, left: Side, right: Side, l: number, r: number): Sentence => {
  const opening = `${left.vehicle.name} has `;
  if (l === r) return say(code, opening, [counted(l, one, manyOf(one))], `, the same as ${right.vehicle.name}.`);
  const phrase = ratioPhrase(l, r, MANY);
  return say(
    code,
    opening,
    [`${counted(l, one, manyOf(one))} against ${fixed(r, 0)}`],
    ` on ${right.vehicle.name}${phrase === null ? '.' : `: ${percentText(l / r - 1)} ${l > r ? 'more' : 'fewer'}.`}`,
  );
};

const uOf = (side: Side): number => side.shown.massUKg ?? 0;

/** Differences smaller than this many standard uncertainties are not called differences. @source JCGM 100:2008, coverage factor 2 */
const COVERAGE = 2;

const massSentence = (left: Side, right: Side): Sentence => {
  const l = left.shown.massKg;
  const r = right.shown.massKg;
  if (l === null || r === null) {
    const lacking = l === null ? left : right;
    return say('mass', `The masses cannot be compared: nothing on ${lacking.vehicle.name} is weighed yet.`);
  }
  const u = Math.hypot(uOf(left), uOf(right));
  const difference = `${withU(Math.abs(l - r), u, 3)} kg`;
  if (Math.abs(l - r) < COVERAGE * u)
    return say(
      'mass',
      `${left.vehicle.name} and ${right.vehicle.name} weigh the same as far as the weighing can tell: the difference is `,
      [difference],
      '.',
    );
  return say(
    'mass',
    `${left.vehicle.name} is `,
    [ratioPhrase(l, r, HEAVY) ?? ''],
    `: ${difference} ${l > r ? 'heavier' : 'lighter'} than ${right.vehicle.name}.`,
  );
};

const costSentence = (left: Side, right: Side, currency: string): Sentence => {
  const l = left.shown.cost;
  const r = right.shown.cost;
  if (l === null || r === null)
    return say('cost', `The costs cannot be compared: nothing on ${(l === null ? left : right).vehicle.name} is costed yet.`);
  const phrase = ratioPhrase(l, r, DEAR);
  if (l === r || phrase === null) return say('cost', `${left.vehicle.name} and ${right.vehicle.name} cost the same.`);
  return say(
    'cost',
    `${left.vehicle.name} is `,
    [phrase],
    `: ${currency} ${fixed(Math.abs(l - r), 2)} ${l > r ? 'dearer' : 'cheaper'} than ${right.vehicle.name}.`,
  );
};

const gapsOf = (name: string, s: Shown): readonly string[] => [
  ...(s.piecesMassed < s.piecesOfMass
    ? [`${name}: ${counted(s.piecesOfMass - s.piecesMassed, 'piece')} of ${fixed(s.piecesOfMass, 0)} without mass`]
    : []),
  ...(s.piecesCosted < s.piecesOfMass
    ? [`${name}: ${counted(s.piecesOfMass - s.piecesCosted, 'piece')} of ${fixed(s.piecesOfMass, 0)} without cost`]
    : []),
  ...(s.fastenersNotMassed > 0 ? [`${name}: ${counted(s.fastenersNotMassed, 'fastener')} without mass`] : []),
];

/** What the comparison leaves out on either side, in words; empty when nothing is missing. */
export const comparisonGaps = ({ left, right }: Comparison): readonly string[] => [
  ...gapsOf(left.vehicle.name, left.shown),
  ...gapsOf(right.vehicle.name, right.shown),
];

/** The comparison in words: pieces, fasteners, joints, mass, cost. The left vehicle is spoken of against the right. */
export const comparisonSentences = ({ left, right, fastenersIn }: Comparison, currency: string): readonly Sentence[] => [
  countSentence('pieces', fastenersIn ? 'piece or fastener' : 'piece', left, right, left.shown.pieces, right.shown.pieces),
  massSentence(left, right),
  costSentence(left, right, currency),
  countSentence('fasteners', 'fastener', left, right, left.shown.fasteners, right.shown.fasteners),
  countSentence('variants', 'kind of fastener', left, right, left.variants, right.variants),
  countSentence('joints', 'joint', left, right, left.shown.joints, right.shown.joints),
];
