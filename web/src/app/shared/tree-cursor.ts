import type { CdkVirtualScrollViewport } from '@angular/cdk/scrolling';
import { computed, effect, signal, type Signal } from '@angular/core';
import { treeMove, type TreeRow } from './visible-rows';

/** What a cursor moves over. */
interface TreeCursorParts {
  readonly rows: Signal<readonly TreeRow[]>;
  /** key of the chosen node */
  readonly chosen: Signal<string>;
  readonly viewport: Signal<CdkVirtualScrollViewport>;
  readonly rowPx: number;
  /** prefix that makes the ids of rows unique on the page */
  readonly idPrefix: string;
  readonly pick: (row: TreeRow) => void;
  readonly toggle: (row: TreeRow) => void;
}

/** The row that arrow keys stand on in a tree of many rows; what is chosen elsewhere is brought into view. Make it where a component is made. */
export class TreeCursor {
  readonly active = signal(0);
  /** id of the row the keys stand on, for those who cannot see it */
  readonly activeId = computed(() => {
    const row = this.parts.rows()[this.active()];
    return row ? this.idOf(row) : null;
  });

  constructor(private readonly parts: TreeCursorParts) {
    let shown = '';
    effect(() => {
      const chosen = this.parts.chosen();
      // once for each choice, as soon as its row is there: opening a node far from it must not pull the view back
      if (chosen === shown) return;
      const at = this.parts.rows().findIndex((row) => row.node.key === chosen);
      if (at < 0 && chosen !== '') return;
      shown = chosen;
      // after the rows and their room are there to be measured
      if (at >= 0) setTimeout(() => this.keepInView(at));
    });
  }

  readonly idOf = (row: TreeRow): string => `${this.parts.idPrefix}-${row.node.key.replace(':', '-')}`;

  pick(row: TreeRow, at: number): void {
    this.active.set(at);
    this.parts.pick(row);
  }

  startAtChosen(): void {
    const at = this.parts.rows().findIndex((row) => row.node.key === this.parts.chosen());
    if (at >= 0) this.active.set(at);
  }

  onKey(event: KeyboardEvent): void {
    const rows = this.parts.rows();
    const row = rows[this.active()];
    if (event.key === 'Enter' && row) this.parts.pick(row);
    const move = treeMove(event.key, rows, this.active());
    if (move === null) return;
    event.preventDefault();
    if ('toggle' in move) this.parts.toggle(move.toggle);
    else {
      this.active.set(move.go);
      this.keepInView(move.go);
    }
  }

  /** @param tries how often it is looked whether the room for the rows was there already */
  private keepInView(at: number, tries = 5): void {
    const { rowPx } = this.parts;
    const viewport = this.parts.viewport();
    viewport.checkViewportSize();
    const top = at * rowPx;
    const from = viewport.measureScrollOffset('top');
    const size = viewport.getViewportSize();
    const wanted = top < from ? top : top + rowPx > from + size ? top + rowPx - size : from;
    if (wanted === from && size > 0) return;
    viewport.scrollToOffset(wanted);
    if (tries > 0) requestAnimationFrame(() => this.keepInView(at, tries - 1));
  }
}

/** The set with a key put in, or taken out if it was there. */
export const toggled = (keys: ReadonlySet<string>, key: string): ReadonlySet<string> => {
  const next = new Set(keys);
  if (!next.delete(key)) next.add(key);
  return next;
};
