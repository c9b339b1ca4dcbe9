import { EventEmitter } from 'node:events';
import type { Request, Response } from 'express';
import { inTurn } from './in-turn';

class Answer extends EventEmitter {
  destroyed = false;
  readonly locals: object;
  begun = false;
  constructor(id: string) {
    super();
    this.locals = { person: { id } };
  }
  ask(): this {
    void inTurn({} as unknown as Request, this as unknown as Response, () => (this.begun = true));
    return this;
  }
  leave(): void {
    this.destroyed = true;
    this.emit('close');
  }
}
const begun = (...answers: readonly Answer[]): readonly boolean[] => answers.map((answer) => answer.begun);

describe('what takes the server long', () => {
  it('is done for one person one after the other, beside what others ask for', () => {
    const [first, second, third, other] = ['wenna', 'wenna', 'wenna', 'odo'].map((id) => new Answer(id).ask()) as [Answer, Answer, Answer, Answer]; // prettier-ignore
    expect(begun(first, second, third, other)).toEqual([true, false, false, true]);
    first.leave();
    expect(begun(second, third)).toEqual([true, false]);
    second.leave();
    third.leave();
    other.leave();
    expect(begun(third, new Answer('wenna').ask())).toEqual([true, true]);
  });
  it('is not done for whoever has gone before their turn, and those behind them go on', () => {
    const [first, gone, last] = [1, 2, 3].map(() => new Answer('lisk').ask()) as [Answer, Answer, Answer];
    gone.destroyed = true;
    first.leave();
    expect(begun(gone, last)).toEqual([false, true]);
    last.leave();
  });
  it('is refused in words to whoever has far more waiting than can be answered', () => {
    const all = Array.from({ length: 31 }, () => new Answer('pell').ask());
    expect(() => new Answer('pell').ask()).toThrow('wait for what you asked for');
    for (const answer of all) answer.leave();
    expect(begun(...all)).toEqual(Array(31).fill(true));
  });
});
