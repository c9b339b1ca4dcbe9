import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { fixed, READ_IN, readAs, unitWord } from '@each-bolt/core/shared';
import { blank, fieldLines, type Heating } from '@each-bolt/core/record';
import {
  HEATING_U_FIELDS,
  HEATING_WORDS,
  figureRows,
  heatingDifference,
  heatingOf,
  heatingReport,
  type HeatingOf,
} from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { Choose, ChoicesPipe } from '../shared/choose';
import { keptChoice } from '../shared/kept-choice';
import { FigureTable } from './figure-table';
import { InputForm } from './input-form';
import { StateBar } from './state-bar';
import { States } from './states';

const WHAT_IF = { title: 'What if', lines: fieldLines('heating', ['name', 'author', 'reason']) };
const GROUPS = [
  { title: 'Heat and driving', lines: fieldLines('heating', ['heatW', 'speedMPerS', 'heaterEfficiency']) },
  { title: 'Heat pump', lines: fieldLines('heating', ['cop', 'evaporatesC', 'condensesC', 'ofIdeal', 'besidesW']) },
];

/** The cab heated by a heater or by a heat pump: what it takes from the battery and what that leaves of the range. */
@Component({
  selector: 'eb-heating-view',
  imports: [ButtonDirective, Choose, ChoicesPipe, FigureTable, InputForm, StateBar],
  template: `<div class="sheet scroll">
    <div class="acts">
      <label
        >Vehicle
        <eb-choose
          label="Vehicle"
          [value]="vehicleId()"
          (valueChange)="vehicleId.set($event)"
          [options]="vehicles() | ebChoices: 'id' : 'name'"
        />
      </label>
      @if (states.own().length > 0) {
        <eb-state-bar [states]="$any(states)" word="heating" />
      } @else if (states.may()) {
        <button pButton type="button" (click)="begin()">Work out the heating of this vehicle</button>
      }
    </div>
    @if (states.chosen(); as heating) {
      @if (report(); as r) {
        @if (r.sentence !== '') {
          <p class="sentence" role="status">{{ r.sentence }}. <span class="soft">Computed, not measured.</span></p>
        }
        @if (r.doubt !== '') {
          <p class="fault" role="alert">{{ r.doubt }}.</p>
        }
        @if (r.missing.length > 0) {
          <p class="soft" role="status">It still needs: {{ r.missing.join(', ') }}.</p>
        }
        <div class="room">
          <div class="two">
            <div class="inputs">
              <eb-input-form entity="heating" [row]="heating" [groups]="groups()" [uFields]="uFields" [may]="states.may()" />
              <p class="soft">
                A stated COP is taken as it is; without one it is the share of the ideal cycle between the two temperatures. Battery energy
                and consumption are those the record has of the vehicle.
              </p>
            </div>
            <div class="results">
              @if (bars().length > 0) {
                <div class="bars" role="img" [attr.aria-label]="barsTold()">
                  @for (b of bars(); track b.word) {
                    <span>{{ b.word }}</span>
                    <span class="track"><span class="bar" [style.width.%]="b.share"></span></span>
                    <span class="figure">{{ b.text }}</span>
                  }
                </div>
              }
              <eb-figure-table
                label="What heating takes"
                [rows]="rows()"
                [lines]="r.lines"
                [name]="heating.name"
                [besideName]="states.beside()?.name ?? null"
              />
            </div>
          </div>
        </div>
      }
    } @else {
      <p class="soft">
        Nothing is said yet of heating this vehicle. A heat pump and a heater are held against each other at the same heat: power, energy on
        the way, range.
      </p>
    }
  </div>`,
  styles: `
    .bars {
      display: grid;
      grid-template-columns: max-content 1fr max-content;
      gap: 6px 10px;
      align-items: center;
      max-width: 640px;
      font-size: 13px;
    }
    .track {
      height: 16px;
      border-bottom: 1px solid var(--line);
    }
    .bar {
      display: block;
      height: 100%;
      background: var(--dye);
      opacity: 0.55;
    }
  `,
  styleUrl: './state-view.css',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HeatingView {
  private readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);

  protected readonly uFields = HEATING_U_FIELDS;
  protected readonly vehicles = computed(() => this.open.record().vehicles);
  protected readonly vehicleId = keptChoice(
    () => this.selection.part()?.id,
    (id) => this.vehicles().some((vehicle) => vehicle.id === id),
    () => this.selection.part()?.vehicleId ?? this.vehicles()[0]?.id ?? '',
  );
  protected readonly states = new States(
    'heating',
    (row) => row.vehicleId,
    computed(() => this.vehicleId()),
    (row) => this.vehicles().find(({ id }) => id === row.vehicleId)?.name ?? '',
  );
  protected readonly groups = computed(() => (this.states.chosen()?.isWhatIf ? [WHAT_IF, ...GROUPS] : GROUPS));
  protected readonly report = computed(() => {
    const heating = this.withVehicle(this.states.chosen());
    return heating === null ? null : heatingReport(heating);
  });
  protected readonly rows = computed(() => {
    const [now, beside, report] = [this.withVehicle(this.states.chosen()), this.withVehicle(this.states.beside()), this.report()];
    if (now === null || report === null) return [];
    return figureRows(
      HEATING_WORDS,
      report,
      beside === null ? null : heatingReport(beside),
      beside === null ? null : heatingDifference(beside, now),
    );
  });
  /** ranges side by side, from zero */
  protected readonly bars = computed(() => {
    const values = this.report()?.values;
    const ranges = [
      { word: 'without heating', value: values?.plainRangeM ?? null },
      { word: 'with the heat pump', value: values?.pumpRangeM ?? null },
      { word: 'with the heater', value: values?.heaterRangeM ?? null },
    ].filter((r): r is { word: string; value: number } => r.value !== null);
    const most = Math.max(...ranges.map(({ value }) => value), 1);
    return ranges.map(({ word, value }) => ({
      word,
      share: (100 * value) / most,
      text: `${fixed(readAs(READ_IN.km, value), 0)} ${unitWord('km')}`,
    }));
  });
  protected readonly barsTold = computed(
    () =>
      `Range: ${this.bars()
        .map(({ word, text }) => `${word} ${text}`)
        .join(', ')}`,
  );

  protected begin(): void {
    void this.states.begin(blank('heating', { vehicleId: this.vehicleId(), sequence: 0, name: 'as recorded', isWhatIf: false }));
  }

  private withVehicle(heating: Heating | null): HeatingOf | null {
    const vehicle = this.vehicles().find(({ id }) => id === heating?.vehicleId);
    return heating && vehicle ? heatingOf(heating, vehicle) : null;
  }
}
