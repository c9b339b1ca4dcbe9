import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import {
  GAUGE_UNITS,
  gaugeReadingText,
  gaugeShown,
  gaugeSquareShown,
  gaugeResult,
  rangeStudy,
  readGaugeReading,
  type Crossed,
} from '@each-bolt/core/measure';
import { ABSENT, fixed, threeDigits } from '@each-bolt/core/shared';
import { nextSequence, type GaugeStudy } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose } from '../shared/choose';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { percentWords } from './scan-text';

/** So that a team knows what its figures are worth: every person measures every part several times. */
@Component({
  selector: 'eb-gauge-view',
  imports: [ButtonDirective, InputText, Choose, DataTable, TableHead, TableRow],
  template: `<div class="sheet scroll">
    @if (may()) {
      <form class="new" aria-label="A new gauge R&R study" (submit)="add($event, name, quantity, persons, parts, trials)">
        <label
          >Name
          <input pInputText #name type="text" maxlength="100" aria-label="Name of the gauge R&R study" placeholder="wall with the caliper"
        /></label>
        <label
          >Of
          <eb-choose #quantity label="Quantity" value="length" [options]="quantities" />
        </label>
        <label>Operators <input pInputText #persons type="text" aria-label="Operators" placeholder="Odo, Wenna, Lisk" /></label>
        <label>Parts <input pInputText #parts type="number" class="short" min="2" max="50" value="10" aria-label="How many parts" /></label>
        <label
          >Trials per part <input pInputText #trials type="number" class="short" min="2" max="20" value="3" aria-label="Trials per part"
        /></label>
        <button pButton type="submit">Begin the study</button>
      </form>
      @if (fault() !== '') {
        <p class="fault" role="alert">{{ fault() }}</p>
      }
    }
    @if (gaugeStudies().length === 0) {
      <p class="soft">
        None yet. Ten parts, three persons, three times each is the usual size: it tells how much of what you see is the parts, and how much
        is the measuring.
      </p>
    } @else {
      <div class="acts">
        @for (gaugeStudy of gaugeStudies(); track gaugeStudy.id) {
          <button
            pButton
            severity="secondary"
            type="button"
            [class.chosen]="gaugeStudy.id === chosen()?.id"
            (click)="chosenId.set(gaugeStudy.id)"
          >
            {{ gaugeStudy.name }}
          </button>
        }
        @if (chosen(); as gaugeStudy) {
          @if (may()) {
            <button pButton severity="secondary" type="button" (click)="remove(gaugeStudy)">Delete “{{ gaugeStudy.name }}”</button>
          }
        }
      </div>
      @if (chosen(); as gaugeStudy) {
        <div class="grid" tabindex="0" role="region" aria-label="Readings of the study">
          <eb-table label="Readings of the study"
            ><ng-template ebHead>
              <tr>
                <th scope="col">Part</th>
                @for (person of gaugeStudy.persons; track $index) {
                  <th scope="colgroup" [attr.colspan]="gaugeStudy.trials">{{ person }}</th>
                }
              </tr> </ng-template
            ><ng-template [ebRow]="gaugeStudy.parts" let-part let-j="index">
              <tr>
                <th scope="row">{{ part }}</th>
                @for (person of gaugeStudy.persons; track $index; let i = $index) {
                  @for (trial of gaugeStudy.readings[i]![j]!; track $index; let k = $index) {
                    <td>
                      <input
                        pInputText
                        type="number"
                        step="any"
                        class="cell"
                        [value]="shown(trial)"
                        [disabled]="!may()"
                        [attr.aria-label]="person + ', ' + part + ', time ' + (k + 1)"
                        (change)="set(gaugeStudy, i, j, k, $any($event.target).value)"
                      />
                    </td>
                  }
                }
              </tr> </ng-template
          ></eb-table>
        </div>
        @if (missing() > 0) {
          <p class="soft" role="status">{{ missing() }} readings are still missing; the study is worked out when all are there.</p>
        } @else if (result(); as r) {
          <p class="verdict" role="status" [class.fault]="r.verdict !== 'good'">{{ verdict() }}</p>
          <div class="two">
            <eb-table label="Where the scatter comes from"
              ><ng-template ebHead>
                <tr>
                  <th scope="col">Source of variation</th>
                  <th scope="col" class="right">s, {{ unit() }}</th>
                  <th scope="col" class="right">of the total</th>
                  <th scope="col" class="right">by average and range</th>
                </tr> </ng-template
              ><ng-template [ebRow]="parts()" track="word" let-row>
                <tr>
                  <th scope="row">{{ row.word }}</th>
                  <td class="right figure">{{ row.s }}</td>
                  <td class="right figure">{{ row.share }}</td>
                  <td class="right figure">{{ row.byRange }}</td>
                </tr>
              </ng-template></eb-table
            >
            <eb-table label="Analysis of variance"
              ><ng-template ebHead>
                <tr>
                  <th scope="col">Source</th>
                  <th scope="col" class="right">Sum of squares</th>
                  <th scope="col" class="right">df</th>
                  <th scope="col" class="right">F</th>
                  <th scope="col" class="right">p</th>
                </tr> </ng-template
              ><ng-template [ebRow]="table()" track="source" let-line>
                <tr>
                  <th scope="row">{{ line.source }}</th>
                  <td class="right figure">{{ line.sum }}</td>
                  <td class="right figure">{{ line.freedom }}</td>
                  <td class="right figure">{{ line.f }}</td>
                  <td class="right figure">{{ line.p }}</td>
                </tr>
              </ng-template></eb-table
            >
          </div>
          <p class="soft small">
            {{ r.isPooled ? 'Part × person is not certain (p above 0.25) and is joined with the repeats. ' : '' }}Good below 10 % of the
            total, usable with care below 30 %.
          </p>
        }
      }
    }
  </div>`,
  styleUrl: './new-row.css',
  styles: `
    .short {
      width: 84px;
    }
    .grid {
      overflow-x: auto;
      flex: none;
    }
    .cell {
      width: 60px;
      padding: 4px;
      text-align: right;
      font-family: var(--figure);
    }
    .verdict {
      font-weight: 600;
    }
    .fault {
      color: var(--amber);
    }
    .two {
      display: flex;
      flex-wrap: wrap;
      gap: 10px 26px;
      align-items: start;
    }
    .two table {
      flex: 1 1 380px;
      width: auto;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class GaugeView {
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly may = computed(() => this.service.can()('gaugeStudy.add'));
  protected readonly gaugeStudies = computed(() => this.open.record().gaugeStudies);
  protected readonly chosenId = signal('');
  protected readonly chosen = computed<GaugeStudy | null>(
    () => this.gaugeStudies().find((g) => g.id === this.chosenId()) ?? this.gaugeStudies().at(-1) ?? null,
  );
  protected readonly fault = signal('');
  private readonly quantity = computed(() => this.chosen()?.quantity ?? 'length');
  protected readonly unit = computed(() => GAUGE_UNITS[this.quantity()].unit);
  protected readonly missing = computed(
    () =>
      this.chosen()
        ?.readings.flat(2)
        .filter((x) => x === null).length ?? 0,
  );
  protected readonly result = computed(() => {
    const gaugeStudy = this.chosen();
    return gaugeStudy && this.missing() === 0 ? gaugeResult(gaugeStudy.readings as Crossed) : null;
  });
  private readonly byRange = computed(() => {
    const gaugeStudy = this.chosen();
    return gaugeStudy && this.missing() === 0 ? rangeStudy(gaugeStudy.readings as Crossed) : null;
  });
  protected readonly verdict = computed(() => {
    const r = this.result();
    if (r && r.doubts.length > 0) return `Not known. ${r.doubts.join('. ')}.`;
    return r
      ? `${r.verdict[0]?.toUpperCase()}${r.verdict.slice(1)}: the measuring makes ${percentWords(r.gaugeFraction)} of the scatter; ${r.distinct} kinds of part are told apart.`
      : '';
  });
  protected readonly parts = computed(() => {
    const [r, range] = [this.result(), this.byRange()];
    if (!r) return [];
    const row = (word: string, s: number, other: number | undefined) => ({
      word,
      s: threeDigits(gaugeShown(this.quantity(), s)),
      share: percentWords(r.total > 0 ? s / r.total : 0),
      byRange: other === undefined ? ABSENT : threeDigits(gaugeShown(this.quantity(), other)),
    });
    return [
      row('one person again (repeatability)', r.repeatability, range?.repeatability),
      row('one person and another (reproducibility)', r.reproducibility, range?.reproducibility),
      row('the measuring as a whole', r.gauge, range?.gauge),
      row('the parts', r.partToPart, range?.partToPart),
      row('all', r.total, range?.total),
    ];
  });
  protected readonly table = computed(() =>
    (this.result()?.table ?? []).map(({ source, sumOfSquares, freedom, f, p }) => ({
      source,
      sum: `${threeDigits(gaugeSquareShown(this.quantity(), sumOfSquares))} ${this.unit()}²`,
      freedom,
      f: f === null ? ABSENT : fixed(f, 2),
      p: p === null ? ABSENT : p < 0.001 ? '< 0.001' : fixed(p, 3),
    })),
  );

  protected shown(value: number | null): string {
    return gaugeReadingText(this.quantity(), value);
  }

  protected set(gaugeStudy: GaugeStudy, person: number, part: number, trial: number, text: string): void {
    const value = readGaugeReading(gaugeStudy.quantity, text);
    if (value === undefined) return;
    const readings = gaugeStudy.readings.map((byPart, i) =>
      i === person ? byPart.map((trials, j) => (j === part ? trials.map((x, k) => (k === trial ? value : x)) : trials)) : byPart,
    );
    void this.edits.edit('gaugeStudy', gaugeStudy, { readings });
  }

  protected readonly quantities = [
    { value: 'length', word: 'a length, mm' },
    { value: 'mass', word: 'a mass, g' },
  ];

  protected async add(
    event: Event,
    name: HTMLInputElement,
    quantity: Choose,
    persons: HTMLInputElement,
    parts: HTMLInputElement,
    trials: HTMLInputElement,
  ): Promise<void> {
    event.preventDefault();
    const people = persons.value
      .split(',')
      .map((p) => p.trim())
      .filter((p) => p !== '');
    const [partCount, times] = [parts.valueAsNumber, trials.valueAsNumber];
    const isWhole = (n: number, least: number, most: number): boolean => Number.isInteger(n) && n >= least && n <= most;
    const fault =
      people.length < 2
        ? 'Name two persons at least, with a comma between them'
        : !isWhole(partCount, 2, 50)
          ? 'Parts: a whole number from 2 to 50'
          : !isWhole(times, 2, 20)
            ? 'Trials per part: a whole number from 2 to 20'
            : '';
    this.fault.set(fault);
    if (fault !== '') return;
    const readings = people.map(() => Array.from({ length: partCount }, () => Array.from({ length: times }, () => null)));
    const id = await this.edits.add('gaugeStudy', {
      sequence: nextSequence(this.gaugeStudies()),
      name: name.value.trim() || `gauge R&R study ${this.gaugeStudies().length + 1}`,
      quantity: quantity.value() as GaugeStudy['quantity'],
      persons: people,
      parts: Array.from({ length: partCount }, (_, i) => `part ${i + 1}`),
      trials: times,
      readings,
      instrument: '',
      note: '',
    });
    if (id === null) return;
    this.chosenId.set(id);
    name.value = '';
  }

  protected remove(gaugeStudy: GaugeStudy): void {
    void this.edits.remove('gaugeStudy', gaugeStudy);
  }
}
