import { ChangeDetectionStrategy, Component, inject } from '@angular/core';
import { RouterLink, RouterLinkActive, RouterOutlet } from '@angular/router';
import { RefusalNote } from '../shared/refusal-note';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from './row-edits';

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
  imports: [RefusalNote, RouterLink, RouterLinkActive, RouterOutlet],
  providers: [RowEdits],
  template: `<nav aria-label="Views of the plan">
      @for (view of views; track view.path) {
        <a [routerLink]="view.path" queryParamsHandling="preserve" routerLinkActive="on" ariaCurrentWhenActive="page">{{ view.word }}</a>
      }
      <span class="state" role="status">{{ making() }}</span>
    </nav>
    @if (edits.refused(); as issues) {
      @if (issues.length > 0) {
        <div class="refused">
          <eb-refusal [message]="issues[0]!.message" [issues]="issues.slice(1)" action="Close" (acted)="edits.refused.set([])" />
        </div>
      }
    }
    <router-outlet />`,
  styles: `
    :host {
      display: flex;
      flex-direction: column;
      flex: 1;
      min-height: 0;
    }
    nav {
      display: flex;
      align-items: stretch;
      flex: none;
      padding: 8px 18px 0;
      border-bottom: 1px solid var(--ink);
      overflow-x: auto;
    }
    a {
      padding: 8px 13px 9px;
      font: 600 13.5px/1 var(--label);
      color: var(--ink);
      text-decoration: none;
      white-space: nowrap;
    }
    a:hover {
      background: var(--dye-tint);
    }
    a.on {
      background: var(--band);
      color: var(--on-band);
    }
    .state {
      margin-left: auto;
      align-self: center;
      padding-left: 12px;
      font-size: 12.5px;
      color: var(--soft);
      white-space: nowrap;
    }
    .refused {
      padding: 8px 18px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PlanPage {
  protected readonly edits = inject(RowEdits);
  private readonly schedules = inject(PlanScheduleService);
  protected readonly views = VIEWS;
  protected readonly making = (): string => {
    const { doneFraction } = this.schedules.state();
    return doneFraction === null ? '' : `Making the schedule … ${Math.round(doneFraction * 100)} %`;
  };
}
