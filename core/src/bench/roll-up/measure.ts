/** What a total says beside its value, and the figures it takes to say it. */
interface Facets {
  /** the ends between which a count lies; infinite above where only "at least" is known */
  readonly range: 'low' | 'high';
  /** variance of the value, in its unit squared; the value is then multiplied by the middle of a range of counts */
  readonly variance: 'variance';
  /** variance of the value and of what joins it, together */
  readonly together: 'together';
  /** the weakest mark among what it rests on, as its rank, −1 for none */
  readonly weakest: 'rank';
  /** the same, with the amount that rests on that mark */
  readonly 'amount on weakest': 'rank' | 'onRank';
  /** how many of what is counted have a figure */
  readonly known: 'known';
  /** how many have one of the best mark */
  readonly best: 'best';
}
type Facet = keyof Facets;
type FigureName = 'value' | Facets[Facet];

/** A sum held against a figure of the whole. */
export interface Below {
  readonly value: number;
  readonly variance: number;
  /** everything inside, and what joins it, has a figure */
  readonly isComplete: boolean;
}

/**
 * One measure of a roll-up: what it is, how it adds up and what it says beside its value. From a table of these follow the
 * packed layout and the loops; a stage adds measures by a table of its own.
 */
export interface Measure {
  readonly label: string;
  /** unit of the value; `currency` for that of the study, empty for a count */
  readonly unit: 'kg' | 'currency' | '';
  /**
   * `part`: a part with nothing inside is one, or has one; what is inside stands for an assembly. `held`: what sits on a part,
   * counted at every level. `extreme` of either kind: the largest there is, whatever the count.
   */
  readonly of: 'part' | 'held';
  readonly adds: 'sum' | 'extreme';
  readonly says: readonly Facet[];
  /** the count that `known` and `best` are out of */
  readonly outOf?: string;
  /** where an assembly counts as one, what it holds goes over to these measures of it; the first takes variance and mark along */
  readonly joins?: readonly string[];
  /** the measure of which this is one of the terms: it stands or falls with it */
  readonly termOf?: string;
  /** when a figure of the whole stands for what is inside, and whether what joins it is taken off or covered by it */
  readonly whole?: {
    readonly stands: (own: { readonly value: number; readonly variance: number; readonly covers: boolean }, below: Below) => boolean;
    readonly joined: 'taken off' | 'covered';
  };
}

export type Measures = Readonly<Record<string, Measure>>;

/** A total or an own figure of a measure: its value and what the measure says beside it. */
export type MeasureFigure<M extends Measure> = Readonly<Record<'value' | Facets[M['says'][number]], number>>;
export type MeasureFigures<M extends Measures> = { readonly [K in keyof M]: MeasureFigure<M[K]> };

/** What a node gives to a measure by itself, for one such part; what is left out is nothing. */
export interface OwnFigure {
  readonly value: number;
  readonly low?: number;
  readonly high?: number;
  readonly variance?: number;
  readonly rank?: number;
  readonly onRank?: number;
  readonly known?: number;
  /** it covers all that is inside */
  readonly covers?: boolean;
  /** stated of all of them together, so that their number does not make it less sure */
  readonly inAll?: boolean;
}

/** How many there are of a node, as counted and as it enters sums. */
export interface OwnCount {
  readonly value: number;
  readonly low: number;
  readonly high: number;
  readonly mean: number;
  readonly variance: number;
  /** how it is known, as a rank */
  readonly rank: number;
  /** only "at least" is known of a count here */
  readonly isOpen: boolean;
}

/** Places of the figures of one measure in a row of numbers, −1 for what it does not say. */
export type Places = Readonly<Record<FigureName, number>>;

/** A measure of parts with all that follows it where a whole stands for its parts. */
export interface PartMeasure {
  readonly at: Places;
  readonly whole: Measure['whole'];
  /** own row: whether the figure covers all inside */
  readonly coversAt: number;
  /** own row: variance of the count that enters this measure */
  readonly countVarAt: number;
  readonly terms: readonly number[];
  readonly outOf: Places | null;
  readonly joined: readonly JoinedMeasure[];
}
interface JoinedMeasure {
  readonly at: Places;
  readonly outOf: Places | null;
  /** where its value goes besides the measure itself */
  readonly alsoTo: readonly number[];
}

/**
 * The layout of a table of measures: one row of numbers for each node, figures of a kind beside each other, so that each kind is
 * one loop. Sums come first: counts, low ends, high ends, amounts, variances, open counts; then the largest; then weakest marks
 * and, in the same order, the amounts on them. Ranks are kept as rank + 1, so that 0 is none.
 */
export interface Layout<M extends Measures = Measures> {
  readonly measures: M;
  readonly placesOf: { readonly [K in keyof M]: Places };
  readonly stride: number;
  readonly lows: number;
  readonly highs: number;
  readonly amounts: number;
  readonly variances: number;
  readonly open: number;
  readonly largest: number;
  readonly marks: number;
  readonly amountsOnMarks: number;
  /** the count of parts themselves */
  readonly counted: Places;
  readonly parts: readonly PartMeasure[];
  /** variance of each measure with one, with where its count's variance stands in the own row */
  readonly products: readonly { readonly value: number; readonly variance: number; readonly countVarAt: number }[];
  /** the measures that say what they and what joins them vary by together */
  readonly together: readonly {
    readonly value: number;
    readonly variance: number;
    readonly joined: readonly number[];
    readonly at: number;
    readonly joinedVariances: readonly number[];
    readonly countVarAt: number;
  }[];
  /** places of what is held, by section */
  readonly heldSums: Int32Array;
  readonly heldLargest: Int32Array;
  readonly heldMarks: Int32Array;
  /** own rows: the figures of a row of totals, then the count, flags and variances of counts */
  readonly ownStride: number;
  readonly count: {
    readonly value: number;
    readonly low: number;
    readonly high: number;
    readonly mean: number;
    readonly rank: number;
    readonly isPart: number;
  };
}

const entries = (measures: Measures): readonly (readonly [string, Measure])[] => Object.entries(measures);
const says = (measure: Measure, facet: Facet): boolean => measure.says.includes(facet);
/** a measure with a variance, or a term of one, is an amount; others are counts */
const isAmount = (measure: Measure): boolean => says(measure, 'variance') || measure.termOf !== undefined;

type Named = readonly (readonly [string, Measure])[];
type AllPlaces = ReadonlyMap<string, Places>;

/** Where each figure stands, and where each kind of figure begins. */
const sections = (named: Named): Pick<Layout, Section> & { readonly places: AllPlaces } => {
  const places = new Map<string, Record<FigureName, number>>();
  for (const [name] of named)
    places.set(name, { value: -1, low: -1, high: -1, variance: -1, together: -1, rank: -1, onRank: -1, known: -1, best: -1 });
  let next = 0;
  const put = (figure: FigureName, which: (measure: Measure) => boolean): number => {
    const from = next;
    for (const [name, measure] of named) if (which(measure)) places.get(name)![figure] = next++;
    return from;
  };
  const isSum = (measure: Measure): boolean => measure.adds === 'sum';
  put('value', (m) => isSum(m) && !isAmount(m));
  put('known', (m) => says(m, 'known'));
  put('best', (m) => says(m, 'best'));
  const lows = put('low', (m) => says(m, 'range'));
  const highs = put('high', (m) => says(m, 'range'));
  const amounts = put('value', (m) => isSum(m) && isAmount(m));
  const variances = put('variance', (m) => says(m, 'variance'));
  put('together', (m) => says(m, 'together'));
  const open = next++;
  const largest = put('value', (m) => m.adds === 'extreme');
  put('rank', (m) => says(m, 'weakest'));
  const marks = put('rank', (m) => says(m, 'amount on weakest'));
  const amountsOnMarks = put('onRank', (m) => says(m, 'amount on weakest'));
  return { places, lows, highs, amounts, variances, open, largest, marks, amountsOnMarks, stride: next };
};
type Section = 'lows' | 'highs' | 'amounts' | 'variances' | 'open' | 'largest' | 'marks' | 'amountsOnMarks' | 'stride';

const placesOf = (places: AllPlaces, name: string | undefined, of: string): Places => {
  const found = name === undefined ? undefined : places.get(name);
  if (!found) throw new RangeError(`the measure ${of} names ${String(name)}, which is not in the table`);
  return found;
};

const joinedBy = (named: Named, places: AllPlaces, name: string): readonly JoinedMeasure[] =>
  named
    .filter(([, m]) => m.joins?.[0] === name)
    .map(([joined, m]) => ({
      at: placesOf(places, joined, name),
      outOf: m.outOf === undefined ? null : placesOf(places, m.outOf, joined),
      alsoTo: (m.joins ?? []).slice(1).map((to) => placesOf(places, to, joined).value),
    }));

/** Measures of parts with all that follows them; `own` gives the next place of the own row. */
const partMeasures = (
  named: Named,
  places: AllPlaces,
  countVarOf: ReadonlyMap<string, number>,
  own: () => number,
): readonly PartMeasure[] => {
  const found = named
    .filter(([, m]) => m.of === 'part' && says(m, 'known'))
    .map(([name, m]): PartMeasure => ({
      at: placesOf(places, name, name),
      whole: m.whole,
      coversAt: own(),
      countVarAt: countVarOf.get(name) ?? -1,
      terms: named.filter(([, t]) => t.termOf === name).map(([term]) => placesOf(places, term, name).value),
      outOf: placesOf(places, m.outOf, name),
      joined: joinedBy(named, places, name),
    }));
  for (const { at, joined } of found)
    if (joined.some((j) => j.at.onRank >= 0 && at.onRank < 0)) throw new RangeError('amounts on a mark join a measure that keeps none');
  return found;
};

const togetherOf = (parts: readonly PartMeasure[]): Layout['together'] =>
  parts
    .filter(({ at }) => at.together >= 0)
    .map(({ at, joined, countVarAt }) => ({
      value: at.value,
      variance: at.variance,
      joined: joined.map((j) => j.at.value),
      at: at.together,
      joinedVariances: joined.map((j) => j.at.variance).filter((variance) => variance >= 0),
      countVarAt,
    }));

/**
 * Lays a table of measures out. The first measure is the count of parts.
 *
 * @throws RangeError for a table that contradicts itself
 */
export const layoutOf = <M extends Measures>(measures: M): Layout<M> => {
  const named = entries(measures);
  const [first] = named;
  if (first?.[1].of !== 'part' || !says(first[1], 'range')) throw new RangeError('the first measure counts the parts');
  const { places, ...rest } = sections(named);
  let next = rest.stride;
  const own = (): number => next++;
  const count = { value: own(), low: own(), high: own(), mean: own(), rank: own(), isPart: own() };
  const countVarOf = new Map(named.filter(([, m]) => says(m, 'variance')).map(([name]) => [name, own()]));
  const parts = partMeasures(named, places, countVarOf, own);
  const held = (from: number, to: number): Int32Array =>
    Int32Array.from(
      named
        .filter(([, m]) => m.of === 'held')
        .flatMap(([name]) => Object.values(placesOf(places, name, name)))
        .filter((at) => at >= from && at < to),
    );
  return {
    ...rest,
    measures,
    placesOf: Object.fromEntries(places) as Layout<M>['placesOf'],
    counted: placesOf(places, first[0], first[0]),
    parts,
    products: [...countVarOf].map(([name, countVarAt]) => {
      const { value, variance } = placesOf(places, name, name);
      return { value, variance, countVarAt };
    }),
    together: togetherOf(parts),
    heldSums: held(0, rest.largest),
    heldLargest: held(rest.largest, rest.marks),
    heldMarks: held(rest.marks, rest.amountsOnMarks),
    ownStride: next,
    count,
  };
};
