import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { rangeText } from '@each-bolt/core/record';
import type { CountRange } from '@each-bolt/core/bench';
import { ABSENT, fixed, plusMinus, signed, threeDigits, unitWord, READ_IN, readAs } from '@each-bolt/core/shared';
import type { CompareRow } from '@each-bolt/core/compare';
import { EvidenceMark } from '../shared/evidence-mark';
import { VehicleMark } from '../shared/vehicle-mark';
import type { ChartVehicle } from './chart-options';

const DECIMALS: Readonly<Partial<Record<CompareRow['measure'], number>>> = { mass: 3, cost: 2 };

/** A run of rows under one heading. */
export interface RowGroup {
  readonly heading: string;
  readonly rows: readonly CompareRow[];
}

/** A figure of a row in the unit its heading names. */
const shownOf = ({ measure }: CompareRow, value: number): number => (measure === 'mass' ? readAs(READ_IN.kg, value) : value);

/** Both vehicles side by side, the difference, and what one is of the other. */
@Component({
  selector: 'eb-compare-table',
  imports: [EvidenceMark, VehicleMark],
  template: `<table>
    <thead>
      <tr>
        <th scope="col">{{ first() }}</th>
        <th scope="col" class="right"><eb-vehicle-mark [place]="left().place" /> {{ left().name }}</th>
        <th scope="col" class="right"><eb-vehicle-mark [place]="right().place" /> {{ right().name }}</th>
        <th scope="col" class="right">Difference</th>
        <th scope="col" class="right" title="First vehicle as a multiple of the second">Ratio</th>
      </tr>
    </thead>
    @for (group of groups(); track group.heading) {
      <tbody>
        @if (group.heading !== '') {
          <tr class="group">
            <th scope="rowgroup" colspan="5">{{ group.heading }}</th>
          </tr>
        }
        @for (row of group.rows; track row.key) {
          <tr>
            <th scope="row">{{ labelOf(row) }}</th>
            <td class="right figure">
              {{ figure(row, row.left) }}
              <eb-mark class="gap" [mark]="row.leftMark" [of]="labelOf(row)" />
              <span class="beside marked">{{ sureness(row, row.leftU, row.leftRange) }}</span>
            </td>
            <td class="right figure">
              {{ figure(row, row.right) }}
              <eb-mark class="gap" [mark]="row.rightMark" [of]="labelOf(row)" />
              <span class="beside marked">{{ sureness(row, row.rightU, row.rightRange) }}</span>
            </td>
            <td class="right figure">
              {{ difference(row) }}<span class="beside">{{ sureness(row, row.differenceU, null) }}</span>
            </td>
            <td class="right figure">
              {{ times(row) }}<span class="beside">{{ ratioSureness(row) }}</span>
            </td>
          </tr>
        }
      </tbody>
    }
  </table>`,
  styles: `
    table {
      border-collapse: collapse;
      width: 100%;
    }
    th,
    td {
      padding: 4px 8px;
      border-bottom: 1px solid var(--fine);
      text-align: left;
      font-weight: 400;
    }
    thead th {
      position: sticky;
      top: 0;
      background: var(--paper);
      font: 500 13px/1.2 var(--label);
      color: var(--soft);
      border-bottom: 1px solid var(--ink);
      white-space: nowrap;
    }
    th.right,
    .right {
      text-align: right;
    }
    .gap {
      margin-left: 5px;
    }
    /* under its figure, so that figures of a column stay in line */
    .beside {
      display: block;
      font-size: 12px;
      color: var(--soft);
    }
    /* the mark beside the figure above takes this much */
    .beside.marked {
      padding-right: 29px;
    }
    .beside:empty {
      display: none;
    }
    .group th {
      padding-top: 14px;
      font: 600 14px/1.2 var(--label);
      border-bottom-color: var(--line);
    }
    tbody th {
      font-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CompareTable {
  readonly first = input('Measure');
  readonly groups = input.required<readonly RowGroup[]>();
  readonly left = input.required<ChartVehicle>();
  readonly right = input.required<ChartVehicle>();
  readonly currency = input.required<string>();

  protected labelOf(row: CompareRow): string {
    const word = {
      parts: 'Count',
      fasteners: 'Fasteners',
      variants: 'Fastener variants',
      joints: 'Joints',
      mass: `Mass, ${unitWord('kg')}`,
      cost: `Cost, ${this.currency()}`,
    }[row.measure];
    return word;
  }

  protected figure(row: CompareRow, value: number | null): string {
    if (value === 0) return '0';
    return value === null ? ABSENT : fixed(shownOf(row, value), DECIMALS[row.measure] ?? 0);
  }

  protected difference(row: CompareRow): string {
    return row.difference === null ? ABSENT : signed(shownOf(row, row.difference), DECIMALS[row.measure] ?? 0);
  }

  /** "± 0.012" under a mass or cost; "186 to 190" under a count that is a range. */
  protected sureness(row: CompareRow, u: number | null, range: CountRange | null): string {
    if (range) return rangeText(range) ?? '';
    return plusMinus(u === null ? null : shownOf(row, u), (DECIMALS[row.measure] ?? 0) + 2);
  }

  protected ratioSureness({ ratioU }: CompareRow): string {
    return plusMinus(ratioU, 3);
  }

  protected times(row: CompareRow): string {
    return row.ratio === null ? ABSENT : threeDigits(row.ratio);
  }
}
