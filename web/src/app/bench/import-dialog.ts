import { ChangeDetectionStrategy, Component, computed, input, model, output, signal } from '@angular/core';
import { nextSequence, type Op, type StudyRecord, type Subsystem, type Vehicle } from '@each-bolt/core/record';
import {
  CSV_COLUMNS,
  importOps,
  readParts,
  sortRows,
  withSubsystems,
  type CsvHeading,
  type ImportPreview,
  type ImportRow,
} from '@each-bolt/core/bench';
import { basisOf } from '@each-bolt/core/cost';
import { Dialog } from 'primeng/dialog';
import { TableModule } from 'primeng/table';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { FileButton } from '../shared/file-button';
import { Tick } from '../shared/tick';
import { RefusalNote } from '../shared/refusal-note';

const UNDERSTOOD: readonly CsvHeading[] = ['material', 'made_by', 'mass', 'thickness', 'envelope', 'run_length', 'fasteners', 'joints'];

/** How a row reads in the preview. */
interface PreviewRow {
  readonly line: number;
  readonly name: string;
  readonly state: 'load' | 'fault' | 'inside a faulty row';
  readonly text: string;
  readonly faults: readonly string[];
}

const previewRow = (row: ImportRow, load: ReadonlySet<ImportRow>): PreviewRow => {
  const quantity = row.fields.quantity ?? 1;
  return {
    line: row.line,
    name: `${quantity > 1 ? `${quantity} × ` : ''}${row.fields.name ?? ''}`,
    state: row.faults.length > 0 ? 'fault' : load.has(row) ? 'load' : 'inside a faulty row',
    text: UNDERSTOOD.flatMap((heading) => row.understood[heading] ?? []).join(' · '),
    faults: row.faults.map((f) => `${f.heading}: ${f.message}`),
  };
};

/** Reads a file of parts, shows row by row what would be loaded, and loads nothing until that is decided. */
@Component({
  selector: 'eb-import-dialog',
  imports: [Dialog, RefusalNote, TableModule, ButtonDirective, Tick, FileButton],
  template: `<p-dialog
    closeAriaLabel="Close"
    header="Import a file of parts"
    [(visible)]="visible"
    [modal]="true"
    [style]="{ width: '940px', maxWidth: 'calc(100% - 40px)' }"
    (onHide)="clear()"
  >
    <p>
      Rows go to <b>{{ vehicle().name }}</b>, under <b>{{ subsystem()?.name }}</b> unless a row names another subsystem. Prices are taken on
      the cost basis of the study.
    </p>
    <div class="choose">
      <eb-file-button label="CSV file" accept=".csv,.tsv,.txt,text/csv" (picked)="choose($event)">{{
        fileName() === '' ? 'Choose a CSV file' : 'Choose another file'
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
    @if (reading()) {
      <p role="status">Reading the file …</p>
    }
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
      <p-table
        [value]="shownRows()"
        [scrollable]="true"
        scrollHeight="340px"
        [virtualScroll]="shownRows().length > 200"
        [virtualScrollItemSize]="34"
        size="small"
        dataKey="line"
      >
        <ng-template #header>
          <tr>
            <th scope="col" class="n">Line</th>
            <th scope="col" class="state">Row</th>
            <th scope="col" class="name">Part</th>
            <th scope="col">Understood, or what is wrong</th>
          </tr>
        </ng-template>
        <ng-template #body let-row>
          <tr [class.faulty]="row.state !== 'load'">
            <td class="figure n">{{ row.line }}</td>
            <td class="state">{{ row.state }}</td>
            <td class="name">{{ row.name }}</td>
            <td>
              @for (fault of row.faults; track fault) {
                <span class="fault">{{ fault }}</span>
              } @empty {
                <span class="soft">{{ row.text }}</span>
              }
            </td>
          </tr>
        </ng-template>
      </p-table>
      <div class="foot">
        @if (faultyCount() > 0) {
          <eb-tick [checked]="onlyFaults()" (checkedChange)="onlyFaults.set(!onlyFaults())">only rows with faults</eb-tick>
        }
        <span class="push"></span>
        <button pButton severity="secondary" type="button" (click)="visible.set(false)">
          {{ faultyCount() > 0 ? 'Cancel and correct the file' : 'Cancel' }}
        </button>
        <button pButton type="button" [disabled]="sorted().load.length === 0 || loading()" (click)="go()">
          {{ loading() ? 'Loading …' : loadText() }}
        </button>
      </div>
    }
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
    .sum {
      font-weight: 600;
    }
    .n {
      width: 56px;
    }
    .state {
      width: 130px;
    }
    .name {
      width: 230px;
    }
    .faulty td {
      background: var(--amber-tint);
    }
    .faulty .state {
      font-weight: 600;
      color: var(--amber);
    }
    .fault {
      display: block;
    }
    .foot {
      display: flex;
      gap: 8px;
      align-items: center;
      margin-top: 12px;
    }
    .push {
      flex: 1;
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

  protected readonly columns = CSV_COLUMNS;
  protected readonly fileName = signal('');
  protected readonly reading = signal(false);
  protected readonly loading = signal(false);
  protected readonly onlyFaults = signal(false);
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly preview = signal<ImportPreview | null>(null);

  protected readonly rows = computed(() => withSubsystems(this.preview()?.rows ?? [], this.record().subsystems));
  protected readonly sorted = computed(() => sortRows(this.rows()));
  protected readonly faultyCount = computed(() => this.sorted().faulty.length);
  protected readonly notRead = computed(() => this.preview()?.notRead.join(', ') ?? '');
  protected readonly shownRows = computed(() => {
    const load = new Set(this.sorted().load);
    const all = this.rows().map((row) => previewRow(row, load));
    return this.onlyFaults() ? all.filter((row) => row.state !== 'load') : all;
  });
  protected readonly summary = computed(() => {
    const { load, faulty, insideFaulty } = this.sorted();
    const dragged = insideFaulty.length > 0 ? ` ${insideFaulty.length} more are inside one of those and stay out with it.` : '';
    return faulty.length === 0
      ? `All ${load.length} rows can be loaded.`
      : `${load.length} rows can be loaded; ${faulty.length} have faults.${dragged} Nothing is loaded until you decide.`;
  });
  protected readonly loadText = computed(() => {
    const { load, faulty, insideFaulty } = this.sorted();
    const out = faulty.length + insideFaulty.length;
    return out === 0 ? `Load ${load.length} rows` : `Load ${load.length} rows, leave out ${out}`;
  });

  protected choose([file]: readonly File[]): void {
    if (!file) return;
    this.clear();
    this.fileName.set(file.name);
    this.reading.set(true);
    void file
      .text()
      .then((text) => {
        const preview = readParts(text);
        this.preview.set(preview);
        this.onlyFaults.set(preview.rows.some((row) => row.faults.length > 0) && preview.rows.length > 12);
      })
      .catch(() =>
        this.refusal.set({ code: 'unreadable', message: `${file.name} could not be read from this device; choose it again`, issues: [] }),
      )
      .finally(() => this.reading.set(false));
  }

  protected go(): void {
    const subsystem = this.subsystem();
    if (!subsystem) return;
    const { load } = this.sorted();
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
    this.fileName.set('');
    this.preview.set(null);
    this.refusal.set(null);
  }
}
