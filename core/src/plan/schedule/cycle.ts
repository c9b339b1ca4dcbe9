/**
 * One circle among things that wait for each other, or null when there is none.
 *
 * @param after [thing] places of the things each waits for
 * @returns places in the order of waiting: each waits for the next, the last for the first.
 */
export const circleIn = (after: readonly (readonly number[])[]): readonly number[] | null => {
  const state = new Uint8Array(after.length);
  const path: number[] = [];
  const walk = (at: number): readonly number[] | null => {
    state[at] = 1;
    path.push(at);
    for (const next of after[at] ?? []) {
      if (state[next] === 1) return path.slice(path.indexOf(next));
      if (state[next] === 0) {
        const found = walk(next);
        if (found) return found;
      }
    }
    path.pop();
    state[at] = 2;
    return null;
  };
  for (let at = 0; at < after.length; at++) {
    if (state[at] !== 0) continue;
    const found = walk(at);
    if (found) return found;
  }
  return null;
};

/** Places in an order in which each comes after those it waits for, the earlier place first; there must be no circle. */
export const waitingOrder = (after: readonly (readonly number[])[]): readonly number[] => {
  const done = new Uint8Array(after.length);
  const order: number[] = [];
  const put = (at: number): void => {
    if (done[at] === 1) return;
    done[at] = 1;
    for (const before of after[at] ?? []) put(before);
    order.push(at);
  };
  for (let at = 0; at < after.length; at++) put(at);
  return order;
};
