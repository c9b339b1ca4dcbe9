import { issue, type Issue } from '../../shared';
import {
  CHOICE_CRITERIA,
  type Candidate,
  type ChoiceCriterion,
  type ChoiceWeights,
  type ReaderRequest,
  type StudyRecord,
} from '../../record';

/** A vehicle of an earlier study, as far as the gap needs it; its name is null where one may not know it. */
export interface HeldVehicle {
  readonly name: string | null;
  readonly study: string | null;
  readonly vehicleClass: string | null;
  readonly drive: string | null;
  readonly voltageV: number | null;
  readonly modelYear: number | null;
}

/** How near a vehicle that was studied is to a candidate, 0 nothing in common … 1 the same in all four. */
export interface Nearest {
  readonly held: HeldVehicle;
  readonly likenessFraction: number;
}

/** One criterion of one candidate: what it rests on, and its mark from 0 worst to 1 best; null when it is not known. */
export interface CriterionMark {
  readonly criterion: ChoiceCriterion;
  readonly raw: number | null;
  readonly mark: number | null;
}

interface RankedCandidate {
  readonly candidate: Candidate;
  readonly marks: readonly CriterionMark[];
  /** weighted mean of the marks that are known, 0 … 1; null when nothing is known or no weight is on it */
  readonly score: number | null;
  /** what the score would be if all that is not known were at its worst and at its best */
  readonly lowest: number;
  readonly highest: number;
  readonly nearest: Nearest | null;
}

/** The smallest change of one weight that puts another candidate first. */
interface WeightFlip {
  readonly criterion: ChoiceCriterion;
  readonly from: number;
  readonly to: number;
  readonly firstId: string;
}

interface VehicleChoice {
  /** best first; those without a score last */
  readonly ranked: readonly RankedCandidate[];
  readonly flips: readonly WeightFlip[];
  readonly issues: readonly Issue[];
}

/** Voltages count as the same class within a quarter; years lose what they have in common over ten years. */
const VOLTAGE_RATIO = 1.25;
const YEARS = 10;

const sameVoltage = (a: number | null, b: number | null): number => {
  if (a === null || b === null) return a === b ? 1 : 0;
  return Math.max(a, b) / Math.min(a, b) <= VOLTAGE_RATIO ? 1 : 0;
};

type Described = Pick<HeldVehicle, 'vehicleClass' | 'drive' | 'voltageV' | 'modelYear'>;

/**
 * How much two vehicles have in common for a study: class, drive, voltage and year count a quarter each.
 *
 *   likeness = ¼ [class same] + ¼ [drive same] + ¼ [voltage within 25 %] + ¼ max(0, 1 − |Δyear| / 10)
 *
 * @returns 0 … 1; a class, drive or year that is not known of either is not in common; two without a voltage are alike in having none
 */
export const likenessFraction = (a: Described, b: Described): number => {
  const same = (x: string | null, y: string | null): number => (x !== null && x === y ? 1 : 0);
  const years = a.modelYear === null || b.modelYear === null ? 0 : Math.max(0, 1 - Math.abs(a.modelYear - b.modelYear) / YEARS);
  return (same(a.vehicleClass, b.vehicleClass) + same(a.drive, b.drive) + sameVoltage(a.voltageV, b.voltageV) + years) / 4;
};

const nearestOf = (candidate: Candidate, held: readonly HeldVehicle[]): Nearest | null =>
  held.reduce<Nearest | null>((best, vehicle) => {
    const likeness = likenessFraction(candidate, vehicle);
    return best === null || likeness > best.likenessFraction ? { held: vehicle, likenessFraction: likeness } : best;
  }, null);

/** Mark of a value between the worst and the best of the candidates; all the same is a full mark. */
const between = (value: number | null, values: readonly number[], smallIsGood: boolean): number | null => {
  if (value === null) return null;
  const [low, high] = [Math.min(...values), Math.max(...values)];
  if (high === low) return 1;
  return smallIsGood ? (high - value) / (high - low) : (value - low) / (high - low);
};

const rawOf = (
  candidate: Candidate,
  requests: readonly ReaderRequest[],
  nearest: Nearest | null,
): Readonly<Record<ChoiceCriterion, number | null>> => ({
  requests: requests.filter((r) => r.candidateId === candidate.id).reduce((sum, r) => sum + r.strength, 0),
  gap:
    candidate.vehicleClass === null && candidate.drive === null && candidate.modelYear === null
      ? null
      : 1 - (nearest?.likenessFraction ?? 0),
  novelty: candidate.novelty,
  wait: candidate.waitDays,
  price: candidate.price === null ? null : Number(candidate.price),
});

const SMALL_IS_GOOD: readonly ChoiceCriterion[] = ['wait', 'price'];
/** Criteria whose scale has ends of its own; the others run from the worst to the best of the candidates. */
const OWN_SCALE: Partial<Readonly<Record<ChoiceCriterion, number>>> = { gap: 1, novelty: 10 };

const scoreOf = (marks: readonly CriterionMark[], weights: ChoiceWeights): number | null => {
  const known = marks.filter((m) => m.mark !== null);
  const weight = known.reduce((sum, m) => sum + weights[m.criterion], 0);
  return weight > 0 ? known.reduce((sum, m) => sum + weights[m.criterion] * m.mark!, 0) / weight : null;
};

const within = (marks: readonly CriterionMark[], weights: ChoiceWeights, unknown: 0 | 1): number =>
  scoreOf(
    marks.map((m) => ({ ...m, mark: m.mark ?? unknown })),
    weights,
  ) ?? 0;

const byScore = (a: RankedCandidate, b: RankedCandidate): number =>
  (b.score ?? -1) - (a.score ?? -1) || a.candidate.sequence - b.candidate.sequence || (a.candidate.id < b.candidate.id ? -1 : 1);

const SCALE = 100;

/** Weights are tried in whole hundredths of their sum, up to all of the weight on one criterion. */
const flipsOf = (marked: readonly RankedCandidate[], weights: ChoiceWeights): readonly WeightFlip[] => {
  const first = [...marked].sort(byScore)[0];
  if (!first || marked.length < 2) return [];
  const sum = CHOICE_CRITERIA.reduce((all, c) => all + weights[c], 0);
  return CHOICE_CRITERIA.flatMap((criterion): readonly WeightFlip[] => {
    const firstWith = (weight: number): RankedCandidate | undefined => {
      const changed = { ...weights, [criterion]: weight };
      return marked.map((m) => ({ ...m, score: scoreOf(m.marks, changed) })).sort(byScore)[0];
    };
    const step = sum / SCALE;
    for (let n = 1; n <= 2 * SCALE; n++)
      for (const weight of [weights[criterion] - n * step, weights[criterion] + n * step]) {
        if (!(weight >= -1e-9)) continue;
        const other = firstWith(Math.max(0, weight));
        if (other && other.candidate.id !== first.candidate.id)
          return [{ criterion, from: weights[criterion], to: Math.max(0, weight), firstId: other.candidate.id }];
      }
    return [];
  });
};

/** Prices only rank on one basis. */
const priceIssues = (candidates: readonly Candidate[]): readonly Issue[] => {
  const bases = new Set(candidates.flatMap((c) => (c.price === null ? [] : [`${c.priceCurrency ?? ''} ${c.priceYear ?? ''}`])));
  return bases.size <= 1
    ? []
    : [
        issue(
          'price-bases',
          `Prices are given in ${[...bases].join(' and ')}: they do not rank together. Put them on one currency and year; until then the price is left out`,
          'price',
          null,
        ),
      ];
};

/**
 * Candidates in the order of their weighted marks.
 *
 * Requests mark by the sum of their strengths, wait and price from the best to the worst of the candidates, the gap by how
 * little an earlier study has in common with it, novelty on its own scale of ten. What is not known is left out of the
 * mean, and the range says what it could do.
 */
export const chooseVehicle = (
  { candidates, requests, study }: Pick<StudyRecord, 'candidates' | 'requests' | 'study'>,
  held: readonly HeldVehicle[],
): VehicleChoice => {
  const weights = study.choiceWeights;
  const issues = priceIssues(candidates);
  const raws = candidates.map((candidate) => {
    const nearest = nearestOf(candidate, held);
    const raw = rawOf(candidate, requests, nearest);
    return { candidate, nearest, raw: issues.length > 0 ? { ...raw, price: null } : raw };
  });
  const marked = raws.map(({ candidate, nearest, raw }): RankedCandidate => {
    const marks = CHOICE_CRITERIA.map((criterion): CriterionMark => {
      const own = OWN_SCALE[criterion];
      const value = raw[criterion];
      const all = raws.flatMap((r) => r.raw[criterion] ?? []);
      const mark = own === undefined ? between(value, all, SMALL_IS_GOOD.includes(criterion)) : value === null ? null : value / own;
      return { criterion, raw: value, mark };
    });
    return {
      candidate,
      marks,
      nearest,
      score: scoreOf(marks, weights),
      lowest: within(marks, weights, 0),
      highest: within(marks, weights, 1),
    };
  });
  return { ranked: [...marked].sort(byScore), flips: flipsOf(marked, weights), issues };
};
