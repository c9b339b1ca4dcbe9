import type { Issue } from '../shared';
import type { Entity, RowOf } from './entities';
import { KINDS } from './kinds';
import type { Row } from './kinds/kind';

/** Rules that need more than one field of a row. The same for the server, the forms and imported files. */
export const rowFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => {
  const { faults } = KINDS[entity] as { readonly faults?: (row: Row) => readonly Issue[] };
  return faults?.(row) ?? [];
};
