import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RefusalNote } from '../shared/refusal-note';
import { RowEdits } from './row-edits';

/** What the record refused of edits in a stage, until it is closed. */
@Component({
  selector: 'eb-refused-edits',
  imports: [RefusalNote],
  template: `@if (first(); as issue) {
    <div>
      <eb-refusal [message]="issue.message" [issues]="edits.refused().slice(1)" action="Close" (acted)="edits.refused.set([])" />
    </div>
  }`,
  styles: `
    div {
      padding: 8px 18px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RefusedEdits {
  protected readonly edits = inject(RowEdits);
  protected readonly first = computed(() => this.edits.refused()[0] ?? null);
}
