import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { counted, fixed, readField, signed, standardU, type FieldShape } from '@each-bolt/core/shared';
import { CHECK_QUANTITIES, type CheckQuantity } from '@each-bolt/core/record';
import { doubtfulReadings, instrumentCharts, type InstrumentChart } from '@each-bolt/core/reconcile';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { PartLink } from '../record/part-link';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Session } from '../record/session';
import { whenText } from '../record/when';
import { Choose } from '../shared/choose';

const SHAPES: Readonly<Record<CheckQuantity, FieldShape>> = {
  mass: { kind: 'number', per: 1, unit: 'kg', digits: 5 },
  length: { kind: 'number', per: 0.001, unit: 'mm', digits: 3 },
  torque: { kind: 'number', per: 1, unit: 'Nm', digits: 3 },
};
const [WIDE, HIGH] = [560, 92];

const restText = (n: number): string =>
  n === 0
    ? 'no reading rests on it.'
    : `${counted(n, 'reading')} rest${n === 1 ? 's' : ''} on it. Read those parts again, or explain why they may stand.`;

/** Checks of the instruments against something known, as control charts, and the readings that rest on one that was off. */
@Component({
  selector: 'eb-reconcile-readings',
  imports: [ButtonDirective, Choose, InputText, PartLink],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="Readings">
    <header class="sheet-head">
      <div>
        <h1>{{ headline() }}</h1>
        <p class="soft">
          A check weight or gauge block read now and then shows drift. An instrument that is off marks all its readings since its last good
          check.
        </p>
      </div>
    </header>
    @if (service.can()('checkReading.add')) {
      <form class="new" (submit)="keep($event, instrument, serial, nominal, nominalU, value)">
        <label>Instrument <input pInputText #instrument type="text" maxlength="200" placeholder="bench scale" /></label>
        <label>Serial number <input pInputText #serial type="text" maxlength="100" /></label>
        <label>
          Quantity
          <eb-choose label="Quantity" [options]="quantities" [value]="quantity()" (valueChange)="quantity.set($any($event))" />
        </label>
        <label>Check weight or block <input pInputText #nominal class="figure" type="text" [placeholder]="unit()" /></label>
        <label>± (k = 2) <input pInputText #nominalU class="figure" type="text" [placeholder]="unit()" /></label>
        <label>Reads <input pInputText #value class="figure" type="text" [placeholder]="unit()" /></label>
        <button pButton type="submit">Keep the check</button>
        @if (fault() !== '') {
          <small role="alert">{{ fault() }}</small>
        }
      </form>
    }
    @for (row of charts(); track row.key) {
      <section [attr.aria-label]="row.name">
        <h2>{{ row.name }}</h2>
        <p [class.amber]="row.isOff">{{ row.says }}</p>
        <svg
          [attr.viewBox]="'0 0 ' + (wide + 90) + ' ' + (high + 22)"
          [style.max-width.px]="wide + 90"
          role="img"
          [attr.aria-label]="row.alt"
        >
          <line x1="0" [attr.x2]="wide" [attr.y1]="high / 2" [attr.y2]="high / 2" class="zero" />
          @for (limit of row.limits; track limit.y) {
            <line x1="0" [attr.x2]="wide" [attr.y1]="limit.y" [attr.y2]="limit.y" class="limit" />
            <text [attr.x]="wide + 6" [attr.y]="limit.y + 4">{{ limit.text }}</text>
          }
          <text [attr.x]="wide + 6" [attr.y]="high / 2 + 4">{{ row.zero }}</text>
          <polyline [attr.points]="row.average" class="average" />
          @for (point of row.points; track point.key) {
            @if (point.isOut) {
              <rect [attr.x]="point.x - 4" [attr.y]="point.y - 4" width="8" height="8" class="out" />
            } @else {
              <circle [attr.cx]="point.x" [attr.cy]="point.y" r="3.4" class="in" />
            }
          }
          <text x="0" [attr.y]="high + 18">{{ row.first }}</text>
          <text [attr.x]="wide" [attr.y]="high + 18" text-anchor="end">{{ row.last }}</text>
        </svg>
        @if (row.resting.length > 0) {
          <p class="resting">
            Readings that rest on it:
            @for (part of row.resting.slice(0, 12); track part.id) {
              <eb-part-link [partId]="part.id" [name]="part.name" />
            }
            @if (row.resting.length > 12) {
              <span class="soft">and {{ row.resting.length - 12 }} more</span>
            }
          </p>
        }
      </section>
    } @empty {
      <p class="soft">No instrument was checked yet: put a check weight on the scale, and write down what it reads.</p>
    }
  </div>`,
  styles: `
    .new {
      display: flex;
      gap: 10px;
      align-items: end;
      flex-wrap: wrap;
      margin-bottom: 14px;
    }
    label {
      display: grid;
      gap: 3px;
      color: var(--soft);
      font-size: 12.5px;
    }
    .new input {
      width: 124px;
    }
    eb-choose {
      width: 110px;
    }
    .new small {
      flex-basis: 100%;
      color: var(--amber);
    }
    section {
      margin-bottom: 16px;
    }
    .amber {
      color: var(--amber);
    }
    svg {
      display: block;
      width: 100%;
      font: 11.5px var(--figure);
    }
    text {
      fill: var(--soft);
    }
    .zero {
      stroke: var(--soft);
    }
    .limit {
      stroke: var(--amber-edge);
      stroke-dasharray: 4 3;
    }
    .average {
      fill: none;
      stroke: var(--dye);
      stroke-width: 1.4;
    }
    .in {
      fill: var(--ink);
    }
    .out {
      fill: var(--amber);
    }
    .resting {
      display: flex;
      gap: 4px 12px;
      flex-wrap: wrap;
      align-items: baseline;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileReadings {
  protected readonly service = inject(RecordService);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly session = inject(Session);

  protected readonly quantities = CHECK_QUANTITIES.map((value) => ({ value, word: value }));
  protected readonly quantity = signal<CheckQuantity>('mass');
  protected readonly unit = computed(() => {
    const shape = SHAPES[this.quantity()];
    return shape.kind === 'number' ? shape.unit : '';
  });
  protected readonly fault = signal('');
  protected readonly wide = WIDE;
  protected readonly high = HIGH;

  private readonly all = computed(() => instrumentCharts(this.open.record().checkReadings));
  private readonly doubtful = computed(() => doubtfulReadings(this.open.record().readings, this.all()));
  protected readonly headline = computed(() => {
    const off = this.all().filter((chart) => chart.off.some(({ to }) => to === null)).length;
    return `${counted(this.all().length, 'instrument')} checked, ${off} off now`;
  });
  protected readonly charts = computed(() => this.all().map((chart) => this.drawn(chart)));

  private drawn(chart: InstrumentChart) {
    const most = Math.max(1.3 * chart.limitFraction, ...chart.points.map(({ errorFraction }) => 1.1 * Math.abs(errorFraction)));
    const x = (at: number): number => 8 + (at * (WIDE - 16)) / Math.max(1, chart.points.length - 1);
    const y = (fraction: number): number => HIGH / 2 - (fraction / most) * (HIGH / 2 - 4);
    // labels need so much room above each other
    const isNarrow = y(0) - y(chart.limitFraction) < 12;
    const parts = this.open.partById();
    const resting = this.doubtful().filter((one) => one.chart === chart);
    const last = chart.off.at(-1);
    const percent = (fraction: number): string => `${signed(100 * fraction, 2)} %`;
    const isOff = last?.to === null;
    const from = chart.sFrom === 'assumed' ? 'assumed, for fewer than five checks' : 'from the median of its moving ranges';
    const says = last
      ? `${isOff ? 'Off' : 'Was off'} by ${percent(last.errorFraction)} ${isOff ? 'since' : 'from'} ${whenText(last.firstSeen)}: ${restText(resting.length)}`
      : `In control: ${counted(chart.points.length, 'check')}, all within ± ${fixed(100 * chart.limitFraction, 3)} %.`;
    return {
      ...{ key: `${chart.serial} ${chart.quantity}`, name: `${chart.instrument} ${chart.serial}, ${chart.quantity}`, isOff },
      says: `${says} Limits are ± 3 s, s ${from}; the line is the weighted average of the errors.`,
      alt: `Errors of ${chart.points.length} checks of ${chart.instrument} ${chart.serial} against limits of ± ${fixed(100 * chart.limitFraction, 3)} %`,
      limits: [1, -1].map((side) => ({ y: y(side * chart.limitFraction), text: isNarrow ? '' : percent(side * chart.limitFraction) })),
      zero: isNarrow ? `0 ± ${fixed(100 * chart.limitFraction, 2)} %` : '0',
      points: chart.points.map((point, at) => ({ key: point.reading.id, x: x(at), y: y(point.errorFraction), isOut: point.isOut })),
      average: chart.weighted.map(({ value }, at) => `${x(at)},${y(value)}`).join(' '),
      ...{ first: whenText(chart.points[0]!.reading.takenAt), last: whenText(chart.points.at(-1)!.reading.takenAt) },
      resting: [...new Set(resting.map(({ reading }) => reading.aboutId))].flatMap((id) => parts.get(id) ?? []),
    };
  }

  protected async keep(event: Event, ...[instrument, serial, nominal, nominalU, value]: readonly HTMLInputElement[]): Promise<void> {
    event.preventDefault();
    const read = (field: HTMLInputElement | undefined, needed: boolean): number | null => {
      const text = field?.value.trim() ?? '';
      if (text === '' && !needed) return 0;
      const got = readField(SHAPES[this.quantity()], text);
      return got.ok && typeof got.value === 'number' ? got.value : null;
    };
    const [known, reads] = [read(nominal, true), read(value, true)];
    const knownU = read(nominalU, false);
    if (instrument!.value.trim() === '' || serial!.value.trim() === '') {
      this.fault.set('Say which instrument it is, with its serial number');
      return;
    }
    if (known === null || reads === null || knownU === null) {
      this.fault.set(`Write what the check weight or block is and what was read, as numbers in ${this.unit()}`);
      return;
    }
    this.fault.set('');
    const id = await this.edits.add('checkReading', {
      ...{ instrument: instrument!.value.trim(), serial: serial!.value.trim(), quantity: this.quantity(), nominal: known, nominalU: standardU(knownU), value: reads },
      ...{ takenAt: new Date().toISOString(), takenBy: this.session.person?.name ?? '', note: '' },
    });
    if (id !== null) value!.value = '';
  } // prettier-ignore
}
