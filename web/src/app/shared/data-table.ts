import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, Directive, TemplateRef, computed, contentChild, inject, input, signal } from '@angular/core';
import { InputText } from 'primeng/inputtext';
import { TableModule } from 'primeng/table';

/** The headings of a table: one row or more of `th`. */
@Directive({ selector: 'ng-template[ebHead]' })
export class TableHead {
  readonly template = inject<TemplateRef<unknown>>(TemplateRef);
}

interface RowContext<T> {
  readonly $implicit: T;
  readonly index: number;
}

/** What is shown of one row: `<ng-template [ebRow]="rigs()" track="id" let-rig>`. */
@Directive({ selector: 'ng-template[ebRow]' })
export class TableRow<T> {
  readonly rows = input.required<readonly T[]>({ alias: 'ebRow' });
  /** where the key of a row stands in it, such as `id` or `question.id`; its place where there is none */
  readonly track = input('');
  readonly template = inject<TemplateRef<RowContext<T>>>(TemplateRef);

  static ngTemplateContextGuard<T>(_row: TableRow<T>, _context: unknown): _context is RowContext<T> {
    return true;
  }
}

/** What stands below the rows: sums, or what to do where there are none. */
@Directive({ selector: 'ng-template[ebFoot]' })
export class TableFoot {
  readonly template = inject<TemplateRef<unknown>>(TemplateRef);
}

/** What a column is sorted by. */
type SortKey<T> = (row: T) => string | number | null;

/** Rows by a key, up or down; what is not known comes last, either way. */
export const sortedBy = <T>(rows: readonly T[], key: SortKey<T>, way: 1 | -1): T[] =>
  [...rows].sort((a, b) => {
    const [x, y] = [key(a), key(b)];
    if (x === null || y === null) return Number(x === null) - Number(y === null);
    return way * (typeof x === 'number' && typeof y === 'number' ? x - y : String(x).localeCompare(String(y), 'en', { numeric: true }));
  });

/** More rows than are seen at once can be looked through by typing. */
const SEEN_AT_ONCE = 12;

/** A table of ours: rows with their headings, sorted by a column on a click, looked through by typing where they are many. */
@Component({
  selector: 'eb-table',
  imports: [NgTemplateOutlet, TableModule, InputText],
  template: `@if (hasFilter()) {
      <input
        pInputText
        type="search"
        [value]="words()"
        (input)="words.set($any($event.target).value)"
        [attr.aria-label]="'Find in ' + (label() || 'the table')"
        placeholder="find in the table"
      />
    }
    <p-table
      [value]="shown()"
      [rowTrackBy]="trackBy()"
      [pt]="{ table: { 'aria-label': label() || null }, tableContainer: { style: 'overflow: visible' } }"
    >
      @if (head(); as head) {
        <ng-template #header><ng-container [ngTemplateOutlet]="head.template" /></ng-template>
      }
      <ng-template #body let-row let-index="rowIndex">
        <ng-container [ngTemplateOutlet]="lines().template" [ngTemplateOutletContext]="{ $implicit: row, index }" />
      </ng-template>
      @if (foot(); as foot) {
        <ng-template #footer><ng-container [ngTemplateOutlet]="foot.template" /></ng-template>
      }
    </p-table>`,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
    input {
      width: 220px;
      margin-bottom: 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DataTable<T> {
  readonly label = input('');
  /** the words of a row that are looked through */
  readonly find = input<((row: T) => string) | null>(null);

  protected readonly head = contentChild(TableHead);
  protected readonly lines = contentChild.required<TableRow<T>>(TableRow);
  protected readonly foot = contentChild(TableFoot);
  protected readonly words = signal('');
  readonly sorted = signal<{ readonly key: SortKey<T>; readonly way: 1 | -1 } | null>(null);

  protected readonly hasFilter = computed(() => this.find() !== null && this.lines().rows().length > SEEN_AT_ONCE);
  protected readonly shown = computed(() => {
    const [rows, find, sorted] = [this.lines().rows(), this.find(), this.sorted()];
    const looked = this.words().trim().toLowerCase();
    const found = find && looked !== '' ? rows.filter((row) => find(row).toLowerCase().includes(looked)) : [...rows];
    if (sorted === null) return found;
    return sortedBy(found, sorted.key, sorted.way);
  });
  protected readonly trackBy = computed(() => {
    const path = this.lines().track().split('.');
    return (index: number, row: unknown): unknown =>
      path[0] === '' ? index : path.reduce<unknown>((at, name) => (at as Record<string, unknown> | undefined)?.[name], row);
  });

  sortBy(key: SortKey<T>): void {
    this.sorted.update((now) => (now?.key !== key ? { key, way: 1 } : now.way === 1 ? { key, way: -1 } : null));
  }
}

/** A heading that sorts: up, down, and back to the order of the record. */
@Directive({
  selector: 'th[ebSort]',
  host: {
    tabindex: '0',
    class: 'sorts',
    '[attr.aria-sort]': 'way()',
    '(click)': 'sort()',
    '(keydown.enter)': 'sort()',
    '(keydown.space)': 'sort(); $event.preventDefault()',
  },
})
export class SortHeading<T> {
  readonly key = input.required<SortKey<T>>({ alias: 'ebSort' });
  private readonly table = inject<DataTable<T>>(DataTable);

  protected readonly way = computed(() => {
    const sorted = this.table.sorted();
    return sorted?.key !== this.key() ? 'none' : sorted.way === 1 ? 'ascending' : 'descending';
  });

  protected sort(): void {
    this.table.sortBy(this.key());
  }
}
