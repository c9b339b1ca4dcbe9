import { DOCUMENT, DestroyRef, Directive, effect, inject, input, untracked } from '@angular/core';
import { Dialog } from 'primeng/dialog';

/**
 * Gives the focus back to where it was when a dialog was opened, also where it is closed before it was wholly there:
 * `<p-dialog [(visible)]="visible" [ebFocusBack]="visible()">`.
 */
@Directive({ selector: 'p-dialog[ebFocusBack]' })
export class FocusBack {
  readonly isOpen = input.required<boolean>({ alias: 'ebFocusBack' });
  private readonly document = inject(DOCUMENT);
  private from: HTMLElement | null = null;

  constructor() {
    effect(() => {
      const isOpen = this.isOpen();
      untracked(() => {
        if (isOpen) this.from = this.document.activeElement as HTMLElement | null;
        else setTimeout(() => this.giveBack());
      });
    });
    const hidden = inject(Dialog).onHide.subscribe(() => setTimeout(() => this.giveBack()));
    inject(DestroyRef).onDestroy(() => hidden.unsubscribe());
  }

  /** Nothing is taken from whoever has the focus by now. */
  private giveBack(): void {
    const { activeElement, body } = this.document;
    if ((activeElement === null || activeElement === body) && this.from?.isConnected === true) this.from.focus();
  }
}
