import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';
import { ABSENT, counted, dayText, fixed, printField, READ_IN, readAs } from '@each-bolt/core/shared';
import { blank, type WorkPackage, nextSequence } from '@each-bolt/core/record';
import { labourOf, numbered, printAfter, progressFraction, type Scheduled } from '@each-bolt/core/plan';
import { map } from 'rxjs';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Hexagon } from '../shared/hexagon';
import { PackageSheet } from './package-sheet';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from '../record/row-edits';

/** The work packages of the study as a list, and the one that is chosen in full. */
@Component({
  selector: 'eb-packages-view',
  imports: [Hexagon, PackageSheet, ButtonDirective, DataTable, TableHead, TableRow],
  template: `<div class="columns">
    <div class="list" tabindex="0" role="region" aria-label="Work packages">
      <header class="sheet-head">
        <div>
          <h1>Work packages</h1>
          <p class="soft">{{ summary() }}</p>
        </div>
        @if (mayPlan()) {
          <button pButton type="button" (click)="add()">Add a package</button>
        }
      </header>
      @if (rows().length === 0) {
        <p class="sheet-empty">
          No work package yet. Decide how deep each subsystem is opened under Scope and make packages from it, or add one here.
        </p>
      } @else {
        <eb-table
          ><ng-template ebHead>
            <tr>
              <th scope="col" class="right">No.</th>
              <th scope="col"></th>
              <th scope="col">Package</th>
              <th scope="col" class="right">Hours</th>
              <th scope="col">Crew</th>
              <th scope="col">Where</th>
              <th scope="col" class="after">After</th>
              <th scope="col">When</th>
            </tr> </ng-template
          ><ng-template [ebRow]="rows()" track="pack.id" let-row>
            <tr [class.on]="row.pack.id === chosen()?.id" [class.out]="row.why !== ''">
              <td class="right figure">{{ row.number }}</td>
              <td><eb-hexagon [progress]="row.progress" /></td>
              <td>
                <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="choose(row.pack.id)">
                  {{ row.pack.name }}
                </button>
                @if (row.why !== '') {
                  <small class="why">{{ row.why }}</small>
                }
              </td>
              <td class="right figure">{{ row.hours }}</td>
              <td>{{ row.crew }}</td>
              <td>{{ row.where }}</td>
              <td class="after">{{ row.after }}</td>
              <td class="when">
                {{ row.from }}
                <small class="soft">{{ row.to }}</small>
              </td>
            </tr>
          </ng-template></eb-table
        >
      }
    </div>
    @if (chosen(); as pack) {
      <eb-package-sheet [pack]="pack" />
    }
  </div>`,
  styles: `
    .columns {
      flex: 1;
      min-height: 0;
      display: flex;
    }
    .list {
      flex: 1;
      min-width: 0;
      overflow: auto;
      padding: 12px 18px;
      display: flex;
      flex-direction: column;
      gap: 8px;
    }
    .after {
      width: 84px;
    }
    small {
      display: block;
      font-size: 12.5px;
    }
    .when {
      white-space: nowrap;
    }
    .why {
      display: block;
      color: var(--amber);
      font-size: 12.5px;
    }
    eb-package-sheet {
      flex: none;
      width: 348px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PackagesView {
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly schedules = inject(PlanScheduleService);
  private readonly router = inject(Router);
  private readonly route = inject(ActivatedRoute);
  private readonly chosenId = toSignal(this.route.queryParamMap.pipe(map((params) => params.get('package') ?? '')), { initialValue: '' });

  protected readonly mayPlan = computed(() => this.service.can()('package.add'));
  protected readonly chosen = computed<WorkPackage | null>(() => this.open.record().packages.find((p) => p.id === this.chosenId()) ?? null);
  protected readonly rows = computed(() => {
    const record = this.open.record();
    const schedule = this.schedules.schedule();
    const timesOf = new Map<string, Scheduled>(schedule?.packages.map((s) => [s.packageId, s]) ?? []);
    const whyOf = new Map(schedule?.leftOut.map((l) => [l.packageId, l.why]) ?? []);
    const nameOf = new Map([...record.resources, ...record.rigs].map((r) => [r.id, r.name]));
    return numbered(record.packages).map((pack, at) => {
      const times = timesOf.get(pack.id);
      const named = pack.who.map((id) => nameOf.get(id) ?? '').join(', ');
      const done = progressFraction(pack);
      return {
        pack,
        number: at + 1,
        progress: done === 1 ? ('full' as const) : pack.startedOn !== null ? ('half' as const) : ('empty' as const),
        hours: pack.mostLikelyS === null ? ABSENT : printField({ kind: 'number', per: 3600, unit: 'h', digits: 1 }, pack.mostLikelyS),
        crew: [`${pack.people}`, pack.skill, named === '' ? '' : `with ${named}`].filter((text) => text !== '').join(' · '),
        where: [pack.place === 'none' ? '' : pack.place, nameOf.get(pack.rigId ?? '') ?? ''].filter((text) => text !== '').join(', '),
        after: printAfter(pack, record.packages),
        from: times ? `${dayText(times.from.slice(0, 10))} ${times.from.slice(11)}` : ABSENT,
        to: times ? `to ${dayText(times.to.slice(0, 10))} ${times.to.slice(11)}` : '',
        why: whyOf.get(pack.id) ?? '',
      };
    });
  });
  protected readonly summary = computed(() => {
    const packs = this.open.record().packages;
    const done = packs.filter((p) => p.doneOn !== null).length;
    const running = packs.filter((p) => p.doneOn === null && p.startedOn !== null).length;
    const { peopleS, withoutEstimate } = labourOf(packs);
    return `${counted(packs.length, 'package')}, ${done} done, ${running} running; ${fixed(readAs(READ_IN.h, peopleS), 0)} hours of people in all${withoutEstimate === 0 ? '' : `, ${withoutEstimate} without an estimate`}`;
  });

  protected choose(id: string | null): void {
    void this.router.navigate([], { relativeTo: this.route, queryParams: { package: id }, queryParamsHandling: 'merge' });
  }

  protected async add(): Promise<void> {
    const packs = this.open.record().packages;
    const sequence = nextSequence(packs);
    const id = await this.edits.add('package', blank('package', { name: `Package ${packs.length + 1}`, sequence }));
    if (id !== null) this.choose(id);
  }
}
