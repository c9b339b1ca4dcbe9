import { linkedSignal, type WritableSignal } from '@angular/core';

/**
 * What is chosen of a list, kept while the list changes under it and it is still there: what somebody else records must not choose
 * for the person here. It is chosen anew when what it depends on is another.
 *
 * @param of what it depends on, such as the part that is open
 * @param isThere whether it may still be chosen
 * @param usual what is chosen until the person chooses
 */
export const keptChoice = (of: () => unknown, isThere: (id: string) => boolean, usual: () => string): WritableSignal<string> =>
  linkedSignal<{ readonly of: unknown; readonly usual: string }, string>({
    source: () => ({ of: of(), usual: usual() }),
    computation: (now, before) => (before !== undefined && before.source.of === now.of && isThere(before.value) ? before.value : now.usual),
  });
