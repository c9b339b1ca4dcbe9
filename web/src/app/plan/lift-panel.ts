import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { ABSENT, decimalsFor, fixed, riskText, type FieldValue, READ_IN, unitShape, readAs } from '@each-bolt/core/shared';
import {
  nextSequence,
  type LiftSetUp,
  type LiftSetUpFields,
  type Op,
  type LiftStep,
  type LiftStepFields,
  fieldLines,
} from '@each-bolt/core/record';
import {
  liftBalance,
  usualLiftSetUp,
  newLiftStep,
  lumpOf,
  massTyped,
  placeTyped,
  recordedAs,
  stepsFromPlan,
  type BalanceStep,
} from '@each-bolt/core/plan';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { ChartInkService } from '../shared/chart-ink';
import { EditField } from '../shared/edit-field';
import { FieldPipe } from '../shared/pipes';
import type { FieldChoice } from '@each-bolt/core/record';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { ThemeService } from '../shared/theme-service';
import { echarts } from './echarts';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from '../record/row-edits';
import { liftChart } from './schedule-chart';

const metres = unitShape(READ_IN.m);

const STATE_TEXT: Readonly<Record<BalanceStep['state'], string>> = {
  stays: 'stays on the pads',
  near: 'near the limit: set stands first',
  tips: 'TIPS: do not take it off like this',
  unknown: 'not known',
};

/** The figures of a step that are typed, or else come from what is recorded. */
type StepFigure = 'massKg' | 'massUKg' | 'xM' | 'yM';

/** Whether a vehicle stays on the lift's pads while heavy things come off it, step by step, before the first is touched. */
@Component({
  selector: 'eb-lift-panel',
  imports: [EditField, NgxEchartsDirective, RefusalNote, VehicleMark, FieldPipe],
  providers: [provideEchartsCore({ echarts })],
  template: `<header class="sheet-head">
      <p class="who">
        <eb-vehicle-mark [place]="selection.vehiclePlace()" />
        <select class="plain" aria-label="Vehicle on the lift" (change)="selection.choose({ vehicle: $any($event.target).value })">
          @for (v of open.record().vehicles; track v.id) {
            <option [value]="v.id" [selected]="v.id === selection.vehicle()?.id">{{ v.name }}</option>
          }
        </select>
      </p>
      @if (liftSetUp() === null && selection.vehicle() && mayEdit()) {
        <button type="button" class="main-button" (click)="setUp()">Put it on a lift</button>
      }
    </header>
    @if (liftSetUp(); as h) {
      @if (warning() !== '') {
        <p class="warning" role="alert">{{ warning() }}</p>
      }
      @for (issue of balance()?.issues ?? []; track $index) {
        <eb-refusal [message]="issue.message" />
      }
      <section aria-label="What comes off, in order">
        <div class="sheet-head">
          <h3>What comes off, in order</h3>
          @if (mayEdit()) {
            <div class="acts">
              <button type="button" class="quiet-button" [disabled]="fromPlan().length === 0" (click)="takeFromPlan()">
                {{ fromPlan().length === 0 ? 'The plan holds nothing more' : 'Take ' + fromPlan().length + ' from the plan' }}
              </button>
              <button type="button" class="quiet-button" (click)="add()">Add a step</button>
            </div>
          }
        </div>
        <div class="steps">
          <table class="ruled">
            <thead>
              <tr>
                <th scope="col" class="right">Step</th>
                <th scope="col">Comes off, recorded as</th>
                <th scope="col" class="right">Mass, kg</th>
                <th scope="col" class="right">± u, kg</th>
                <th scope="col" class="right">x, m</th>
                <th scope="col" class="right">y, m</th>
                <th scope="col" class="right">Left, kg</th>
                <th scope="col" class="right">Inside by, mm</th>
                <th scope="col" class="right">Chance to tip</th>
                <th scope="col">Then it</th>
                <th></th>
              </tr>
            </thead>
            <tbody>
              @for (row of rows(); track row.liftStep.id; let i = $index) {
                <tr [class.tips]="row.state === 'tips'" [class.near]="row.state === 'near'">
                  <td class="right figure">{{ i + 1 }}</td>
                  <td class="wide">
                    <eb-edit-field
                      of="liftStep.label"
                      [value]="row.liftStep.label"
                      [disabled]="!mayEdit()"
                      [fault]="edits.faultOf(row.liftStep.id, 'label')"
                      (committed)="editStep(row.liftStep, { label: $any($event) })"
                    />
                    <eb-edit-field
                      class="soft"
                      [label]="'What is recorded of ' + row.liftStep.label"
                      [options]="recorded()"
                      [value]="row.liftStep.partId ?? row.liftStep.subsystemId ?? ''"
                      [disabled]="!mayEdit()"
                      (committed)="setRecorded(row.liftStep, $any($event))"
                    />
                  </td>
                  @for (figure of figures; track figure.field) {
                    <td class="n">
                      <eb-edit-field
                        [of]="figure.name"
                        [whose]="row.liftStep.label"
                        [showUnit]="false"
                        [placeholder]="row.recorded[figure.field]"
                        [value]="row.liftStep[figure.field]"
                        [disabled]="!mayEdit()"
                        [fault]="edits.faultOf(row.liftStep.id, figure.field)"
                        (committed)="setFigure(row.liftStep, figure.field, $any($event))"
                      />
                    </td>
                  }
                  <td class="right figure">{{ row.left }}</td>
                  <td class="right figure">{{ row.inside }}</td>
                  <td class="right figure">{{ row.chance }}</td>
                  <td class="state">{{ row.text }}</td>
                  <td class="acts-cell">
                    @if (mayEdit()) {
                      <button
                        type="button"
                        class="icon-button"
                        [attr.aria-label]="'Move ' + row.liftStep.label + ' up'"
                        [disabled]="i === 0"
                        (click)="move(i, -1)"
                      >
                        <i class="pi pi-arrow-up" aria-hidden="true"></i>
                      </button>
                      <button
                        type="button"
                        class="icon-button"
                        [attr.aria-label]="'Take ' + row.liftStep.label + ' off the list'"
                        (click)="edits.remove('liftStep', row.liftStep)"
                      >
                        <i class="pi pi-times" aria-hidden="true"></i>
                      </button>
                    }
                  </td>
                </tr>
              } @empty {
                <tr>
                  <td colspan="11" class="soft">
                    Nothing comes off yet. Take the order from the plan, or add the heavy things one by one.
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      </section>
      <div class="two">
        <section aria-label="Vehicle and pads">
          <dl class="facts">
            <dt>{{ 'liftSetUp.resourceId' | ebField }}</dt>
            <dd>
              <eb-edit-field
                of="liftSetUp.resourceId"
                [options]="lifts()"
                [value]="h.resourceId ?? ''"
                [disabled]="!mayEdit()"
                (committed)="edit('resourceId', $event)"
              />
            </dd>
            @for (line of lines; track line.field) {
              <dt>{{ line.label }}</dt>
              <dd>
                <eb-edit-field
                  [of]="line.name"
                  [value]="$any(h[line.field])"
                  [disabled]="!mayEdit()"
                  [fault]="edits.faultOf(h.id, line.field)"
                  (committed)="edit(line.field, $event)"
                />
              </dd>
            }
            @for (pad of h.pads; track $index; let i = $index) {
              <dt>Pad {{ i + 1 }}: x, y</dt>
              <dd class="pair">
                <eb-edit-field
                  [label]="'Pad ' + (i + 1) + ' from the front axle'"
                  [shape]="metre"
                  [showUnit]="false"
                  [value]="pad.xM"
                  [disabled]="!mayEdit()"
                  (committed)="setPad(i, 'xM', $event)"
                />
                <eb-edit-field
                  [label]="'Pad ' + (i + 1) + ' to the right'"
                  [shape]="metre"
                  [value]="pad.yM"
                  [disabled]="!mayEdit()"
                  (committed)="setPad(i, 'yM', $event)"
                />
              </dd>
            }
          </dl>
          <p class="soft small">
            x from the front axle rearwards, y from the middle to the right. The chance to tip is that of the centre of mass lying over any
            edge of the pads, from the uncertainties; from 1 % on a step is stopped.
          </p>
        </section>
        <div
          class="chart"
          echarts
          [options]="options()!"
          [autoResize]="true"
          role="img"
          aria-label="Pads and centre of mass from above, step by step; the table above says the same"
        ></div>
      </div>
    } @else {
      <p class="sheet-empty">
        {{
          selection.vehicle()
            ? 'This vehicle is not on a lift yet: set its mass, its centre of mass and the pads, then the order in which heavy things come off.'
            : 'The study has no vehicle yet.'
        }}
      </p>
    }`,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 10px;
    }
    .who {
      display: flex;
      gap: 8px;
      align-items: center;
    }
    .two {
      display: grid;
      grid-template-columns: minmax(300px, 380px) minmax(0, 1fr);
      gap: 24px;
    }
    .chart {
      min-height: 300px;
    }
    .pair {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px;
    }
    .warning {
      padding: 8px 12px;
      border: 2px solid var(--red);
      color: var(--red);
      font-weight: 600;
      background: var(--sheet);
    }
    .small {
      font-size: 12.5px;
    }
    /* figures are never cut off: a narrow sheet slides */
    .steps {
      overflow-x: auto;
    }
    .steps table {
      min-width: 960px;
    }
    .n {
      width: 84px;
    }
    .wide {
      min-width: 218px;
    }
    .state {
      min-width: 120px;
    }
    .tips .state {
      color: var(--red);
      font-weight: 600;
    }
    .near .state {
      color: var(--amber);
      font-weight: 500;
    }
    .acts-cell {
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LiftPanel {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  private readonly schedules = inject(PlanScheduleService);
  private readonly theme = inject(ThemeService);
  private readonly inks = inject(ChartInkService);

  protected readonly metre = metres;
  protected readonly figures = fieldLines('liftStep', ['massKg', 'massUKg', 'xM', 'yM']);
  protected readonly lines = fieldLines('liftSetUp', ['massKg', 'massUKg', 'xM', 'yM', 'placeUM', 'marginM']);
  protected readonly mayEdit = computed(() => this.service.can()('liftSetUp.edit'));
  protected readonly liftSetUp = computed<LiftSetUp | null>(
    () => this.open.record().liftSetUps.find((h) => h.vehicleId === this.selection.vehicle()?.id) ?? null,
  );
  private readonly liftSteps = computed(() =>
    this.open
      .record()
      .liftSteps.filter((u) => u.vehicleId === this.selection.vehicle()?.id)
      .sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1)),
  );
  private readonly lumps = computed(() =>
    this.liftSteps().map((liftStep) => {
      const part = this.open.partById().get(liftStep.partId ?? '') ?? null;
      const within =
        liftStep.subsystemId === null
          ? part && this.open.massOf(part.id)
          : this.open.massOfSubsystem(liftStep.vehicleId, liftStep.subsystemId);
      return { part, within, lump: lumpOf(liftStep, part, within?.kg ?? null, within?.uKg ?? null) };
    }),
  );
  protected readonly balance = computed(() => {
    const liftSetUp = this.liftSetUp();
    return (
      liftSetUp &&
      liftBalance(
        liftSetUp,
        this.liftSteps(),
        this.lumps().map(({ lump }) => lump),
      )
    );
  });
  protected readonly options = computed(() => {
    const [liftSetUp, balance] = [this.liftSetUp(), this.balance()];
    return liftSetUp && balance && liftChart(liftSetUp.pads, balance, this.inks.read(this.theme.theme()));
  });
  protected readonly warning = computed(() => {
    const balance = this.balance();
    if (!balance) return '';
    if (balance.startState === 'tips') return 'The whole vehicle does not surely stand on these pads. Move the pads before it is lifted.';
    const lift = this.open.record().resources.find((r) => r.id === this.liftSetUp()?.resourceId);
    const ratedKg = lift?.ratedKg ?? Number.POSITIVE_INFINITY;
    if (balance.start.massKg > ratedKg)
      return `${lift?.name ?? ''} may carry ${fixed(ratedKg, 0)} kg; the vehicle weighs ${fixed(balance.start.massKg, 0)} kg.`;
    const at = balance.steps.findIndex((step) => step.state === 'tips');
    const step = balance.steps[at];
    return step
      ? `Stop before step ${at + 1}, “${step.liftStep.label}”: after it the vehicle may tip off the pads (chance ${riskText(step.after?.tipFraction ?? 1)}). Change the order, move the pads, or set stands and straps.`
      : '';
  });
  protected readonly rows = computed(() =>
    (this.balance()?.steps ?? []).map((step, at) => {
      const { within, part } = this.lumps()[at]!;
      const text = (value: number | null | undefined, digits: number): string =>
        value === null || value === undefined ? '' : fixed(value, digits);
      return {
        liftStep: step.liftStep,
        state: step.state,
        text: STATE_TEXT[step.state],
        recorded: {
          massKg: text(within?.kg, decimalsFor(within?.uKg ?? 1, 3)),
          massUKg: text(within?.uKg, decimalsFor(within?.uKg ?? 1, 3)),
          xM: text(part?.xM, 2),
          yM: text(part?.yM, 2),
        },
        left: step.after ? fixed(step.after.massKg, 0) : ABSENT,
        inside: step.after
          ? `${fixed(readAs(READ_IN.mm, step.after.insideM), 0)} ± ${fixed(readAs(READ_IN.mm, step.after.uM), 0)}`
          : ABSENT,
        chance: step.after ? riskText(step.after.tipFraction) : ABSENT,
      };
    }),
  );
  protected readonly lifts = computed<readonly FieldChoice[]>(() => [
    { value: '', word: 'not said' },
    ...this.open
      .record()
      .resources.filter((r) => r.kind === 'lift')
      .map((r) => ({ value: r.id, word: r.name })),
  ]);
  private readonly topParts = computed(() =>
    this.open.record().parts.filter((p) => p.vehicleId === this.selection.vehicle()?.id && p.subsystemId !== null),
  );
  /** parts straight under a subsystem of the vehicle, and whole subsystems: what comes off as one */
  protected readonly recorded = computed<readonly FieldChoice[]>(() => {
    const opened = new Set(this.topParts().map((p) => p.subsystemId));
    return [
      { value: '', word: 'typed here' },
      ...this.topParts().map((p) => ({ value: p.id, word: p.name })),
      ...this.open
        .record()
        .subsystems.filter((s) => opened.has(s.id))
        .map((s) => ({ value: s.id, word: `${s.name}, all of it` })),
    ];
  });
  /** what packages on a lift will take off and no step does yet, in the order of the schedule */
  protected readonly fromPlan = computed(() => {
    const [vehicle, schedule] = [this.selection.vehicle(), this.schedules.schedule()];
    if (!vehicle || !schedule) return [];
    return stepsFromPlan(this.open.record(), vehicle.id, new Map(schedule.packages.map((s) => [s.packageId, s.start])));
  });

  protected setUp(): void {
    const vehicle = this.selection.vehicle();
    if (!vehicle) return;
    const liftSetUp = usualLiftSetUp(vehicle);
    if (liftSetUp) {
      void this.edits.add('liftSetUp', liftSetUp);
      return;
    }
    const message = `${vehicle.name} has no kerb mass: weigh it, or say it under Samples, before it is put on a lift`;
    this.edits.refused.set([{ code: 'lift-set-up.no-mass', message, field: 'massKg', recordId: vehicle.id }]);
  }

  protected edit(field: keyof LiftSetUpFields, value: FieldValue): void {
    const liftSetUp = this.liftSetUp();
    if (liftSetUp) void this.edits.edit('liftSetUp', liftSetUp, { [field]: value });
  }

  protected setPad(at: number, axis: 'xM' | 'yM', value: FieldValue): void {
    const liftSetUp = this.liftSetUp();
    if (liftSetUp && typeof value === 'number')
      void this.edits.edit('liftSetUp', liftSetUp, { pads: liftSetUp.pads.map((pad, i) => (i === at ? { ...pad, [axis]: value } : pad)) });
  }

  protected setRecorded(liftStep: LiftStep, id: string | null): void {
    this.editStep(liftStep, recordedAs(id, this.open.record().subsystems));
  }

  protected add(): void {
    void this.edits.add(
      'liftStep',
      newLiftStep(this.selection.vehicle()?.id ?? '', `Step ${this.liftSteps().length + 1}`, nextSequence(this.liftSteps())),
    );
  }

  protected takeFromPlan(): void {
    void this.edits.send(this.fromPlan().map((fields): Op => ({ kind: 'liftStep.add', id: crypto.randomUUID(), fields })));
  }

  protected editStep(liftStep: LiftStep, fields: Partial<LiftStepFields>): void {
    void this.edits.edit('liftStep', liftStep, fields);
  }

  protected setFigure(liftStep: LiftStep, field: StepFigure, value: number | null): void {
    if (field === 'massKg') this.editStep(liftStep, massTyped(liftStep, value));
    else if (field === 'massUKg') this.editStep(liftStep, { massUKg: value });
    else this.editStep(liftStep, placeTyped(liftStep, field, value));
  }

  protected move(at: number, by: -1 | 1): void {
    const [a, b] = [this.liftSteps()[at], this.liftSteps()[at + by]];
    if (!a || !b) return;
    void this.edits.send([
      { kind: 'liftStep.edit', id: a.id, was: { sequence: a.sequence }, fields: { sequence: b.sequence } },
      {
        kind: 'liftStep.edit',
        id: b.id,
        was: { sequence: b.sequence },
        fields: { sequence: a.sequence === b.sequence ? a.sequence + 1 : a.sequence },
      },
    ]);
  }
}
