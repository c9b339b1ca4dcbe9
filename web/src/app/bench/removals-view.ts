import { ChangeDetectionStrategy, Component, HostListener, computed, inject, signal } from '@angular/core';
import { counted } from '@each-bolt/core/shared';
import type { Op, Step } from '@each-bolt/core/record';
import {
  joinWithBefore,
  lossGroups,
  notRemovedYet,
  moveStep,
  removeStep,
  splitStep,
  stepsOf,
  toggleAfter,
  type Loss,
  type LossGroup,
} from '@each-bolt/core/bench';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { Selection } from '../record/selection';
import { LetterKeys } from '../shared/letter-keys';
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
import { NextParts } from '../record/next-parts';
import { RemovalSheet } from './removal-sheet';
import { afterText, stepManner, stepParts } from './step-text';

const idsOf = (losses: readonly Loss[]): readonly string[] => losses.map((loss) => loss.aboutId);

/** The removals of a vehicle in their order: put right, split, joined, moved; and what the session probably lost. */
@Component({
  selector: 'eb-removals-view',
  imports: [
    RefusalNote,
    VehicleMark,
    ButtonDirective,
    InputText,
    Choose,
    ChoicesPipe,
    DataTable,
    TableHead,
    TableRow,
    IconButton,
    RemovalSheet,
    NextParts,
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
        @for (group of groups(); track group.check + group.losses[0].aboutId) {
          <div class="loss">
            <div>
              <strong>{{ group.message }}</strong>
              <span class="soft"> {{ group.act }}.</span>
            </div>
            <div class="acts">
              @if (group.losses.length === 1) {
                <button pButton severity="secondary" type="button" (click)="show(group.losses[0])">Show</button>
              } @else {
                <button
                  pButton
                  severity="secondary"
                  type="button"
                  [attr.aria-expanded]="openGroup() === group.check"
                  (click)="openGroup.set(openGroup() === group.check ? '' : group.check)"
                >
                  {{ openGroup() === group.check ? 'Hide them' : 'Show them' }}
                </button>
              }
              @if (group.check === 'carried-tool') {
                <button pButton type="button" (click)="confirm(group)">
                  {{ group.losses.length === 1 ? 'It holds' : 'It holds for all' }}
                </button>
              }
              @if (group.check === 'no-tool') {
                <input pInputText #tool type="text" maxlength="60" placeholder="tool" [attr.aria-label]="'Tool: ' + group.message" />
                <button pButton type="button" (click)="setTool(group, tool)">
                  {{ group.losses.length === 1 ? 'Set it' : 'Set for all' }}
                </button>
              }
              <input
                pInputText
                #why
                type="text"
                maxlength="400"
                placeholder="reason"
                [attr.aria-label]="'Why it stays so: ' + group.message"
              />
              <button pButton severity="secondary" type="button" (click)="waive(group, why)">
                {{ group.losses.length === 1 ? 'Accept' : 'Accept all' }}
              </button>
            </div>
            @if (group.losses.length > 1 && openGroup() === group.check) {
              <ul class="each">
                @for (loss of group.losses; track loss.aboutId) {
                  <li>
                    <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="show(loss)">
                      {{ loss.message }}
                    </button>
                  </li>
                }
              </ul>
            }
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
      <eb-next-parts title="Recorded, and named by no removal" [parts]="next()" />
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
            <td [class.carried]="row.step.carried.includes('tool')" [title]="row.step.carried.includes('tool') ? carriedOver : ''">
              {{ row.step.tool }}
            </td>
            <td class="figure" [class.carried]="row.step.carried.includes('bit')">{{ row.step.bit }}</td>
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
      <eb-removal-sheet
        [step]="step"
        [steps]="steps()"
        (toggled)="toggle(step)"
        (joined)="join(step)"
        (parted)="split(step)"
        (removed)="remove(step)"
      />
    }
  </div>`,
  styles: `
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
    .carried {
      color: var(--soft);
      font-style: italic;
    }
    .each {
      flex-basis: 100%;
      margin: 0;
      padding-left: 18px;
    }
    .buttons {
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RemovalsView {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  private readonly letters = inject(LetterKeys);
  protected readonly work = inject(BenchWork);

  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly chosenId = signal('');
  protected readonly losses = computed(() => this.work.losses());
  protected readonly groups = computed(() => lossGroups(this.losses()));
  /** the group that is told one by one */
  protected readonly openGroup = signal('');
  protected readonly carriedOver = 'carried over from the removal before, not said of this one';
  protected readonly steps = computed(() => stepsOf(this.open.record().steps, this.selection.vehicle()?.id ?? ''));
  protected readonly next = computed(() => notRemovedYet(this.open.record(), this.selection.vehicle()?.id ?? ''));
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

  protected async waive({ losses }: LossGroup, why: HTMLInputElement): Promise<void> {
    const reason = this.typedIn(why, 'Say why it stays so; the reason is kept with the session');
    if (reason !== '') this.refusal.set(await this.work.waive(losses, reason));
  }

  protected async setTool({ losses }: LossGroup, field: HTMLInputElement): Promise<void> {
    const tool = this.typedIn(field, 'Type the tool, for instance “by hand”');
    if (tool !== '') this.refusal.set(await this.work.setTool(idsOf(losses), tool));
  }

  protected async confirm({ losses }: LossGroup): Promise<void> {
    this.refusal.set(await this.work.confirmCarried(idsOf(losses)));
  }

  /** What was typed into a field; where nothing was, what is missing is said. */
  private typedIn(field: HTMLInputElement, missing: string): string {
    const text = field.value.trim();
    if (text === '') {
      this.refusal.set({ code: 'reason', message: missing, issues: [] });
      field.focus();
    }
    return text;
  }

  protected async close(): Promise<void> {
    this.refusal.set(await this.work.close());
  }
}
