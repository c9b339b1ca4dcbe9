import { DestroyRef, Injectable, inject } from '@angular/core';

/** Acts that a key or button asks for and another part of the screen carries out. */
export type Command = 'find' | 'entry-line' | 'edit-piece' | 'record-inside' | 'record-above' | 'import';

@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly acts = new Map<Command, Set<() => void>>();

  /** Carries a command out for as long as the caller lives. Call it where a component is made. */
  on(command: Command, act: () => void): void {
    const acts = this.acts.get(command) ?? new Set();
    this.acts.set(command, acts.add(act));
    inject(DestroyRef).onDestroy(() => acts.delete(act));
  }

  give(command: Command): void {
    for (const act of this.acts.get(command) ?? []) act();
  }
}
