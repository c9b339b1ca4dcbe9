import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ABSENT, fixed, massWithU, withU } from '@each-bolt/core/shared';
import type { Pack } from '@each-bolt/core/record';
import { PACK_WORDS, figureRows } from '@each-bolt/core/measure';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { FigureTable } from './figure-table';
import { PackPicture } from './pack-picture';
import type { PackTold } from './pack-told';

/** What a pack comes to: its cells drawn, its figures, its energy per mass by boundary, the formulas with their numbers. */
@Component({
  selector: 'eb-pack-results',
  imports: [DataTable, TableHead, TableRow, FigureTable, PackPicture],
  template: `<div class="pictures">
      @if (told().beside?.state; as state) {
        <eb-pack-picture
          [name]="beside()!.name"
          [state]="state"
          [way]="beside()!.way"
          [inletC]="beside()!.inletC!"
          [lowC]="ends()[0]"
          [highC]="ends()[1]"
        />
      }
      @if (told().report.state; as state) {
        <eb-pack-picture
          [name]="pack().name"
          [state]="state"
          [way]="pack().way"
          [inletC]="pack().inletC!"
          [lowC]="ends()[0]"
          [highC]="ends()[1]"
        />
      }
    </div>
    <eb-figure-table
      label="Figures of the pack"
      [rows]="rows()"
      [lines]="told().report.lines"
      [name]="pack().name"
      [besideName]="beside()?.name ?? null"
    />
    <eb-table label="Energy per mass by boundary">
      <ng-template ebHead>
        <tr>
          <th scope="col">What is counted as the pack</th>
          <th scope="col" class="right">Mass</th>
          <th scope="col" class="right">Wh/kg</th>
          <th scope="col" class="right">Wh/l of its boxes</th>
        </tr>
      </ng-template>
      <ng-template [ebRow]="boundaries()" track="name" let-b>
        <tr>
          <th scope="row">{{ b.name }}</th>
          <td class="right figure">{{ b.mass }}</td>
          <td class="right figure">{{ b.perMass }}</td>
          <td class="right figure">{{ b.perVolume }}</td>
        </tr>
      </ng-template>
    </eb-table>`,
  styles: `
    :host {
      display: grid;
      gap: 14px;
      min-width: 0;
    }
    .pictures {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
      gap: 14px;
      max-width: 860px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PackResults {
  readonly pack = input.required<Pack>();
  readonly beside = input.required<Pack | null>();
  readonly told = input.required<PackTold>();

  /** coldest and hottest of what is shown, so that both pictures are shaded alike */
  protected readonly ends = computed((): readonly [number, number] => {
    const states = [this.told().report.state, this.told().beside?.state].filter((s) => s !== null && s !== undefined);
    return [Math.min(...states.map((s) => s.coldestC)), Math.max(...states.map((s) => s.hottestC))];
  });
  protected readonly rows = computed(() => figureRows(PACK_WORDS, this.told().report, this.told().beside, this.told().difference));
  protected readonly boundaries = computed(() =>
    this.told().report.boundaries.map(({ name, massKg, uKg, whPerKg, uWhPerKg, whPerL }) => ({
      name,
      mass: massKg === null ? ABSENT : massWithU(massKg, uKg),
      perMass: whPerKg === null ? ABSENT : withU(whPerKg, uWhPerKg, 1),
      perVolume: whPerL === null ? ABSENT : fixed(whPerL, 1),
    })),
  );
}
