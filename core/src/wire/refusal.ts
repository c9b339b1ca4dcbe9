import { ENTITIES, type CellConflict, type Conflict } from '../record';
import type { Issue } from '../shared';
import { answer, listOf, orAbsent, orNull, outline, wordOf, words } from './answer';

/** A conflict with who changed what, and when. */
export interface ToldConflict extends Omit<Conflict, 'cells'> {
  readonly by: string | null;
  /** ISO 8601, UTC */
  readonly at: string | null;
  readonly cells: readonly (CellConflict & { readonly by: string | null; readonly at: string | null })[];
}

/** Why the server did not do it, in words for people. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
  readonly issues: readonly Issue[];
  readonly conflicts?: readonly ToldConflict[] | undefined;
}

const anything = outline<unknown>(() => true, 'value');

const CELL = answer<ToldConflict['cells'][number]>({
  cell: words(),
  was: anything,
  yours: anything,
  theirs: anything,
  by: orNull(words()),
  at: orNull(words()),
});

const CONFLICT = answer<ToldConflict>({
  entity: wordOf(ENTITIES),
  id: words(),
  verb: wordOf(['edit', 'remove']),
  current: outline((row) => row === null || typeof row === 'object', 'row'),
  by: orNull(words()),
  at: orNull(words()),
  cells: listOf(CELL),
});

const ISSUE = answer<Issue>({ code: words(), message: words(), field: orNull(words()), recordId: orNull(words()) });

/** What every request that was not done is answered with. */
export const REFUSAL = answer<Refusal>({
  code: words(),
  message: words(),
  issues: listOf(ISSUE),
  conflicts: orAbsent(listOf(CONFLICT)),
});
