import type { EvidenceOf } from '../../record';

// Figures worked out of recorded inputs, with the uncertainty of each input carried through, for a state and for the
// difference of two.

export interface Inputs {
  readonly partId?: string;
  readonly vehicleId?: string;
  readonly evidence: EvidenceOf;
}

/** What is worked out of a record: which of its fields carry uncertainty, and the figures they come to. */
export interface Model<R extends Inputs, F extends string> {
  readonly inputs: readonly (keyof R & string)[];
  readonly figures: readonly F[];
  /** SI; null where a field that the figure needs is not known */
  readonly valuesOf: (row: R) => Readonly<Record<F, number | null>>;
}

/** Figures with their standard uncertainties, SI. */
export interface Carried<F extends string> {
  readonly values: Readonly<Record<F, number | null>>;
  readonly us: Readonly<Record<F, number>>;
}

const uOf = <R extends Inputs>(row: R, field: keyof R & string): number => row.evidence[field]?.u ?? 0;

/** Moved by standard uncertainties: half the difference of up and down is what it adds. */
const moved = <R extends Inputs>(row: R, field: keyof R & string, by: number): R => ({ ...row, [field]: (row[field] as number) + by });

const half = (up: number | null, down: number | null): number => (up === null || down === null ? 0 : (up - down) / 2);

const rooted = <F extends string>(figures: readonly F[], square: Readonly<Record<F, number>>): Readonly<Record<F, number>> =>
  Object.fromEntries(figures.map((figure) => [figure, Math.sqrt(square[figure])])) as Record<F, number>;

const zeros = <F extends string>(figures: readonly F[]): Record<F, number> =>
  Object.fromEntries(figures.map((figure) => [figure, 0])) as Record<F, number>;

/**
 * Figures of a record with their standard uncertainties: each input moved by its own, all independent.
 *
 * @source JCGM 100:2008, 5.1.3 note 2
 */
export const carried = <R extends Inputs, F extends string>(model: Model<R, F>, row: R): Carried<F> => {
  const square = zeros(model.figures);
  for (const field of model.inputs) {
    const u = uOf(row, field);
    if (u === 0 || row[field] === null) continue;
    const [up, down] = [model.valuesOf(moved(row, field, u)), model.valuesOf(moved(row, field, -u))];
    for (const figure of model.figures) square[figure] += half(up[figure], down[figure]) ** 2;
  }
  return { values: model.valuesOf(row), us: rooted(model.figures, square) };
};

/**
 * One state against another. A field that two states of the same part or vehicle have with the same value is the same quantity: it
 * moves both together, and what they share cancels. Two parts share nothing, however alike their figures are.
 */
export const carriedDifference = <R extends Inputs, F extends string>(model: Model<R, F>, before: R, now: R): Carried<F> => {
  const gap = (x: Carried<F>['values'], y: Carried<F>['values'], figure: F): number | null =>
    x[figure] === null || y[figure] === null ? null : y[figure] - x[figure];
  const isSameThing = before.partId === now.partId && before.vehicleId === now.vehicleId;
  const square = zeros(model.figures);
  for (const field of model.inputs) {
    const [u, uNow] = [uOf(before, field), uOf(now, field)];
    if ((u === 0 && uNow === 0) || before[field] === null || now[field] === null) continue;
    const isShared = isSameThing && before[field] === now[field] && u === uNow;
    const moves: readonly (readonly [R, R, R, R])[] = isShared
      ? [[moved(before, field, u), moved(now, field, u), moved(before, field, -u), moved(now, field, -u)]]
      : [
          [moved(before, field, u), now, moved(before, field, -u), now],
          [before, moved(now, field, uNow), before, moved(now, field, -uNow)],
        ];
    for (const [beforeUp, nowUp, beforeDown, nowDown] of moves) {
      const [a, b] = [
        [model.valuesOf(beforeUp), model.valuesOf(nowUp)] as const,
        [model.valuesOf(beforeDown), model.valuesOf(nowDown)] as const,
      ];
      for (const figure of model.figures) square[figure] += half(gap(...a, figure), gap(...b, figure)) ** 2;
    }
  }
  const [x, y] = [model.valuesOf(before), model.valuesOf(now)];
  const by = Object.fromEntries(model.figures.map((figure) => [figure, gap(x, y, figure)])) as unknown as Carried<F>['values'];
  return { values: by, us: rooted(model.figures, square) };
};
