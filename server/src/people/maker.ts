import type { Person } from './queries';

/** Who makes a change, and from where. */
export interface Maker {
  /** null for the program itself, which loads demo data and archives and may do everything */
  readonly person: Person | null;
  readonly name: string;
  readonly device: string;
}
