import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { evidenceFor, fieldInput, isKnowing, type Entity, type FieldName, type RowOf } from '@each-bolt/core/record';
import {
  ABSENT,
  asShown,
  expandedU,
  fixed,
  plusMinus,
  printField,
  tableCsv,
  type EvidenceMark as Mark,
  type FieldValue,
} from '@each-bolt/core/shared';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Popover } from 'primeng/popover';
import { TableModule } from 'primeng/table';
import { sortedBy } from './data-table';
import { Download } from './download';
import { EvidenceMark } from './evidence-mark';
import { Tick } from './tick';

/** A column of a table: what its heading says, what stands in a cell, how the figure is known. */
export interface TableColumn<T> {
  readonly id: string;
  readonly head: string;
  /** stands behind the heading and in the file */
  readonly unit?: string;
  /** the value by which rows are sorted and that the file has, in the unit of the heading */
  readonly of: (row: T) => string | number | null;
  /** decimals of a figure; whole numbers where none are said */
  readonly decimals?: number;
  /** what is printed in place of the value */
  readonly text?: (row: T) => string;
  /** standard uncertainty of the figure, in the unit of the heading */
  readonly u?: (row: T) => number | null;
  readonly mark?: (row: T) => Mark | null;
  /** a second line: what is missing, of what a figure is */
  readonly note?: (row: T) => string;
  /** a figure stands at the right edge */
  readonly isFigure?: boolean;
  /** not shown until it is chosen */
  readonly isAside?: boolean;
}

/**
 * A column of a declared field: heading, unit, print, sort and evidence from its declaration.
 *
 * @param rowOf the record of a line of the table
 */
export const fieldColumn = <T, E extends Entity>(
  kind: E,
  field: keyof RowOf<E> & string,
  rowOf: (row: T) => RowOf<E>,
  more: Partial<TableColumn<T>> = {},
): TableColumn<T> => {
  const name = `${kind}.${field}` as FieldName;
  const { label, shape, choices } = fieldInput(name);
  const valueOf = (row: T): FieldValue => rowOf(row)[field] as FieldValue;
  const word = (value: FieldValue): string => choices.find((c) => c.value === value)?.word ?? printField(shape, value);
  return {
    id: name,
    head: label,
    isFigure: shape.kind === 'number' || shape.kind === 'whole',
    of: (row) => {
      const value = valueOf(row);
      if (typeof value !== 'number') return word(value);
      return shape.kind === 'number' ? value / asShown(shape).per : value;
    },
    text: (row) => word(valueOf(row)) || ABSENT,
    ...(isKnowing(kind) ? { mark: (row: T) => evidenceFor(kind, rowOf(row) as never, field)?.mark ?? null } : {}),
    ...(shape.kind === 'number' ? { unit: asShown(shape).unit } : {}),
    ...more,
  };
};

/** More rows than are seen at once can be looked through by typing. */
const SEEN_AT_ONCE = 12;
/** From here on only the rows in sight are drawn. */
const MANY = 200;

/** A table by its columns: sorted by a heading, looked through, its columns chosen, handed out as a file. */
@Component({
  selector: 'eb-list-table',
  imports: [ButtonDirective, EvidenceMark, InputText, Popover, TableModule, Tick],
  template: `@if (hasTools()) {
      <div class="tools">
        @if (rows().length > seen) {
          <input
            pInputText
            type="search"
            [value]="words()"
            (input)="words.set($any($event.target).value)"
            [attr.aria-label]="'Find in ' + label()"
            placeholder="find in the table"
          />
          <span class="soft" role="status">{{ found() }}</span>
        }
        <span class="push"></span>
        @if (columns().length > 3) {
          <button pButton severity="secondary" type="button" aria-haspopup="dialog" (click)="chooser.toggle($event)">Columns</button>
        }
        <button pButton severity="secondary" type="button" [disabled]="shown().length === 0" (click)="save()">
          <i class="pi pi-download" aria-hidden="true"></i> CSV
        </button>
      </div>
    }
    <p-popover #chooser [ariaLabel]="'Columns of ' + label()">
      <div class="columns">
        @for (column of columns().slice(1); track column.id) {
          <eb-tick [checked]="isShown(column)" (checkedChange)="show(column, $event)">{{ headOf(column) }}</eb-tick>
        }
      </div>
    </p-popover>
    @if (rows().length === 0) {
      <p class="soft empty">{{ empty() }}</p>
    } @else {
      <p-table
        [value]="shown()"
        [rowTrackBy]="trackBy"
        [scrollable]="shown().length > many"
        [scrollHeight]="shown().length > many ? height() : undefined!"
        [virtualScroll]="shown().length > many"
        [virtualScrollItemSize]="rowHeight()"
        [pt]="{ table: { 'aria-label': label() }, tableContainer: shown().length > many ? {} : { style: 'overflow-x: auto' } }"
      >
        <ng-template #header>
          <tr>
            @for (column of visible(); track column.id) {
              <th
                scope="col"
                tabindex="0"
                class="sorts"
                [class.right]="column.isFigure"
                [attr.aria-sort]="wayOf(column)"
                (click)="sortBy(column)"
                (keydown.enter)="sortBy(column)"
                (keydown.space)="sortBy(column); $event.preventDefault()"
              >
                {{ headOf(column) }}
              </th>
            }
          </tr>
        </ng-template>
        <ng-template #body let-row>
          <tr [class.chosen]="chosen() !== '' && keyOf(row) === chosen()" (click)="rowPicked(row)">
            @for (column of visible(); track column.id; let first = $first) {
              <td [class.right]="column.isFigure" [class.figure]="column.isFigure">
                @if (first && isPicking()) {
                  <button
                    pButton
                    [text]="true"
                    severity="secondary"
                    type="button"
                    class="link-button"
                    (click)="picked.emit(row); $event.stopPropagation()"
                  >
                    {{ textOf(column, row) }}
                  </button>
                } @else {
                  {{ textOf(column, row) }}
                }
                @if (column.mark; as markOf) {
                  <eb-mark class="gap" [mark]="markOf(row)" />
                }
                @if (below(column, row); as note) {
                  <small [title]="note">{{ note }}</small>
                }
              </td>
            }
          </tr>
        </ng-template>
      </p-table>
    }`,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    .tools {
      display: flex;
      align-items: center;
      gap: 10px;
      margin-bottom: 6px;
    }
    .tools input {
      width: 220px;
    }
    .push {
      margin-left: auto;
    }
    .columns {
      display: grid;
      gap: 6px;
      max-height: 60vh;
      overflow-y: auto;
    }
    .gap {
      margin-left: 6px;
    }
    small {
      display: block;
      max-width: 34ch;
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
      color: var(--soft);
      font-size: 12px;
    }
    .right {
      text-align: right;
    }
    td.right {
      white-space: nowrap;
    }
    th,
    td {
      padding-inline: 6px;
    }
    th:first-child,
    td:first-child {
      padding-left: 0;
    }
    .right small {
      margin-left: auto;
    }
    .chosen td {
      background: var(--dye-tint);
    }
    .empty {
      padding: 12px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ListTable<T> {
  private readonly download = inject(Download);
  readonly label = input.required<string>();
  readonly rows = input.required<readonly T[]>();
  readonly columns = input.required<readonly TableColumn<T>[]>();
  /** what a row is kept by while others change */
  readonly key = input<(row: T) => string>((row) => (row as { readonly id: string }).id);
  /** key of the row that is chosen */
  readonly chosen = input('');
  /** rows are opened by a click */
  readonly isPicking = input(true);
  readonly hasTools = input(true);
  readonly empty = input('Nothing yet.');
  /** the file the table is saved as, without its ending */
  readonly file = input('');
  readonly height = input('60vh');
  readonly rowHeight = input(34);
  /** the column rows are sorted by at first, largest first */
  readonly sortedBy = input('');
  readonly picked = output<T>();

  protected readonly seen = SEEN_AT_ONCE;
  protected readonly many = MANY;
  protected readonly words = signal('');
  private readonly turned = signal<{ readonly id: string; readonly way: 1 | -1 } | null>(null);
  private readonly chosenColumns = signal<ReadonlyMap<string, boolean>>(new Map());

  protected readonly visible = computed(() => this.columns().filter((column, at) => at === 0 || this.isShown(column)));
  private readonly sorted = computed(() => {
    const turned = this.turned();
    return turned ?? (this.sortedBy() === '' ? null : { id: this.sortedBy(), way: -1 as const });
  });
  protected readonly shown = computed(() => {
    const looked = this.words().trim().toLowerCase();
    const [rows, columns, sorted] = [this.rows(), this.visible(), this.sorted()];
    const found = looked === '' ? [...rows] : rows.filter((row) => columns.some((c) => this.textOf(c, row).toLowerCase().includes(looked)));
    const by = this.columns().find(({ id }) => id === sorted?.id);
    if (!by || !sorted) return found;
    return sortedBy(found, by.of, sorted.way);
  });
  protected readonly found = computed(() =>
    this.words() === '' ? '' : `${fixed(this.shown().length, 0)} of ${fixed(this.rows().length, 0)}`,
  );
  protected readonly trackBy = (_: number, row: T): string => this.keyOf(row);

  protected keyOf(row: T): string {
    return this.key()(row);
  }

  protected headOf({ head, unit }: TableColumn<T>): string {
    return unit === undefined ? head : `${head}, ${unit}`;
  }

  protected textOf(column: TableColumn<T>, row: T): string {
    if (column.text) return column.text(row);
    const value = column.of(row);
    return value === null ? ABSENT : typeof value === 'number' ? fixed(value, column.decimals ?? 0) : value;
  }

  protected below(column: TableColumn<T>, row: T): string {
    const u = column.u?.(row) ?? null;
    return [u === null ? '' : plusMinus(u, (column.decimals ?? 0) + 2), column.note?.(row) ?? ''].filter((text) => text !== '').join(', ');
  }

  protected isShown(column: TableColumn<T>): boolean {
    return this.chosenColumns().get(column.id) ?? column.isAside !== true;
  }

  protected show(column: TableColumn<T>, isShown: boolean): void {
    this.chosenColumns.update((chosen) => new Map(chosen).set(column.id, isShown));
  }

  protected wayOf({ id }: TableColumn<T>): 'ascending' | 'descending' | 'none' {
    const sorted = this.sorted();
    return sorted?.id !== id ? 'none' : sorted.way === 1 ? 'ascending' : 'descending';
  }

  /** Figures the largest first, words from A; then the other way, then as the rows came. */
  protected sortBy({ id, isFigure = false }: TableColumn<T>): void {
    const first = isFigure ? -1 : 1;
    const now = this.sorted();
    this.turned.set(now?.id !== id ? { id, way: first } : now.way === first ? { id, way: -first as 1 | -1 } : { id: '', way: 1 });
  }

  protected rowPicked(row: T): void {
    if (this.isPicking()) this.picked.emit(row);
  }

  /** What is shown, as it is sorted and looked through, with uncertainty and marks in columns of their own. */
  protected save(): void {
    const columns = this.visible();
    const heads = columns.flatMap((c) => [
      this.headOf(c),
      ...(c.u ? [`${c.head} ± (k = 2)${c.unit === undefined ? '' : `, ${c.unit}`}`] : []),
      ...(c.mark ? [`${c.head}, evidence`] : []),
    ]);
    const rows = this.shown().map((row) =>
      columns.flatMap((c) => {
        const u = c.u?.(row) ?? null;
        return [
          c.of(row),
          ...(c.u ? [u === null ? null : Number(expandedU(u).toPrecision(3))] : []),
          ...(c.mark ? [c.mark(row) ?? ''] : []),
        ];
      }),
    );
    this.download.text(`${this.file() || this.label()}.csv`, 'text/csv', tableCsv(heads, rows));
  }
}
