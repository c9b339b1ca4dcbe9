import { cellsOf, fieldOfCell, type KeptChange } from '../record';

/** Who last gave a value, when, and on which device. */
type SetBy = Pick<KeptChange, 'madeBy' | 'madeAt' | 'device' | 'revision'>;

/** The cells that say the value of a field or how it is known. */
const concerns = (field: string, cell: string): boolean =>
  fieldOfCell(cell) === field || (field === 'massEachKg' && cell.startsWith('mass'));

/**
 * The change that last set a field of a row, or said how it is known; null when none of these did.
 *
 * @param changes changes of the row, newest first
 */
export const lastSet = (changes: readonly KeptChange[], id: string, field: string): SetBy | null =>
  changes.find(({ ops }) =>
    ops.some(
      (op) => op.id === id && 'fields' in op && (!('was' in op) || [...cellsOf(op.fields).keys()].some((cell) => concerns(field, cell))),
    ),
  ) ?? null;
