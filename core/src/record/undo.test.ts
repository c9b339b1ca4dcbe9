import fc from 'fast-check';
import { undoStacks, type Undoable } from './undo';

const act = (id: string): Undoable => ({ id, undoes: null });
const undo = (id: string, undoes: string): Undoable => ({ id, undoes });

describe('undo and redo', () => {
  it('go back and forth over one’s own acts', () => {
    expect(undoStacks([act('a'), act('b')])).toEqual({ undo: ['a', 'b'], redo: [] });
    expect(undoStacks([act('a'), act('b'), undo('u', 'b')])).toEqual({ undo: ['a'], redo: ['u'] });
    expect(undoStacks([act('a'), act('b'), undo('u', 'b'), undo('r', 'u')])).toEqual({ undo: ['a', 'r'], redo: [] });
    expect(undoStacks([act('a'), undo('u', 'a'), undo('r', 'u'), undo('u2', 'r')])).toEqual({ undo: [], redo: ['u2'] });
  });
  it('leave nothing to do again after a new act', () =>
    expect(undoStacks([act('a'), undo('u', 'a'), act('c')])).toEqual({ undo: ['c'], redo: [] }));
  /** @source the plain two-stack model that every text book of interfaces gives: undo pops, redo pushes back, an act clears */
  it('agree with two plain stacks over any sequence', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('act', 'undo', 'redo'), { maxLength: 40 }), (steps) => {
        const own: Undoable[] = [];
        let [done, undone]: [number, number] = [0, 0];
        steps.forEach((step, n) => {
          const stacks = undoStacks(own);
          if (step === 'act') {
            own.push(act(`a${n}`));
            [done, undone] = [done + 1, 0];
          } else {
            const id = (step === 'undo' ? stacks.undo : stacks.redo).at(-1);
            if (id === undefined) return;
            own.push(undo(`${step}${n}`, id));
            [done, undone] = step === 'undo' ? [done - 1, undone + 1] : [done + 1, undone - 1];
          }
          const after = undoStacks(own);
          expect([after.undo.length, after.redo.length]).toEqual([done, undone]);
        });
      }),
    );
  });
});
