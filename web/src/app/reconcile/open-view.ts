import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { counted, fixed } from '@each-bolt/core/shared';
import { BLOCKED, BLOCKED_WORD, checkById, sawText, type Cause } from '@each-bolt/core/reconcile';
import { fieldLabel, type PartFields } from '@each-bolt/core/record';
import { ActivatedRoute } from '@angular/router';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { QuestionDialog, type About } from '../record/question-dialog';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Session } from '../record/session';
import { Selection } from '../record/selection';
import { ShellActs } from '../acts/shell-acts';
import { VehicleMark } from '../shared/vehicle-mark';
import { CheckingService } from '../checking/checking-service';
import { CauseFindings } from './cause-findings';
import { causeChance } from './figure-text';

/** So many causes of one group are shown before it folds. */
const FOLD_FROM = 12;

/** What does not close: one line per cause, what it blocks first, the chosen one opened to its findings. */
@Component({
  selector: 'eb-reconcile-open',
  imports: [ButtonDirective, CauseFindings, InputText, QuestionDialog, VehicleMark],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="What does not close" (keydown)="onKey($event)">
      @if (checking.said(); as said) {
        <header class="sheet-head">
          <div>
            <h1>{{ headline() }}</h1>
            <p class="soft">{{ waits() }}</p>
            <p class="soft">{{ run() }}</p>
          </div>
        </header>
        @if (said.causes.length === 0) {
          <p class="all-closed">
            Everything that can be held together closes. What the checks ask, and what they need to say anything, stands under Checks; sign
            a subsystem off under Sign-off.
          </p>
        }
        @for (group of groups(); track group.blocks) {
          <section [attr.aria-label]="'Blocks ' + group.word">
            <h2>
              Blocks {{ group.word }} <small class="soft">{{ group.says }}</small>
            </h2>
            @for (cause of group.shown; track cause.key) {
              <article class="cause" [class.open]="cause.key === chosen()?.key">
                <div class="line">
                  <button
                    pButton
                    [text]="true"
                    severity="secondary"
                    type="button"
                    class="title"
                    [attr.aria-expanded]="cause.key === chosen()?.key"
                    (click)="choose(cause)"
                  >
                    @for (place of placesOf(cause); track place) {
                      <eb-vehicle-mark [place]="place" />
                    }
                    <span class="says">{{ cause.says }}</span>
                    <small class="soft">{{ besides(cause) }}</small>
                  </button>
                  <span class="chance figure" [title]="'Chance of this cause among those considered'">{{ chance(cause) }}</span>
                  @if (cause.key !== chosen()?.key) {
                    <span class="acts">
                      @if (may().mend(cause)) {
                        <button pButton severity="secondary" type="button" (click)="choose(cause)">Mend</button>
                      }
                      @if (may().explain) {
                        <button pButton severity="secondary" type="button" (click)="explain(cause)">Explain</button>
                      }
                      @if (may().ask) {
                        <button pButton severity="secondary" type="button" (click)="ask(cause)">Ask</button>
                      }
                    </span>
                  }
                </div>
                @if (cause.key === chosen()?.key) {
                  <div class="body">
                    <eb-cause-findings [cause]="cause" [tried]="checking.tried()" />
                    <div class="mend">
                      @if (cause.mend; as mend) {
                        <span>
                          {{ mend.field }} <span class="figure">{{ mend.from }} → {{ mend.to }}</span>
                        </span>
                      } @else {
                        <span class="soft">No value follows from the record: look at it, then write it where it belongs.</span>
                      }
                      <span class="acts">
                        @if (may().mend(cause)) {
                          <button pButton type="button" (click)="mend(cause)">Mend <kbd>1</kbd></button>
                        }
                        @if (may().explain) {
                          <button pButton severity="secondary" type="button" (click)="explain(cause)">Explain <kbd>2</kbd></button>
                        }
                        @if (may().ask) {
                          <button pButton severity="secondary" type="button" (click)="ask(cause)">Ask <kbd>3</kbd></button>
                        }
                        @if (cause.partId) {
                          <button pButton severity="secondary" type="button" (click)="selection.choosePart(cause.partId)">
                            Open the part
                          </button>
                        }
                      </span>
                    </div>
                    @if (explaining() === cause.key) {
                      <form class="explain" (submit)="keepExplanation($event, cause, why.value)">
                        <label for="eb-why">Why it may stay as it is</label>
                        <input pInputText #why id="eb-why" type="text" maxlength="1000" [attr.aria-invalid]="fault() !== ''" />
                        <button pButton type="submit">Keep the reason</button>
                        <button pButton severity="secondary" type="button" (click)="explaining.set('')">Leave it</button>
                        @if (fault() !== '') {
                          <small role="alert">{{ fault() }}</small>
                        }
                      </form>
                    }
                  </div>
                }
              </article>
            }
            @if (group.folded > 0) {
              <button pButton [text]="true" type="button" class="link-button more" (click)="unfold(group.blocks)">
                {{ group.folded }} more
              </button>
            }
          </section>
        }
        @if (said.outdated.length > 0) {
          <p class="soft">{{ outdatedText() }}</p>
        }
      } @else if (checking.failed() === '') {
        <p class="soft">The checks run over the whole record …</p>
      }
    </div>
    <eb-question-dialog [(visible)]="asking" [about]="about()" [people]="acts.members()" (saved)="acts.attach($event)" />`,
  styles: `
    h1 {
      margin-bottom: 2px;
    }
    h2 {
      margin: 14px 0 0;
      padding-bottom: 4px;
      border-bottom: 1px solid var(--ink);
      font-size: 13.5px;
    }
    h2 small {
      margin-left: 6px;
      font-weight: 400;
    }
    .cause {
      border-bottom: 1px solid var(--fine);
    }
    .cause.open {
      margin: 6px 0;
      border: 1px solid var(--line);
      border-left: 3px solid var(--dye);
      background: var(--sheet);
    }
    .line {
      display: grid;
      grid-template-columns: minmax(0, 1fr) 64px auto;
      gap: 12px;
      align-items: center;
      min-height: 44px;
      padding: 4px 8px;
    }
    .open > .line {
      grid-template-columns: minmax(0, 1fr) 64px;
    }
    .title {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 7px;
      align-items: center;
      justify-content: flex-start;
      width: 100%;
      min-width: 0;
      padding: 4px 0;
      border: 0;
      background: none;
      color: var(--ink);
      font: inherit;
      text-align: left;
      cursor: pointer;
    }
    .says {
      font-weight: 600;
    }
    .chance {
      text-align: right;
    }
    .acts {
      display: flex;
      gap: 6px;
      flex-wrap: wrap;
      justify-content: flex-end;
    }
    .body {
      padding: 0 12px 0 29px;
    }
    .mend {
      display: flex;
      gap: 12px;
      align-items: center;
      justify-content: space-between;
      flex-wrap: wrap;
      margin: 0 -12px 0 -29px;
      padding: 8px 12px 8px 29px;
      background: var(--dye-tint);
    }
    .explain {
      display: flex;
      gap: 8px;
      align-items: center;
      flex-wrap: wrap;
      padding: 10px 0;
    }
    .explain input {
      flex: 1;
      min-width: 240px;
    }
    .explain small {
      flex-basis: 100%;
      color: var(--amber);
    }
    kbd {
      padding: 0 4px;
      border: 1px solid currentColor;
      border-radius: 2px;
      font: 500 11px/14px var(--figure);
    }
    .more {
      margin: 6px 8px;
    }
    @media (max-width: 1100px) {
      .line {
        grid-template-columns: minmax(0, 1fr) 56px;
      }
      .line .acts {
        grid-column: 1 / -1;
        justify-content: flex-start;
      }
    }
    @media (max-width: 760px) {
      .body {
        padding: 0 6px 0 10px;
      }
      .mend {
        margin: 0 -6px 0 -10px;
        padding: 8px 6px 8px 10px;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileOpen {
  protected readonly checking = inject(CheckingService);
  protected readonly selection = inject(Selection);
  protected readonly acts = inject(ShellActs);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly edits = inject(RowEdits);
  private readonly session = inject(Session);

  /** by the address, where a mark beside a part was followed to here */
  private readonly chosenKey = signal<string | null>(inject(ActivatedRoute).snapshot.queryParamMap.get('cause'));
  private readonly unfolded = signal<ReadonlySet<string>>(new Set());
  protected readonly explaining = signal('');
  protected readonly fault = signal('');
  protected readonly asking = signal(false);
  private readonly asked = signal<Cause | null>(null);

  protected readonly chance = causeChance;
  protected readonly may = computed(() => {
    const can = this.service.can();
    return {
      mend: ({ mend }: Cause): boolean => mend?.ops.every((op) => can(op.kind)) ?? false,
      explain: can('explanation.add'),
      ask: can('question.add'),
    };
  });

  /** the one that was chosen; the first until somebody chooses, so that what to do next is seen at once */
  protected readonly chosen = computed<Cause | null>(() => {
    const causes = this.checking.causes();
    return causes.find((cause) => cause.key === this.chosenKey()) ?? (this.chosenKey() === '' ? null : (causes[0] ?? null));
  });
  protected readonly groups = computed(() =>
    BLOCKED.flatMap((blocks) => {
      const causes = this.checking.causes().filter((cause) => cause.blocks === blocks);
      if (causes.length === 0) return [];
      const findings = causes.reduce((sum, cause) => sum + cause.findings.length, 0);
      const shown = this.unfolded().has(blocks) ? causes : causes.slice(0, FOLD_FROM);
      return [{ blocks, word: BLOCKED_WORD[blocks], says: `${counted(causes.length, 'cause')}, ${counted(findings, 'finding')}`, shown, folded: causes.length - shown.length }]; // prettier-ignore
    }),
  );
  protected readonly headline = computed(() => {
    const causes = this.checking.causes();
    const findings = causes.reduce((sum, cause) => sum + cause.findings.length, 0);
    return causes.length === 0 ? 'Nothing is open' : `${counted(causes.length, 'cause')} behind ${counted(findings, 'open finding')}`;
  });
  protected readonly waits = computed(() => {
    const groups = BLOCKED.flatMap((blocks) => {
      const n = this.checking.causes().filter((cause) => cause.blocks === blocks).length;
      return n === 0 ? [] : [`${BLOCKED_WORD[blocks]} waits for ${n}`];
    });
    return groups.length === 0 ? '' : `${groups.join(', ')}.`;
  });
  protected readonly run = computed(() => {
    const said = this.checking.said();
    return said === null ? '' : `All ${checkById.size} checks run on ${counted(said.parts, 'part')} at revision ${said.revision}, in ${fixed(said.tookMs / 1000, said.tookMs < 100 ? 3 : 1)} s.`; // prettier-ignore
  });
  protected readonly outdatedText = computed(() => {
    const n = this.checking.said()?.outdated.length ?? 0;
    return `${counted(n, 'finding')} above ${n === 1 ? 'was' : 'were'} explained once; the figures have changed since, so ${n === 1 ? 'it is' : 'they are'} open again.`;
  });
  protected readonly about = computed<About>(() => {
    const cause = this.asked();
    const part = this.open.partById().get(cause?.partId ?? '');
    const asks = cause === null ? '' : `${cause.says}. What is right?`;
    if (!part) return { kind: 'study', id: this.open.study().id, field: null, text: 'the study', asks };
    const about = cause?.findings.map((finding) => finding.about).find(({ entity, id }) => entity === 'part' && id === part.id);
    const field = about?.field ?? null;
    const label = field === null ? '' : fieldLabel('part', field as keyof PartFields).toLowerCase();
    return { kind: 'part', id: part.id, field, text: [part.name, label].filter((text) => text !== '').join(', '), asks };
  });

  constructor() {
    // what a mend would leave is worked out for the one that is open
    effect(() => {
      const cause = this.chosen();
      untracked(() => {
        if (cause) this.checking.try(cause);
      });
    });
  }

  protected placesOf(cause: Cause): readonly number[] {
    const { vehicles } = this.open.record();
    return cause.vehicleIds.map((id) => vehicles.findIndex((vehicle) => vehicle.id === id)).filter((place) => place >= 0);
  }

  protected besides(cause: Cause): string {
    const check = checkById.get(cause.findings[0].check)?.name ?? '';
    return cause.findings.length === 1 ? check : `one cause, ${counted(cause.findings.length, 'finding')}`;
  }

  protected choose(cause: Cause): void {
    this.explaining.set('');
    this.chosenKey.set(cause.key === this.chosen()?.key ? '' : cause.key);
  }

  protected unfold(blocks: string): void {
    this.unfolded.update((all) => new Set([...all, blocks]));
  }

  protected mend(cause: Cause): void {
    if (cause.mend) void this.edits.send(cause.mend.ops);
  }

  protected explain(cause: Cause): void {
    this.chosenKey.set(cause.key);
    this.fault.set('');
    this.explaining.set(cause.key);
    setTimeout(() => document.getElementById('eb-why')?.focus());
  }

  protected ask(cause: Cause): void {
    this.asked.set(cause);
    this.asking.set(true);
  }

  protected async keepExplanation(event: Event, cause: Cause, why: string): Promise<void> {
    event.preventDefault();
    if (why.trim() === '') {
      this.fault.set('Say why it may stay as it is: the reason is shown in the report, with your name');
      return;
    }
    const id = await this.edits.add('explanation', {
      ...{ says: cause.says.slice(0, 400), reason: why.trim(), by: this.session.person?.name ?? '', at: new Date().toISOString() },
      findings: cause.findings.slice(0, 200).map((finding) => ({
        ...{ check: finding.check, aboutId: finding.about.id, field: finding.about.field ?? '', saw: sawText(finding) },
        beside: finding.beside,
      })),
    });
    if (id === null) return;
    this.explaining.set('');
    this.chosenKey.set(null);
  }

  /** 1, 2 and 3 act on the line that is open. */
  protected onKey(event: KeyboardEvent): void {
    const cause = this.chosen();
    if (!cause || event.target instanceof HTMLInputElement || event.ctrlKey || event.altKey || event.metaKey) return;
    if (event.key === '1' && this.may().mend(cause)) this.mend(cause);
    else if (event.key === '2' && this.may().explain) this.explain(cause);
    else if (event.key === '3' && this.may().ask) this.ask(cause);
    else return;
    event.preventDefault();
  }
}
