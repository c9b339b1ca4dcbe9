/** What stands at each point of the way: steps on one another that move the centre by less than `nearM` share one name, "1–5", at the last of them. */
export const stepNames = (
  path: readonly { readonly at: number; readonly xM: number; readonly yM: number }[],
  nearM: number,
): ReadonlyMap<number, string> => {
  const runs: (typeof path)[] = [];
  for (const point of path.slice(1)) {
    const run = runs.at(-1);
    const first = run?.[0];
    if (run && first && Math.hypot(point.xM - first.xM, point.yM - first.yM) < nearM) runs[runs.length - 1] = [...run, point];
    else runs.push([point]);
  }
  const names = runs.map((run): readonly [number, string] => {
    const [from, to] = [run[0]!.at + 1, run.at(-1)!.at + 1];
    return [to - 1, from === to ? String(to) : `${from}–${to}`];
  });
  return new Map([[-1, 'whole'], ...names]);
};
