import { DestroyRef, Injectable, inject } from '@angular/core';

/** Acts that a key or button asks for and another part of the screen carries out. */
export type Command = 'find' | 'entry-line' | 'edit-part' | 'record-inside' | 'record-above' | 'import' | 'put-line-back' | 'add-vehicle';

/** A command that nobody carries out yet waits this long for the part of the screen that is being loaded. */
const WAITS_MS = 3000;

@Injectable({ providedIn: 'root' })
export class Commands {
  private readonly acts = new Map<Command, Set<(text: string) => void>>();
  private waiting: { readonly command: Command; readonly text: string; readonly until: number } | null = null;

  /** Carries a command out for as long as the caller lives. Call it where a component is made. */
  on(command: Command, act: (text: string) => void): void {
    const acts = this.acts.get(command) ?? new Set();
    this.acts.set(command, acts.add(act));
    inject(DestroyRef).onDestroy(() => acts.delete(act));
    const { waiting } = this;
    if (waiting?.command !== command || performance.now() > waiting.until) return;
    this.waiting = null;
    queueMicrotask(() => act(waiting.text));
  }

  /** @param text what the command is about, where it is about a text */
  give(command: Command, text = ''): void {
    const acts = this.acts.get(command);
    this.waiting = acts && acts.size > 0 ? null : { command, text, until: performance.now() + WAITS_MS };
    for (const act of acts ?? []) act(text);
  }
}
