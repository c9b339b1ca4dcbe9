import type { Undoable } from '@each-bolt/core/record';
import { ownActs } from './undo-service';

const act = (id: string): Undoable => ({ id, undoes: null });
const ids = (acts: readonly Undoable[]): readonly string[] => acts.map(({ id }) => id);

describe('one’s own acts, when a study is opened', () => {
  it('are those of the server, then what waits here', () =>
    expect(ids(ownActs([act('a')], [act('a'), act('b')], [], new Set(['b'])))).toEqual(['a', 'b']));
  it('what this device knew and neither waits nor is kept was refused, and is left out', () =>
    expect(ids(ownActs([act('a')], [act('a'), act('refused')], [], new Set()))).toEqual(['a']));
  it('an act made while the server was being asked is not lost, whether it still waits or not', () => {
    expect(ids(ownActs([act('a')], [], [act('b')], new Set(['b'])))).toEqual(['a', 'b']);
    expect(ids(ownActs([act('a')], [], [act('b')], new Set()))).toEqual(['a', 'b']);
  });
  it('and is there once, when the server has told of it already', () =>
    expect(ids(ownActs([act('a'), act('b')], [act('a')], [act('b')], new Set(['b'])))).toEqual(['a', 'b']));
});
