import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RowEdits } from '../record/row-edits';
import { ViewFrame } from '../shared/view-frame';
import { BenchWork } from './bench-work';

const VIEWS = [
  { path: 'record', word: 'Record' },
  { path: 'removals', word: 'Removals' },
  { path: 'closed', word: 'Closed and damaged' },
  { path: 'tags', word: 'Tags' },
  { path: 'recount', word: 'Blind recount' },
  { path: 'instruments', word: 'Instruments' },
  { path: 'wall', word: 'Large display' },
] as const;

/** The bench: recording, and what goes with it. */
@Component({
  selector: 'eb-bench-frame',
  imports: [ViewFrame],
  providers: [RowEdits],
  template: `<eb-view-frame label="Views of the bench" [views]="views" [state]="state()" />`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchFrame {
  private readonly work = inject(BenchWork);
  protected readonly views = VIEWS;
  protected readonly state = (): string => {
    const session = this.work.session();
    return session ? `${session.name}: ${this.work.ownSteps().length} removals` : '';
  };
}
