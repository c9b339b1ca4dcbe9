import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { ButtonDirective } from 'primeng/button';

/** A small act beside a row: its sign is seen, its words are heard. */
@Component({
  selector: 'eb-icon-button',
  imports: [ButtonDirective],
  template: `<button
    pButton
    [text]="true"
    severity="secondary"
    type="button"
    [attr.aria-label]="label()"
    [title]="label()"
    [disabled]="disabled()"
    (click)="acted.emit(); $event.stopPropagation()"
  >
    <i [class]="'pi pi-' + icon()" aria-hidden="true"></i>
  </button>`,
  styles: `
    :host {
      display: inline-flex;
    }
    button {
      width: 28px;
      height: 28px;
      padding: 0;
      color: var(--soft);
    }
    button:hover:enabled {
      border-color: var(--line);
      color: var(--ink);
    }
    @media (pointer: coarse), (max-width: 1100px) {
      button {
        width: 44px;
        height: 44px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class IconButton {
  readonly icon = input<'times' | 'arrow-up' | 'arrow-down'>('times');
  readonly label = input.required<string>();
  readonly disabled = input(false);
  readonly acted = output();
}
