import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { NavigationEnd, Router } from '@angular/router';
import { map } from 'rxjs';
import { OpenStudy } from '../record/open-study';
import { RefusedEdits } from '../record/refused-edits';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { VehicleMark } from '../shared/vehicle-mark';
import { ViewFrame } from '../shared/view-frame';
import { MeshWork } from './mesh-work';

const VIEWS = [
  { path: 'scans', word: 'Scans' },
  { path: 'material', word: 'Material and process' },
  { path: 'sections', word: 'Sections' },
  { path: 'holes', word: 'Holes' },
  { path: 'hand', word: 'By hand' },
  { path: 'gauge-studies', word: 'Gauge R&R' },
  { path: 'runs', word: 'Runs' },
  { path: 'packs', word: 'Packs' },
  { path: 'boards', word: 'Boards' },
  { path: 'supply', word: 'Supply' },
  { path: 'heating', word: 'Cab heating' },
] as const;

/** Shape and material of the part that is chosen. */
@Component({
  selector: 'eb-measure-frame',
  imports: [RefusedEdits, VehicleMark, ViewFrame],
  providers: [RowEdits, MeshWork],
  template: `<eb-view-frame label="Views of measuring" [views]="views">
    <eb-refused-edits />
    <div class="pad of">
      @if (isOfSubsystem()) {
        <h1>{{ selection.subsystem()?.name ?? 'All subsystems' }}</h1>
        <span class="soft">of all vehicles</span>
      } @else if (isOfVehicle()) {
        <h1>A whole vehicle</h1>
        <span class="soft">chosen below</span>
      } @else if (selection.part(); as part) {
        <eb-vehicle-mark [place]="place()" />
        <h1>{{ part.name }}</h1>
        <span class="soft">of {{ open.record().vehicles[place()]?.name }}</span>
      } @else {
        <h1>No part is chosen</h1>
        <span class="soft">Take one in the stack, or scan its tag.</span>
      }
    </div>
  </eb-view-frame>`,
  styles: `
    :host {
      display: contents;
    }
    .pad {
      padding: 8px 18px 0;
    }
    .of {
      display: flex;
      gap: 6px;
      align-items: center;
      flex: none;
      font-size: 13.5px;
    }
    h1 {
      font-size: 17px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class MeasureFrame {
  protected readonly selection = inject(Selection);
  protected readonly open = inject(OpenStudy);
  protected readonly views = VIEWS;
  private readonly url = toSignal(
    inject(Router).events.pipe(map((event) => (event instanceof NavigationEnd ? event.url : location.pathname))),
    {
      initialValue: location.pathname,
    },
  );
  /** runs are those of a subsystem, whichever part is chosen */
  protected readonly isOfSubsystem = computed(() => this.url().includes('/measure/runs'));
  /** the supply and the heating are those of a vehicle */
  protected readonly isOfVehicle = computed(() => /\/measure\/(?:supply|heating)/.test(this.url()));
  protected readonly place = computed(() => this.open.record().vehicles.findIndex((v) => v.id === this.selection.part()?.vehicleId));
}
