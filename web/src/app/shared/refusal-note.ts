import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import type { Issue } from '@each-bolt/core/shared';
import { ButtonDirective } from 'primeng/button';

/** What was refused, why, and that nothing is lost. */
@Component({
  selector: 'eb-refusal',
  imports: [ButtonDirective],
  template: `<div class="note" role="alert">
    <p>
      <strong>{{ message() }}</strong>
      @if (action() !== '') {
        <button pButton severity="secondary" type="button" (click)="acted.emit()">{{ action() }}</button>
      }
    </p>
    @if (issues().length > 0) {
      <ul>
        @for (issue of issues(); track $index) {
          <li>{{ issue.message }}</li>
        }
      </ul>
    }
  </div>`,
  styles: `
    .note {
      border: 1px solid var(--amber-edge);
      background: var(--amber-tint);
      padding: 8px 12px;
      border-radius: 2px;
    }
    p {
      display: flex;
      gap: 12px;
      align-items: center;
      justify-content: space-between;
    }
    strong {
      font-weight: 500;
    }
    ul {
      margin: 6px 0 0;
      padding-left: 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RefusalNote {
  readonly message = input.required<string>();
  readonly issues = input<readonly Issue[]>([]);
  readonly action = input('');
  readonly acted = output();
}
