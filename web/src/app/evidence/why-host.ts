import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { fixed, plusMinus, unitWord, READ_IN, readAs } from '@each-bolt/core/shared';
import { fieldLabel, isKnowing, evidenceFor, type KeptChange, type Part } from '@each-bolt/core/record';
import { closureText, evidenceText, lastSet, uText, valueText } from '@each-bolt/core/bench';
import { MEASURES, evidenceChain, restsOn, type ChainTerm, type Measure } from '@each-bolt/core/cost';
import { Dialog } from 'primeng/dialog';
import { catchError, map, of, startWith, switchMap } from 'rxjs';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { fileUrl } from '../pictures/picture-url';
import { Names } from '../record/names';
import { OpenStudy } from '../record/open-study';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { whenText } from '../record/when';
import { EvidenceMark } from '../shared/evidence-mark';
import { WhyService } from './why-service';

const MEASURE_WORD: Readonly<Record<Measure, string>> = { count: 'Count', mass: 'Mass', cost: 'Cost' };
const MOST_TERMS = 200;

interface Ground {
  readonly field: string;
  readonly label: string;
  readonly value: string;
  readonly mark: ChainTerm['mark'];
  readonly how: string;
  readonly who: string;
}

/** The chain from a figure down to readings, pictures and people. */
@Component({
  selector: 'eb-why-host',
  imports: [Dialog, EvidenceMark, ButtonDirective, DataTable, TableHead, TableRow],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="How do we know?"
    [visible]="now() !== null"
    (visibleChange)="why.asked.set(null)"
    [modal]="true"
    [dismissableMask]="true"
    [style]="{ width: '820px', maxWidth: 'calc(100% - 40px)' }"
  >
    <nav aria-label="From the figure down">
      @for (step of trail(); track step.key; let last = $last) {
        @if (last) {
          <b aria-current="step">{{ step.name }}</b>
        } @else {
          <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="go(step.key)">{{ step.name }}</button>
          <i class="pi pi-angle-right" aria-hidden="true"></i>
        }
      }
    </nav>
    <div class="measures" role="group" aria-label="Figure">
      @for (measure of measures; track measure) {
        <button
          pButton
          severity="secondary"
          type="button"
          [class.on]="measure === now()?.measure"
          [attr.aria-pressed]="measure === now()?.measure"
          (click)="setMeasure(measure)"
        >
          {{ words[measure] }}
        </button>
      }
    </div>
    @if (chain(); as c) {
      <p class="whole">
        <span class="figure">{{ text(c.whole) }} {{ unit() }}</span>
        <eb-mark [mark]="c.whole.mark" />
        <span class="soft">{{ rests() }}</span>
      </p>
      @if (c.closure; as closure) {
        <p class="soft">{{ closureWords(closure) }}</p>
      }
      @if (c.terms.length > 0) {
        <eb-table label="What it is the sum of, the weakest evidence first"
          ><ng-template ebHead>
            <tr>
              <th>Made of</th>
              <th class="right">{{ unit() }}</th>
              <th>Evidence</th>
              <th class="right">Share</th>
            </tr> </ng-template
          ><ng-template [ebRow]="shown()" track="key" let-term>
            <tr>
              <td>
                @if (term.kind === 'fasteners') {
                  <span class="figure">{{ term.line }}</span>
                } @else {
                  <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="go(term.key)">
                    {{ name(term) }}
                  </button>
                }
                @if (term.times > 1) {
                  <span class="soft"> × {{ term.times }}</span>
                }
              </td>
              <td class="right figure">{{ text(term) }}</td>
              <td><eb-mark [mark]="term.mark" /></td>
              <td class="right figure">{{ share(term) }}</td>
            </tr>
          </ng-template></eb-table
        >
        @if (c.terms.length > shown().length) {
          <p class="soft">and {{ c.terms.length - shown().length }} more, each better known than these</p>
        }
      }
      @if (grounds().length > 0) {
        <h3>What {{ part()?.name }} itself rests on</h3>
        @for (ground of grounds(); track ground.field) {
          <div class="ground">
            <span class="label">{{ ground.label }}</span>
            <span class="figure">{{ ground.value }}</span>
            <eb-mark [mark]="ground.mark" />
            <span>{{ ground.how }}</span>
            <span class="soft who">{{ ground.who }}</span>
          </div>
        }
        @if (pictures().length > 0) {
          <h3>Pictures</h3>
          <div class="pictures">
            @for (picture of pictures(); track picture.id) {
              <img [src]="picture.url" [alt]="picture.shows" />
            }
          </div>
        }
        @for (question of questions(); track question.id) {
          <p class="open">{{ question.kind === 'promise' ? 'Promised' : 'Open' }}: {{ question.text }}</p>
        }
      }
    }
  </p-dialog>`,
  styles: `
    nav {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      align-items: center;
      font: 500 13px/1.5 var(--label);
    }
    .link {
      border: 0;
      background: none;
      padding: 0;
      color: var(--dye);
      font: inherit;
      cursor: pointer;
      text-align: left;
    }
    .measures {
      display: flex;
      gap: 0;
      margin: 10px 0;
    }
    .measures button + button {
      border-left: 0;
    }
    .measures .on {
      background: var(--dye);
      color: var(--on-dye);
    }
    .whole {
      display: flex;
      gap: 10px;
      align-items: center;
      margin-bottom: 8px;
    }
    .whole .figure {
      font-size: 18px;
      font-weight: 600;
    }
    .right {
      text-align: right;
      padding-right: 16px;
    }
    h3 {
      margin: 16px 0 6px;
    }
    .ground {
      display: grid;
      grid-template-columns: 110px 170px 20px minmax(0, 1fr);
      gap: 2px 12px;
      padding: 5px 0;
      border-bottom: 1px solid var(--fine);
      align-items: baseline;
    }
    .ground .figure {
      white-space: normal;
    }
    .who {
      grid-column: 4;
      font-size: 13px;
    }
    .pictures {
      display: flex;
      gap: 8px;
      flex-wrap: wrap;
    }
    img {
      height: 110px;
      border: 1px solid var(--line);
    }
    .open {
      margin-top: 8px;
      padding: 4px 10px;
      border-left: 3px solid var(--amber-edge);
      background: var(--amber-tint);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WhyHost {
  protected readonly why = inject(WhyService);
  private readonly open = inject(OpenStudy);
  private readonly names = inject(Names);
  private readonly api = inject(RecordApi);
  private readonly service = inject(RecordService);
  protected readonly measures = MEASURES;
  protected readonly words = MEASURE_WORD;

  protected readonly now = this.why.asked.asReadonly();
  private readonly place = computed(() => this.open.outline().placeOf.get(this.now()?.key ?? '') ?? -1);
  protected readonly chain = computed(() => {
    const now = this.now();
    return now && evidenceChain(this.open.record(), this.open.rollUp(), this.place(), now.measure);
  });
  protected readonly part = computed<Part | null>(() => this.open.partById().get(this.now()?.key ?? '') ?? null);
  protected readonly shown = computed(() => this.chain()?.terms.slice(0, MOST_TERMS) ?? []);
  /** from the vehicle down to the node at hand */
  protected readonly trail = computed(() => {
    const { nodes } = this.open.outline();
    const trail: { readonly key: string; readonly name: string }[] = [];
    for (let at = this.place(); at >= 0; at = nodes[at]?.parent ?? -1) {
      const key = nodes[at]?.key ?? '';
      trail.unshift({ key, name: this.nameOfKey(key) });
    }
    return trail;
  });
  protected readonly unit = computed(
    () => ({ count: 'parts', mass: unitWord('kg'), cost: this.open.study().currency })[this.now()?.measure ?? 'count'],
  );
  protected readonly rests = computed(() => {
    const chain = this.chain();
    if ((chain?.whole.value ?? null) === null || !chain) return 'nothing is known of it yet';
    const weakest = chain.terms.filter((p) => p.mark === chain.whole.mark);
    return chain.terms.length > 0 && weakest.length > 0
      ? `the weakest evidence in it; ${weakest.length} of its ${chain.terms.length} terms ${weakest.length === 1 ? 'rests' : 'rest'} on it`
      : '';
  });

  /** changes of the part at hand, newest first; null while they are read or when the server does not answer */
  private readonly changes = toSignal(
    toObservable(this.part).pipe(
      switchMap((part) =>
        part === null
          ? of(null)
          : this.api.history(this.service.studyId, [part.id], null).pipe(
              map((changes): readonly KeptChange[] | null => changes),
              catchError(() => of(null)),
              startWith(null),
            ),
      ),
    ),
    { initialValue: null },
  );

  protected readonly grounds = computed<readonly Ground[]>(() => {
    const [part, now, changes] = [this.part(), this.now(), this.changes()];
    if (!part || !now || !this.chain()?.isReading) return [];
    const nameOf = this.names.of();
    return restsOn(now.measure, part).flatMap((field) => {
      const said = isKnowing('part') ? evidenceFor('part', part, field) : null;
      if (!said) return [];
      const set = changes && lastSet(changes, part.id, field);
      return [
        {
          field,
          label: fieldLabel('part', field as never),
          value: valueText('part', field, part[field], nameOf),
          mark: said.mark,
          how: evidenceText(said, (u) => uText('part', field, u)),
          who: set
            ? `${set.madeBy}, ${whenText(set.madeAt)}, ${set.device}`
            : changes
              ? 'not sent yet, or longer ago than the history read here'
              : 'who and when: the server does not answer',
        },
      ];
    });
  });
  protected readonly pictures = computed(() =>
    (this.open.picturesOf().get(this.part()?.id ?? '') ?? []).map((p) => ({
      id: p.id,
      shows: p.shows || 'picture',
      url: fileUrl(this.service.studyId, p.sha256, true),
    })),
  );
  protected readonly questions = computed(() =>
    (this.open.questionsOf().get(this.part()?.id ?? '') ?? []).filter((q) => q.state === 'open'),
  );

  private nameOfKey(key: string): string {
    const node = this.open.outline().nodes[this.open.outline().placeOf.get(key) ?? -1];
    return this.names.of()(node?.id ?? key) ?? 'a record';
  }

  protected name(term: ChainTerm): string {
    return this.nameOfKey(term.key);
  }

  protected readonly closureWords = closureText;

  protected text(term: ChainTerm): string {
    const { value, u, low, high } = term;
    if (value === null) return '–';
    if (this.now()?.measure === 'count')
      return `${fixed(value, 0)}${low === null ? '' : `, ${high === null ? `at least ${low}` : `${low} to ${high}`}`}`;
    if (this.now()?.measure === 'mass')
      return `${fixed(readAs(READ_IN.kg, value), 3)} ${plusMinus(u === null ? null : readAs(READ_IN.kg, u), 4)}`.trim();
    return fixed(value, 2);
  }

  protected share(term: ChainTerm): string {
    return term.fraction === null ? '–' : `${fixed(term.fraction * 100, 1)} %`;
  }

  protected go(key: string): void {
    this.why.ask(key, this.now()?.measure ?? 'mass');
  }

  protected setMeasure(measure: Measure): void {
    this.why.ask(this.now()?.key ?? '', measure);
  }
}
