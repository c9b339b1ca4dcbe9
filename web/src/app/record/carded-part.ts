import { Injectable, computed, inject, signal } from '@angular/core';
import type { Part } from '@each-bolt/core/record';
import { Selection } from './selection';

/** The part in the card: the one that is chosen; while it is being edited also when somebody has taken it off meanwhile. */
@Injectable({ providedIn: 'root' })
export class CardedPart {
  private readonly selection = inject(Selection);
  /** the part whose form is open, as it was when it was opened */
  readonly edited = signal<Part | null>(null);
  readonly part = computed<Part | null>(() => {
    const edited = this.edited();
    return this.selection.part() ?? (edited !== null && edited.id === this.selection.partId() ? edited : null);
  });
}
