import {
  ChangeDetectionStrategy,
  Component,
  Injector,
  afterNextRender,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  viewChildren,
  type ElementRef,
} from '@angular/core';
import { sortRows, type CsvHeading, type ImportRow } from '@each-bolt/core/bench';
import { InputText } from 'primeng/inputtext';
import { TableModule } from 'primeng/table';
import { Tick } from '../shared/tick';

const UNDERSTOOD: readonly CsvHeading[] = ['material', 'made_by', 'mass', 'thickness', 'envelope', 'run_length', 'fasteners', 'joints'];

/** How a row reads in the preview. */
interface PreviewRow {
  readonly line: number;
  readonly name: string;
  readonly state: 'load' | 'fault' | 'inside a faulty row';
  readonly text: string;
  readonly faults: readonly (ImportRow['faults'][number] & { readonly column: string })[];
}

const columnWord = (heading: CsvHeading): string => heading.replaceAll('_', ' ');

const previewRow = (row: ImportRow, load: ReadonlySet<ImportRow>): PreviewRow => {
  const quantity = row.fields.quantity ?? 1;
  return {
    line: row.line,
    name: `${quantity > 1 ? `${quantity} × ` : ''}${row.fields.name ?? ''}`,
    state: row.faults.length > 0 ? 'fault' : load.has(row) ? 'load' : 'inside a faulty row',
    text: UNDERSTOOD.flatMap((heading) => row.understood[heading] ?? []).join(' · '),
    faults: row.faults.map((fault) => ({ ...fault, column: columnWord(fault.heading) })),
  };
};

/** More rows than are seen at once are shown by those with faults first. */
const MANY = 12;

/** The rows of a file as they were understood; a cell with a fault is put right where it stands. */
@Component({
  selector: 'eb-import-rows',
  imports: [InputText, TableModule, Tick],
  template: `@if (faulty() > 0) {
      <eb-tick [checked]="onlyFaults()" (checkedChange)="only.set(!onlyFaults())">only rows with faults</eb-tick>
    }
    <p-table
      [value]="shown()"
      [scrollable]="true"
      scrollHeight="300px"
      [virtualScroll]="shown().length > 200"
      [virtualScrollItemSize]="44"
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
            @for (fault of row.faults; track $index) {
              <span class="fault">
                <span>{{ fault.column }}: {{ fault.message }}</span>
                @if (!fault.isOfRow) {
                  <input
                    pInputText
                    #cell
                    type="text"
                    [attr.aria-label]="fault.column + ' in line ' + row.line"
                    [value]="fault.cell"
                    (change)="mend(cell, row.line, fault.heading)"
                  />
                }
              </span>
            } @empty {
              <span class="soft">{{ row.text }}</span>
            }
          </td>
        </tr>
      </ng-template>
    </p-table>`,
  styles: `
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
      display: flex;
      gap: 10px;
      align-items: center;
      justify-content: space-between;
    }
    .fault input {
      width: 150px;
      flex: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ImportRows {
  readonly rows = input.required<readonly ImportRow[]>();
  readonly mended = output<{ readonly line: number; readonly heading: CsvHeading; readonly text: string }>();

  private readonly injector = inject(Injector);
  private readonly cells = viewChildren<ElementRef<HTMLInputElement>>('cell');
  /** what was chosen; until then many rows begin with those that are at fault */
  protected readonly only = signal<boolean | null>(null);
  private readonly sorted = computed(() => sortRows(this.rows()));
  protected readonly faulty = computed(() => this.sorted().faulty.length);
  protected readonly onlyFaults = computed(() => this.faulty() > 0 && (this.only() ?? this.rows().length > MANY));
  protected readonly shown = computed(() => {
    const load = new Set(this.sorted().load);
    const all = this.rows().map((row) => previewRow(row, load));
    return this.onlyFaults() ? all.filter((row) => row.state !== 'load') : all;
  });

  /** the cell that was put right last, and its place among those at fault */
  private last: { readonly cell: HTMLInputElement; readonly at: number } | null = null;

  constructor() {
    effect(() => {
      this.rows();
      afterNextRender({ read: () => this.focusNext() }, { injector: this.injector });
    });
  }

  protected mend(cell: HTMLInputElement, line: number, heading: CsvHeading): void {
    const at = this.cells().findIndex(({ nativeElement }) => nativeElement === cell);
    this.last = document.activeElement === cell ? { cell, at } : null;
    this.mended.emit({ line, heading, text: cell.value });
  }

  /** Where the cell that was put right has gone with the focus in it, the one that stands in its place has it. */
  private focusNext(): void {
    const { last } = this;
    if (last === null || last.cell.isConnected) return;
    this.last = null;
    if (document.activeElement === document.body) this.cells()[Math.min(last.at, this.cells().length - 1)]?.nativeElement.focus();
  }
}
