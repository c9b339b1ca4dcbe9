import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { afterByNumber, dropCarried, saidOf } from '@each-bolt/core/bench';
import { fieldLines, type Step, type StepFields } from '@each-bolt/core/record';
import type { FieldChoice } from '@each-bolt/core/record';
import type { FieldValue } from '@each-bolt/core/shared';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { RowEdits } from '../record/row-edits';
import { EditField } from '../shared/edit-field';
import { FieldPipe } from '../shared/pipes';
import { BenchWork } from './bench-work';
import { carriedText, stepParts } from './step-text';

/** What is said of a removal beside what it waits for, in two runs. */
const FIRST = fieldLines('step', ['tool', 'bit', 'direction', 'people', 'seen', 'holdsItself', 'oneWay']);
const LAST = fieldLines('step', ['workedS']);

/** One removal, field by field, and what can be done with it among the others. */
@Component({
  selector: 'eb-removal-sheet',
  imports: [ButtonDirective, EditField, FieldPipe, NgTemplateOutlet],
  template: `<section aria-label="Removal">
    <header class="sheet-head">
      <h2>Removal {{ number() }}: {{ parts() }}</h2>
      @if (work.mayRecord()) {
        <div class="acts">
          <button
            pButton
            severity="secondary"
            type="button"
            title="The removal before had to be done first, or not (x)"
            (click)="toggled.emit()"
          >
            {{ waitsForBefore() ? 'Not blocked by the one before' : 'Blocked by the one before' }}
          </button>
          <button
            pButton
            severity="secondary"
            type="button"
            [disabled]="number() === 1"
            title="Join with the one before (j)"
            (click)="joined.emit()"
          >
            Join
          </button>
          <button
            pButton
            severity="secondary"
            type="button"
            [disabled]="step().parts.length < 2"
            title="Split the last part off (t)"
            (click)="parted.emit()"
          >
            Split
          </button>
          <button pButton severity="secondary" type="button" (click)="removed.emit()">Delete removal</button>
        </div>
      }
    </header>
    <dl class="facts">
      @for (line of first; track line.field) {
        <ng-container [ngTemplateOutlet]="field" [ngTemplateOutletContext]="{ $implicit: line }" />
      }
      @if (carried(); as over) {
        <dt>Carried over</dt>
        <dd class="carried">
          {{ over }}
          @if (work.mayRecord()) {
            <span class="acts">
              <button pButton severity="secondary" type="button" (click)="confirm()">It holds</button>
              <button pButton severity="secondary" type="button" (click)="drop()">Drop it</button>
            </span>
          }
        </dd>
      }
      <dt>Blocked by</dt>
      <dd>
        <eb-edit-field
          label="Numbers of the removals that had to come first"
          placeholder="none"
          [value]="numbers()"
          [disabled]="!work.mayRecord()"
          [fault]="afterFault()"
          (committed)="setAfter($any($event))"
        />
      </dd>
      <dt>{{ 'step.rigId' | ebField }}</dt>
      <dd>
        <eb-edit-field
          of="step.rigId"
          [options]="rigs()"
          [value]="step().rigId ?? ''"
          [disabled]="!work.mayRecord()"
          (committed)="set('rigId', $event)"
        />
      </dd>
      @for (line of last; track line.field) {
        <ng-container [ngTemplateOutlet]="field" [ngTemplateOutletContext]="{ $implicit: line }" />
      }
      <dt>Fluids and energy released</dt>
      <dd>{{ released() }}</dd>
      <dt>{{ 'step.note' | ebField }}</dt>
      <dd>
        <eb-edit-field of="step.note" [value]="step().note" [disabled]="!work.mayRecord()" (committed)="set('note', $event)" />
      </dd>
    </dl>
    <ng-template #field let-line>
      <dt>{{ line.label }}</dt>
      <dd>
        <eb-edit-field
          [of]="line.name"
          [leftward]="true"
          [value]="valueOf(line.field)"
          [disabled]="!work.mayRecord()"
          [fault]="edits.faultOf(step().id, line.field)"
          (committed)="set(line.field, $event)"
        />
      </dd>
    </ng-template>
  </section>`,
  styles: `
    section {
      border-top: 1px solid var(--ink);
      padding-top: 10px;
    }
    .facts {
      grid-template-columns: max-content minmax(0, 260px) max-content minmax(0, 320px);
    }
    .carried {
      color: var(--soft);
      font-style: italic;
    }
    .facts dt {
      text-align: left;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RemovalSheet {
  readonly step = input.required<Step>();
  /** the removals of the vehicle, in order */
  readonly steps = input.required<readonly Step[]>();
  readonly toggled = output();
  readonly joined = output();
  readonly parted = output();
  readonly removed = output();

  private readonly open = inject(OpenStudy);
  protected readonly work = inject(BenchWork);
  protected readonly edits = inject(RowEdits);

  protected readonly first = FIRST;
  protected readonly last = LAST;
  protected readonly afterFault = signal('');
  protected readonly number = computed(() => this.steps().indexOf(this.step()) + 1);
  protected readonly parts = computed(() => stepParts(this.step(), this.open.partById()));
  protected readonly waitsForBefore = computed(() => {
    const before = this.steps()[this.number() - 2];
    return before !== undefined && this.step().after.includes(before.id);
  });
  protected readonly numbers = computed(() =>
    this.step()
      .after.map((id) => this.steps().findIndex((s) => s.id === id) + 1)
      .filter((n) => n > 0)
      .join(', '),
  );
  protected readonly rigs = computed<readonly FieldChoice[]>(() => [
    { value: '', word: 'none' },
    ...this.open.record().rigs.map((r) => ({ value: r.id, word: r.name })),
  ]);
  protected readonly carried = computed(() => carriedText(this.step()));
  protected readonly released = computed(() => {
    const { connections, fluids } = this.open.record();
    const names = [
      ...this.step().connections.flatMap((id) => {
        const c = connections.find((x) => x.id === id);
        return c ? [`${c.count} ${c.kind}${c.release === null ? '' : `, ${c.release}`}`] : [];
      }),
      ...this.step().fluids.flatMap((id) => fluids.find((x) => x.id === id)?.name ?? []),
    ];
    return names.join('; ') || 'nothing';
  });

  /** What a field shows: a truth as its word. */
  protected valueOf(field: keyof StepFields): FieldValue {
    const value = this.step()[field];
    return typeof value === 'boolean' ? (value ? 'yes' : 'no') : value;
  }

  protected set(field: keyof StepFields, value: FieldValue): void {
    const isTruth = value === 'yes' || value === 'no';
    this.work.touch();
    void this.edits.edit('step', this.step(), saidOf(this.step(), { [field]: isTruth ? value === 'yes' : value }));
  }

  protected confirm(): void {
    void this.edits.edit('step', this.step(), { carried: [] });
  }

  protected drop(): void {
    void this.work.send(dropCarried(this.step()));
  }

  protected setAfter(typed: string): void {
    const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
    const bad = words.find((word) => !/^\d{1,5}$/.test(word));
    if (bad !== undefined) return this.afterFault.set(`“${bad}” is no number of a removal`);
    const read = afterByNumber(this.steps(), this.step(), words.map(Number));
    this.afterFault.set(read.ok ? '' : read.message);
    if (read.ok) this.set('after', read.after);
  }
}
