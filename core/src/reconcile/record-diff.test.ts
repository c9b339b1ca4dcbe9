import { recordOf, teardown } from '../../testing/teardown';
import { recordDiff, withDiff } from './record-diff';

const was = recordOf(teardown('module 3 kg\n  lock 1 kg\n    2 M6x20\n  plate 2 kg'));
const [, lock] = was.parts;

describe('what is told of a change to whoever holds the record', () => {
  it('is nothing where nothing changed', () => expect(recordDiff(was, { ...was }).lists).toEqual([]));
  it('is the row that was edited, and it keeps its place', () => {
    const now = { ...was, revision: 2, parts: was.parts.map((part) => (part.id === lock!.id ? { ...part, name: 'latch' } : part)) };
    const diff = recordDiff(was, now);
    expect(diff.lists.map(({ list, put, gone }) => [list, put.length, gone.length])).toEqual([['parts', 1, 0]]);
    expect(withDiff(was, diff)).toEqual(now);
  });
  it('is what came and what went, in every list it touched', () => {
    const now = {
      ...was,
      revision: 3,
      parts: [...was.parts.filter((part) => part.id !== lock!.id), { ...lock!, id: was.study.id }],
      fastenerSets: [],
    };
    expect(withDiff(was, recordDiff(was, now))).toEqual(now);
  });
  it('is the study where that changed', () => {
    const now = { ...was, revision: 4, study: { ...was.study, title: 'Doors' } };
    expect(withDiff(was, recordDiff(was, now))).toEqual(now);
  });
});
