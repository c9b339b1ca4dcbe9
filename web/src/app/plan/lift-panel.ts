import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { riskText, type FieldValue, READ_IN, unitShape, massText } from '@each-bolt/core/shared';
import { nextSequence, type LiftSetUpFields, type Op, fieldLines } from '@each-bolt/core/record';
import { usualLiftSetUp, newLiftStep, stepsFromPlan } from '@each-bolt/core/plan';
import { NgxEchartsDirective, provideEchartsCore } from 'ngx-echarts';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { ChartInkService } from '../shared/chart-ink';
import { EditField } from '../shared/edit-field';
import { FieldPipe } from '../shared/pipes';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { Choose, ChoicesPipe } from '../shared/choose';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { ThemeService } from '../shared/theme-service';
import { echarts } from './echarts';
import { LiftStepsTable } from './lift-steps-table';
import { LiftSums } from './lift-sums';
import { PlanScheduleService } from './plan-schedule-service';
import { RowEdits } from '../record/row-edits';
import { liftChart } from './schedule-chart';

const metres = unitShape(READ_IN.m);

/** Whether a vehicle stays on the lift's pads while heavy things come off it, step by step, before the first is touched. */
@Component({
  selector: 'eb-lift-panel',
  imports: [EditField, LiftStepsTable, NgxEchartsDirective, RefusalNote, VehicleMark, FieldPipe, ButtonDirective, Choose, ChoicesPipe],
  providers: [provideEchartsCore({ echarts }), LiftSums],
  template: `<header class="sheet-head">
      <p class="who">
        <eb-vehicle-mark [place]="selection.vehiclePlace()" />
        <eb-choose
          label="Vehicle on the lift"
          (valueChange)="selection.choose({ vehicle: $event })"
          [value]="selection.vehicle()?.id ?? ''"
          [options]="open.record().vehicles | ebChoices: 'id' : 'name'"
        />
      </p>
      @if (liftSetUp() === null && selection.vehicle() && mayEdit()) {
        <button pButton type="button" (click)="setUp()">Put it on a lift</button>
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
              <button pButton severity="secondary" type="button" [disabled]="fromPlan().length === 0" (click)="takeFromPlan()">
                {{ fromPlan().length === 0 ? 'The plan holds nothing more' : 'Take ' + fromPlan().length + ' from the plan' }}
              </button>
              <button pButton severity="secondary" type="button" (click)="add()">Add a step</button>
            </div>
          }
        </div>
        <eb-lift-steps />
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
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LiftPanel {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  private readonly lift = inject(LiftSums);
  private readonly schedules = inject(PlanScheduleService);
  private readonly theme = inject(ThemeService);
  private readonly inks = inject(ChartInkService);

  protected readonly metre = metres;
  protected readonly lines = fieldLines('liftSetUp', ['massKg', 'massUKg', 'xM', 'yM', 'placeUM', 'marginM']);
  protected readonly mayEdit = this.lift.mayEdit;
  protected readonly liftSetUp = this.lift.liftSetUp;
  protected readonly balance = this.lift.balance;
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
      return `${lift?.name ?? ''} may carry ${massText(ratedKg, 0)}; the vehicle weighs ${massText(balance.start.massKg, 0)}.`;
    const at = balance.steps.findIndex((step) => step.state === 'tips');
    const step = balance.steps[at];
    return step
      ? `Stop before step ${at + 1}, “${step.liftStep.label}”: after it the vehicle may tip off the pads (chance ${riskText(step.after?.tipFraction ?? 1)}). Change the order, move the pads, or set stands and straps.`
      : '';
  });
  protected readonly lifts = computed<readonly FieldChoice[]>(() => [
    { value: '', word: 'not said' },
    ...this.open
      .record()
      .resources.filter((r) => r.kind === 'lift')
      .map((r) => ({ value: r.id, word: r.name })),
  ]);
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

  protected add(): void {
    void this.edits.add(
      'liftStep',
      newLiftStep(this.selection.vehicle()?.id ?? '', `Step ${this.lift.liftSteps().length + 1}`, nextSequence(this.lift.liftSteps())),
    );
  }

  protected takeFromPlan(): void {
    void this.edits.send(this.fromPlan().map((fields): Op => ({ kind: 'liftStep.add', id: crypto.randomUUID(), fields })));
  }
}
