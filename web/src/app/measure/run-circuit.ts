import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { READ_IN, fixed, readAs, threeDigits, unitWord } from '@each-bolt/core/shared';
import { circuitOf, type Run } from '@each-bolt/core/measure';
import { OpenStudy } from '../record/open-study';
import { DataTable, TableHead, TableRow } from '../shared/data-table';

/** Lines, pumps and what resists on one vehicle, solved for the flow through each. */
@Component({
  selector: 'eb-run-circuit',
  imports: [DataTable, TableHead, TableRow],
  template: `@if (links().length > 0) {
      <eb-table [label]="'Circuit of ' + vehicle()">
        <ng-template ebHead>
          <tr>
            <th scope="col">Through</th>
            <th scope="col" class="right">Flow, {{ litres }}</th>
            <th scope="col" class="right">Falls, kPa</th>
            <th scope="col" class="right">Velocity, m/s</th>
            <th scope="col">From</th>
          </tr>
        </ng-template>
        <ng-template [ebRow]="links()" track="key" let-l>
          <tr>
            <th scope="row">{{ l.name }}</th>
            <td class="right figure">{{ l.flow }}</td>
            <td class="right figure">{{ l.drop }}</td>
            <td class="right figure">{{ l.velocity }}</td>
            <td class="figure soft">{{ l.formula }}</td>
          </tr>
        </ng-template>
      </eb-table>
      <p>
        <b>{{ vehicle() }}:</b> {{ power() }}
      </p>
    }
    @for (i of circuit().issues; track $index) {
      <p class="warn">{{ vehicle() }}: {{ i.message }}.</p>
    }`,
  styles: `
    td.soft {
      font-size: 12px;
    }
    p {
      margin: 3px 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunCircuit {
  private readonly open = inject(OpenStudy);
  readonly vehicle = input.required<string>();
  /** of one fluid and vehicle */
  readonly runs = input.required<readonly Run[]>();
  readonly densityKgPerM3 = input.required<number>();
  readonly viscosityPaS = input.required<number>();

  protected readonly litres = unitWord('l/min');
  protected readonly circuit = computed(() =>
    circuitOf(this.open.record(), this.runs(), { densityKgPerM3: this.densityKgPerM3(), viscosityPaS: this.viscosityPaS() }),
  );
  protected readonly links = computed(() =>
    this.circuit().links.map(({ name, flowM3PerS, dropPa, velocityMPerS, formula }, key) => ({
      ...{ key, name, flow: fixed(readAs(READ_IN['l/min'], flowM3PerS), 2), drop: fixed(readAs(READ_IN.kPa, dropPa), 2) },
      formula,
      velocity: velocityMPerS === null ? '' : fixed(velocityMPerS, 2),
    })),
  );
  protected readonly power = computed(() => {
    const pumps = this.circuit().links.filter(({ does }) => does === 'pumps');
    return `${pumps.length === 1 ? 'the pump gives' : `${pumps.length} pumps give`} ${threeDigits(this.circuit().pumpW)} W to the fluid; what goes round falls by as much as they lift`;
  });
}
