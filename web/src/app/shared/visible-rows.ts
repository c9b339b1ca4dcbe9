import type { Outline, OutlineNode } from '@each-bolt/core/record';

/** One row of a tree on screen. */
export interface TreeRow {
  readonly node: OutlineNode;
  readonly place: number;
  /** depth below the root shown */
  readonly level: number;
  readonly hasChildren: boolean;
  readonly isOpen: boolean;
}

interface TreeView {
  /** roots to show, as places in the outline */
  readonly roots: readonly number[];
  readonly isOpen: (node: OutlineNode) => boolean;
  /** null: no filter; else only nodes that match, with all above them */
  readonly matches: ((node: OutlineNode) => boolean) | null;
}

const keptBy = ({ nodes }: Outline, matches: (node: OutlineNode) => boolean): ReadonlySet<number> => {
  const kept = new Set<number>();
  nodes.forEach((node, place) => {
    if (!matches(node)) return;
    for (let at = place; at >= 0 && !kept.has(at); at = nodes[at]?.parent ?? -1) kept.add(at);
  });
  return kept;
};

/** The rows of a tree that are to be seen, in order: open nodes show their children, a filter opens everything it keeps. */
export const visibleRows = (outline: Outline, { roots, isOpen, matches }: TreeView): readonly TreeRow[] => {
  const kept = matches ? keptBy(outline, matches) : null;
  const rows: TreeRow[] = [];
  const base = outline.nodes[roots[0] ?? -1]?.depth ?? 0;
  const waiting = [...roots].reverse();
  for (let place = waiting.pop(); place !== undefined; place = waiting.pop()) {
    const node = outline.nodes[place];
    if (!node || (kept && !kept.has(place))) continue;
    const open = kept !== null || isOpen(node);
    rows.push({ node, place, level: node.depth - base, hasChildren: node.children.length > 0, isOpen: open });
    if (open) for (let i = node.children.length - 1; i >= 0; i--) waiting.push(node.children[i]!);
  }
  return rows;
};

/** What arrow keys do in a tree: the row to go to, or the row to open or close. */
type TreeMove = { readonly go: number } | { readonly toggle: TreeRow } | null;

export const treeMove = (key: string, rows: readonly TreeRow[], at: number): TreeMove => {
  const row = rows[at];
  if (key === 'ArrowDown') return { go: Math.min(rows.length - 1, at + 1) };
  if (key === 'ArrowUp') return { go: Math.max(0, at - 1) };
  if (key === 'Home') return { go: 0 };
  if (key === 'End') return { go: rows.length - 1 };
  if (key === 'ArrowRight' && row?.hasChildren) return row.isOpen ? { go: at + 1 } : { toggle: row };
  if (key === 'ArrowLeft' && row) {
    if (row.hasChildren && row.isOpen) return { toggle: row };
    for (let above = at - 1; above >= 0; above--) if ((rows[above]?.level ?? 0) < row.level) return { go: above };
  }
  return null;
};
