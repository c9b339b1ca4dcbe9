import { LEFT, RIGHT, recordOf, teardown } from '../../testing/teardown';
import { parseLine } from './index';
import { firstSteps } from './first-steps';

const NOTHING = { vehicles: [], parts: [], fastenerSets: [], readings: [], steps: [] };

describe('the path of a first study', () => {
  it('begins with the vehicle and ends with a comparison, nothing done yet', () =>
    expect(firstSteps(NOTHING).map(({ id, isDone }) => [id, isDone])).toEqual([
      ['vehicle', false],
      ['part', false],
      ['fasteners', false],
      ['mass', false],
      ['removal', false],
      ['second', false],
    ]));
  it('has samples that the entry line understands whole', () => {
    for (const { sample } of firstSteps(NOTHING))
      if (sample !== '') expect([sample, parseLine(sample).questions, parseLine(sample).entry === null]).toEqual([sample, [], false]);
  });
  it('goes on as things are recorded, in whatever order', () => {
    const record = recordOf(teardown('bracket dc04 stamp 41 g\n4 M6x16 6 g'));
    const done = firstSteps(record).flatMap(({ id, isDone }) => (isDone ? [id] : []));
    expect(done).toEqual(['vehicle', 'part', 'fasteners']);
  });
  it('is at its end once two vehicles have parts', () => {
    const parts = [{ vehicleId: LEFT.id }, { vehicleId: RIGHT.id }] as never;
    expect(firstSteps({ ...NOTHING, vehicles: [LEFT, RIGHT], parts }).at(-1)?.isDone).toBe(true);
    expect(firstSteps({ ...NOTHING, vehicles: [LEFT, RIGHT], parts: [{ vehicleId: LEFT.id }] as never }).at(-1)?.isDone).toBe(false);
  });
});
