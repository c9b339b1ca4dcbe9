import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { numbered, type PlanSchedule, type Scheduled } from '@each-bolt/core/plan';
import type { WorkPackage } from '@each-bolt/core/record';
import { fixed, type FieldShape, type FieldValue } from '@each-bolt/core/shared';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { EditField } from '../shared/edit-field';
import { when } from './when-planned';

/** The schedule as a table: every package with its estimate, its time, who and where, its slack, and the day it is pinned on. */
@Component({
  selector: 'eb-schedule-table',
  imports: [DataTable, EditField, TableHead, TableRow],
  template: `<eb-table
    ><ng-template ebHead>
      <tr>
        <th scope="col" class="right">No.</th>
        <th scope="col" class="name">Package</th>
        <th scope="col">Optimistic / most likely / pessimistic h</th>
        <th scope="col">When</th>
        <th scope="col">By whom, where</th>
        <th scope="col" class="right">Slack, days</th>
        <th scope="col">Pinned on</th>
      </tr> </ng-template
    ><ng-template [ebRow]="rows()" track="pack.id" let-row>
      <tr>
        <td class="right figure">{{ row.number }}</td>
        <th scope="row">{{ row.pack.name }}</th>
        <td class="effort">
          <eb-edit-field
            [label]="'Hours of ' + row.pack.name"
            [shape]="effortShape"
            [value]="row.effort"
            [disabled]="!mayPlan() || row.state === 'done'"
            [fault]="edits.faultOf(row.pack.id, 'mostLikelyS')"
            (committed)="effort.emit({ pack: row.pack, value: $event })"
          />
        </td>
        <td class="when">
          {{ row.from }}
          <small class="soft">to {{ row.to }}</small>
        </td>
        <td>{{ row.holds }}</td>
        <td class="right figure">{{ row.slack }}</td>
        <td class="pin">
          @if (row.state === 'planned') {
            <eb-edit-field
              of="package.pinnedOn"
              [whose]="row.pack.name"
              [value]="row.pack.pinnedOn"
              [disabled]="!mayPlan()"
              [fault]="edits.faultOf(row.pack.id, 'pinnedOn')"
              (committed)="pinned.emit({ pack: row.pack, day: $any($event) })"
            />
          } @else {
            <span class="soft">{{ row.state }}</span>
          }
        </td>
      </tr>
    </ng-template></eb-table
  >`,
  styles: `
    .when {
      white-space: nowrap;
    }
    .effort {
      width: 158px;
    }
    .when small {
      display: block;
      font-size: 12.5px;
    }
    .name {
      min-width: 180px;
    }
    .pin {
      width: 138px;
    }
    th[scope='row'] {
      font-weight: 400;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScheduleTable {
  readonly schedule = input.required<PlanSchedule>();
  readonly effort = output<{ readonly pack: WorkPackage; readonly value: FieldValue }>();
  readonly pinned = output<{ readonly pack: WorkPackage; readonly day: string | null }>();

  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  protected readonly edits = inject(RowEdits);
  protected readonly effortShape: FieldShape = { kind: 'effort' };
  protected readonly mayPlan = computed(() => this.service.can()('package.add'));
  protected readonly rows = computed(() => {
    const s = this.schedule();
    const record = this.open.record();
    const nameOf = new Map([...record.resources, ...record.rigs].map((r) => [r.id, r.name]));
    const timesOf = new Map(s.packages.map((t): readonly [string, Scheduled] => [t.packageId, t]));
    return numbered(record.packages).flatMap((pack, at) => {
      const times = timesOf.get(pack.id);
      if (!times) return [];
      const { optimisticS, mostLikelyS, pessimisticS } = pack;
      return [
        {
          pack,
          number: at + 1,
          state: times.state,
          effort: optimisticS === null || mostLikelyS === null || pessimisticS === null ? null : { optimisticS, mostLikelyS, pessimisticS },
          from: when(times.from),
          to: when(times.to),
          holds: times.holds.map((id) => nameOf.get(id) ?? '').join(', '),
          slack: times.state === 'planned' ? fixed(times.slack / s.axis.slotsPerDay, 1) : '',
        },
      ];
    });
  });
}
