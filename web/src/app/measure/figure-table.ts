import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import type { FigureRow, FormulaLine } from '@each-bolt/core/measure';
import { DataTable, TableHead, TableRow } from '../shared/data-table';

/** What a state comes to, beside another where one is chosen; and the formulas with their numbers. */
@Component({
  selector: 'eb-figure-table',
  imports: [DataTable, TableHead, TableRow],
  template: `<eb-table [label]="label()">
      <ng-template ebHead>
        <tr>
          <th scope="col">Figure</th>
          @if (besideName() !== null) {
            <th scope="col" class="right">{{ besideName() }}</th>
          }
          <th scope="col" class="right">{{ name() }}</th>
          @if (besideName() !== null) {
            <th scope="col" class="right">Change</th>
          }
        </tr>
      </ng-template>
      <ng-template [ebRow]="rows()" track="word" let-r>
        <tr>
          <th scope="row">{{ r.word }}</th>
          @if (besideName() !== null) {
            <td class="right figure">{{ r.beside }}</td>
          }
          <td class="right figure">{{ r.now }}</td>
          @if (besideName() !== null) {
            <td class="right figure">{{ r.change }}</td>
          }
        </tr>
      </ng-template>
    </eb-table>
    @if (lines().length > 0) {
      <h2>Formulas with their numbers</h2>
      <dl>
        @for (l of lines(); track l.word) {
          <dt>
            {{ l.word }} <b class="figure">{{ l.text }}</b>
          </dt>
          <dd class="figure soft">{{ l.formula }}</dd>
        }
      </dl>
    }`,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      min-width: 0;
    }
    h2 {
      margin: 0 0 -10px;
      font-size: 14px;
    }
    dl {
      margin: 0;
      font-size: 13px;
    }
    dt {
      display: flex;
      justify-content: space-between;
    }
    dd {
      margin: 0 0 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FigureTable {
  readonly label = input.required<string>();
  readonly rows = input.required<readonly FigureRow[]>();
  readonly lines = input<readonly FormulaLine[]>([]);
  readonly name = input.required<string>();
  readonly besideName = input<string | null>(null);
}
