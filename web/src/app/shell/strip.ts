import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { RouterLink, RouterLinkActive } from '@angular/router';
import { STAGES, STAGE_WORD, type Stage } from '@each-bolt/core/shared';
import { BehindFigure, type BehindLine } from './behind-figure';
import { Hexagon, type Progress } from '../shared/hexagon';

/** One live figure per stage and how far it has come. */
export type StageFigures = Readonly<Record<Stage, { readonly figure: string; readonly progress: Progress }>>;

/** What stands beside the stages: open questions, the revision, and who else is here. */
export interface Beside {
  readonly questions: string;
  readonly late: boolean;
  readonly revision: number;
  readonly here: readonly string[];
}

/** The stages in the order of work, joined on one rail. */
@Component({
  selector: 'eb-strip',
  imports: [BehindFigure, Hexagon, RouterLink, RouterLinkActive],
  template: `<header>
    <a class="name" routerLink="/" title="All studies">
      <svg viewBox="0 0 32 32" width="30" height="30" aria-hidden="true">
        <path d="M16 2.5 27.7 9.25v13.5L16 29.5 4.3 22.75V9.25Z" fill="none" stroke="currentColor" stroke-width="2.6" />
        <circle cx="16" cy="16" r="5.6" fill="none" stroke="var(--dye)" stroke-width="3.4" />
      </svg>
      <span>
        <b>EACH BOLT</b>
        <small>{{ title() }}</small>
      </span>
    </a>
    <nav aria-label="Stages">
      @for (stage of stages; track stage) {
        <div class="stage" routerLinkActive="on">
          <a [routerLink]="[stage]" queryParamsHandling="preserve" routerLinkActive ariaCurrentWhenActive="page">
            <eb-hexagon [progress]="figures()[stage].progress" />
            <span>{{ words[stage] }}</span>
          </a>
          <eb-behind-figure [stage]="words[stage]" [figure]="figures()[stage].figure" [lines]="behind()(stage)" />
        </div>
      }
    </nav>
    <nav class="beside" aria-label="Beside the stages">
      <a
        routerLink="questions"
        queryParamsHandling="preserve"
        routerLinkActive="on"
        ariaCurrentWhenActive="page"
        title="Questions and promises (g)"
      >
        <span>Questions</span>
        <small [class.late]="beside().late">{{ beside().questions }}</small>
      </a>
      <a routerLink="history" queryParamsHandling="preserve" routerLinkActive="on" ariaCurrentWhenActive="page" title="History (h)">
        <span>History</span>
        <small>revision {{ beside().revision }}</small>
      </a>
      <a routerLink="people" queryParamsHandling="preserve" routerLinkActive="on" ariaCurrentWhenActive="page" title="People of the study">
        <span>People</span>
        <small>{{ hereText() }}</small>
      </a>
    </nav>
  </header>`,
  styles: `
    header {
      display: flex;
      height: 58px;
      background: var(--sheet);
      border-bottom: 1px solid var(--ink);
    }
    .name {
      display: flex;
      align-items: center;
      gap: 10px;
      width: 248px;
      flex: none;
      padding: 0 14px;
      border-right: 1px solid var(--line);
      color: var(--ink);
      text-decoration: none;
    }
    .name > span {
      min-width: 0;
    }
    .name b {
      display: block;
      font: 600 16px/1.2 var(--label);
      letter-spacing: 0.06em;
    }
    .name small {
      display: block;
      color: var(--soft);
      font-size: 12.5px;
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    nav {
      display: flex;
      flex: 1;
      min-width: 0;
    }
    .stage,
    .beside a {
      display: grid;
      align-content: center;
      min-width: 0;
      padding: 0 18px;
      border-right: 1px solid var(--line);
      color: var(--ink);
      text-decoration: none;
    }
    .stage {
      position: relative;
      flex: 0 1 148px;
    }
    .stage a {
      display: grid;
      grid-template-columns: 12px minmax(0, auto);
      column-gap: 8px;
      align-items: center;
      min-height: 26px;
      color: inherit;
      text-decoration: none;
    }
    /* all of the stage leads to it, but for its figure, which leads to its list */
    .stage a::after {
      content: '';
      position: absolute;
      inset: 0;
    }
    .stage eb-behind-figure {
      position: relative;
      justify-self: start;
      max-width: 100%;
      margin-left: 20px;
      color: var(--soft);
    }
    .stage.on eb-behind-figure {
      color: inherit;
    }
    .stage:hover,
    .beside a:hover {
      background: var(--dye-tint);
    }
    .stage.on,
    .beside a.on {
      background: var(--dye);
      color: var(--on-dye);
    }
    nav.beside {
      flex: none;
      min-width: auto;
    }
    nav.beside a {
      grid-template-columns: minmax(0, 1fr);
      flex: none;
      min-width: 0;
      max-width: 190px;
      padding: 0 14px;
      border-right: 0;
      border-left: 1px solid var(--line);
    }
    nav.beside small {
      grid-column: 1;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    nav.beside span {
      font-weight: 500;
      font-size: 14px;
    }
    small.late {
      color: var(--amber);
      font-weight: 600;
    }
    @media (max-width: 1100px) {
      .name {
        width: 190px;
        padding: 0 10px;
      }
      .stage {
        padding: 0 9px;
      }
      .stage a {
        column-gap: 6px;
      }
      .stage eb-behind-figure {
        margin-left: 18px;
      }
      nav.beside a {
        max-width: 96px;
        padding: 0 8px;
      }
    }
    @media (max-width: 760px) {
      header {
        flex-wrap: wrap;
        height: auto;
      }
      .name {
        flex: 1 0 auto;
        height: 52px;
        border-right: 0;
      }
      nav,
      nav.beside {
        flex: 1 0 100%;
        height: 52px;
        overflow-x: auto;
        border-top: 1px solid var(--line);
      }
      .stage {
        flex: 1 0 118px;
      }
      .beside a {
        flex: 1 0 auto;
        max-width: none;
        border-left: 0;
        border-right: 1px solid var(--line);
      }
    }
    nav span {
      font: 600 15px/1.3 var(--label);
    }
    nav small {
      font-size: 12.5px;
      color: var(--soft);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .beside a.on small {
      color: inherit;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Strip {
  readonly title = input.required<string>();
  readonly figures = input.required<StageFigures>();
  readonly beside = input.required<Beside>();
  /** what the figure of a stage is made of, worked out when it is asked for */
  readonly behind = input<(stage: Stage) => () => readonly BehindLine[]>(() => () => []);
  protected readonly hereText = computed(() => (this.beside().here.length === 0 ? 'only you here' : this.beside().here.join(', ')));
  protected readonly stages = STAGES;
  protected readonly words = STAGE_WORD;
}
