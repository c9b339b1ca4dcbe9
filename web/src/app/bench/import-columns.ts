import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { COLUMN_CHOICES, columnKey, type FoundColumn, type SheetHead } from '@each-bolt/core/bench';
import { Choose, type Choice } from '../shared/choose';
import { DataTable, TableHead, TableRow } from '../shared/data-table';

/** What each column of a file is read as, with samples of what it holds. */
@Component({
  selector: 'eb-import-columns',
  imports: [Choose, DataTable, TableHead, TableRow],
  template: `<details [open]="isOpen()">
    <summary>What the columns hold: {{ summary() }}</summary>
    <div class="scroll">
      <eb-table label="Columns of the file">
        <ng-template ebHead>
          <tr>
            <th scope="col">Heading</th>
            <th scope="col">Holds, for instance</th>
            <th scope="col">Is read as</th>
          </tr>
        </ng-template>
        <ng-template [ebRow]="rows()" track="at" let-row>
          <tr>
            <th scope="row">{{ row.name }}</th>
            <td class="soft">{{ row.samples }}</td>
            <td>
              <eb-choose
                [label]="'Read as: ' + row.name"
                [value]="row.key"
                [options]="choices"
                (valueChange)="chosen.emit({ at: row.at, key: $event })"
              />
            </td>
          </tr>
        </ng-template>
      </eb-table>
    </div>
  </details>`,
  styles: `
    details {
      margin-bottom: 10px;
    }
    summary {
      cursor: pointer;
      font: 500 13px/1.6 var(--label);
    }
    .scroll {
      max-height: 240px;
      overflow: auto;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ImportColumns {
  readonly head = input.required<SheetHead>();
  readonly columns = input.required<readonly (FoundColumn | null)[]>();
  /** open from the start where something is to be said of it */
  readonly isOpen = input(false);
  readonly chosen = output<{ readonly at: number; readonly key: string }>();

  protected readonly choices: readonly Choice[] = [
    { value: '', word: 'not read' },
    ...COLUMN_CHOICES.map(({ key, word }) => ({ value: key, word })),
  ];
  protected readonly rows = computed(() =>
    this.head().headings.map((heading, at) => ({
      at,
      name: heading || `column ${at + 1}`,
      samples: this.head().samples[at]?.join(' · ') ?? '',
      key: columnKey(this.columns()[at] ?? null),
    })),
  );
  protected readonly summary = computed(() => {
    const rows = this.rows();
    return `${rows.filter(({ key }) => key !== '').length} of ${rows.length} are read`;
  });
}
