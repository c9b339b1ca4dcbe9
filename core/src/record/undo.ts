/** A person's own change, as far as undoing goes. */
export interface Undoable {
  readonly id: string;
  readonly undoes: string | null;
}

/** What a person can undo and do again, the next one last. */
interface UndoStacks {
  readonly undo: readonly string[];
  readonly redo: readonly string[];
}

/**
 * The undo and redo stacks that a person's own changes come to, oldest first. An undo is itself a change, so the stacks
 * follow from the ledger alone and are the same after a reload and on another device. A new act leaves nothing to redo.
 */
export const undoStacks = (own: readonly Undoable[]): UndoStacks => {
  const undo: string[] = [];
  const redo: string[] = [];
  const undoing = new Set<string>();
  const without = (stack: string[], id: string): void => {
    const at = stack.lastIndexOf(id);
    if (at >= 0) stack.splice(at, 1);
  };
  for (const { id, undoes } of own) {
    if (undoes === null) {
      undo.push(id);
      redo.length = 0;
    } else if (undoing.has(undoes)) {
      without(redo, undoes);
      undo.push(id);
    } else {
      without(undo, undoes);
      redo.push(id);
      undoing.add(id);
    }
  }
  return { undo, redo };
};
