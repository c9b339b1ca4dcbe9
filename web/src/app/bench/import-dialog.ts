import { ChangeDetectionStrategy, Component, computed, inject, input, model, output, signal } from '@angular/core';
import { counted, fixed } from '@each-bolt/core/shared';
import { nextSequence, type Op, type StudyRecord, type Subsystem, type Vehicle } from '@each-bolt/core/record';
import {
  CSV_COLUMNS,
  ENCODINGS,
  ENCODING_WORD,
  columnOfKey,
  importOps,
  mendKey,
  sortRows,
  unknownValues,
  withSubsystems,
  type CsvHeading,
  type Encoding,
  type FoundColumn,
  type ImportPreview,
  type ReadOptions,
  type SheetHead,
  type TableHead,
  type UnknownValue,
} from '@each-bolt/core/bench';
import { basisOf } from '@each-bolt/core/cost';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Choose, type Choice } from '../shared/choose';
import { ImportColumns } from './import-columns';
import { ImportMemory } from './import-memory';
import { ImportReader } from './import-reader';
import { ImportRows } from './import-rows';
import { ImportWords } from './import-words';
import { FileButton } from '../shared/file-button';
import { RefusalNote } from '../shared/refusal-note';

type Values = NonNullable<ReadOptions['values']>;

const known = (head: SheetHead): number => head.columns.filter((column) => column !== null).length;

/** Reads a file of parts, shows row by row what would be loaded, and loads nothing until that is decided. */
@Component({
  selector: 'eb-import-dialog',
  imports: [Dialog, RefusalNote, ButtonDirective, FileButton, InputText, Choose, ImportColumns, ImportRows, ImportWords, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="Import a file of parts"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [style]="{ width: '940px', maxWidth: 'calc(100% - 40px)' }"
    (onHide)="clear()"
  >
    <p>
      Rows go to <b>{{ vehicle().name }}</b>, under <b>{{ subsystem()?.name }}</b> unless a row names another subsystem. Prices are taken on
      the cost basis of the study.
    </p>
    <div class="choose">
      <eb-file-button label="CSV or XLSX file" accept=".csv,.tsv,.txt,.xlsx,text/csv" (picked)="choose($event)">{{
        fileName() === '' ? 'Choose a CSV or XLSX file' : 'Choose another file'
      }}</eb-file-button>
      <span class="soft">{{ fileName() }}</span>
      <details>
        <summary>Columns</summary>
        <dl>
          @for (column of columns; track column.heading) {
            <dt>{{ column.heading }}</dt>
            <dd>{{ column.holds }}</dd>
          }
        </dl>
      </details>
    </div>
    @if (reading() && preview() === null) {
      <div class="busy">
        <p role="status">Reading the file{{ shareText() }} …</p>
        <button pButton severity="secondary" type="button" (click)="clear()">Stop</button>
      </div>
    }
    @for (issue of table()?.issues ?? []; track issue.code) {
      <eb-refusal [message]="issue.message" />
    }
    @for (note of table()?.notes ?? []; track note) {
      <p class="note" role="note">{{ note }}.</p>
    }
    @if (head(); as sheet) {
      <div class="choices">
        @if (sheets().length > 1) {
          <label
            >Sheet <eb-choose label="Sheet" [value]="'' + sheetAt()" [options]="sheets()" (valueChange)="chooseSheet(+$event)"
          /></label>
        }
        @if (table()?.encoding; as encoding) {
          <label
            >Encoding <eb-choose label="Encoding" [value]="encoding" [options]="encodings" (valueChange)="chooseEncoding($any($event))"
          /></label>
        }
        <label
          >Heading in line
          <input
            pInputText
            type="number"
            min="1"
            [max]="sheet.rows"
            [value]="sheet.headingRow + 1"
            aria-label="Heading in line"
            (change)="chooseHeading($any($event.target).valueAsNumber)"
          />
        </label>
      </div>
      <eb-import-columns [head]="sheet" [columns]="said().columns" [isOpen]="mappingOpen()" (chosen)="chooseColumn($event)" />
    }
    <eb-import-words
      [unknown]="unknown()"
      [translated]="preview()?.translated ?? []"
      [subsystems]="subsystemNames()"
      (meant)="mean($event)"
    />
    @for (issue of preview()?.issues ?? []; track issue.code) {
      <eb-refusal [message]="issue.message" />
    }
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" [issues]="why.issues" />
    }
    @if (rows().length > 0) {
      <p class="sum" role="status">{{ summary() }}</p>
      @if (notRead() !== '') {
        <p class="soft">Columns not known here and not read: {{ notRead() }}</p>
      }
      <eb-import-rows [rows]="rows()" (mended)="mend($event)" />
    }
    <ng-template #footer>
      @if (rows().length > 0) {
        <div class="foot">
          <span class="push"></span>
          <button pButton severity="secondary" type="button" (click)="visible.set(false)">
            {{ faultyCount() > 0 ? 'Cancel and correct the file' : 'Cancel' }}
          </button>
          <button pButton type="button" [disabled]="sorted().load.length === 0 || loading() || reading()" (click)="go()">
            {{ loading() ? 'Loading …' : loadText() }}
          </button>
        </div>
      }
    </ng-template>
  </p-dialog>`,
  styles: `
    p {
      margin-bottom: 8px;
    }
    .choose {
      display: flex;
      gap: 14px;
      align-items: baseline;
      margin-bottom: 10px;
    }
    details {
      margin-left: auto;
      max-width: 520px;
    }
    summary {
      cursor: pointer;
      font: 500 13px/1.6 var(--label);
      text-align: right;
    }
    dl {
      display: grid;
      grid-template-columns: 110px 1fr;
      gap: 2px 12px;
      font-size: 12.5px;
      max-height: 240px;
      overflow: auto;
    }
    dt {
      font-family: var(--figure);
    }
    dd {
      margin: 0;
    }
    .note {
      color: var(--amber);
      font-weight: 500;
    }
    .sum {
      font-weight: 600;
    }
    .foot {
      display: flex;
      flex: 1;
      gap: 8px;
      align-items: center;
    }
    .push {
      flex: 1;
    }
    .busy {
      display: flex;
      gap: 12px;
      align-items: baseline;
    }
    .choices {
      display: flex;
      flex-wrap: wrap;
      gap: 8px 18px;
      margin-bottom: 8px;
    }
    .choices label {
      display: flex;
      gap: 8px;
      align-items: center;
      font-size: 13.5px;
    }
    .choices input {
      width: 74px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ImportDialog {
  readonly visible = model(false);
  readonly record = input.required<StudyRecord>();
  readonly vehicle = input.required<Vehicle>();
  readonly subsystem = input.required<Subsystem | null>();
  readonly loadRows = output<{ readonly ops: readonly Op[]; readonly rows: number; readonly done: (refusal: Refusal | null) => void }>();

  private readonly reader = inject(ImportReader);
  private readonly memory = inject(ImportMemory);

  protected readonly columns = CSV_COLUMNS;
  protected readonly encodings: readonly Choice[] = ENCODINGS.map((value) => ({ value, word: ENCODING_WORD[value] }));
  protected readonly fileName = signal('');
  protected readonly reading = signal(false);
  protected readonly loading = signal(false);
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly table = signal<TableHead | null>(null);
  protected readonly sheetAt = signal(0);
  protected readonly head = signal<SheetHead | null>(null);
  /** what was said of the columns, of words in them, and of single cells */
  protected readonly said = signal<{ readonly columns: readonly (FoundColumn | null)[]; readonly mends: Readonly<Record<string, string>> }>(
    {
      columns: [],
      mends: {},
    },
  );
  private readonly values = signal<Values>({});
  protected readonly preview = signal<ImportPreview | null>(null);
  private bytes = new Uint8Array();
  /** reading begun later makes what is read earlier worth nothing */
  private turn = 0;

  protected readonly unknown = computed(() => unknownValues(this.rows()));
  protected readonly shareText = computed(() => {
    const share = this.reader.share();
    return share === null || share === 0 ? '' : `, ${Math.round(share * 100)} %`;
  });
  protected readonly sheets = computed<readonly Choice[]>(() =>
    (this.table()?.sheets ?? []).map(({ name, rows }, at) => ({ value: String(at), word: `${name}, ${counted(rows, 'row')}` })),
  );
  protected readonly subsystemNames = computed(() => this.record().subsystems.map((s) => s.name));
  /** open from the start where something is to be said of it */
  protected readonly mappingOpen = signal(false);

  protected readonly rows = computed(() => withSubsystems(this.preview()?.rows ?? [], this.record().subsystems));
  protected readonly sorted = computed(() => sortRows(this.rows()));
  protected readonly faultyCount = computed(() => this.sorted().faulty.length);
  protected readonly notRead = computed(() => this.preview()?.notRead.join(', ') ?? '');
  protected readonly summary = computed(() => {
    const { load, faulty, insideFaulty } = this.sorted();
    const dragged =
      insideFaulty.length > 0
        ? ` ${fixed(insideFaulty.length, 0)} more ${insideFaulty.length === 1 ? 'is' : 'are'} inside one of those and stay out with it.`
        : '';
    return faulty.length === 0
      ? load.length === 1
        ? 'The one row can be loaded.'
        : `All ${fixed(load.length, 0)} rows can be loaded.`
      : `${counted(load.length, 'row')} can be loaded; ${fixed(faulty.length, 0)} ${faulty.length === 1 ? 'has' : 'have'} faults.${dragged} Nothing is loaded until you decide.`;
  });
  protected readonly loadText = computed(() => {
    const { load, faulty, insideFaulty } = this.sorted();
    const out = faulty.length + insideFaulty.length;
    return `Load ${counted(load.length, 'row')}${out === 0 ? '' : `, leave out ${fixed(out, 0)}`}`;
  });

  protected choose([file]: readonly File[]): void {
    if (!file) return;
    this.clear();
    this.fileName.set(file.name);
    this.values.set(this.memory.values());
    this.reading.set(true);
    void file
      .arrayBuffer()
      .then((buffer) => {
        this.bytes = new Uint8Array(buffer);
        return this.open(null);
      })
      .catch(() => this.fail(file.name));
  }

  private fail(name: string): void {
    this.reading.set(false);
    this.refusal.set({ code: 'unreadable', message: `${name} could not be read; choose it again, or save it as CSV`, issues: [] });
  }

  /** Runs a reading; where it fails, that is said. */
  private start(reading: Promise<void>): void {
    const { turn } = this;
    reading.catch(() => {
      if (turn === this.turn) this.fail(this.fileName());
    });
  }

  /** Opens the file, or opens it anew in another encoding. */
  private async open(encoding: Encoding | null): Promise<void> {
    const turn = (this.turn += 1);
    this.reading.set(true);
    const table = await this.reader.open(this.bytes, encoding);
    if (turn !== this.turn) return;
    this.table.set(table);
    this.reading.set(false);
    const best = table.sheets.reduce((at, head, i) => (known(head) > known(table.sheets[at] ?? head) ? i : at), 0);
    if (table.sheets.length > 0) await this.take(best);
  }

  /** A sheet is taken as it was said of a file of that shape before, or as it is most likely meant. */
  private async take(at: number, head = this.table()?.sheets[at]): Promise<void> {
    if (!head) return;
    this.sheetAt.set(at);
    this.head.set(head);
    const columns = this.memory.columnsOf(head.headings) ?? head.columns;
    this.said.set({ columns, mends: {} });
    this.mappingOpen.set(!columns.some((column) => column?.heading === 'name') || columns.includes(null));
    await this.readAgain();
  }

  protected chooseSheet(at: number): void {
    this.start(this.take(at));
  }

  protected chooseEncoding(encoding: Encoding): void {
    this.start(this.open(encoding));
  }

  protected chooseHeading(line: number): void {
    const rows = this.head()?.rows ?? 0;
    if (!Number.isInteger(line) || line < 1 || line > rows) {
      this.refusal.set({ code: 'heading', message: `The heading is in a line from 1 to ${rows}`, issues: [] });
      return;
    }
    this.refusal.set(null);
    const at = this.sheetAt();
    this.start(this.reader.head(at, line - 1).then((head) => this.take(at, head)));
  }

  protected chooseColumn({ at, key }: { readonly at: number; readonly key: string }): void {
    this.said.update((said) => ({ ...said, columns: said.columns.map((column, i) => (i === at ? columnOfKey(key) : column)) }));
    this.start(this.readAgain());
  }

  /** @param meaning empty: the word is taken as it stands */
  protected mean({ word, meaning }: { readonly word: UnknownValue; readonly meaning: string }): void {
    const key = word.value.trim().toLowerCase();
    const { [key]: _before, ...others } = this.values()[word.heading] ?? {};
    this.values.update((values) => ({ ...values, [word.heading]: meaning === '' ? others : { ...others, [key]: meaning } }));
    this.start(this.readAgain());
  }

  protected mend({ line, heading, text }: { readonly line: number; readonly heading: CsvHeading; readonly text: string }): void {
    this.said.update((said) => ({ ...said, mends: { ...said.mends, [mendKey(line, heading)]: text } }));
    this.start(this.readAgain());
  }

  private async readAgain(): Promise<void> {
    const [turn, head] = [(this.turn += 1), this.head()];
    if (!head) return;
    this.reading.set(true);
    const { columns, mends } = this.said();
    const options = { headingRow: head.headingRow, columns, values: this.values(), mends };
    const read = await this.reader.read(this.sheetAt(), options);
    if (turn !== this.turn) return;
    this.reading.set(false);
    this.preview.set(read);
  }

  protected go(): void {
    const subsystem = this.subsystem();
    if (!subsystem) return;
    const { load } = this.sorted();
    this.memory.remember(this.head()?.headings ?? [], this.said().columns, this.values());
    const sequence = nextSequence(this.record().parts);
    const place = {
      vehicleId: this.vehicle().id,
      subsystemId: subsystem.id,
      subsystems: this.record().subsystems,
      basis: basisOf(this.record().study),
      sequence,
    };
    const ops = importOps(load, place, () => crypto.randomUUID());
    this.loading.set(true);
    this.loadRows.emit({ ops, rows: load.length, done: (refusal) => this.loaded(refusal) });
  }

  private loaded(refusal: Refusal | null): void {
    this.loading.set(false);
    this.refusal.set(refusal);
    if (refusal === null) this.visible.set(false);
  }

  protected clear(): void {
    this.turn += 1;
    this.reader.stop();
    this.bytes = new Uint8Array();
    this.fileName.set('');
    this.reading.set(false);
    for (const told of [this.table, this.head, this.preview, this.refusal]) told.set(null);
  }
}
