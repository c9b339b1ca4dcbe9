import { UnitPipe } from '../shared/pipes';
import { ChangeDetectionStrategy, Component, HostListener, computed, effect, inject, signal, untracked } from '@angular/core';
import { meanReading, outliers } from '@each-bolt/core/measure';
import { readingFault, readingFields, type Taken } from '@each-bolt/core/bench';
import { LENGTH_UNITS, readQuantity, resolutionU, withU, READ_IN, readAs, unitWord, lengthFixed } from '@each-bolt/core/shared';
import { editOp, evidence, type Op, type ReadingFields } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { InstrumentService } from '../bench/instrument-service';
import { Session } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { WorthMeasuringList } from './worth-measuring';

const FIELDS = [
  { field: 'wallThicknessM', word: 'Wall thickness' },
  { field: 'lengthM', word: 'Length' },
  { field: 'widthM', word: 'Width' },
  { field: 'heightM', word: 'Height' },
  { field: 'runLengthM', word: 'Run length' },
] as const;
type HandField = (typeof FIELDS)[number]['field'];

/** One reading on the list, SI, with where it comes from. */
interface HandReading {
  readonly valueM: number;
  readonly uM: number;
  readonly raw: string;
  readonly taken: Taken | null;
}

/** Thickness and size by hand: read several times, with the mean and what it is worth. */
@Component({
  selector: 'eb-hand-view',
  imports: [WorthMeasuringList, ButtonDirective, InputText, Choose, ChoicesPipe, DataTable, TableHead, TableRow, UnitPipe],
  template: `<div class="sheet scroll">
    @if (selection.part(); as part) {
      <div class="acts">
        <label
          >What is measured
          <eb-choose
            label="What is measured"
            (valueChange)="begin($event)"
            [value]="field()"
            [options]="fields | ebChoices: 'field' : 'word'"
          />
        </label>
        <span class="soft"
          >recorded: <b class="figure">{{ recorded() }}</b></span
        >
      </div>
      @if (may()) {
        <form class="acts" (submit)="type($event, typed)">
          <label
            >Reading, with its unit
            <input pInputText #typed type="text" aria-label="Reading, with its unit" placeholder="1.98 mm" />
          </label>
          <button pButton severity="secondary" type="submit">Add it</button>
          <label
            >Read with
            <input
              pInputText
              type="text"
              maxlength="100"
              [value]="tool()"
              aria-label="Read with"
              placeholder="tape, ruler, micrometer 4"
              (input)="tool.set($any($event.target).value)"
            />
          </label>
          @if (caliper(); as c) {
            <button pButton type="button" [disabled]="c.state !== 'ready'" (click)="fromCaliper()">From {{ c.name }} <kbd>F8</kbd></button>
            <span class="figure" aria-label="Caliper reads now">{{ caliperText() }}</span>
          }
        </form>
      }
      @if (said() !== '') {
        <p class="fault" role="status">{{ said() }}</p>
      }
      @if (readings().length === 0) {
        <p class="soft">
          Read it three times or more, at different places or after taking the tool off: the scatter tells what the figure is worth.
        </p>
      } @else {
        <eb-table class="narrow" label="Readings"
          ><ng-template ebHead>
            <tr>
              <th scope="col">No.</th>
              <th scope="col" class="right">Reading, {{ 'mm' | ebUnit }}</th>
              <th scope="col">As read</th>
              <th></th>
            </tr> </ng-template
          ><ng-template [ebRow]="readings()" let-r let-i="index">
            <tr>
              <th scope="row">{{ i + 1 }}</th>
              <td class="right figure" [class.fault]="outlierPlaces().includes(i)">{{ mm(r.valueM) }}</td>
              <td class="soft">
                {{ r.taken ? r.taken.instrument.name : r.raw }}{{ outlierPlaces().includes(i) ? ' · outlier: a slip?' : '' }}
              </td>
              <td class="right">
                <button
                  pButton
                  severity="secondary"
                  type="button"
                  [attr.aria-label]="'Leave reading ' + (i + 1) + ' out'"
                  (click)="leaveOut(i)"
                >
                  Leave out
                </button>
              </td>
            </tr>
          </ng-template></eb-table
        >
        @if (mean(); as m) {
          <p class="result" role="status">
            Mean of {{ m.n }}: <b class="figure">{{ meanText() }} {{ 'mm' | ebUnit }}</b>
            @if (m.s !== null) {
              <span class="soft"
                >scatter s {{ mm(m.s) }} {{ 'mm' | ebUnit }}; 95 % within ± {{ mm(m.half95 ?? 0) }} {{ 'mm' | ebUnit }}</span
              >
            } @else {
              <span class="soft">one reading: its uncertainty is the tool’s alone</span>
            }
          </p>
          @if (may()) {
            <button pButton type="button" (click)="keep()">Keep as {{ word().toLowerCase() }} of {{ part.name }}</button>
          }
        }
      }
      <p class="soft small">
        u² = s²/n + u(tool)². A typed reading is taken as exact to half its last digit. What was recorded before stays in the history.
      </p>
    } @else {
      <eb-worth-measuring />
    }
  </div>`,
  styles: `
    label {
      font: 500 12.5px/1.6 var(--label);
      color: var(--soft);
    }
    .acts input {
      margin-left: 6px;
    }
    .narrow {
      max-width: 620px;
    }
    .result {
      font-size: 15px;
    }
    .result .soft {
      font-size: 12.5px;
      margin-left: 10px;
    }
    .fault {
      color: var(--amber);
      font-weight: 500;
    }
    .small {
      font-size: 12.5px;
    }
    kbd {
      font: 400 11px/1 var(--figure);
      border: 1px solid currentColor;
      border-radius: 2px;
      padding: 0 3px;
      margin-left: 4px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HandView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly instruments = inject(InstrumentService);
  private readonly session = inject(Session);

  protected readonly fields = FIELDS;
  protected readonly field = signal<HandField>('wallThicknessM');
  protected readonly word = computed(() => FIELDS.find((f) => f.field === this.field())?.word ?? '');
  protected readonly readings = signal<readonly HandReading[]>([]);
  protected readonly tool = signal('');
  protected readonly said = signal('');
  protected readonly may = computed(() => this.service.can()('part.edit'));
  protected readonly caliper = computed(() => this.instruments.all().find((i) => i.kind === 'caliper') ?? null);
  protected readonly caliperText = computed(() => {
    const value = this.caliper()?.last?.value ?? null;
    return value === null ? '–' : `${this.mm(value)} ${unitWord('mm')}`;
  });
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  protected readonly recorded = computed(() => {
    const part = this.selection.part();
    const value = part?.[this.field()] ?? null;
    const u = part?.evidence[this.field()]?.u ?? null;
    return value === null
      ? '–'
      : u === null
        ? `${this.mm(value)} ${unitWord('mm')}`
        : `${withU(readAs(READ_IN.mm, value), readAs(READ_IN.mm, u))} ${unitWord('mm')}`;
  });
  private readonly toolU = computed(() => Math.max(0, ...this.readings().map((r) => r.uM)));
  protected readonly mean = computed(() => {
    const readings = this.readings();
    return readings.length === 0
      ? null
      : meanReading(
          readings.map((r) => r.valueM),
          this.toolU(),
        );
  });
  protected outlierPlaces = computed(() =>
    outliers(
      this.readings().map((r) => r.valueM),
      this.toolU(),
    ),
  );
  protected readonly meanText = computed(() => {
    const mean = this.mean();
    return mean ? withU(readAs(READ_IN.mm, mean.mean), readAs(READ_IN.mm, mean.u)) : '';
  });

  constructor() {
    effect(() => {
      this.partId();
      untracked(() => {
        this.readings.set([]);
        this.said.set('');
      });
    });
  }

  protected mm(m: number): string {
    return lengthFixed(m, Math.abs(m) < 0.01 ? 3 : 2);
  }

  protected begin(field: string): void {
    this.field.set(field as HandField);
    this.readings.set([]);
    this.said.set('');
  }

  protected type(event: Event, input: HTMLInputElement): void {
    event.preventDefault();
    const read = readQuantity(input.value, LENGTH_UNITS);
    if (read.kind !== 'quantity') {
      this.said.set(
        read.kind === 'no-unit'
          ? `${read.text} of what? Write the unit with it, such as ${read.text} mm`
          : read.kind === 'ambiguous'
            ? `“${input.value}” may be ${read.readings.join(' or ')}: write a point or leave the thousands together`
            : `“${input.value}” is no length; write a number and its unit, such as 1.98 mm or 3.2 cm`,
      );
      return;
    }
    const { si, stepSi, typed } = read.quantity;
    this.add({ valueM: si, uM: resolutionU(stepSi), raw: typed, taken: null });
    input.value = '';
  }

  @HostListener('document:keydown.f8', ['$event'])
  protected onKey(event: Event): void {
    event.preventDefault();
    this.fromCaliper();
  }

  protected fromCaliper(): void {
    const instrument = this.caliper();
    if (!instrument) {
      this.said.set('No caliper is set up');
      return;
    }
    const reading = instrument.last;
    const fault = readingFault(instrument, reading, this.instruments.now());
    const value = reading?.value ?? null;
    if (fault !== null || reading === null || value === null) {
      this.said.set(fault ?? '');
      return;
    }
    this.add({
      valueM: value,
      uM: reading.u ?? 0,
      raw: reading.raw,
      taken: { instrument, reading, by: this.session.person?.name ?? '' },
    });
  }

  private add(reading: HandReading): void {
    this.said.set('');
    this.readings.update((all) => [...all, reading]);
  }

  protected leaveOut(at: number): void {
    this.readings.update((all) => all.filter((_, i) => i !== at));
  }

  /** Every reading is kept raw; their mean goes into the part. */
  protected async keep(): Promise<void> {
    const [part, mean, field] = [this.selection.part(), this.mean(), this.field()];
    if (!part || !mean) return;
    const about = { aboutKind: 'part', aboutId: part.id, aboutField: field } as const;
    const note = `${this.word().toLowerCase()}, read ${mean.n} times`;
    const ops = this.readings().map((r): Op => ({
      kind: 'reading.add',
      id: crypto.randomUUID(),
      fields: r.taken ? readingFields(r.taken, about, note) : this.typedFields(r, about, note),
    }));
    const tools = [...new Set(this.readings().map((r) => r.taken?.instrument.name ?? (this.tool().trim() || 'by hand')))];
    const said = evidence('M', { u: mean.u, instrument: tools.join(', '), source: `mean of ${mean.n}` });
    const edit = editOp('part', part, { [field]: mean.mean, evidence: { [field]: said } });
    if (await this.edits.send([...ops, ...(edit ? [edit] : [])])) {
      this.readings.set([]);
      this.said.set('');
    }
  }

  private typedFields(r: HandReading, about: Pick<ReadingFields, 'aboutKind' | 'aboutId' | 'aboutField'>, note: string): ReadingFields {
    return {
      ...about,
      ...{ quantity: 'length', value: r.valueM, u: r.uM, tare: null, elements: null, raw: r.raw },
      ...{ instrument: this.tool().trim(), serial: '', stable: null },
      takenAt: new Date().toISOString(),
      takenBy: this.session.person?.name ?? '',
      note,
    };
  }
}
