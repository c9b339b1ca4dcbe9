import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { RefusedEdits } from '../record/refused-edits';
import { RowEdits } from '../record/row-edits';
import { ViewFrame } from '../shared/view-frame';
import { CheckingService } from '../checking/checking-service';

/** What does not close, and everything that says whether the record can be relied on. */
@Component({
  selector: 'eb-reconcile-frame',
  imports: [RefusedEdits, ViewFrame],
  providers: [RowEdits],
  template: `<eb-view-frame label="Views of reconciling" [views]="views()" [state]="state()">
    <eb-refused-edits />
  </eb-view-frame>`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileFrame {
  private readonly checking = inject(CheckingService);
  protected readonly views = computed(() => {
    const said = this.checking.said();
    const numbered = (word: string, n: number | undefined): string => (n === undefined || n === 0 ? word : `${word} ${n}`);
    return [
      { path: 'open', word: numbered('Does not close', said?.causes.length) },
      { path: 'explained', word: numbered('Explained', said?.explained.length) },
      { path: 'recounts', word: 'Blind recounts' },
      { path: 'readings', word: 'Readings' },
      { path: 'sign-off', word: 'Sign-off' },
      { path: 'checks', word: 'Checks' },
    ];
  });
  protected readonly state = computed(() => {
    const said = this.checking.said();
    if (this.checking.failed() !== '') return this.checking.failed();
    return said === null ? 'The checks are running …' : '';
  });
}
