import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { MATERIALS, PROCESSES, fixed, type ByMass, type Material, type Process } from '@each-bolt/core/shared';
import { DataTable, SortHeading, TableHead, TableRow } from '../shared/data-table';

/** The catalogue behind the costs: every figure with its unit, year and source. */
@Component({
  selector: 'eb-catalogue-table',
  imports: [DataTable, SortHeading, TableHead, TableRow],
  template: `<div class="scroll" tabindex="0" role="region" aria-label="Catalogue">
    @if (kind() === 'materials') {
      <eb-table label="Materials" [find]="words"
        ><ng-template ebHead>
          <tr>
            <th scope="col" [ebSort]="by.name">Material</th>
            <th scope="col" [ebSort]="by.family">Family</th>
            <th scope="col" class="right" [ebSort]="by.density">Density, kg/m³</th>
            <th scope="col" class="right" [ebSort]="by.price">Price, EUR/kg</th>
            <th scope="col" class="right">Year</th>
            <th scope="col">Typed as</th>
            <th scope="col">Source</th>
          </tr> </ng-template
        ><ng-template [ebRow]="materials" track="id" let-m>
          <tr>
            <td>{{ m.name }}</td>
            <td>{{ m.family }}</td>
            <td class="right figure">{{ number(m.densityKgPerM3, 0) }}</td>
            <td class="right figure">{{ number(m.priceEurPerKg, 2) }}</td>
            <td class="right figure">{{ m.year }}</td>
            <td class="figure">{{ words(m) }}</td>
            <td class="soft">{{ m.source }}</td>
          </tr>
        </ng-template></eb-table
      >
    } @else {
      <eb-table label="Processes" [find]="words"
        ><ng-template ebHead>
          <tr>
            <th scope="col" [ebSort]="by.name">Process</th>
            <th scope="col" class="right" [ebSort]="by.scrap">Scrap</th>
            <th scope="col" class="right">Cycle, s</th>
            <th scope="col" class="right">Rate, EUR/h</th>
            <th scope="col" class="right">Tooling, EUR</th>
            <th scope="col" class="right" [ebSort]="by.life">Tool life, parts</th>
            <th scope="col" class="right" [ebSort]="by.yield">Yield</th>
            <th scope="col">Typed as</th>
            <th scope="col">Source</th>
          </tr> </ng-template
        ><ng-template [ebRow]="processes" track="id" let-p>
          <tr>
            <td>{{ p.name }}</td>
            <td class="right figure">{{ number(p.scrapFraction * 100, 0) }} %</td>
            <td class="right figure">{{ byMass(p.cycleS) }}</td>
            <td class="right figure">{{ byMass(p.rateEurPerH) }}</td>
            <td class="right figure">{{ byMass(p.toolingEur) }}</td>
            <td class="right figure">{{ number(p.toolLifeParts, 0) }}</td>
            <td class="right figure">{{ number(p.yieldFraction * 100, 1) }} %</td>
            <td class="figure">{{ words(p) }}</td>
            <td class="soft">{{ p.source }} {{ p.year }}</td>
          </tr>
        </ng-template></eb-table
      >
      <p class="soft">“a + b m”: a plus b times the net mass of the part in kg.</p>
    }
  </div>`,
  styles: `
    :host {
      flex: 1;
      min-height: 0;
      display: flex;
    }
    .scroll {
      overflow: auto;
      flex: 1;
    }
    th.right,
    .right {
      text-align: right;
    }
    p {
      padding: 8px 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CatalogueTable {
  readonly kind = input.required<'materials' | 'processes'>();
  protected readonly materials = MATERIALS;
  protected readonly processes = PROCESSES;
  /** what columns are sorted by */
  protected readonly by = {
    name: ({ name }: Material | Process): string => name,
    family: ({ family }: Material): string => family,
    density: ({ densityKgPerM3 }: Material): number => densityKgPerM3,
    price: ({ priceEurPerKg }: Material): number => priceEurPerKg,
    scrap: ({ scrapFraction }: Process): number => scrapFraction,
    life: ({ toolLifeParts }: Process): number => toolLifeParts,
    yield: ({ yieldFraction }: Process): number => yieldFraction,
  };

  /** the words by which an entry is typed and found */
  protected readonly words = (entry: { readonly id: string; readonly words: readonly string[] }): string =>
    [entry.id, ...entry.words].join(', ');

  protected number(value: number, decimals: number): string {
    return fixed(value, decimals);
  }

  protected byMass({ base, perKg }: ByMass): string {
    return `${fixed(base, 0)} + ${fixed(perKg, perKg % 1 === 0 ? 0 : 1)} m`;
  }
}
