import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { ABSENT, dayText, fixed, READ_IN, readAs } from '@each-bolt/core/shared';
import type { PackageFields, WorkPackage } from '@each-bolt/core/record';
import { benchSays, numbered, scopeExpectation, scopeOf, type BenchSays } from '@each-bolt/core/plan';
import { catchError, debounceTime, of, switchMap } from 'rxjs';
import { OpenStudy } from '../record/open-study';
import type { RecordedDay } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { PlanOrganisation } from './plan-organisation';
import { RowEdits } from '../record/row-edits';

const OFTEN_MS = 1500;

/** Packages whose subsystem the bench has begun to record: how far it is, and what that says of start and time left. */
@Component({
  selector: 'eb-bench-progress',
  imports: [ButtonDirective, DataTable, TableHead, TableRow],
  template: `@if (rows().length > 0) {
    <section aria-label="Progress recorded at the bench">
      <h3>Progress recorded at the bench</h3>
      <eb-table
        ><ng-template ebHead>
          <tr>
            <th scope="col">Package</th>
            <th scope="col" class="right">Parts recorded</th>
            <th scope="col" class="right">expected</th>
            <th scope="col">Bench estimate</th>
            <th></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="pack.id" let-row>
          <tr>
            <th scope="row">{{ row.pack.name }}</th>
            <td class="right figure">{{ row.recorded }}</td>
            <td class="right figure">{{ row.expected }}</td>
            <td>{{ row.text }}</td>
            <td class="right">
              @if (mayRecord()) {
                <button
                  pButton
                  severity="secondary"
                  type="button"
                  [attr.aria-label]="'Use these figures for ' + row.pack.name"
                  (click)="take(row.pack, row.says)"
                >
                  Use these figures
                </button>
              }
            </td>
          </tr>
        </ng-template></eb-table
      >
    </section>
  }`,
  styles: `
    th[scope='row'] {
      font-weight: 400;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchProgress {
  private readonly open = inject(OpenStudy);
  private readonly api = inject(RecordApi);
  private readonly service = inject(RecordService);
  private readonly organisation = inject(PlanOrganisation);
  private readonly edits = inject(RowEdits);
  protected readonly mayRecord = computed(() => this.service.can()('package.edit'));
  private readonly study = computed(() => ({ id: this.open.study().id, parts: this.open.record().parts }));
  private readonly days = toSignal(
    toObservable(this.study).pipe(
      debounceTime(OFTEN_MS),
      switchMap(({ id }) => this.api.plan(id, 'recorded').pipe(catchError(() => of<readonly RecordedDay[]>([])))),
    ),
    { initialValue: [] as readonly RecordedDay[] },
  );
  protected readonly rows = computed(() => {
    const record = this.open.record();
    const nameOf = new Map(record.subsystems.map((s) => [s.id, s.name]));
    const { experience } = this.organisation.organisation();
    return numbered(record.packages).flatMap((pack) => {
      const { vehicleId, subsystemId } = pack;
      // taking something off records nothing yet: the package that opens it does
      if (vehicleId === null || subsystemId === null || pack.place === 'lift') return [];
      const scope = scopeOf(record, vehicleId).get(subsystemId);
      const expected = scope ? scopeExpectation(nameOf.get(subsystemId) ?? '', scope, experience).parts : null;
      const firstDay = this.days().find((d) => d.vehicleId === vehicleId && d.subsystemId === subsystemId)?.day ?? null;
      const recorded = this.open.looseParts(vehicleId, subsystemId);
      const says = benchSays(pack, { recorded, expected, firstDay });
      if (!says) return [];
      const texts = [
        says.startedOn === null ? '' : `begun on ${dayText(says.startedOn)}`,
        says.remainingS === null ? '' : `${fixed(readAs(READ_IN.h, says.remainingS), 1)} h still needed`,
      ].filter((text) => text !== '');
      return [{ pack, says, recorded, expected: expected === null ? ABSENT : String(expected), text: texts.join(', ') }];
    });
  });

  protected take(pack: WorkPackage, { startedOn, remainingS }: BenchSays): void {
    const fields: Partial<PackageFields> = { ...(startedOn !== null && { startedOn }), ...(remainingS !== null && { remainingS }) };
    void this.edits.edit('package', pack, fields);
  }
}
