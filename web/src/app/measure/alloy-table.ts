import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { fixed, percentWithU } from '@each-bolt/core/shared';
import { limitText, type AlloyMatch, type Fractions, type Grade } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { percentWords } from './scan-text';

const MOST_ROWS = 4;

/** What an analyser read, and the grades it may come from. */
@Component({
  selector: 'eb-alloy-table',
  imports: [ButtonDirective, DataTable, TableHead, TableRow],
  template: `<p class="elements">
      @for (e of elements(); track e.symbol) {
        <span [class.weak]="e.isWeak" [title]="e.isWeak ? 'read with little certainty by X-rays' : ''"
          ><b>{{ e.symbol }}</b> <span class="figure">{{ e.text }}</span></span
        >
      }
    </p>
    @if (match().base === null) {
      <p class="soft">No alloys of {{ elements()[0]?.symbol }} are in the catalogue.</p>
    } @else {
      <eb-table label="Grades"
        ><ng-template ebHead>
          <tr>
            <th scope="col">Grade</th>
            <th scope="col" class="right">Likelihood</th>
            <th scope="col">Fits</th>
            <th></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="grade.name" let-row>
          <tr>
            <th scope="row">
              {{ row.grade.name }} <small class="soft">{{ row.names }}</small>
            </th>
            <td class="right figure">{{ row.likelihood }}</td>
            <td [class.fault]="!row.fits">
              {{ row.said }}
              @if (row.unseen !== '') {
                <small class="soft">not looked at: {{ row.unseen }}</small>
              }
            </td>
            <td class="right">
              <button
                pButton
                severity="secondary"
                type="button"
                [attr.aria-label]="'Take ' + row.grade.name"
                (click)="taken.emit(row.grade)"
              >
                Take
              </button>
            </td>
          </tr>
        </ng-template></eb-table
      >
      @if (match().separate.length > 0) {
        <ul aria-label="What would tell them apart">
          @for (words of match().separate; track words) {
            <li>{{ words }}.</li>
          }
        </ul>
      }
      <p class="soft small">Limits from memory of the standards, not checked against them.</p>
    }`,
  styles: `
    .elements {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 14px;
      margin: 6px 0;
    }
    .elements span {
      display: inline-flex;
      gap: 5px;
    }
    th[scope='row'] {
      white-space: nowrap;
    }
    .elements .weak {
      color: var(--soft);
      border-bottom: 1px dashed var(--soft);
    }
    small {
      display: block;
      font-weight: 400;
    }
    .fault {
      color: var(--amber);
    }
    ul {
      margin: 6px 0;
      padding-left: 18px;
      font-size: 12.5px;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AlloyTable {
  readonly reading = input.required<Fractions>();
  readonly match = input.required<AlloyMatch>();
  /** symbols the instrument reads with little certainty */
  readonly weak = input<readonly string[]>([]);
  readonly taken = output<Grade>();

  protected readonly elements = computed(() =>
    Object.entries(this.reading())
      .sort(([, a], [, b]) => b.fraction - a.fraction)
      .map(([symbol, { fraction, u }]) => ({
        symbol,
        text: percentWithU(fraction, u),
        isWeak: this.weak().includes(symbol),
      })),
  );
  protected readonly rows = computed(() =>
    this.match()
      .matches.slice(0, MOST_ROWS)
      .map(({ grade, likelihoodFraction, fits, outside, unseen }) => ({
        grade,
        fits,
        names: grade.alsoNamed.join(', '),
        likelihood: likelihoodFraction < 0.001 ? '< 0.1 %' : percentWords(likelihoodFraction),
        said: fits
          ? 'within its limits'
          : outside
              .slice(0, 2)
              .map((e) => `${e.symbol} ${fixed(e.fraction * 100, 2)} %, allowed ${limitText(e.limit)}`)
              .join('; '),
        unseen: unseen.join(', '),
      })),
  );
}
