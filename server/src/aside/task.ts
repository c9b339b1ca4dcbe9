import type { ChangeKept } from '@each-bolt/core/record';
import type { BroughtIn } from '@each-bolt/core/wire';
import type { Maker } from '../people/maker';

export interface Kept extends ChangeKept {
  /** true when this change id was kept before and the first answer is given again */
  readonly repeated: boolean;
}

/** What may be done aside: what each task is given and answers with, both plain data. */
interface Tasks {
  /** reads, checks and keeps a change, given as the bytes that were sent */
  readonly change: {
    readonly given: { readonly studyId: string; readonly bytes: Uint8Array; readonly maker: Maker };
    readonly answer: Kept;
  };
  /** writes the archive of a study into a file */
  readonly 'archive out': {
    readonly given: { readonly studyId: string; readonly program: string; readonly path: string };
    readonly answer: null;
  };
  /** brings a study in from the archive in a file */
  readonly 'archive in': { readonly given: { readonly path: string }; readonly answer: BroughtIn };
}

export type Task = keyof Tasks;
export type Given<T extends Task> = Tasks[T]['given'];
export type Answer<T extends Task> = Tasks[T]['answer'];

/** What a thread aside is started with. */
export interface AsideSettings {
  readonly databaseUrl: string;
}
