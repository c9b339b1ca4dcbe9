import { ChangeDetectionStrategy, Component, DOCUMENT, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { firstSteps, type FirstStepId } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { Commands } from '../acts/commands';
import { OpenStudy } from '../record/open-study';
import { IconButton } from '../shared/icon-button';

const KEY = 'each-bolt-first-steps-left';
/** A study with more parts than this is no first one. */
const FEW_PARTS = 25;

/** The path of a first study, one step at a time: what to do, a line to try it on. It can be left at any step. */
@Component({
  selector: 'eb-first-steps',
  imports: [ButtonDirective, IconButton, RouterLink],
  template: `@if (next(); as step) {
    <section aria-label="First steps">
      <p>
        <b>{{ at() }} of {{ steps().length }}: {{ step.title }}.</b> <span class="soft">{{ step.how }}</span>
      </p>
      <div class="acts">
        @if (step.sample !== '') {
          <button pButton severity="secondary" type="button" class="sample" (click)="commands.give('put-line-back', step.sample)">
            Try: <code>{{ step.sample }}</code>
          </button>
        } @else if (step.id === 'vehicle') {
          <button pButton severity="secondary" type="button" (click)="commands.give('add-vehicle')">Add a vehicle</button>
        } @else if (step.id === 'mass') {
          <a pButton severity="secondary" [routerLink]="['../instruments']" queryParamsHandling="preserve">Set up a scale</a>
        } @else {
          <a pButton severity="secondary" [routerLink]="['../../compare']" queryParamsHandling="preserve">Open Compare</a>
        }
        <button pButton severity="secondary" type="button" (click)="skip(step.id)">Skip this step</button>
        <eb-icon-button label="Leave the first steps" (acted)="leave()" />
      </div>
    </section>
  }`,
  styles: `
    section {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      justify-content: space-between;
      gap: 6px 16px;
      padding: 8px 12px;
      border: 1px solid var(--line);
      border-left: 3px solid var(--dye);
      background: var(--sheet);
      font-size: 13.5px;
    }
    p {
      flex: 1 1 320px;
      margin: 0;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
    }
    code {
      font: 500 12.5px/1 var(--figure);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FirstSteps {
  private readonly open = inject(OpenStudy);
  private readonly storage = inject(DOCUMENT).defaultView?.localStorage;
  protected readonly commands = inject(Commands);
  private readonly left = signal(this.storage?.getItem(KEY) ?? '');
  private readonly skipped = signal<ReadonlySet<FirstStepId>>(new Set());

  protected readonly steps = computed(() => firstSteps(this.open.record()));
  protected readonly next = computed(() => {
    const { parts } = this.open.record();
    if (parts.length > FEW_PARTS || this.left() !== '') return null;
    return this.steps().find(({ id, isDone }) => !isDone && !this.skipped().has(id)) ?? null;
  });
  protected readonly at = computed(() => this.steps().findIndex(({ id }) => id === this.next()?.id) + 1);

  protected skip(id: FirstStepId): void {
    this.skipped.update((all) => new Set(all).add(id));
  }

  /** For all studies: who has left the path once knows the way. */
  protected leave(): void {
    this.left.set('left');
    this.storage?.setItem(KEY, 'left');
  }
}
