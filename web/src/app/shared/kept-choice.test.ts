import { signal } from '@angular/core';
import { keptChoice } from './kept-choice';

describe('what is chosen of a list', () => {
  const part = signal('pack');
  const states = signal(['recorded', 'what if']);
  const chosen = keptChoice(
    () => part(),
    (id) => states().includes(id),
    () => states().at(-1) ?? '',
  );

  it('is the usual one until the person chooses, and stays when others add to the list', () => {
    expect(chosen()).toBe('what if');
    chosen.set('recorded');
    states.set(['recorded', 'what if', 'somebody else’s']);
    expect(chosen()).toBe('recorded');
  });
  it('goes to the usual one when it is deleted', () => {
    states.set(['what if', 'somebody else’s']);
    expect(chosen()).toBe('somebody else’s');
  });
  it('is chosen anew for another part', () => {
    chosen.set('what if');
    part.set('another pack');
    expect(chosen()).toBe('somebody else’s');
  });
});
