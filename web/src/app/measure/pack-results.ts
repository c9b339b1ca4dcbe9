import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { ABSENT, massWithU, withU } from '@each-bolt/core/shared';
import type { Pack } from '@each-bolt/core/record';
import { packRows } from '@each-bolt/core/measure';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { PackPicture } from './pack-picture';
import type { PackTold } from './pack-told';

/** What a pack comes to: its cells drawn, its figures, its energy per mass by boundary, the formulas with their numbers. */
@Component({
  selector: 'eb-pack-results',
  imports: [DataTable, TableHead, TableRow, PackPicture],
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
    <eb-table label="Figures of the pack">
      <ng-template ebHead>
        <tr>
          <th scope="col">Figure</th>
          @if (beside(); as b) {
            <th scope="col" class="right">{{ b.name }}</th>
          }
          <th scope="col" class="right">{{ pack().name }}</th>
          @if (beside()) {
            <th scope="col" class="right">Change</th>
          }
        </tr>
      </ng-template>
      <ng-template [ebRow]="rows()" track="word" let-r>
        <tr>
          <th scope="row">{{ r.word }}</th>
          @if (beside()) {
            <td class="right figure">{{ r.beside }}</td>
          }
          <td class="right figure">{{ r.now }}</td>
          @if (beside()) {
            <td class="right figure">{{ r.change }}</td>
          }
        </tr>
      </ng-template>
    </eb-table>
    <eb-table label="Energy per mass by boundary">
      <ng-template ebHead>
        <tr>
          <th scope="col">What is counted as the pack</th>
          <th scope="col" class="right">Mass</th>
          <th scope="col" class="right">Wh/kg</th>
        </tr>
      </ng-template>
      <ng-template [ebRow]="boundaries()" track="name" let-b>
        <tr>
          <th scope="row">{{ b.name }}</th>
          <td class="right figure">{{ b.mass }}</td>
          <td class="right figure">{{ b.perMass }}</td>
        </tr>
      </ng-template>
    </eb-table>
    @if (told().report.lines.length > 0) {
      <h2>Formulas with their numbers</h2>
      <dl class="formulas">
        @for (l of told().report.lines; track l.word) {
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
    .pictures {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
      gap: 14px;
      max-width: 860px;
    }
    .formulas {
      margin: 0;
      font-size: 13px;
    }
    .formulas dt {
      display: flex;
      justify-content: space-between;
    }
    .formulas dd {
      margin: 0 0 6px;
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
  protected readonly rows = computed(() => packRows(this.told().report, this.told().beside, this.told().difference));
  protected readonly boundaries = computed(() =>
    this.told().report.boundaries.map(({ name, massKg, uKg, whPerKg, uWhPerKg }) => ({
      name,
      mass: massKg === null ? ABSENT : massWithU(massKg, uKg),
      perMass: whPerKg === null ? ABSENT : withU(whPerKg, uWhPerKg, 1),
    })),
  );
}
