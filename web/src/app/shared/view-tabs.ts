import { ChangeDetectionStrategy, Component, input, model } from '@angular/core';
import { ButtonDirective } from 'primeng/button';

/** Views of one sheet, of which one is shown. */
@Component({
  selector: 'eb-view-tabs',
  imports: [ButtonDirective],
  template: `<div role="tablist" aria-label="Views">
    @for (tab of tabs(); track tab.view) {
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        role="tab"
        [attr.aria-selected]="view() === tab.view"
        [class.on]="view() === tab.view"
        (click)="view.set(tab.view)"
      >
        {{ tab.word }}
      </button>
    }
  </div>`,
  styles: `
    div {
      display: flex;
      border-bottom: 1px solid var(--ink);
    }
    button {
      border: 0;
      background: none;
      padding: 8px 14px;
      font: 600 13.5px/1 var(--label);
      color: var(--ink);
      cursor: pointer;
      white-space: nowrap;
    }
    .on {
      background: var(--band);
      color: var(--on-band);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ViewTabs<View extends string> {
  readonly tabs = input.required<readonly { readonly view: View; readonly word: string }[]>();
  readonly view = model.required<View>();
}
