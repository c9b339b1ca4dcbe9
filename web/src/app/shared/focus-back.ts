import { DOCUMENT, DestroyRef, Directive, effect, inject, input, untracked } from '@angular/core';
import { Dialog } from 'primeng/dialog';

/**
 * Gives the focus back to where it was when a dialog was opened, also where it is closed before it was wholly there:
 * `<p-dialog [(visible)]="visible" [ebFocusBack]="visible()">`.
 */
@Directive({ selector: 'p-dialog[ebFocusBack]', host: { '(document:keydown.escape)': 'closeEarly($event)' } })
export class FocusBack {
  readonly isOpen = input.required<boolean>({ alias: 'ebFocusBack' });
  private readonly document = inject(DOCUMENT);
  private readonly dialog = inject(Dialog);
  /** the dialog is there and hears keys itself */
  private isWhole = false;
  private from: HTMLElement | null = null;

  constructor() {
    effect(() => {
      const isOpen = this.isOpen();
      untracked(() => {
        this.isWhole = false;
        if (isOpen) this.from = this.document.activeElement as HTMLElement | null;
        else setTimeout(() => this.giveBack());
      });
    });
    const told = [
      this.dialog.onShow.subscribe(() => (this.isWhole = true)),
      this.dialog.onHide.subscribe(() => setTimeout(() => this.giveBack())),
    ];
    inject(DestroyRef).onDestroy(() => told.forEach((each) => each.unsubscribe()));
  }

  /** An Escape that comes before the dialog hears keys closes it too. */
  protected closeEarly(event: Event): void {
    if (this.isOpen() && !this.isWhole) this.dialog.close(event);
  }

  /** Nothing is taken from whoever has the focus by now. */
  private giveBack(): void {
    const { activeElement, body } = this.document;
    if ((activeElement === null || activeElement === body) && this.from?.isConnected === true) this.from.focus();
  }
}
