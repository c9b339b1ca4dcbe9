import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { CostLine } from '@each-bolt/core/cost';
import { TableModule } from 'primeng/table';
import { ButtonDirective } from 'primeng/button';
import { EvidenceMark } from '../shared/evidence-mark';
import { CountPipe, MoneyPipe } from '../shared/pipes';

/** The cost of each part by term; the dearest first unless sorted otherwise. */
@Component({
  selector: 'eb-cost-table',
  imports: [EvidenceMark, CountPipe, MoneyPipe, TableModule, ButtonDirective],
  template: `<p-table
    [value]="rows()"
    [scrollable]="true"
    scrollHeight="flex"
    size="small"
    dataKey="id"
    sortField="onVehicle"
    [sortOrder]="-1"
    [virtualScroll]="rows().length > 300"
    [virtualScrollItemSize]="33"
  >
    <ng-template #header>
      <tr>
        <th scope="col" pSortableColumn="name">Part <p-sortIcon field="name" /></th>
        <th scope="col" class="right">On one vehicle</th>
        <th scope="col" class="right">Material</th>
        <th scope="col" class="right">Tooling</th>
        <th scope="col" class="right">Conversion</th>
        <th scope="col" class="right">Bought out</th>
        <th scope="col" class="right" pSortableColumn="each">Per part, {{ currency() }} <p-sortIcon field="each" /></th>
        <th scope="col" class="right" pSortableColumn="onVehicle">Total, {{ currency() }} <p-sortIcon field="onVehicle" /></th>
      </tr>
    </ng-template>
    <ng-template #body let-line>
      <tr [class.chosen]="line.partId === chosen()" (click)="picked.emit(line.partId)">
        <td class="name">
          <button pButton [text]="true" severity="secondary" type="button" (click)="picked.emit(line.partId); $event.stopPropagation()">
            {{ line.name }}
          </button>
          @if (line.missing !== '') {
            <small [title]="line.missing">{{ line.missing }}</small>
          }
        </td>
        <td class="right figure">{{ line.perVehicle | ebCount }}</td>
        <td class="right figure">{{ line.material | ebMoney }}</td>
        <td class="right figure">{{ line.tooling | ebMoney }}</td>
        <td class="right figure">{{ line.conversion | ebMoney }}</td>
        <td class="right figure">{{ line.bought | ebMoney }}</td>
        <td class="right figure">{{ line.each | ebMoney }}</td>
        <td class="right figure">{{ line.onVehicle | ebMoney }}<eb-mark class="gap" [mark]="line.mark" of="cost" /></td>
      </tr>
    </ng-template>
  </p-table>`,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      background: var(--sheet);
    }
    tr {
      cursor: pointer;
    }
    th {
      font: 500 12.5px/1.3 var(--label);
    }
    td {
      border-bottom: 1px solid var(--fine);
    }
    .gap {
      margin-left: 6px;
    }
    .right {
      text-align: right;
    }
    .name button {
      border: 0;
      background: none;
      padding: 0;
      color: inherit;
      font-size: 13.5px;
      text-align: left;
      cursor: pointer;
    }
    small {
      display: block;
      color: var(--amber);
      font-size: 12px;
    }
    .chosen td {
      background: var(--dye-tint);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CostTable {
  readonly lines = input.required<readonly CostLine[]>();
  readonly currency = input.required<string>();
  readonly chosen = input('');
  readonly picked = output<string>();
  protected readonly rows = computed(() => [...this.lines()]);
}
