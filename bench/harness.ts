/** One line of the benchmark table. `value` is held against `budget`; `atMost` says which side is good. */
export interface Result {
  readonly name: string;
  readonly value: number;
  readonly unit: string;
  readonly budget: number;
  readonly ok: boolean;
}

export const atMost = (name: string, value: number, unit: string, budget: number): Result => ({
  name,
  value,
  unit,
  budget,
  ok: value <= budget,
});
export const atLeast = (name: string, value: number, unit: string, budget: number): Result => ({
  name,
  value,
  unit,
  budget,
  ok: value >= budget,
});

/** Median milliseconds of an act over several runs, after some that warm up. */
export const medianMs = (act: () => unknown, runs: number, warmUp = 3): number => {
  for (let i = 0; i < warmUp; i++) act();
  const times = Array.from({ length: runs }, () => {
    const since = performance.now();
    act();
    return performance.now() - since;
  }).sort((a, b) => a - b);
  return times[Math.floor(times.length / 2)] ?? Number.NaN;
};
