import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { RouterLink } from '@angular/router';
import { counted } from '@each-bolt/core/shared';
import type { HoldPoint, WorkPackage } from '@each-bolt/core/record';
import { numbered } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Choose, ChoicesPipe } from '../shared/choose';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Session as SignedIn } from '../record/session';
import { EditField } from '../shared/edit-field';
import { RefusalNote } from '../shared/refusal-note';
import { BenchWork } from './bench-work';
import { clockText } from './clock-text';
import { carriedText, stepText } from './step-text';

/** The session that is open: clock, people, the last removal, and what comes before the next one. */
@Component({
  selector: 'eb-session-bar',
  imports: [EditField, RefusalNote, RouterLink, ButtonDirective, InputText, Choose, ChoicesPipe],
  template: `@if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" action="Close" (acted)="refusal.set(null)" />
    }
    @if (work.session(); as session) {
      <section class="bar" aria-label="Session">
        <strong class="name" [title]="session.name">{{ session.name }}</strong>
        <div class="clock" [class.paused]="work.paused()">
          <span class="figure big" role="timer" aria-label="Time of this removal">{{ clock() }}</span>
          <small>
            @if (work.paused()) {
              paused: nothing happened for {{ pauseMin() }} min
            } @else if (work.leftOutS() > 0) {
              <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="work.countLeftOut()">
                {{ leftOut() }} left out: count it
              </button>
            } @else {
              removal {{ work.ownSteps().length + 1 }}, running
            }
          </small>
        </div>
        <div class="who">
          <span>takes apart</span>
          <eb-edit-field of="session.remover" [value]="session.remover" placeholder="name" (committed)="edit({ remover: $any($event) })" />
        </div>
        <div class="who">
          <span>writes</span>
          <eb-edit-field
            of="session.recorder"
            [value]="session.recorder"
            placeholder="name"
            (committed)="edit({ recorder: $any($event) })"
          />
        </div>
        <div class="acts">
          <button pButton severity="secondary" type="button" title="Who takes apart and who writes change places" (click)="handOver()">
            Hand over
          </button>
          <button pButton severity="secondary" type="button" (click)="work.leave()">Leave open</button>
          <a pButton severity="secondary" routerLink="../removals" queryParamsHandling="preserve">{{ endText() }}</a>
        </div>
      </section>
      @if (last(); as text) {
        <p class="last">
          <span class="label">Removal {{ work.ownSteps().length }}</span> {{ text }}
          @if (carried(); as over) {
            <span class="carried">· carried over: {{ over }}</span>
            <button pButton [text]="true" severity="secondary" type="button" class="link-button" title="Drop it (Alt 0)" (click)="drop()">
              drop
            </button>
          }
        </p>
      }
      @if (!work.precautions().isClear) {
        <details class="holdPoint" role="region" [open]="!otherwiseBefore()" aria-label="Precautions before the next removal">
          <summary>
            <strong>Precautions before the next removal</strong>
            @if (otherwiseBefore()) {
              <span> · not all done; done otherwise: {{ work.otherwise() || otherwiseBefore() }}</span>
            }
          </summary>
          <p class="soft small">
            Reminders of the usual precautions. Local codes and licensed practice decide; nothing here gives permission.
          </p>
          @for (row of work.precautions().hazards; track row.hazard.id) {
            @if (row.readBy === '') {
              <div class="hazard">
                <div>
                  <strong>{{ row.hazard.name }}</strong>
                  <ul>
                    @for (caution of row.hazard.cautions; track caution) {
                      <li>{{ caution }}</li>
                    }
                  </ul>
                </div>
                <button pButton type="button" (click)="acknowledge(row.hazard.id)">Read by {{ me }}</button>
              </div>
            }
          }
          <dl class="facts">
            @for (row of work.precautions().holdPoints; track row.holdPoint.id) {
              @if (row.fault; as fault) {
                <dt>{{ row.holdPoint.asks }}</dt>
                <dd>
                  @if (row.holdPoint.kind === 'number') {
                    <eb-edit-field
                      [label]="row.holdPoint.asks"
                      [shape]="{ kind: 'number', per: 1, unit: row.holdPoint.unit, digits: 3 }"
                      [value]="row.holdPoint.value"
                      [fault]="row.holdPoint.value === null ? '' : fault"
                      (committed)="answer(row.holdPoint, { value: $any($event) })"
                    />
                  } @else if (row.holdPoint.kind === 'yes') {
                    <eb-edit-field
                      [label]="row.holdPoint.asks"
                      [options]="yesNo"
                      [value]="row.holdPoint.said"
                      [fault]="row.holdPoint.said === '' ? '' : fault"
                      (committed)="answer(row.holdPoint, { said: $any($event) ?? '' })"
                    />
                  } @else {
                    <eb-edit-field
                      [label]="row.holdPoint.asks"
                      [value]="row.holdPoint.said"
                      (committed)="answer(row.holdPoint, { said: $any($event) })"
                    />
                  }
                </dd>
              }
            }
          </dl>
          <label class="otherwise"
            >or the next removal is done otherwise, because
            <input
              pInputText
              type="text"
              maxlength="400"
              aria-label="Done otherwise because"
              [value]="work.otherwise()"
              (input)="work.otherwise.set($any($event.target).value)"
            />
          </label>
        </details>
      }
    } @else {
      <section class="bar idle" aria-label="Session">
        <label
          >Work package
          <eb-choose
            label="Work package of the session"
            [(value)]="chosen"
            [options]="packages() | ebChoices: 'id' : 'word' : 'none: only this subsystem'"
          />
        </label>
        <button
          pButton
          severity="secondary"
          type="button"
          title="A session keeps the order of removals and their times by itself"
          (click)="begin()"
        >
          Begin a session
        </button>
        @for (session of work.openSessions(); track session.id) {
          <button pButton severity="secondary" type="button" (click)="work.goOn(session)">Go on with “{{ session.name }}”</button>
        }
      </section>
    }`,
  styles: `
    :host {
      display: grid;
      gap: 6px;
      flex: none;
    }
    .bar {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 6px 16px;
      padding: 4px 0;
      border-top: 1px solid var(--line);
      border-bottom: 1px solid var(--line);
    }
    .name {
      flex: 1 1 120px;
      min-width: 0;
      max-width: 300px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      font-size: 13.5px;
    }
    summary {
      cursor: pointer;
      min-height: 28px;
      line-height: 28px;
    }
    .clock {
      display: grid;
      min-width: 128px;
    }
    .clock small {
      color: var(--soft);
      font-size: 12px;
    }
    .big {
      font-size: 20px;
      line-height: 1.1;
    }
    .paused .big {
      color: var(--amber);
    }
    label {
      display: grid;
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
    }
    .who {
      display: grid;
      font: 500 12.5px/1.3 var(--label);
      color: var(--soft);
      width: 118px;
    }
    .bar > .acts {
      margin-left: auto;
    }
    .idle label {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    .idle eb-choose {
      max-width: 300px;
    }
    .small {
      font-size: 12.5px;
    }
    .last {
      font-size: 13px;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    .last .link-button {
      margin-left: 6px;
    }
    .carried {
      color: var(--soft);
      font-style: italic;
    }
    .holdPoint {
      border: 2px solid var(--amber-edge);
      background: var(--amber-tint);
      padding: 10px 14px;
      max-height: 42vh;
      overflow: auto;
    }
    .hazard {
      display: flex;
      justify-content: space-between;
      align-items: start;
      gap: 16px;
      padding: 6px 0;
      border-bottom: 1px solid var(--amber-edge);
    }
    .hazard button {
      min-height: 44px;
      white-space: nowrap;
    }
    ul {
      margin: 2px 0 0;
      padding-left: 18px;
      font-size: 13px;
    }
    .otherwise {
      margin-top: 8px;
      grid-template-columns: max-content 1fr;
      gap: 8px;
      align-items: center;
      color: var(--ink);
    }
    .otherwise input {
      height: 32px;
      border: 1px solid var(--amber-edge);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 2px 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SessionBar {
  protected readonly work = inject(BenchWork);
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly edits = inject(RowEdits);
  private readonly signedIn = inject(SignedIn);

  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly chosen = signal('');
  protected readonly me = this.signedIn.person?.name ?? '';
  protected readonly yesNo = [
    { value: '', word: 'not answered' },
    { value: 'yes', word: 'yes' },
    { value: 'no', word: 'no' },
  ];
  protected readonly clock = computed(() => clockText(this.work.clockS()));
  protected readonly leftOut = computed(() => clockText(this.work.leftOutS()));
  protected readonly pauseMin = computed(() => Math.round((this.work.session()?.pauseAfterS ?? 0) / 60));
  /** the reason for which a removal of this session was done otherwise already */
  protected readonly otherwiseBefore = computed(() => this.work.ownSteps().find((s) => s.otherwise !== '')?.otherwise ?? '');
  protected readonly endText = computed(() => {
    const losses = this.work.losses().length;
    return losses === 0 ? 'End the session' : `End: ${counted(losses, 'thing')} to see to`;
  });
  protected readonly last = computed(() => {
    const step = this.work.lastStep();
    return step ? stepText(step, this.work.steps(), this.open.partById()) : null;
  });
  protected readonly carried = computed(() => {
    const step = this.work.lastStep();
    return step ? carriedText(step) : '';
  });
  /** packages not done yet: those of the chosen vehicle first */
  protected readonly packages = computed(() => {
    const vehicleId = this.selection.vehicle()?.id;
    const rank = (p: WorkPackage): number => (p.startedOn !== null ? 0 : 1) + (p.vehicleId === vehicleId ? 0 : 2);
    return numbered(this.open.record().packages)
      .map((pack, at) => ({ id: pack.id, pack, word: `${at + 1} ${pack.name}${pack.startedOn === null ? '' : ', begun'}` }))
      .filter(({ pack }) => pack.doneOn === null && pack.vehicleId !== null)
      .sort((a, b) => rank(a.pack) - rank(b.pack));
  });

  protected async begin(): Promise<void> {
    this.refusal.set(await this.work.begin(this.open.record().packages.find((p) => p.id === this.chosen()) ?? null));
  }

  protected async edit(fields: Parameters<BenchWork['edit']>[0]): Promise<void> {
    this.refusal.set(await this.work.edit(fields));
  }

  protected async drop(): Promise<void> {
    this.refusal.set(await this.work.dropCarried());
  }

  protected async handOver(): Promise<void> {
    this.refusal.set(await this.work.handOver());
  }

  protected async acknowledge(hazard: string): Promise<void> {
    this.refusal.set(await this.work.acknowledge(hazard));
  }

  protected answer(holdPoint: HoldPoint, fields: Partial<HoldPoint>): void {
    this.work.touch();
    void this.edits.edit('holdPoint', holdPoint, { ...fields, answeredBy: this.me, answeredAt: new Date().toISOString() });
  }
}
