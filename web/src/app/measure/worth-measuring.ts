import { UnitPipe } from '../shared/pipes';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { worthMeasuring, type WorthMeasuring } from '@each-bolt/core/measure';
import { READ_IN, fixed, materialById, readAs } from '@each-bolt/core/shared';
import { OpenStudy } from '../record/open-study';
import { PartLink } from '../record/part-link';
import { Selection } from '../record/selection';
import { DataTable, SortHeading, TableHead, TableRow } from '../shared/data-table';

/** So many are listed: more nobody measures in a week. */
const MOST_LISTED = 60;

/** Where no part is chosen: the parts of the subsystem that are worth measuring, and what each lacks. */
@Component({
  selector: 'eb-worth-measuring',
  imports: [DataTable, SortHeading, TableHead, TableRow, PartLink, UnitPipe],
  template: `@if (rows().length > 0) {
      <p class="soft">
        Worth measuring under {{ selection.subsystem()?.name }} of {{ selection.vehicle()?.name }}: those first on which most mass rests.
        Choose one to begin.
      </p>
      <eb-table label="Worth measuring" [find]="words">
        <ng-template ebHead>
          <tr>
            <th scope="col" [ebSort]="byName">Part</th>
            <th scope="col" class="right" [ebSort]="byMass">Mass at stake, {{ 'g' | ebUnit }}</th>
            <th scope="col">What it lacks</th>
            <th scope="col">Material</th>
          </tr>
        </ng-template>
        <ng-template [ebRow]="rows()" track="part.id" let-row>
          <tr>
            <td>
              <eb-part-link [partId]="row.part.id" [name]="row.part.name" />
            </td>
            <td
              class="right figure"
              [title]="row.isGuess ? 'Guessed: it is not weighed yet' : 'What may be wrong with its mass, on one vehicle'"
            >
              {{ row.isGuess ? '~ ' : '' }}{{ text(row.atStakeKg) }}
            </td>
            <td>{{ row.lacks.join(', ') }}</td>
            <td class="soft">{{ material(row.part.materialId) }}</td>
          </tr>
        </ng-template>
      </eb-table>
    } @else {
      <p class="sheet-empty">
        Nothing under {{ selection.subsystem()?.name }} of {{ selection.vehicle()?.name }} lacks a mass, a material or how it is made.
        Choose a part in the stack to measure it all the same.
      </p>
    }`,
  styles: `
    p.soft {
      margin-bottom: 8px;
    }
    eb-table {
      max-width: 900px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class WorthMeasuringList {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);

  protected readonly rows = computed(() =>
    worthMeasuring(this.open.record(), this.selection.vehicle()?.id ?? '', this.selection.subsystem()?.id ?? null).slice(0, MOST_LISTED),
  );
  protected readonly byName = ({ part }: WorthMeasuring): string => part.name;
  protected readonly byMass = ({ atStakeKg }: WorthMeasuring): number => atStakeKg;
  protected readonly words = ({ part, lacks }: WorthMeasuring): string => `${part.name} ${lacks.join(' ')}`;

  protected text(kg: number): string {
    const grams = readAs(READ_IN.g, kg);
    return fixed(grams, grams < 10 ? 1 : 0);
  }

  protected material(id: string | null): string {
    return materialById.get(id ?? '')?.name ?? '';
  }
}
