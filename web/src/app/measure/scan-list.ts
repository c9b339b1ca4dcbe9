import { UnitPipe } from '../shared/pipes';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import type { Scan } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { sidesNumerals, volumeWords } from './scan-text';

/** The scans of a part: file, unit, volume and boxes, who took it with what and when. */
@Component({
  selector: 'eb-scan-list',
  imports: [ButtonDirective, DataTable, TableHead, TableRow, UnitPipe],
  template: `@if (rows().length === 0) {
      <p class="soft">None yet. Open a file, or take one from the scanner; it is measured here, before anything is kept.</p>
    } @else {
      <eb-table label="Scans"
        ><ng-template ebHead>
          <tr>
            <th scope="col">File</th>
            <th scope="col">Unit</th>
            <th scope="col" class="right">Volume</th>
            <th scope="col" class="right">Minimum bounding box, {{ 'mm' | ebUnit }}</th>
            <th scope="col" class="right">Trimmed bounding box, {{ 'mm' | ebUnit }}</th>
            <th></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="scan.id" let-row>
          <tr [class.on]="row.scan.id === openId()">
            <th scope="row">
              <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="opened.emit(row.scan)">
                {{ row.scan.fileName }}
              </button>
              <small class="soft">{{ row.taken }}</small>
            </th>
            <td>{{ row.scan.unit }}</td>
            <td class="right figure">{{ row.volume }}</td>
            <td class="right figure sides">{{ row.minimum }}</td>
            <td class="right figure sides">{{ row.trimmed }}</td>
            <td class="right">
              @if (mayRemove()) {
                <button pButton severity="secondary" type="button" (click)="removed.emit(row.scan)">Delete</button>
              }
            </td>
          </tr>
        </ng-template></eb-table
      >
    }`,
  styles: `
    :host {
      display: block;
    }
    th[scope='row'] {
      min-width: 150px;
    }
    th small {
      display: block;
      font: 400 12px/1.3 var(--text);
    }
    .sides {
      white-space: normal;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScanList {
  readonly scans = input.required<readonly Scan[]>();
  /** the scan that is being looked at, or empty */
  readonly openId = input('');
  readonly mayRemove = input(false);
  readonly opened = output<Scan>();
  readonly removed = output<Scan>();

  protected readonly rows = computed(() =>
    this.scans().map((scan) => ({
      scan,
      volume: scan.figures.volumeM3 === null ? '–' : volumeWords(scan.figures.volumeM3, scan.figures.volumeUM3),
      minimum: sidesNumerals(scan.figures.minimumM),
      trimmed: sidesNumerals(scan.figures.trimmedM),
      taken: [scan.instrument, scan.takenBy, new Date(scan.takenAt).toLocaleDateString('en-GB')].filter((text) => text !== '').join(', '),
    })),
  );
}
