import { outline } from '@each-bolt/core/record';
import { LEFT, recordOf, teardown } from '../../../testing/record';
import { treeMove, visibleRows, type TreeRow } from './visible-rows';

const record = recordOf(teardown('module\n  plate\n    clip holder\n  lever\narm'));
const tree = outline(record);
const names = new Map(record.parts.map((p) => [p.id, p.name]));
const nameOf = (row: TreeRow): string => names.get(row.node.id) ?? row.node.kind;
const rows = (isOpen: (name: string) => boolean, filter = ''): readonly TreeRow[] =>
  visibleRows(tree, {
    roots: [tree.placeOf.get(LEFT.id) ?? -1],
    isOpen: (node) => isOpen(names.get(node.id) ?? node.kind),
    matches: filter === '' ? null : (node) => (names.get(node.id) ?? '').includes(filter),
  });

describe('the rows of a tree', () => {
  it('are those below open nodes, in order, each at its level', () => {
    expect(rows((name) => name !== 'plate').map((row) => [nameOf(row), row.level])).toEqual([
      ['vehicle', 0],
      ['subsystem', 1],
      ['module', 2],
      ['plate', 3],
      ['lever', 3],
      ['arm', 2],
    ]);
  });
  it('under a filter are what matches with all above it, whatever is closed', () => {
    expect(rows(() => false, 'clip').map(nameOf)).toEqual(['vehicle', 'subsystem', 'module', 'plate', 'clip holder']);
    expect(rows(() => true, 'nothing like it')).toEqual([]);
  });
});

describe('arrow keys in a tree', () => {
  const all = rows((name) => name !== 'plate');
  const at = (name: string): number => all.findIndex((row) => nameOf(row) === name);
  it('go up and down and stop at the ends', () => {
    expect(treeMove('ArrowDown', all, at('module'))).toEqual({ go: at('plate') });
    expect(treeMove('ArrowUp', all, 0)).toEqual({ go: 0 });
    expect(treeMove('End', all, 0)).toEqual({ go: all.length - 1 });
  });
  it('open what is closed, go into what is open, close it, and go to its parent', () => {
    expect(treeMove('ArrowRight', all, at('plate'))).toEqual({ toggle: all[at('plate')] });
    expect(treeMove('ArrowRight', all, at('module'))).toEqual({ go: at('plate') });
    expect(treeMove('ArrowLeft', all, at('module'))).toEqual({ toggle: all[at('module')] });
    expect(treeMove('ArrowLeft', all, at('lever'))).toEqual({ go: at('module') });
  });
  it('leave other keys alone', () => expect(treeMove('x', all, 0)).toBeNull());
});
