import { COVERAGE_FACTOR, counted, fixed, massWithU } from '../shared';
import type { StudyShown } from '../cost';
import type { Comparison, Side } from './compare-vehicles';
import { percentText, ratioPhrase, type MeasureWords } from './ratio-sentence';

/** A sentence with the stretches that carry figures marked, so that they can stand out. */
interface Sentence {
  readonly code: string;
  readonly runs: readonly { readonly text: string; readonly strong: boolean }[];
}

/** The sentence as plain text. */
export const plainText = (sentence: Sentence): string => sentence.runs.map((run) => run.text).join('');

const say = (code: string, ...texts: readonly (string | readonly [string])[]): Sentence => ({
  code,
  runs: texts.map((text) => (typeof text === 'string' ? { text, strong: false } : { text: text[0], strong: true })),
});

const HEAVY: MeasureWords = { asMuch: 'as heavy', more: 'more', less: 'less' };
const DEAR: MeasureWords = { asMuch: 'as costly', more: 'more', less: 'less' };
const MANY: MeasureWords = { asMuch: 'as many', more: 'more', less: 'fewer' };

const MANY_OF: Readonly<Record<string, string>> = { 'kind of fastener': 'kinds of fastener', 'part or fastener': 'parts and fasteners' };

const manyOf = (one: string): string => MANY_OF[one] ?? `${one}s`;

/** A sentence about counts; none where neither side has anything recorded. What is not recorded is never called 0. */
const countSentence = (code: string, one: string, left: Side, right: Side, l: number, r: number): readonly Sentence[] => {
  if (l === 0 && r === 0) return [];
  if (l === 0 || r === 0) {
    const [has, lacks, count] = l === 0 ? [right, left, r] : [left, right, l];
    return [
      say(
        code,
        `${has.vehicle.name} has `,
        [counted(count, one, manyOf(one))],
        `; none ${count === 1 ? 'is' : 'are'} recorded on ${lacks.vehicle.name} yet, so they cannot be compared.`,
      ),
    ];
  }
  const opening = `${left.vehicle.name} has `;
  if (l === r) return [say(code, opening, [counted(l, one, manyOf(one))], `, the same as ${right.vehicle.name}.`)];
  const phrase = ratioPhrase(l, r, MANY);
  return [
    say(
      code,
      opening,
      [`${counted(l, one, manyOf(one))} against ${fixed(r, 0)}`],
      ` on ${right.vehicle.name}${phrase === null ? '.' : `: ${percentText(l / r - 1)} ${l > r ? 'more' : 'fewer'}.`}`,
    ),
  ];
};

const uOf = (side: Side): number => side.shown.massUKg ?? 0;

const massSentence = (left: Side, right: Side): Sentence => {
  const l = left.shown.massKg;
  const r = right.shown.massKg;
  if (l === null || r === null) {
    const lacking = l === null ? left : right;
    return say('mass', `The masses cannot be compared: nothing on ${lacking.vehicle.name} is weighed yet.`);
  }
  const u = Math.hypot(uOf(left), uOf(right));
  const difference = massWithU(Math.abs(l - r), u, 3);
  if (Math.abs(l - r) < COVERAGE_FACTOR * u)
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

/** Below this share of either side, by parts or by mass, a total is not the cost of the subsystem. Assumed. */
const LEAST_COSTED = 0.5;
/** Shares this far apart are not alike: the total of one side holds what the other leaves out. Assumed. */
const MOST_APART = 0.1;
/** From this share on both sides the sentence needs no word about it. Assumed. */
const AS_GOOD_AS_ALL = 0.98;

const costedFraction = ({ costed }: Side): number =>
  Math.min(costed.ofParts > 0 ? costed.parts / costed.ofParts : 0, costed.massFraction ?? 1);

const costedText = ({ costed, vehicle }: Side): string =>
  `${fixed(costed.parts, 0)} of ${counted(costed.ofParts, 'part')}${costed.massFraction === null ? '' : ` and ${percentText(costed.massFraction)} of the mass`} on ${vehicle.name}`;

const costSentence = (left: Side, right: Side, currency: string): Sentence => {
  const l = left.shown.cost;
  const r = right.shown.cost;
  if (l === null || r === null)
    return say('cost', `The costs cannot be compared: nothing on ${(l === null ? left : right).vehicle.name} is costed yet.`);
  const [lf, rf] = [costedFraction(left), costedFraction(right)];
  const onWhat = `${costedText(left)}, ${costedText(right)}`;
  if (Math.min(lf, rf) < LEAST_COSTED || Math.abs(lf - rf) > MOST_APART)
    return say('cost', 'The costs cannot be compared yet: costed are ', [onWhat], '.');
  const within = Math.min(lf, rf) >= AS_GOOD_AS_ALL ? '' : ` Costed are ${onWhat}.`;
  const phrase = ratioPhrase(l, r, DEAR);
  const u = Math.hypot(left.shown.costUOfCounts ?? 0, right.shown.costUOfCounts ?? 0);
  if (l === r || phrase === null || Math.abs(l - r) < COVERAGE_FACTOR * u)
    return say(
      'cost',
      `${left.vehicle.name} and ${right.vehicle.name} cost the same${l === r ? '' : ' as far as the counts can tell'}.${within}`,
    );
  return say(
    'cost',
    `${left.vehicle.name} is `,
    [phrase],
    `: ${currency} ${fixed(Math.abs(l - r), 2)} ${l > r ? 'dearer' : 'cheaper'} than ${right.vehicle.name}.${within}`,
  );
};

const gapsOf = (name: string, s: StudyShown): readonly string[] => [
  ...(s.partsMassed < s.partsOfMass
    ? [`${name}: ${counted(s.partsOfMass - s.partsMassed, 'part')} of ${fixed(s.partsOfMass, 0)} without mass`]
    : []),
  ...(s.partsCosted < s.partsOfMass
    ? [`${name}: ${counted(s.partsOfMass - s.partsCosted, 'part')} of ${fixed(s.partsOfMass, 0)} without cost`]
    : []),
  ...fastenerGaps(s).map((gap) => `${name}: ${gap}`),
];

/** A fastener is costed by its mass: where the two lack for the same ones they are one gap. */
const fastenerGaps = ({ fastenersNotMassed, fastenersNotCosted }: StudyShown): readonly string[] => {
  const told = (count: number, without: string): readonly string[] =>
    count > 0 ? [`${counted(count, 'fastener')} without ${without}`] : [];
  return fastenersNotMassed === fastenersNotCosted
    ? told(fastenersNotMassed, 'mass, and so without cost')
    : [...told(fastenersNotMassed, 'mass'), ...told(fastenersNotCosted, 'cost')];
};

/** What the comparison leaves out on either side, in words; empty when nothing is missing. */
export const comparisonGaps = ({ left, right }: Comparison): readonly string[] => [
  ...gapsOf(left.vehicle.name, left.shown),
  ...gapsOf(right.vehicle.name, right.shown),
];

/** The comparison in words: parts, fasteners, joints, mass, cost. The left vehicle is spoken of against the right. */
export const comparisonSentences = ({ left, right, fastenersIn }: Comparison, currency: string): readonly Sentence[] => [
  ...countSentence('parts', fastenersIn ? 'part or fastener' : 'part', left, right, left.shown.parts, right.shown.parts),
  massSentence(left, right),
  costSentence(left, right, currency),
  ...countSentence('fasteners', 'fastener', left, right, left.shown.fasteners, right.shown.fasteners),
  ...countSentence('variants', 'kind of fastener', left, right, left.variants, right.variants),
  ...countSentence('joints', 'joint', left, right, left.shown.joints, right.shown.joints),
];
