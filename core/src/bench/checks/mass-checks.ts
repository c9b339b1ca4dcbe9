import { COVERAGE_FACTOR, issue, type Issue, massWithU } from '../../shared';
import { closureText } from '../roll-up/mass-closure';
import { closureAt, type BenchMeasures } from '../roll-up/own-figures';
import { totalsAt, type RollUp } from '../roll-up/roll-up';
import { shown } from '../roll-up/shown';

interface Heavy {
  readonly place: number;
  readonly massKg: number;
  readonly uKg: number;
}

/** What is inside an assembly with a mass, the heaviest first. */
const heaviest = (rolled: RollUp<BenchMeasures>, place: number): readonly Heavy[] =>
  (rolled.outline.nodes[place]?.children ?? [])
    .flatMap((child): readonly Heavy[] => {
      const totals = totalsAt(rolled, child);
      const { massKg = null, massUKg = null } = totals ? shown(totals, true) : {};
      return massKg === null ? [] : [{ place: child, massKg, uKg: massUKg ?? 0 }];
    })
    .sort((a, b) => b.massKg - a.massKg);

/** The parts inside that cannot be: those heavier than the whole by themselves, or the heaviest where only the sum is too much. */
const suspects = (rolled: RollUp<BenchMeasures>, place: number, wholeKg: number, wholeVar: number): readonly number[] => {
  const inside = heaviest(rolled, place);
  const alone = inside.filter(({ massKg, uKg }) => massKg - wholeKg > COVERAGE_FACTOR * Math.sqrt(wholeVar + uKg * uKg));
  return (alone.length > 0 ? alone : inside.slice(0, 1)).map((heavy) => heavy.place);
};

/**
 * What does not add up about the mass of a node: of an assembly, what is inside it against its own weighing; of a part, that
 * it is heavier than what it is inside of.
 *
 * @returns issues with code `mass-short` or `mass-impossible`, the record they are about and what to do
 */
export const massChecks = (rolled: RollUp<BenchMeasures>, place: number): readonly Issue[] => {
  const node = rolled.outline.nodes[place];
  if (node?.kind !== 'part') return [];
  const own = closureAt(rolled, place);
  const above = closureAt(rolled, node.parent);
  const wholeAbove = above?.state === 'impossible' ? above.whole : null;
  const isSuspect = wholeAbove !== null && suspects(rolled, node.parent, wholeAbove.massKg, wholeAbove.massVar).includes(place);
  return [
    ...(own && own.state !== 'closed'
      ? [issue(own.state === 'short' ? 'mass-short' : 'mass-impossible', closureText(own), 'massEachKg', node.id)]
      : []),
    ...(isSuspect
      ? [
          issue(
            'mass-impossible',
            `With what else is inside it weighs more than the whole it is inside of (${massWithU(wholeAbove.massKg, Math.sqrt(wholeAbove.massVar), 4)}): one of the two is wrong. Weigh again`,
            'massEachKg',
            node.id,
          ),
        ]
      : []),
  ];
};
