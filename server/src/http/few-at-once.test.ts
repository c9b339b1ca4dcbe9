import { EventEmitter } from 'node:events';
import type { Request, Response } from 'express';
import { fewAtOnce } from './few-at-once';

class Answer extends EventEmitter {
  destroyed = false;
  readonly locals: object;
  readonly req = { socket: Object.assign(new EventEmitter(), { destroyed: false }) };
  begun = false;
  constructor(id: string) {
    super();
    this.locals = { person: { id } };
  }
  ask(): this {
    void fewAtOnce({} as unknown as Request, this as unknown as Response, () => (this.begun = true));
    return this;
  }
  leave(): void {
    this.destroyed = true;
    this.emit('close');
  }
}
const ask = (who: string, times: number): readonly Answer[] => Array.from({ length: times }, () => new Answer(who).ask());
const begun = (answers: readonly Answer[]): readonly boolean[] => answers.map((answer) => answer.begun);

describe('large answers', () => {
  it('are on their way to one person four at a time, beside what others ask for', () => {
    const mine = ask('wenna', 6);
    expect(begun(mine)).toEqual([true, true, true, true, false, false]);
    expect(begun(ask('odo', 1))).toEqual([true]);
    mine[2]?.leave();
    expect(begun(mine)).toEqual([true, true, true, true, true, false]);
    for (const answer of mine) answer.leave();
    expect(begun(ask('wenna', 4))).toEqual([true, true, true, true]);
  });
  it('are not made for whoever has gone before their turn, and those behind them go on', () => {
    const [first, , , , gone, last] = ask('lisk', 6);
    gone!.destroyed = true;
    first!.leave();
    expect(begun([gone!, last!])).toEqual([false, true]);
  });
  it('give their place to others when a connection ends before its answer was begun to be written', () => {
    const mine = ask('ilse', 5);
    // the answer itself is told nothing: another stood before it on the connection
    mine[1]!.req.socket.destroyed = true;
    mine[1]!.req.socket.emit('close');
    expect(begun(mine)).toEqual([true, true, true, true, true]);
    for (const answer of mine) answer.leave();
    expect(begun(ask('ilse', 4))).toEqual([true, true, true, true]);
  });
  it('are refused in words to whoever has far more waiting than can be answered', () => {
    const all = ask('pell', 34);
    expect(() => new Answer('pell').ask()).toThrow('wait for what you asked for');
    for (const answer of all) answer.leave();
    expect(begun(all)).toEqual(Array(34).fill(true));
  });
});
