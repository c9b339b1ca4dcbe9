import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { ABSENT, counted, fixed, unitShape, type FieldShape, type FieldValue, READ_IN } from '@each-bolt/core/shared';
import { DEPTHS, DEPTH_WORD, type Depth, type Scope, type ScopeFields, type Subsystem } from '@each-bolt/core/record';
import { packagesFromScope, scopeExpectation, scopeOf, type Expected, type ScopeExpectation } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { EditField } from '../shared/edit-field';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { Choose, ChoicesPipe } from '../shared/choose';
import { VehicleMark } from '../shared/vehicle-mark';
import { PlanOrganisation } from './plan-organisation';
import { RowEdits } from '../record/row-edits';

interface ScopeRow {
  readonly subsystem: Subsystem;
  readonly scope: Scope | null;
  readonly expected: ScopeExpectation | null;
  readonly recorded: number;
}

const HOURS = unitShape(READ_IN.h);
const HOUR_S = 3600;

/** How deep each subsystem of a vehicle is opened, and what earlier studies let expect of it. */
@Component({
  selector: 'eb-scope-view',
  imports: [EditField, VehicleMark, ButtonDirective, Choose, ChoicesPipe, DataTable, TableHead, TableRow, TableFoot],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>How deep it is opened</h1>
        <p class="soft">
          <eb-vehicle-mark [place]="selection.vehiclePlace()" /> {{ selection.vehicle()?.name ?? 'no vehicle' }} · {{ summary() }}
        </p>
      </div>
      <div class="acts">
        <eb-choose
          label="Vehicle"
          (valueChange)="selection.choose({ vehicle: $event })"
          [value]="selection.vehicle()?.id ?? ''"
          [options]="open.record().vehicles | ebChoices: 'id' : 'name'"
        />
        @if (mayPlan()) {
          <button pButton type="button" [disabled]="made().ops.length === 0" (click)="make()">
            {{ made().ops.length === 0 ? 'All of it has packages' : makeText() }}
          </button>
        }
      </div>
    </header>
    @if (organisation.isAway()) {
      <p class="soft" role="status">Without a connection nothing is known here of earlier studies; what is typed counts.</p>
    }
    @if (rows().length === 0) {
      <p class="sheet-empty">The study has no subsystem yet. Add the first with “+ subsystem” below the stack.</p>
    } @else {
      <eb-table
        ><ng-template ebHead>
          <tr>
            <th scope="col">Subsystem</th>
            <th scope="col">Depth</th>
            <th scope="col">Why it stays closed</th>
            <th scope="col" class="right">Parts expected</th>
            <th scope="col">from earlier studies</th>
            <th scope="col" class="right">Labour hours</th>
            <th scope="col">from earlier studies</th>
            <th scope="col" class="right">Recorded</th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="subsystem.id" let-row>
          <tr>
            <th scope="row">{{ row.subsystem.name }}</th>
            <td class="depth">
              <eb-edit-field
                of="scope.depth"
                [whose]="row.subsystem.name"
                [options]="depths"
                [value]="isClosing(row) ? 'closed' : (row.scope?.depth ?? '')"
                [disabled]="!mayPlan()"
                (committed)="setDepth(row, $any($event))"
              />
            </td>
            <td>
              @if (isClosing(row)) {
                <eb-edit-field
                  of="scope.reason"
                  [whose]="row.subsystem.name"
                  placeholder="say why"
                  [value]="row.scope?.reason ?? ''"
                  fault="Not kept yet: say why it stays closed"
                  (committed)="close(row, $any($event))"
                />
              } @else if (row.scope && (row.scope.depth === 'closed' || row.scope.reason !== '') && row.scope; as scope) {
                <eb-edit-field
                  of="scope.reason"
                  [whose]="row.subsystem.name"
                  [value]="scope.reason"
                  [disabled]="!mayPlan()"
                  [fault]="edits.faultOf(scope.id, 'reason')"
                  (committed)="edit(scope, 'reason', $event)"
                />
              }
            </td>
            <td class="number">
              @if (row.scope; as scope) {
                <eb-edit-field
                  of="scope.expectedParts"
                  [whose]="row.subsystem.name"
                  [placeholder]="learnt(row.expected?.learntParts, 1)"
                  [value]="scope.expectedParts"
                  [disabled]="!mayPlan()"
                  [fault]="edits.faultOf(scope.id, 'expectedParts')"
                  (committed)="edit(scope, 'expectedParts', $event)"
                />
              }
            </td>
            <td class="soft small" [title]="row.expected?.learntParts?.basis ?? ''">{{ spread(row.expected?.learntParts, 1) }}</td>
            <td class="number">
              @if (row.scope; as scope) {
                <eb-edit-field
                  of="scope.expectedS"
                  [whose]="row.subsystem.name"
                  [placeholder]="learnt(row.expected?.learntTime, hourS)"
                  [showUnit]="false"
                  [value]="scope.expectedS"
                  [disabled]="!mayPlan()"
                  [fault]="edits.faultOf(scope.id, 'expectedS')"
                  (committed)="edit(scope, 'expectedS', $event)"
                />
              }
            </td>
            <td class="soft small" [title]="row.expected?.learntTime?.basis ?? ''">{{ spread(row.expected?.learntTime, hourS) }}</td>
            <td class="right figure">{{ row.recorded === 0 ? absent : row.recorded }}</td>
          </tr> </ng-template
        ><ng-template ebFoot>
          <tr>
            <th scope="row">Total</th>
            <td colspan="2" class="soft small">{{ counts() }}</td>
            <td class="right figure">{{ totals().parts }}</td>
            <td></td>
            <td class="right figure">{{ totals().hours }}</td>
            <td class="soft small">{{ totals().missing }}</td>
            <td class="right figure">{{ totals().recorded }}</td>
          </tr>
        </ng-template></eb-table
      >
      <p class="soft small">
        Parts are loose parts, fasteners not counted. What is typed counts before what earlier studies say; the range in grey holds 80 % of
        single cases. Hours come from a line through parts and hours of people of all earlier subsystems.
      </p>
    }
  </div>`,
  styles: `
    .depth {
      width: 132px;
    }
    .number {
      width: 92px;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ScopeView {
  protected readonly open = inject(OpenStudy);
  protected readonly organisation = inject(PlanOrganisation);
  protected readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly absent = ABSENT;
  protected readonly hours: FieldShape = HOURS;
  protected readonly hourS = HOUR_S;
  protected readonly depths: readonly FieldChoice[] = [
    { value: '', word: 'not decided' },
    ...DEPTHS.map((value) => ({ value, word: DEPTH_WORD[value] })),
  ];
  protected readonly mayPlan = computed(() => this.service.can()('scope.edit'));
  /** the subsystem that is to stay closed, until its reason is typed */
  private readonly closing = signal<{ readonly vehicleId: string; readonly subsystemId: string } | null>(null);
  protected readonly rows = computed<readonly ScopeRow[]>(() => {
    const vehicle = this.selection.vehicle();
    if (!vehicle) return [];
    const scopes = scopeOf(this.open.record(), vehicle.id);
    const { experience } = this.organisation.organisation();
    return this.open.record().subsystems.map((subsystem) => {
      const scope = scopes.get(subsystem.id) ?? null;
      return {
        subsystem,
        scope,
        expected: scope && scopeExpectation(subsystem.name, scope, experience),
        recorded: this.open.looseParts(vehicle.id, subsystem.id),
      };
    });
  });
  protected readonly made = computed(() =>
    packagesFromScope(this.open.record(), this.organisation.organisation().experience, () => crypto.randomUUID()),
  );
  protected readonly makeText = computed(() => `Make ${counted(this.made().ops.length, 'package')} from the scope`);
  protected readonly summary = computed(() => {
    const decided = this.rows().filter((row) => row.scope !== null).length;
    return `${decided} of ${counted(this.rows().length, 'subsystem')} decided`;
  });
  protected readonly counts = computed(() =>
    DEPTHS.map((depth) => ({ depth, n: this.rows().filter((row) => row.scope?.depth === depth).length }))
      .filter(({ n }) => n > 0)
      .map(({ depth, n }) => `${n} ${DEPTH_WORD[depth]}`)
      .join(', '),
  );
  protected readonly totals = computed(() => {
    const opened = this.rows().filter((row) => row.scope !== null && row.scope.depth !== 'closed');
    const parts = opened.reduce((sum, row) => sum + (row.expected?.parts ?? 0), 0);
    const seconds = opened.reduce((sum, row) => sum + (row.expected?.peopleS ?? 0), 0);
    const without = opened.filter((row) => row.expected?.peopleS === null).length;
    return {
      parts: fixed(parts, 0),
      hours: fixed(seconds / HOUR_S, 1),
      missing: without === 0 ? '' : `without ${counted(without, 'subsystem')} whose time is not known`,
      recorded: fixed(
        this.rows().reduce((sum, row) => sum + row.recorded, 0),
        0,
      ),
    };
  });

  protected learnt(expected: Expected | null | undefined, per: number): string {
    return expected ? fixed(expected.value / per, per === 1 ? 0 : 1) : ABSENT;
  }

  protected spread(expected: Expected | null | undefined, per: number): string {
    if (!expected) return '';
    const digits = per === 1 ? 0 : 1;
    const cases = counted(expected.cases, 'case');
    return expected.low === null || expected.high === null
      ? `${cases}, no spread yet`
      : `${fixed(expected.low / per, digits)} to ${fixed(expected.high / per, digits)}, ${cases}`;
  }

  protected isClosing(row: ScopeRow): boolean {
    const closing = this.closing();
    return closing !== null && closing.subsystemId === row.subsystem.id && closing.vehicleId === this.selection.vehicle()?.id;
  }

  /** A depth is kept at once; only “leave closed” waits until somebody has said why. */
  protected setDepth(row: ScopeRow, depth: Depth | null): void {
    const vehicle = this.selection.vehicle();
    if (!vehicle) return;
    const reason = row.scope?.reason ?? '';
    if (depth === 'closed' && reason === '') {
      this.closing.set({ vehicleId: vehicle.id, subsystemId: row.subsystem.id });
      return;
    }
    this.closing.set(null);
    if (depth !== null) this.decide(vehicle.id, row, depth, reason);
    else if (row.scope) void this.edits.remove('scope', row.scope);
  }

  protected close(row: ScopeRow, reason: string): void {
    const vehicle = this.selection.vehicle();
    if (!vehicle || reason === '') return;
    this.closing.set(null);
    this.decide(vehicle.id, row, 'closed', reason);
  }

  private decide(vehicleId: string, row: ScopeRow, depth: Depth, reason: string): void {
    if (row.scope) void this.edits.edit('scope', row.scope, { depth, reason });
    else
      void this.edits.add('scope', {
        ...{ vehicleId, subsystemId: row.subsystem.id, depth, reason },
        ...{ expectedParts: null, expectedS: null },
      });
  }

  protected edit(scope: Scope, field: keyof ScopeFields, value: FieldValue): void {
    void this.edits.edit('scope', scope, { [field]: value });
  }

  protected make(): void {
    void this.edits.send(this.made().ops);
  }
}
