import { addDays } from 'date-fns';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ABSENT, counted, fixed, type FieldShape, type FieldValue } from '@each-bolt/core/shared';
import {
  blank,
  CHOICE_CRITERIA,
  type Candidate,
  type CandidateFields,
  type ChoiceCriterion,
  type ReaderRequest,
  nextSequence,
  fieldLines,
} from '@each-bolt/core/record';
import { chooseVehicle, type CriterionMark } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { todayHere } from '../record/when';
import { EditField } from '../shared/edit-field';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Choose } from '../shared/choose';
import { RefusalNote } from '../shared/refusal-note';
import { PlanOrganisation } from './plan-organisation';
import { RowEdits } from '../record/row-edits';

const CRITERION_WORD: Readonly<Record<ChoiceCriterion, string>> = {
  requests: 'Requests',
  gap: 'Gap in our record',
  novelty: 'Novelty',
  wait: 'Wait',
  price: 'Price',
};

const FIELDS = fieldLines('candidate', [
  ...(['name', 'maker', 'modelYear', 'vehicleClass', 'drive', 'voltageV', 'novelty', 'noveltyNote', 'waitDays'] as const),
  ...(['price', 'priceCurrency', 'priceYear', 'note'] as const),
]);

const STRENGTHS: readonly FieldChoice[] = [
  { value: '1', word: '1 would be nice' },
  { value: '2', word: '2' },
  { value: '3', word: '3 wants it' },
  { value: '4', word: '4' },
  { value: '5', word: '5 cannot do without' },
];

/** Which vehicle comes next: candidates, what is asked for, and a ranking that shows what it rests on. */
@Component({
  selector: 'eb-choice-view',
  imports: [EditField, RefusalNote, ButtonDirective, InputText, Choose, DataTable, TableHead, TableRow, TableFoot, IconButton],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Which vehicle comes next</h1>
        <p class="soft">{{ summary() }}</p>
      </div>
      @if (may()('candidate.add')) {
        <button pButton type="button" (click)="add()">Add a candidate</button>
      }
    </header>
    @if (organisation.isAway()) {
      <p class="soft" role="status">Without a connection the gap cannot be seen against the other studies of the organisation.</p>
    }
    @for (issue of choice().issues; track issue.code) {
      <eb-refusal [message]="issue.message" />
    }
    @if (choice().ranked.length === 0) {
      <p class="sheet-empty">
        No candidate yet. Add the vehicles that might be bought: who asks for them, how new they are, how soon they can be had and for how
        much. The ranking shows what it rests on, and one act makes a candidate a vehicle of the study.
      </p>
    } @else {
      <eb-table
        ><ng-template ebHead>
          <tr>
            <th scope="col"></th>
            <th scope="col">Candidate</th>
            @for (criterion of criteria; track criterion) {
              <th scope="col" class="right">{{ words[criterion] }}</th>
            }
            <th scope="col" class="right">Score of 100</th>
            <th scope="col"></th>
          </tr>
          <tr class="weights">
            <th></th>
            <th scope="row">weight</th>
            @for (criterion of criteria; track criterion) {
              <th>
                <eb-edit-field
                  [label]="'Weight of ' + words[criterion].toLowerCase()"
                  [shape]="weightShape"
                  [value]="open.study().choiceWeights[criterion]"
                  [disabled]="!may()('candidate.add')"
                  (committed)="weigh(criterion, $event)"
                />
              </th>
            }
            <th class="right soft">only their ratio counts</th>
            <th></th>
          </tr> </ng-template
        ><ng-template [ebRow]="choice().ranked" track="candidate.id" let-row let-rank="index">
          <tr [class.on]="row.candidate.id === chosen()?.id">
            <td class="figure rank">{{ row.score === null ? absent : rank + 1 }}</td>
            <td>
              <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="chosenId.set(row.candidate.id)">
                {{ row.candidate.name }}
              </button>
              <small class="soft">{{ describe(row.candidate) }}</small>
            </td>
            @for (mark of row.marks; track mark.criterion) {
              <td class="right mark">
                <span class="figure">{{ rawText(mark) }}</span>
                <span class="bar" aria-hidden="true"><i [style.width.%]="percent(mark.mark)"></i></span>
              </td>
            }
            <td class="right">
              <b class="figure">{{ score(row.score) }}</b>
              @if (row.highest - row.lowest > 0.005) {
                <small class="soft">{{ score(row.lowest) }} to {{ score(row.highest) }}</small>
              }
            </td>
            <td class="right">
              @if (row.candidate.vehicleId !== null) {
                <span class="soft">in the study</span>
              } @else if (may()('vehicle.add')) {
                <button pButton severity="secondary" type="button" (click)="take(row.candidate)">Make it a vehicle</button>
              }
            </td>
          </tr>
        </ng-template></eb-table
      >
      @if (flipLines().length > 0) {
        <section aria-label="What would change the order">
          <h3>What would put another first</h3>
          <ul class="flips">
            @for (line of flipLines(); track line) {
              <li>{{ line }}</li>
            }
          </ul>
        </section>
      } @else if (choice().ranked.length > 1) {
        <p class="soft">No change of a single weight puts another candidate first.</p>
      }
      @if (chosen(); as candidate) {
        <div class="two">
          <section [attr.aria-label]="'Candidate ' + candidate.name">
            <h2>{{ candidate.name }}</h2>
            <p class="soft">{{ gapText() }}</p>
            <dl class="facts">
              @for (row of fields; track row.field) {
                <dt>{{ row.label }}</dt>
                <dd>
                  <eb-edit-field
                    [of]="row.name"
                    [placeholder]="row.field === 'price' ? '48990.00' : ''"
                    [value]="candidate[row.field]"
                    [disabled]="!may()('candidate.edit')"
                    [fault]="edits.faultOf(candidate.id, row.field)"
                    (committed)="edit(candidate, row.field, $event)"
                  />
                </dd>
              }
            </dl>
            @if (may()('candidate.remove')) {
              <button pButton severity="secondary" type="button" (click)="remove(candidate)">Delete candidate</button>
            }
          </section>
          <section aria-label="Requests">
            <h2>Requested by</h2>
            <eb-table
              ><ng-template ebHead>
                <tr>
                  <th scope="col">Who</th>
                  <th scope="col">Priority</th>
                  <th scope="col">Question</th>
                  <th></th>
                </tr> </ng-template
              ><ng-template [ebRow]="requests()" track="id" let-request>
                <tr>
                  <td>
                    <eb-edit-field
                      of="request.who"
                      [value]="request.who"
                      [disabled]="!may()('request.edit')"
                      [fault]="edits.faultOf(request.id, 'who')"
                      (committed)="editRequest(request, 'who', $event)"
                    />
                  </td>
                  <td>
                    <eb-edit-field
                      of="request.strength"
                      [options]="strengths"
                      [value]="request.strength + ''"
                      [disabled]="!may()('request.edit')"
                      (committed)="editRequest(request, 'strength', $event)"
                    />
                  </td>
                  <td>
                    <eb-edit-field
                      of="request.asks"
                      [value]="request.asks"
                      [disabled]="!may()('request.edit')"
                      (committed)="editRequest(request, 'asks', $event)"
                    />
                  </td>
                  <td>
                    @if (may()('request.remove')) {
                      <eb-icon-button [label]="'Take the request of ' + request.who + ' off'" (acted)="edits.remove('request', request)" />
                    }
                  </td>
                </tr> </ng-template
              ><ng-template ebFoot>
                @if (requests().length === 0) {
                  <tr>
                    <td colspan="4" class="soft">Nobody has asked for it yet.</td>
                  </tr>
                }
              </ng-template></eb-table
            >
            @if (may()('request.add')) {
              <form (submit)="ask($event, candidate, who, strength, asks)">
                <input pInputText #who aria-label="Who makes the new request" placeholder="who asks" autocomplete="off" />
                <eb-choose #strength label="Priority of the request" value="3" [options]="strengths" />
                <input
                  pInputText
                  #asks
                  class="wide"
                  aria-label="What they want to know"
                  placeholder="what they want to know"
                  autocomplete="off"
                />
                <button pButton severity="secondary" type="submit">Add the request</button>
              </form>
            }
          </section>
        </div>
      }
    }
  </div>`,
  styles: `
    .rank {
      width: 24px;
    }
    td small {
      display: block;
      font-size: 12.5px;
    }
    .weights th {
      border-bottom-color: var(--line);
      padding-top: 0;
    }
    .mark {
      width: 92px;
    }
    .bar {
      display: block;
      height: 4px;
      margin-top: 3px;
      background: var(--fine);
    }
    .bar i {
      display: block;
      height: 100%;
      background: var(--dye);
    }
    .flips {
      margin: 4px 0 0;
      padding-left: 18px;
      font-size: 13.5px;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(280px, 2fr) minmax(360px, 3fr);
      gap: 28px;
      margin-top: 10px;
      border-top: 1px solid var(--line);
      padding-top: 10px;
    }
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      margin-top: 8px;
    }
    .wide {
      flex: 1 1 160px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ChoiceView {
  protected readonly open = inject(OpenStudy);
  protected readonly organisation = inject(PlanOrganisation);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly absent = ABSENT;
  protected readonly criteria = CHOICE_CRITERIA;
  protected readonly words = CRITERION_WORD;
  protected readonly fields = FIELDS;
  protected readonly strengths = STRENGTHS;
  protected readonly weightShape: FieldShape = { kind: 'number', per: 1, unit: '', digits: 1 };
  protected readonly may = this.service.can;
  protected readonly chosenId = signal('');
  protected readonly choice = computed(() => chooseVehicle(this.open.record(), this.organisation.organisation().held));
  protected readonly chosen = computed<Candidate | null>(
    () => this.open.record().candidates.find((c) => c.id === this.chosenId()) ?? this.choice().ranked[0]?.candidate ?? null,
  );
  protected readonly requests = computed(() => this.open.record().requests.filter((r) => r.candidateId === this.chosen()?.id));
  protected readonly summary = computed(
    () =>
      `${counted(this.choice().ranked.length, 'candidate')}, ${counted(this.open.record().requests.length, 'request')}; the organisation has studied ${counted(this.organisation.organisation().held.length, 'other vehicle')}`,
  );
  protected readonly flipLines = computed(() => {
    const nameOf = new Map(this.open.record().candidates.map((c) => [c.id, c.name]));
    return this.choice().flips.map(
      ({ criterion, from, to, firstId }) =>
        `${CRITERION_WORD[criterion]} at ${Number(to.toFixed(1))} instead of ${Number(from.toFixed(1))}: ${nameOf.get(firstId) ?? ''} comes first`,
    );
  });
  protected readonly gapText = computed(() => {
    const nearest = this.choice().ranked.find((r) => r.candidate.id === this.chosen()?.id)?.nearest;
    if (!nearest) return 'No other study holds a vehicle: all of it is new to our record.';
    const name = nearest.held.name === null ? 'a vehicle of a study you are not of' : `${nearest.held.name} (${nearest.held.study ?? ''})`;
    return `Nearest in our record: ${name}, ${fixed(nearest.likenessFraction * 100, 0)} % in common by class, drive, voltage and year.`;
  });

  protected percent(mark: number | null): number {
    return (mark ?? 0) * 100;
  }

  protected score(fraction: number | null): string {
    return fraction === null ? ABSENT : fixed(fraction * 100, 1);
  }

  protected describe(c: Candidate): string {
    const parts = [
      c.maker,
      c.modelYear === null ? '' : String(c.modelYear),
      c.vehicleClass ?? '',
      c.drive ?? '',
      c.voltageV === null ? '' : `${c.voltageV}\u00a0V`,
    ];
    return parts.filter((text) => text !== '').join(' · ');
  }

  protected rawText({ criterion, raw }: CriterionMark): string {
    if (raw === null) return ABSENT;
    switch (criterion) {
      case 'gap':
        return `${fixed(raw * 100, 0)} %`;
      case 'wait':
        return `${fixed(raw / 7, 1)} wk`;
      case 'price':
        return fixed(raw, 0);
      default:
        return String(raw);
    }
  }

  protected edit(candidate: Candidate, field: keyof CandidateFields, value: FieldValue): void {
    void this.edits.edit('candidate', candidate, this.withPrice(candidate, field, value));
  }

  /** A price typed alone is in the currency and year of the study; one taken out takes them along. */
  private withPrice(candidate: Candidate, field: keyof CandidateFields, value: FieldValue): Partial<CandidateFields> {
    if (field !== 'price') return { [field]: value };
    if (value === null) return { price: null, priceCurrency: null, priceYear: null };
    const { currency, priceYear } = this.open.study();
    return { price: value as string, priceCurrency: candidate.priceCurrency ?? currency, priceYear: candidate.priceYear ?? priceYear };
  }

  protected weigh(criterion: ChoiceCriterion, value: FieldValue): void {
    const study = this.open.study();
    void this.edits.edit('study', study, { choiceWeights: { ...study.choiceWeights, [criterion]: value ?? 0 } });
  }

  protected async add(): Promise<void> {
    const sequence = nextSequence(this.open.record().candidates);
    const id = await this.edits.add('candidate', {
      ...{ sequence, name: `Candidate ${sequence + 1}`, maker: '', modelYear: null, vehicleClass: null, drive: null, voltageV: null },
      ...{ novelty: null, noveltyNote: '', waitDays: null, price: null, priceCurrency: null, priceYear: null, note: '', vehicleId: null },
    });
    if (id !== null) this.chosenId.set(id);
  }

  protected remove(candidate: Candidate): void {
    void this.edits.remove('candidate', candidate);
  }

  protected editRequest(request: ReaderRequest, field: 'who' | 'strength' | 'asks', value: FieldValue): void {
    void this.edits.edit('request', request, { [field]: field === 'strength' ? Number(value) : value });
  }

  protected async ask(event: Event, candidate: Candidate, who: HTMLInputElement, strength: Choose, asks: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const fields = {
      candidateId: candidate.id,
      sequence: this.requests().length,
      who: who.value.trim(),
      strength: Number(strength.value()),
      asks: asks.value.trim(),
    };
    if ((await this.edits.add('request', fields)) === null) return;
    who.value = '';
    asks.value = '';
    who.focus();
  }

  /** The candidate becomes a vehicle of the study, with what is known of it. */
  protected take(candidate: Candidate): void {
    const id = crypto.randomUUID();
    const sequence = nextSequence(this.open.record().vehicles);
    const { maker, modelYear, vehicleClass, drive, voltageV, price, priceCurrency, priceYear } = candidate;
    const fields = {
      ...blank('vehicle', { name: candidate.name, role: sequence === 0 ? ('subject' as const) : ('competitor' as const), sequence }),
      ...{ maker, modelYear, vehicleClass, drive, voltageV, price, priceCurrency, priceYear },
      expectedOn: candidate.waitDays === null ? null : todayHere(addDays(new Date(), candidate.waitDays)),
    };
    void this.edits.send([
      { kind: 'vehicle.add', id, fields },
      { kind: 'candidate.edit', id: candidate.id, was: { vehicleId: null }, fields: { vehicleId: id } },
    ]);
  }
}
