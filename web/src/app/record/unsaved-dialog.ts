import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { AutoFocus } from 'primeng/autofocus';
import { Dialog } from 'primeng/dialog';
import { ButtonDirective } from 'primeng/button';
import { Unsaved } from './unsaved';

/** Asks what becomes of something typed before it would be dropped. Closing the question keeps it. */
@Component({
  selector: 'eb-unsaved-dialog',
  imports: [AutoFocus, Dialog, ButtonDirective],
  template: `@if (unsaved.asked(); as asked) {
    <p-dialog
      header="Not saved yet"
      closeAriaLabel="Close"
      [visible]="true"
      (visibleChange)="asked.answer(false)"
      [modal]="true"
      [style]="{ width: '420px', maxWidth: 'calc(100% - 40px)' }"
    >
      <p>What you typed of {{ asked.what }} is not saved. If you go on, it is dropped.</p>
      <div class="buttons">
        <button pButton severity="secondary" type="button" (click)="asked.answer(true)">Drop it</button>
        <button pButton type="button" [pAutoFocus]="true" (click)="asked.answer(false)">Stay</button>
      </div>
    </p-dialog>
  }`,
  styles: `
    p {
      margin: 0 0 14px;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class UnsavedDialog {
  protected readonly unsaved = inject(Unsaved);
}
