import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { worthMeasuring, type WorthMeasuring } from '@each-bolt/core/measure';
import { READ_IN, fixed, materialById, readAs, unitWord } from '@each-bolt/core/shared';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { ListTable, fieldColumn, type TableColumn } from '../shared/list-table';

/** So many are listed: more nobody measures in a week. */
const MOST_LISTED = 60;

/** Where no part is chosen: the parts of the subsystem that are worth measuring, and what each lacks. */
@Component({
  selector: 'eb-worth-measuring',
  imports: [ListTable],
  template: `@if (rows().length > 0) {
      <p class="soft">
        Worth measuring under {{ selection.subsystem()?.name }} of {{ selection.vehicle()?.name }}: those first on which most mass rests.
        Choose one to begin.
      </p>
      <eb-list-table
        label="Worth measuring"
        [rows]="rows()"
        [columns]="columns"
        [key]="keyOf"
        (picked)="selection.choosePart($event.part.id)"
      />
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
    eb-list-table {
      display: block;
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
  protected readonly keyOf = ({ part }: WorthMeasuring): string => part.id;
  protected readonly columns: readonly TableColumn<WorthMeasuring>[] = [
    { id: 'name', head: 'Part', of: ({ part }) => part.name },
    {
      id: 'mass',
      head: 'Mass at stake',
      unit: unitWord('g'),
      isFigure: true,
      of: ({ atStakeKg }) => readAs(READ_IN.g, atStakeKg),
      text: (row) => `${row.isGuess ? '~ ' : ''}${grams(row.atStakeKg)}`,
      note: ({ isGuess }) => (isGuess ? 'a guess, not weighed yet' : ''),
    },
    { id: 'lacks', head: 'What it lacks', of: ({ lacks }) => lacks.join(', ') },
    { id: 'material', head: 'Material', of: ({ part }) => materialById.get(part.materialId ?? '')?.name ?? '' },
    fieldColumn('part', 'tag', ({ part }: WorthMeasuring) => part),
    fieldColumn('part', 'quantity', ({ part }: WorthMeasuring) => part, { isAside: true }),
    fieldColumn('part', 'wallThicknessM', ({ part }: WorthMeasuring) => part, { isAside: true }),
    fieldColumn('part', 'supplier', ({ part }: WorthMeasuring) => part, { isAside: true }),
  ];
}

/** Small masses with a decimal. */
const grams = (kg: number): string => {
  const shown = readAs(READ_IN.g, kg);
  return fixed(shown, shown < 10 ? 1 : 0);
};
