import { ChangeDetectionStrategy, Component, HostListener, computed, inject, signal } from '@angular/core';
import { counted } from '@each-bolt/core/shared';
import { type Op, type Step, type StepFields, fieldLines } from '@each-bolt/core/record';
import { afterByNumber, joinWithBefore, moveStep, removeStep, splitStep, stepsOf, toggleAfter, type Loss } from '@each-bolt/core/bench';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { EditField } from '../shared/edit-field';
import { LetterKeys } from '../shared/letter-keys';
import { FieldPipe } from '../shared/pipes';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { isTyping } from '../shell/keys';
import { BenchWork } from './bench-work';
import { clockText } from './clock-text';
import { afterText, stepManner, stepParts } from './step-text';

/** The removals of a vehicle in their order: put right, split, joined, moved; and what the session probably lost. */
@Component({
  selector: 'eb-removals-view',
  imports: [
    EditField,
    RefusalNote,
    VehicleMark,
    FieldPipe,
    ButtonDirective,
    InputText,
    Choose,
    ChoicesPipe,
    DataTable,
    TableHead,
    TableRow,
    IconButton,
  ],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Removals, in order</h1>
        <p class="soft"><eb-vehicle-mark [place]="selection.vehiclePlace()" /> {{ summary() }}</p>
      </div>
      <div class="acts">
        <eb-choose
          label="Vehicle"
          (valueChange)="selection.choose({ vehicle: $event })"
          [value]="selection.vehicle()?.id ?? ''"
          [options]="open.record().vehicles | ebChoices: 'id' : 'name'"
        />
        @if (work.session() && work.mayRecord()) {
          <button pButton type="button" (click)="close()">
            {{ losses().length === 0 ? 'Close the session' : 'Close anyway' }}
          </button>
        }
      </div>
    </header>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" action="Close" (acted)="refusal.set(null)" />
    }
    @if (work.session(); as session) {
      <section class="losses" aria-label="Before the session ends">
        <h2>Before “{{ session.name }}” ends</h2>
        @for (loss of losses(); track loss.check + loss.aboutId) {
          <div class="loss">
            <div>
              <strong>{{ loss.message }}</strong>
              <span class="soft"> {{ loss.act }}.</span>
            </div>
            <div class="acts">
              <button pButton severity="secondary" type="button" (click)="show(loss)">Show</button>
              <input
                pInputText
                #why
                type="text"
                maxlength="400"
                placeholder="reason"
                [attr.aria-label]="'Why it stays so: ' + loss.message"
              />
              <button pButton severity="secondary" type="button" (click)="waive(loss, why)">Accept</button>
            </div>
          </div>
        } @empty {
          <p class="soft">
            Nothing looks lost: every part with a mass, every pair complete, every connector with its cable, every removal with its tool.
          </p>
        }
      </section>
    }
    @if (steps().length === 0) {
      <p class="sheet-empty">
        No removal is recorded on this vehicle yet. Begin a session under “Record”: then each part becomes a removal by itself.
      </p>
    } @else {
      <eb-table label="Removals"
        ><ng-template ebHead>
          <tr>
            <th scope="col" class="right">No.</th>
            <th scope="col">Part removed</th>
            <th scope="col">Tool</th>
            <th scope="col">Bit</th>
            <th scope="col">How</th>
            <th scope="col">Blocked by</th>
            <th scope="col" class="right">Time</th>
            <th></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="step.id" let-row let-i="index">
          <tr [class.on]="row.step.id === chosen()?.id" (click)="chosenId.set(row.step.id)">
            <td class="right figure">{{ i + 1 }}</td>
            <th scope="row">
              <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="chosenId.set(row.step.id)">
                {{ row.parts }}
              </button>
              @if (row.step.otherwise !== '') {
                <small class="otherwise">done otherwise: {{ row.step.otherwise }}</small>
              }
            </th>
            <td>{{ row.step.tool }}</td>
            <td class="figure">{{ row.step.bit }}</td>
            <td class="soft">{{ row.manner }}</td>
            <td>{{ row.after }}</td>
            <td class="right figure">{{ row.time }}</td>
            <td class="buttons">
              @if (work.mayRecord()) {
                <eb-icon-button
                  icon="arrow-up"
                  [label]="'Move removal ' + (i + 1) + ' up'"
                  [disabled]="i === 0"
                  (acted)="move(row.step, -1)"
                />
                <eb-icon-button
                  icon="arrow-down"
                  [label]="'Move removal ' + (i + 1) + ' down'"
                  [disabled]="i === rows().length - 1"
                  (acted)="move(row.step, 1)"
                />
              }
            </td>
          </tr> </ng-template
      ></eb-table>
    }
    @if (chosen(); as step) {
      <section class="step" aria-label="Removal">
        <header class="sheet-head">
          <h2>Removal {{ number(step) }}: {{ parts(step) }}</h2>
          @if (work.mayRecord()) {
            <div class="acts">
              <button
                pButton
                severity="secondary"
                type="button"
                title="The removal before had to be done first, or not (x)"
                (click)="toggle(step)"
              >
                {{ waitsForBefore() ? 'Not blocked by the one before' : 'Blocked by the one before' }}
              </button>
              <button
                pButton
                severity="secondary"
                type="button"
                [disabled]="number(step) === 1"
                title="Join with the one before (j)"
                (click)="join(step)"
              >
                Join
              </button>
              <button
                pButton
                severity="secondary"
                type="button"
                [disabled]="step.parts.length < 2"
                title="Split the last part off (t)"
                (click)="split(step)"
              >
                Split
              </button>
              <button pButton severity="secondary" type="button" (click)="remove(step)">Take off</button>
            </div>
          }
        </header>
        <dl class="facts">
          <dt>{{ 'step.tool' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.tool"
              [value]="step.tool"
              [disabled]="!work.mayRecord()"
              (committed)="edit(step, { tool: $any($event) })"
            />
          </dd>
          <dt>{{ 'step.bit' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.bit"
              [value]="step.bit"
              [disabled]="!work.mayRecord()"
              (committed)="edit(step, { bit: $any($event) })"
            />
          </dd>
          <dt>{{ 'step.direction' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.direction"
              [value]="step.direction ?? ''"
              [disabled]="!work.mayRecord()"
              (committed)="edit(step, { direction: $any($event) })"
            />
          </dd>
          <dt>{{ 'step.people' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.people"
              [leftward]="true"
              [value]="step.people"
              [disabled]="!work.mayRecord()"
              [fault]="edits.faultOf(step.id, 'people')"
              (committed)="edit(step, { people: $any($event) })"
            />
          </dd>
          @for (flag of flags; track flag.field) {
            <dt>{{ flag.label }}</dt>
            <dd>
              <eb-edit-field
                [of]="flag.name"
                [value]="said(step[flag.field])"
                [disabled]="!work.mayRecord()"
                (committed)="setFlag(step, flag.field, $any($event))"
              />
            </dd>
          }
          <dt>Blocked by</dt>
          <dd>
            <eb-edit-field
              label="Numbers of the removals that had to come first"
              placeholder="none"
              [value]="numbers(step)"
              [disabled]="!work.mayRecord()"
              [fault]="afterFault()"
              (committed)="setAfter(step, $any($event))"
            />
          </dd>
          <dt>{{ 'step.rigId' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.rigId"
              [options]="rigs()"
              [value]="step.rigId ?? ''"
              [disabled]="!work.mayRecord()"
              (committed)="edit(step, { rigId: $any($event) })"
            />
          </dd>
          <dt>{{ 'step.workedS' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.workedS"
              [leftward]="true"
              [value]="step.workedS"
              [disabled]="!work.mayRecord()"
              [fault]="edits.faultOf(step.id, 'workedS')"
              (committed)="edit(step, { workedS: $any($event) })"
            />
          </dd>
          <dt>Fluids and energy released</dt>
          <dd>{{ released(step) }}</dd>
          <dt>{{ 'step.note' | ebField }}</dt>
          <dd>
            <eb-edit-field
              of="step.note"
              [value]="step.note"
              [disabled]="!work.mayRecord()"
              (committed)="edit(step, { note: $any($event) })"
            />
          </dd>
        </dl>
      </section>
    }
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    .losses {
      border: 1px solid var(--line);
      background: var(--sheet);
      padding: 10px 14px;
    }
    .loss {
      display: flex;
      flex-wrap: wrap;
      justify-content: space-between;
      gap: 6px 16px;
      align-items: center;
      padding: 6px 0;
      border-bottom: 1px solid var(--fine);
      font-size: 13.5px;
    }
    .loss strong {
      font-weight: 500;
    }
    .loss > div:first-child {
      flex: 1 1 340px;
    }
    tr:has(td) {
      cursor: pointer;
    }
    .otherwise {
      display: block;
      color: var(--amber);
      font-weight: 500;
    }
    .buttons {
      white-space: nowrap;
    }
    .step {
      border-top: 1px solid var(--ink);
      padding-top: 10px;
    }
    .facts {
      grid-template-columns: max-content minmax(0, 260px) max-content minmax(0, 320px);
    }
    .facts dt {
      text-align: left;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RemovalsView {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  private readonly letters = inject(LetterKeys);
  protected readonly work = inject(BenchWork);
  protected readonly edits = inject(RowEdits);

  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly chosenId = signal('');
  protected readonly afterFault = signal('');
  protected readonly flags = fieldLines('step', ['seen', 'holdsItself', 'oneWay']);
  protected readonly losses = computed(() => this.work.losses());
  protected readonly steps = computed(() => stepsOf(this.open.record().steps, this.selection.vehicle()?.id ?? ''));
  protected readonly rows = computed(() =>
    this.steps().map((step) => ({
      step,
      parts: stepParts(step, this.open.partById()),
      manner: stepManner(step),
      after: afterText(step, this.steps()),
      time: step.workedS === null ? '–' : clockText(step.workedS),
    })),
  );
  protected readonly chosen = computed(() => this.steps().find((s) => s.id === this.chosenId()) ?? null);
  protected readonly waitsForBefore = computed(() => {
    const step = this.chosen();
    const before = step && this.steps()[this.steps().indexOf(step) - 1];
    return before !== null && before !== undefined && (step?.after.includes(before.id) ?? false);
  });
  protected readonly rigs = computed<readonly FieldChoice[]>(() => [
    { value: '', word: 'none' },
    ...this.open.record().rigs.map((r) => ({ value: r.id, word: r.name })),
  ]);
  protected readonly summary = computed(() => {
    const steps = this.steps();
    const workedS = steps.reduce((sum, s) => sum + (s.workedS ?? 0), 0);
    const without = steps.filter((s) => s.workedS === null).length;
    const time =
      steps.length === without ? 'no times yet' : `${clockText(workedS)} at work${without > 0 ? `, ${without} without time` : ''}`;
    return `${this.selection.vehicle()?.name ?? ''} · ${counted(steps.length, 'removal')} · ${time}`;
  });

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target) || !this.work.mayRecord()) return;
    const step = this.chosen();
    const at = step ? this.steps().indexOf(step) : -1;
    const act = {
      ArrowDown: () => this.chosenId.set(this.steps()[at + 1]?.id ?? this.chosenId()),
      ArrowUp: () => this.chosenId.set(this.steps()[Math.max(0, at - 1)]?.id ?? this.chosenId()),
      x: () => step && this.toggle(step),
      j: () => step && this.join(step),
      t: () => step && this.split(step),
    }[event.key];
    if (!act || (event.key.length === 1 && !this.letters.on())) return;
    event.preventDefault();
    act();
  }

  protected number(step: Step): number {
    return this.steps().indexOf(step) + 1;
  }

  protected parts(step: Step): string {
    return stepParts(step, this.open.partById());
  }

  protected numbers(step: Step): string {
    return step.after
      .map((id) => this.steps().findIndex((s) => s.id === id) + 1)
      .filter((n) => n > 0)
      .join(', ');
  }

  protected said(value: boolean | null): string {
    return value === null ? '' : value ? 'yes' : 'no';
  }

  protected released(step: Step): string {
    const { connections, fluids } = this.open.record();
    const names = [
      ...step.connections.flatMap((id) => {
        const c = connections.find((x) => x.id === id);
        return c ? [`${c.count} ${c.kind}${c.release === null ? '' : `, ${c.release}`}`] : [];
      }),
      ...step.fluids.flatMap((id) => fluids.find((x) => x.id === id)?.name ?? []),
    ];
    return names.join('; ') || 'nothing';
  }

  protected edit(step: Step, fields: Partial<StepFields>): void {
    this.work.touch();
    void this.edits.edit('step', step, fields);
  }

  protected setFlag(step: Step, field: 'seen' | 'holdsItself' | 'oneWay', value: string | null): void {
    this.edit(step, { [field]: value === null ? null : value === 'yes' });
  }

  protected setAfter(step: Step, typed: string): void {
    const words = typed.split(/[\s,;]+/).filter((word) => word !== '');
    const bad = words.find((word) => !/^\d{1,5}$/.test(word));
    if (bad !== undefined) return this.afterFault.set(`“${bad}” is no number of a removal`);
    const read = afterByNumber(this.steps(), step, words.map(Number));
    this.afterFault.set(read.ok ? '' : read.message);
    if (read.ok) this.edit(step, { after: read.after });
  }

  protected toggle(step: Step): void {
    void this.send(toggleAfter(this.steps(), step));
  }

  protected join(step: Step): void {
    const before = this.steps()[this.steps().indexOf(step) - 1];
    void this.send(joinWithBefore(this.steps(), step)).then(() => this.chosenId.set(before?.id ?? ''));
  }

  /** The last part of the removal becomes one of its own. */
  protected split(step: Step): void {
    void this.send(splitStep(this.steps(), step, step.parts.slice(-1), crypto.randomUUID()));
  }

  protected move(step: Step, by: -1 | 1): void {
    void this.send(moveStep(this.steps(), step, by));
  }

  protected remove(step: Step): void {
    void this.send(removeStep(this.open.record(), step));
  }

  private async send(ops: readonly Op[]): Promise<void> {
    this.refusal.set(await this.work.send(ops));
  }

  protected show(loss: Loss): void {
    const step = this.steps().find((s) => s.id === loss.aboutId);
    if (step) return this.chosenId.set(step.id);
    const part =
      this.open.partById().get(loss.aboutId) ??
      this.open.partById().get(this.open.record().connections.find((c) => c.id === loss.aboutId)?.partId ?? '');
    if (part) this.selection.choosePart(part.id);
  }

  protected async waive(loss: Loss, why: HTMLInputElement): Promise<void> {
    if (why.value.trim() === '') {
      this.refusal.set({ code: 'reason', message: 'Say reason; the reason is kept with the session', issues: [] });
      why.focus();
      return;
    }
    this.refusal.set(await this.work.waive(loss.check, loss.aboutId, why.value.trim()));
  }

  protected async close(): Promise<void> {
    this.refusal.set(await this.work.close());
  }
}
