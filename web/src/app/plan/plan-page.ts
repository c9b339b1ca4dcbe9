import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { ViewFrame } from '../shared/view-frame';
import { PlanScheduleService } from './plan-schedule-service';
import { RefusedEdits } from '../record/refused-edits';
import { RowEdits } from '../record/row-edits';

const VIEWS = [
  { path: 'choice', word: 'Choice' },
  { path: 'samples', word: 'Samples' },
  { path: 'scope', word: 'Scope' },
  { path: 'packages', word: 'Packages' },
  { path: 'people', word: 'People and places' },
  { path: 'schedule', word: 'Schedule' },
  { path: 'precautions', word: 'Precautions' },
  { path: 'rigs', word: 'Rigs' },
] as const;

/** What to take apart, how, when, and safely: eight views in the order in which a plan is made. */
@Component({
  selector: 'eb-plan-page',
  imports: [RefusedEdits, ViewFrame],
  providers: [RowEdits],
  template: `<eb-view-frame label="Views of the plan" [views]="views" [state]="making()">
    <eb-refused-edits />
  </eb-view-frame>`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPage {
  private readonly schedules = inject(PlanScheduleService);
  protected readonly views = VIEWS;
  protected readonly making = (): string => {
    const { doneFraction } = this.schedules.state();
    return doneFraction === null ? '' : `Making the schedule … ${Math.round(doneFraction * 100)} %`;
  };
}
