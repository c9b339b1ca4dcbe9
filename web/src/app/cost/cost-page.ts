import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ABSENT, counted, fixed } from '@each-bolt/core/shared';
import { totalsOf } from '@each-bolt/core/bench';
import { costBasisText } from '@each-bolt/core/record';
import { basisOf, catalogueIssues, costLines, studyShown, worthCosting } from '@each-bolt/core/cost';
import { NextParts } from '../record/next-parts';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { ViewTabs } from '../shared/view-tabs';
import { CatalogueTable } from './catalogue-table';
import { CostTable } from './cost-table';

type View = 'parts' | 'materials' | 'processes';

/** What the parts of a subsystem should cost, and the catalogue that says so. */
@Component({
  selector: 'eb-cost-page',
  imports: [CatalogueTable, CostTable, NextParts, RefusalNote, VehicleMark, ViewTabs],
  template: `<div class="sheet scroll">
    <header>
      <div>
        <h1>{{ selection.subsystem()?.name ?? 'No subsystem' }}, cost</h1>
        <p class="soft"><eb-vehicle-mark [place]="selection.vehiclePlace()" /> {{ selection.vehicle()?.name }} · {{ summary() }}</p>
      </div>
      <eb-view-tabs [tabs]="views" [(view)]="view" />
    </header>
    @if (closed() !== '') {
      <p class="soft note">{{ closed() }}.</p>
    }
    @for (issue of basisIssues(); track issue.code) {
      <eb-refusal [message]="issue.message" />
    }
    @switch (view()) {
      @case ('parts') {
        @if (lines().length === 0) {
          <p class="sheet-empty">
            Nothing is recorded here yet. Record parts at the bench (b); with mass, material and process each gets a cost.
          </p>
        } @else {
          <eb-next-parts title="Without a cost yet" [parts]="next()" />
          <eb-cost-table
            [lines]="lines()"
            [currency]="open.study().currency"
            [chosen]="selection.part()?.id ?? ''"
            [file]="selection.subsystem()?.name + ', cost'"
            (picked)="selection.choosePart($event)"
          />
        }
      }
      @default {
        <eb-catalogue-table [kind]="view() === 'materials' ? 'materials' : 'processes'" />
      }
    }
    <p class="soft note">
      Should-cost on {{ basis() }}. Material, tooling and conversion of each part, or its bought-out price; assembly labour and joining are
      not in it. Catalogue figures are assumed.
    </p>
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    header {
      display: flex;
      justify-content: space-between;
      align-items: end;
      gap: 12px;
    }
    .note {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class CostPage {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly view = signal<View>('parts');
  protected readonly views: readonly { readonly view: View; readonly word: string }[] = [
    { view: 'parts', word: 'Parts' },
    { view: 'materials', word: 'Materials' },
    { view: 'processes', word: 'Processes' },
  ];
  protected readonly closed = computed(() => this.open.closedWordsOf(this.selection.subsystemKey()));
  protected readonly basis = computed(() => costBasisText(this.open.study()));
  protected readonly basisIssues = computed(() => catalogueIssues(basisOf(this.open.study())));
  protected readonly lines = computed(() => costLines(this.open.record(), this.open.rollUp(), this.selection.subsystemKey()));
  protected readonly next = computed(() => worthCosting(this.open.partById(), this.lines()));
  protected readonly summary = computed(() => {
    const lines = this.lines();
    const totals = totalsOf(this.open.rollUp().rolled, this.selection.subsystemKey());
    const cost = totals && studyShown(totals, this.open.study().fastenersIn).cost;
    const costed = lines.filter((line) => line.onVehicle !== null).length;
    return `${this.open.study().currency} ${cost === null ? ABSENT : fixed(cost, 2)} from ${fixed(costed, 0)} of ${counted(lines.length, 'line')}, on one vehicle`;
  });
}
