import { DestroyRef, Injectable, inject } from '@angular/core';

/** Acts that a key or button asks for and another part of the screen carries out. */
export type Command = 'find' | 'entry-line' | 'edit-piece' | 'record-inside' | 'record-above' | 'import' | 'put-line-back';

@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly acts = new Map<Command, Set<(text: string) => void>>();

  /** Carries a command out for as long as the caller lives. Call it where a component is made. */
  on(command: Command, act: (text: string) => void): void {
    const acts = this.acts.get(command) ?? new Set();
    this.acts.set(command, acts.add(act));
    inject(DestroyRef).onDestroy(() => acts.delete(act));
  }

  /** @param text what the command is about, where it is about a text */
  give(command: Command, text = ''): void {
    for (const act of this.acts.get(command) ?? []) act(text);
  }
}
