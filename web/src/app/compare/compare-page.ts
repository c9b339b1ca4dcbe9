import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { comparisonCsv, comparisonGaps, comparisonSentences, compareVehicles, type CompareRow } from '@each-bolt/core/compare';
import { subsystemKey } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { Choose, ChoicesPipe } from '../shared/choose';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { VehicleMark } from '../shared/vehicle-mark';
import { ViewTabs } from '../shared/view-tabs';
import { ThemeService } from '../shared/theme-service';
import { familyChart, familyMasses, partsAgainstMass, type ChartVehicle } from './chart-options';
import { ChartInkService } from '../shared/chart-ink';
import { CompareTable, type RowGroup } from './compare-table';
import { Download } from '../shared/download';
import { echarts } from './echarts';

type View = 'total' | 'material' | 'process';

/** Two vehicles, one subsystem: the sentence, the table, the picture. */
@Component({
  selector: 'eb-compare-page',
  imports: [CompareTable, NgxEchartsDirective, VehicleMark, ViewTabs, ButtonDirective, Choose, ChoicesPipe],
  providers: [provideEchartsCore({ echarts })],
  template: `<div class="sheet">
    <header>
      <div>
        <h1>{{ selection.subsystem()?.name ?? 'No subsystem' }}, side by side</h1>
        <p class="who">
          @if (left(); as l) {
            <eb-vehicle-mark [place]="l.place" />
            <eb-choose
              label="Vehicle spoken of"
              [value]="selection.vehicle()?.id ?? ''"
              (valueChange)="chooseLeft($event)"
              [options]="open.record().vehicles | ebChoices: 'id' : 'name'"
            />
          }
          @if (right(); as r) {
            <span class="soft">against</span>
            <eb-vehicle-mark [place]="r.place" />
            <eb-choose
              label="Vehicle compared with"
              (valueChange)="chooseRight($event)"
              [value]="selection.against()?.id ?? ''"
              [options]="others() | ebChoices: 'id' : 'name'"
            />
          }
        </p>
      </div>
      <button pButton severity="secondary" type="button" [disabled]="comparison() === null" (click)="exportCsv()">
        <i class="pi pi-download" aria-hidden="true"></i> Table as CSV
      </button>
    </header>
    @if (comparison(); as c) {
      <div class="sentences">
        @for (sentence of sentences(); track sentence.code) {
          <p>
            @for (run of sentence.runs; track $index) {
              @if (run.strong) {
                <b>{{ run.text }}</b>
              } @else {
                <span>{{ run.text }}</span>
              }
            }
          </p>
        }
        @for (gap of gaps(); track gap) {
          <p class="gap">{{ gap }}</p>
        }
      </div>
      <eb-view-tabs [tabs]="views" [(view)]="view" />
      <div class="columns">
        <div class="scroll" tabindex="0" role="region" aria-label="Comparison table">
          <eb-compare-table
            [first]="firstColumn()"
            [groups]="groups()"
            [left]="left()!"
            [right]="right()!"
            [currency]="open.study().currency"
          />
          <h3>Count against mass, each assembly with all inside it</h3>
          <div
            class="chart"
            echarts
            [options]="scatterOptions()"
            [autoResize]="true"
            role="img"
            aria-label="Count against mass of each assembly, both vehicles"
          ></div>
        </div>
        <div class="scroll" tabindex="0" role="region" aria-label="Mass by material family">
          <h3>Mass by material family</h3>
          <p class="key soft">
            <eb-vehicle-mark [place]="left()!.place" /> {{ left()!.name }} <eb-vehicle-mark [place]="right()!.place" /> {{ right()!.name }},
            hatched
          </p>
          <div
            class="chart"
            echarts
            [style.height.px]="familyHeight()"
            [options]="familyOptions()"
            [autoResize]="true"
            role="img"
            aria-label="Mass by material family, both vehicles"
          ></div>
        </div>
      </div>
    } @else {
      <p class="sheet-empty">
        {{
          open.record().vehicles.length < 2
            ? 'A comparison needs two vehicles. Add another with “+ vehicle” below the stack, then record it at the bench (b).'
            : 'Choose a subsystem in the stack.'
        }}
      </p>
    }
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: start;
    }
    .who {
      display: flex;
      gap: 8px;
      align-items: center;
      margin-top: 4px;
    }
    select {
      height: 28px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      font: 500 13.5px/1 var(--text);
      padding: 0 4px;
    }
    .sentences {
      padding: 8px 14px;
      border-left: 3px solid var(--dye);
      background: var(--sheet);
      display: flex;
      flex-wrap: wrap;
      gap: 2px 14px;
      font-size: 14.5px;
    }
    .sentences b {
      font-weight: 600;
    }
    .gap {
      color: var(--amber);
      font-size: 13px;
    }
    .columns {
      flex: 1;
      min-height: 0;
      display: grid;
      grid-template-columns: minmax(0, 1.15fr) minmax(300px, 1fr);
      gap: 18px;
    }
    .scroll {
      min-height: 0;
      overflow: auto;
    }
    .scroll h3 {
      font-size: 13.5px;
      margin: 8px 0 5px;
    }
    .key {
      display: flex;
      gap: 6px;
      align-items: center;
      font-size: 12.5px;
      margin-bottom: 6px;
    }
    .chart {
      height: 198px;
      background: var(--sheet);
      border: 1px solid var(--line);
    }
    @media (max-width: 1100px) {
      .columns {
        grid-template-columns: minmax(0, 1fr);
        overflow: auto;
      }
      .scroll {
        overflow: visible;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ComparePage {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  private readonly download = inject(Download);
  private readonly inkOf = inject(ChartInkService);
  private readonly theme = inject(ThemeService);

  protected readonly view = signal<View>('total');
  protected readonly views: readonly { readonly view: View; readonly word: string }[] = [
    { view: 'total', word: 'Total' },
    { view: 'material', word: 'By material' },
    { view: 'process', word: 'By process' },
  ];
  protected readonly others = computed(() => this.open.record().vehicles.filter((v) => v.id !== this.selection.vehicle()?.id));
  protected readonly left = computed(() => this.chartVehicle(this.selection.vehicle()?.id));
  protected readonly right = computed(() => this.chartVehicle(this.selection.against()?.id));
  protected readonly comparison = computed(() => {
    const [left, right, subsystem] = [this.selection.vehicle(), this.selection.against(), this.selection.subsystem()];
    return left && right && subsystem ? compareVehicles(this.open.record(), this.open.rollUp(), left.id, right.id, subsystem.id) : null;
  });
  protected readonly sentences = computed(() => {
    const comparison = this.comparison();
    return comparison ? comparisonSentences(comparison, this.open.study().currency) : [];
  });
  private readonly closed = computed(() =>
    [this.selection.vehicle(), this.selection.against()].flatMap((vehicle) => {
      const words = vehicle ? this.open.closedWordsOf(subsystemKey(vehicle.id, this.selection.subsystem()?.id ?? '')) : '';
      return words === '' ? [] : [`${vehicle?.name ?? ''}: ${words}.`];
    }),
  );
  protected readonly gaps = computed(() => {
    const comparison = this.comparison();
    return comparison ? [...comparisonGaps(comparison), ...this.closed()] : [];
  });
  protected readonly groups = computed<readonly RowGroup[]>(() => {
    const comparison = this.comparison();
    if (!comparison) return [];
    if (this.view() === 'total') return [{ heading: '', rows: comparison.totals }];
    return grouped(this.view() === 'material' ? comparison.byMaterial : comparison.byProcess);
  });
  protected readonly firstColumn = computed(() => ({ total: 'Measure', material: 'By material', process: 'By process' })[this.view()]);
  /** room for two bars and their figures per family */
  protected readonly familyHeight = computed(() => {
    const comparison = this.comparison();
    return 64 + 38 * (comparison ? familyMasses(comparison).length : 0);
  });
  private readonly ink = computed(() => this.inkOf.read(this.theme.theme()));
  protected readonly familyOptions = computed(() => {
    const [comparison, left, right] = [this.comparison(), this.left(), this.right()];
    return comparison && left && right ? familyChart(familyMasses(comparison), left, right, this.ink()) : {};
  });
  protected readonly scatterOptions = computed(() => {
    const [comparison, left, right] = [this.comparison(), this.left(), this.right()];
    return comparison && left && right ? partsAgainstMass(comparison, left, right, this.ink()) : {};
  });

  private chartVehicle(id: string | undefined): ChartVehicle | null {
    const place = this.open.record().vehicles.findIndex((v) => v.id === id);
    const vehicle = this.open.record().vehicles[place];
    return vehicle ? { name: vehicle.name, place } : null;
  }

  protected chooseLeft(vehicle: string): void {
    const against = vehicle === this.selection.against()?.id ? (this.selection.vehicle()?.id ?? null) : undefined;
    void this.selection.choose({ vehicle, inside: null, ...(against === undefined ? {} : { against }) });
  }

  protected chooseRight(against: string): void {
    void this.selection.choose({ against });
  }

  protected exportCsv(): void {
    const comparison = this.comparison();
    const name = this.selection.subsystem()?.name ?? '';
    if (comparison)
      this.download.text(
        `${name} ${comparison.left.vehicle.name} against ${comparison.right.vehicle.name}.csv`,
        'text/csv',
        comparisonCsv(comparison, this.open.study(), name),
      );
  }
}

const grouped = (rows: readonly CompareRow[]): readonly RowGroup[] => {
  const groups = new Map<string, CompareRow[]>();
  for (const row of rows) groups.set(row.label, [...(groups.get(row.label) ?? []), row]);
  return [...groups].map(([heading, list]) => ({ heading, rows: list }));
};
