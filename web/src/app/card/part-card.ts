import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { fixed } from '@each-bolt/core/shared';
import { rangeText, type Op, type Picture, type Part, type Question, type Study } from '@each-bolt/core/record';
import { massGaps, weighedText, type PartState } from '@each-bolt/core/bench';
import type { Measure, PartCost, StudyShown } from '@each-bolt/core/cost';
import { PictureList, type ShownPicture } from '../pictures/picture-list';
import type { RecordedSet } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { EvidenceMark } from '../shared/evidence-mark';
import { MassPipe, MoneyPipe, UnitPipe } from '../shared/pipes';
import { RefusalNote } from '../shared/refusal-note';
import { CostTerms } from './cost-terms';
import { PartEditor, type RefusedEdit } from './part-editor';
import { partLines } from './part-lines';
import { SetList } from './set-list';

/** A tag that was seen in a picture, and what can be done with it. */
export interface SeenTag {
  readonly message: string;
  /** the tag this part can be given; empty where it cannot */
  readonly tag: string;
  /** the part that has the tag; empty where none has */
  readonly partId: string;
}

/** A raw reading in words, with where it comes from. */
export interface ShownReading {
  readonly id: string;
  readonly text: string;
  readonly raw: string;
  readonly from: string;
}

/** Everything about one part, to read and to edit. */
@Component({
  selector: 'eb-part-card',
  imports: [CostTerms, EvidenceMark, MassPipe, MoneyPipe, PictureList, PartEditor, RefusalNote, SetList, ButtonDirective, UnitPipe],
  template: `<aside aria-label="Part">
    <header>
      <h2>{{ part().name }}</h2>
      <span class="figure tag">{{ part().tag }}</span>
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        class="close"
        aria-label="Close the card"
        title="Close (Esc)"
        (click)="closed.emit()"
      >
        <i class="pi pi-times" aria-hidden="true"></i>
      </button>
    </header>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" />
    }
    @if (editing()) {
      <eb-part-editor
        [part]="part()"
        [study]="study()"
        [saving]="saving()"
        [refused]="refusedEdit()"
        (saved)="saveEdit.emit($event)"
        (cancelled)="edit.emit(false)"
      />
    } @else {
      <div class="acts">
        @if (mayEdit()) {
          <button pButton severity="secondary" type="button" title="Edit (e)" (click)="edit.emit(true)">Edit</button>
        }
        @if (mayRecord()) {
          <button pButton severity="secondary" type="button" title="Record inside (o)" (click)="recordInside.emit()">Record inside</button>
        }
        <button pButton severity="secondary" type="button" title="How do we know? (w)" (click)="why.emit('mass')">Evidence</button>
        <button pButton severity="secondary" type="button" title="History of this part" (click)="history.emit()">History</button>
        @if (!mayRecord()) {
          <!-- nothing more to do for those who do not record -->
        } @else {
          <button
            pButton
            severity="secondary"
            type="button"
            aria-haspopup="menu"
            title="Move, copy, split, merge …"
            (click)="more.emit($event)"
          >
            More …
          </button>
          <button pButton severity="secondary" type="button" title="Delete part (Del)" (click)="remove.emit()">Delete</button>
        }
      </div>
      @if (causes().length > 0) {
        <ul class="causes" aria-label="What does not close">
          @for (cause of causes(); track cause.key) {
            <li>
              <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="openCause.emit(cause.key)">
                {{ cause.says }}
              </button>
            </li>
          }
        </ul>
      }
      <dl>
        @for (line of lines(); track line.label) {
          <dt>{{ line.label }}</dt>
          <dd [class.figure]="line.isFigure">
            {{ line.value }}
            @if (line.mark; as mark) {
              @if (line.field !== null && mayEdit()) {
                <button
                  pButton
                  [text]="true"
                  severity="secondary"
                  type="button"
                  class="how"
                  [attr.aria-label]="line.label + ': how is it known?'"
                  (click)="sayEvidence.emit(line.field)"
                >
                  <eb-mark [mark]="mark" />
                </button>
              } @else {
                <eb-mark [mark]="mark" />
              }
            }
            @if (line.how !== '') {
              <small class="soft">{{ line.how }}</small>
            }
          </dd>
        }
      </dl>
      @if (others() !== '') {
        <p class="others" role="status">{{ others() }}</p>
      }
      @if (figures(); as f) {
        <section>
          <h3>{{ isAssembly() ? 'With everything inside, by the counting rule' : 'On one vehicle, by the counting rule' }}</h3>
          <dl>
            <dt>Count</dt>
            <dd class="figure">
              {{ countText() }}
              <button
                pButton
                [text]="true"
                severity="secondary"
                type="button"
                class="how"
                aria-label="How do we know the count?"
                (click)="why.emit('count')"
              >
                <eb-mark [mark]="f.countMark" />
              </button>
            </dd>
            <dt>Mass</dt>
            <dd class="figure">
              {{ f.massKg | ebMass }} {{ 'kg' | ebUnit }}
              <button
                pButton
                [text]="true"
                severity="secondary"
                type="button"
                class="how"
                aria-label="How do we know the mass?"
                (click)="why.emit('mass')"
              >
                <eb-mark [mark]="f.weakest" [share]="share()" />
              </button>
            </dd>
            <dt>Cost</dt>
            <dd class="figure">
              {{ study().currency }} {{ f.cost | ebMoney }}
              <button
                pButton
                [text]="true"
                severity="secondary"
                type="button"
                class="how"
                aria-label="How do we know the cost?"
                (click)="why.emit('cost')"
              >
                <eb-mark [mark]="f.costMark" />
              </button>
            </dd>
            <dt>Weighed</dt>
            <dd>{{ weighed() }}</dd>
          </dl>
        </section>
      }
      <section>
        <eb-picture-list
          [pictures]="pictures()"
          [mayAdd]="mayRecord()"
          [faults]="pictureFaults()"
          (added)="addPictures.emit($event)"
          (opened)="openPicture.emit($event)"
        />
        @if (seenTag(); as seen) {
          <div class="seen" role="status">
            <p>{{ seen.message }}.</p>
            @if (seen.tag !== '' || seen.partId !== '') {
              <button pButton severity="secondary" type="button" (click)="takeSeenTag.emit(seen)">
                {{ seen.tag !== '' ? 'Give it to this part' : 'Open that part' }}
              </button>
            }
            <button pButton severity="secondary" type="button" (click)="leaveSeenTag.emit()">Leave it</button>
          </div>
        }
      </section>
      <section>
        <h3>Questions and promises</h3>
        @for (question of questions(); track question.id) {
          <p class="question" [class.done]="question.state !== 'open'">
            {{ question.text }}
            <small class="soft">{{ questionText(question) }}</small>
          </p>
        } @empty {
          <p class="soft">None.</p>
        }
        @if (mayAsk()) {
          <button pButton severity="secondary" type="button" title="Attach a question or promise (q)" (click)="ask.emit()">
            + question
          </button>
        }
      </section>
      <section>
        <eb-set-list [mayRecord]="mayRecord()" [part]="part()" [sets]="sets()" (ops)="ops.emit($event)" />
      </section>
      @if (readings().length > 0) {
        <section>
          <h3>Readings, as they were taken</h3>
          @for (reading of readings(); track reading.id) {
            <p class="reading" [title]="reading.raw">
              <span class="figure">{{ reading.text }}</span>
              <small class="soft">{{ reading.from }}</small>
            </p>
          }
        </section>
      }
      @if (cost(); as c) {
        <section>
          <eb-cost-terms [cost]="c" [currency]="study().currency" [isAssembly]="isAssembly()" />
        </section>
      }
    }
  </aside>`,
  styles: `
    .seen {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin-top: 8px;
      padding: 8px;
      border-left: 3px solid var(--dye);
      background: var(--dye-tint);
      font-size: 13px;
    }
    .seen p {
      flex: 1 1 100%;
      margin: 0;
    }
    :host {
      display: block;
      min-height: 0;
      overflow: auto;
      background: var(--sheet);
      border-left: 1px solid var(--line);
    }
    aside {
      padding: 14px 16px 24px;
    }
    header {
      display: flex;
      align-items: baseline;
      gap: 8px;
      margin-bottom: 10px;
    }
    h2 {
      flex: 1;
      line-height: 1.25;
      overflow-wrap: anywhere;
    }
    .tag {
      font-size: 12.5px;
    }
    .close {
      border: 0;
      background: none;
      color: var(--soft);
      cursor: pointer;
      min-width: 28px;
      min-height: 28px;
    }
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin-bottom: 10px;
    }
    .warn {
      border-color: var(--amber-edge);
      color: var(--amber);
    }
    .small {
      font-size: 13px;
      margin-bottom: 8px;
    }
    .causes {
      margin: 0 0 10px;
      padding: 6px 10px;
      border: 1px solid var(--amber-edge);
      border-radius: 2px;
      background: var(--amber-tint);
      list-style: none;
      font-size: 13px;
    }
    .causes .link-button {
      color: var(--amber);
    }
    dl {
      display: grid;
      grid-template-columns: 88px minmax(0, 1fr);
      gap: 5px 10px;
      margin: 0;
    }
    dt {
      font: 500 13px/1.45 var(--label);
      color: var(--soft);
    }
    dd {
      margin: 0;
      overflow-wrap: anywhere;
      white-space: normal;
    }
    section {
      margin-top: 14px;
      padding-top: 12px;
      border-top: 1px solid var(--line);
    }
    .how {
      border: 0;
      background: none;
      padding: 0 2px;
      cursor: pointer;
    }
    dd small {
      display: block;
      font-size: 12px;
    }
    .others {
      margin-top: 10px;
      padding: 4px 10px;
      background: var(--dye-tint);
      font-size: 13px;
    }
    .reading {
      padding: 3px 0;
      border-bottom: 1px solid var(--fine);
    }
    .reading .figure {
      white-space: normal;
    }
    .reading small {
      display: block;
    }
    .question {
      padding: 4px 0;
      border-bottom: 1px solid var(--fine);
    }
    .question small {
      display: block;
    }
    .done {
      color: var(--soft);
    }
    section > button {
      margin-top: 8px;
    }
    section h3 {
      margin-bottom: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PartCard {
  readonly part = input.required<Part>();
  readonly study = input.required<Study>();
  readonly figures = input.required<StudyShown | null>();
  readonly isAssembly = input.required<boolean>();
  /** where it is by now, or what became of it */
  readonly state = input<PartState | null>(null);
  /** what does not add up about its mass, in words */
  readonly checks = input<readonly string[]>([]);
  /** causes of what does not close about it, in words */
  readonly causes = input<readonly { readonly key: string; readonly says: string }[]>([]);
  readonly cost = input.required<PartCost | null>();
  readonly sets = input.required<readonly RecordedSet[]>();
  readonly pictures = input<readonly ShownPicture[]>([]);
  readonly pictureFaults = input<readonly string[]>([]);
  readonly seenTag = input<SeenTag | null>(null);
  /** raw readings of the part and what holds it, the latest first */
  readonly readings = input<readonly ShownReading[]>([]);
  readonly questions = input<readonly Question[]>([]);
  /** who else has the part open, in words */
  readonly others = input('');
  readonly mayEdit = input(true);
  readonly mayRecord = input(true);
  readonly mayAsk = input(true);
  readonly sayEvidence = output<string>();
  readonly why = output<Measure>();
  readonly history = output();
  readonly ask = output();
  readonly openCause = output<string>();
  readonly addPictures = output<readonly File[]>();
  readonly openPicture = output<Picture>();
  readonly takeSeenTag = output<SeenTag>();
  readonly leaveSeenTag = output();
  readonly editing = input(false);
  readonly refusal = input<Refusal | null>(null);
  /** true while it is not known yet whether the server keeps an edit */
  readonly saving = input(false);
  readonly refusedEdit = input<RefusedEdit | null>(null);
  readonly edit = output<boolean>();
  readonly saveEdit = output<readonly Op[]>();
  readonly ops = output<readonly Op[]>();
  readonly remove = output();
  readonly more = output<MouseEvent>();
  readonly recordInside = output();
  readonly closed = output();

  protected readonly lines = computed(() => partLines(this.part(), this.checks(), this.state()));
  protected readonly share = computed(() => `${fixed((this.figures()?.weakestFraction ?? 0) * 100, 0)} %`);
  protected readonly weighed = computed(() => {
    const figures = this.figures();
    return figures ? [weighedText(figures), ...massGaps(figures)].join('; ') : '';
  });
  protected readonly countText = computed(() => {
    const f = this.figures();
    if (!f) return '';
    const { low, high } = f.partsRange;
    const range = low === f.parts && high === f.parts ? '' : ` (${rangeText(f.partsRange)})`;
    return fixed(f.parts, 0) + range;
  });

  protected questionText({ kind, state, owedTo, dueOn, answer }: Question): string {
    if (state !== 'open') return state === 'answered' ? answer : 'dropped';
    return [kind === 'promise' ? `promised to ${owedTo}` : 'open', dueOn === null ? '' : `due ${dueOn}`]
      .filter((text) => text !== '')
      .join(', ');
  }
}
