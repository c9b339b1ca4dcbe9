import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { CostLine } from '@each-bolt/core/cost';
import { ListTable, type TableColumn } from '../shared/list-table';

/** The cost of each part by term; the dearest first unless sorted otherwise. */
@Component({
  selector: 'eb-cost-table',
  imports: [ListTable],
  template: `<eb-list-table
    label="Cost by part"
    [file]="file()"
    [rows]="lines()"
    [columns]="columns()"
    [key]="keyOf"
    [chosen]="chosen()"
    sortedBy="total"
    (picked)="picked.emit($event.partId)"
  />`,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CostTable {
  readonly lines = input.required<readonly CostLine[]>();
  readonly currency = input.required<string>();
  /** id of the part that is chosen */
  readonly chosen = input('');
  readonly file = input('');
  readonly picked = output<string>();

  protected readonly keyOf = ({ id }: CostLine): string => id;
  protected readonly columns = computed((): readonly TableColumn<CostLine>[] => {
    const unit = this.currency();
    const money = (id: string, head: string, of: (line: CostLine) => number | null): TableColumn<CostLine> => ({
      ...{ id, head, of, unit, isFigure: true, decimals: 2 },
    });
    return [
      { id: 'name', head: 'Part', of: (line) => line.name, note: (line) => line.missing },
      { id: 'count', head: 'On one vehicle', of: (line) => line.perVehicle, isFigure: true },
      money('material', 'Material', (line) => line.material),
      money('tooling', 'Tooling', (line) => line.tooling),
      money('conversion', 'Conversion', (line) => line.conversion),
      money('bought', 'Bought out', (line) => line.bought),
      money('each', 'Per part', (line) => line.each),
      { ...money('total', 'Total', (line) => line.onVehicle), mark: (line) => line.mark },
    ];
  });
}
