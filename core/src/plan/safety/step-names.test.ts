import { stepNames } from './step-names';

const at = (...places: readonly (readonly [number, number])[]) => places.map(([xM, yM], i) => ({ at: i - 1, xM, yM }));

describe('the names along the way of a centre of mass', () => {
  it('are the numbers of the steps, each where it ends', () => {
    expect([...stepNames(at([0, 0], [1, 0], [2, 0]), 0.1)]).toEqual([[-1, 'whole'], [0, '1'], [1, '2']]); // prettier-ignore
  });
  it('are one where steps lie on one another, by their distance along both axes', () => {
    expect([...stepNames(at([0, 0], [1, 0], [1.05, 0], [1.05, 0.05], [1.05, 0.2]), 0.1)]).toEqual([
      [-1, 'whole'],
      [2, '1–3'],
      [3, '4'],
    ]);
  });
});
