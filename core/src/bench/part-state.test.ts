import { testId } from '../../testing/teardown';
import type { Part } from '../record';
import { canBeMeasured, partState, removedParts } from './part-state';

const part = (state: Part['state'], opened: Part['opened'] = null): Pick<Part, 'id' | 'state' | 'opened'> => ({
  id: testId(1),
  state,
  opened,
});
const OFF = new Set([testId(1)]);
const ON: ReadonlySet<string> = new Set();

describe('the state of a part', () => {
  it('is removed once a removal names it, and unknown before', () => {
    expect([partState(part(null), OFF), partState(part(null), ON)]).toEqual(['removed', null]);
    expect(removedParts([{ parts: [testId(1)] }, { parts: [] }] as never)).toEqual(OFF);
  });
  it('is opened or left closed where that is said, and fitted again where somebody put it back', () => {
    expect([partState(part(null, 'opened'), OFF), partState(part('removed', 'closed'), OFF)]).toEqual(['opened', 'left closed']);
    expect(partState(part('fitted'), OFF)).toBe('fitted');
  });
  it('is first of all that it is gone: then nobody is asked to weigh it', () => {
    for (const gone of ['missing', 'destroyed', 'returned'] as const) {
      expect([partState(part(gone, 'opened'), OFF), canBeMeasured({ state: gone })]).toEqual([gone, false]);
    }
    expect([canBeMeasured({ state: null }), canBeMeasured({ state: 'removed' })]).toEqual([true, true]);
  });
});
