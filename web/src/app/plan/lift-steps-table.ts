import { UnitPipe } from '../shared/pipes';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import {
  ABSENT,
  READ_IN,
  decimalsFor,
  expandedU,
  fixed,
  readAs,
  riskText,
  withU,
  unitsShown,
  type ShownUnit,
} from '@each-bolt/core/shared';
import { fieldLines, type FieldChoice, type LiftStep, type LiftStepFields } from '@each-bolt/core/record';
import { massTyped, placeTyped, recordedAs, type BalanceStep } from '@each-bolt/core/plan';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow, TableFoot } from '../shared/data-table';
import { OpenStudy } from '../record/open-study';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { EditField } from '../shared/edit-field';
import { LiftSums } from './lift-sums';

const STATE_TEXT: Readonly<Record<BalanceStep['state'], string>> = {
  stays: 'stays on the pads',
  near: 'near the limit: set stands first',
  tips: 'TIPS: do not take it off like this',
  unknown: 'not known',
};

/** The figures of a step that are typed, or else come from what is recorded. */
type StepFigure = 'massKg' | 'massUKg' | 'xM' | 'yM';

/** What comes off a vehicle on the lift, step by step, and whether it stays on the pads after each. */
@Component({
  selector: 'eb-lift-steps',
  imports: [EditField, DataTable, TableHead, TableRow, TableFoot, IconButton, UnitPipe],
  template: `<div class="steps">
    <eb-table
      ><ng-template ebHead>
        <tr>
          <th scope="col" class="right">Step</th>
          <th scope="col">Comes off, recorded as</th>
          <th scope="col" class="right">Mass, {{ 'kg' | ebUnit }}</th>
          <th scope="col" class="right">± (k = 2), {{ 'kg' | ebUnit }}</th>
          <th scope="col" class="right">x, {{ 'm' | ebUnit }}</th>
          <th scope="col" class="right">y, {{ 'm' | ebUnit }}</th>
          <th scope="col" class="right">Remaining mass, {{ 'kg' | ebUnit }}</th>
          <th scope="col" class="right">Stability margin, {{ 'mm' | ebUnit }}</th>
          <th scope="col" class="right">Probability of tipping</th>
          <th scope="col">State</th>
          <th></th>
        </tr> </ng-template
      ><ng-template [ebRow]="rows()" track="liftStep.id" let-row let-i="index">
        <tr [class.tips]="row.state === 'tips'" [class.near]="row.state === 'near'">
          <td class="right figure">{{ i + 1 }}</td>
          <td class="wide">
            <eb-edit-field
              of="liftStep.label"
              [value]="row.liftStep.label"
              [disabled]="!lift.mayEdit()"
              [fault]="edits.faultOf(row.liftStep.id, 'label')"
              (committed)="editStep(row.liftStep, { label: $any($event) })"
            />
            <eb-edit-field
              class="soft"
              [label]="'What is recorded of ' + row.liftStep.label"
              [options]="recorded()"
              [value]="row.liftStep.partId ?? row.liftStep.subsystemId ?? ''"
              [disabled]="!lift.mayEdit()"
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
                [disabled]="!lift.mayEdit()"
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
            @if (lift.mayEdit()) {
              <eb-icon-button icon="arrow-up" [label]="'Move ' + row.liftStep.label + ' up'" [disabled]="i === 0" (acted)="move(i, -1)" />
              <eb-icon-button [label]="'Take ' + row.liftStep.label + ' off the list'" (acted)="edits.remove('liftStep', row.liftStep)" />
            }
          </td>
        </tr> </ng-template
      ><ng-template ebFoot>
        @if (rows().length === 0) {
          <tr>
            <td colspan="11" class="soft">Nothing comes off yet. Take the order from the plan, or add the heavy things one by one.</td>
          </tr>
        }
      </ng-template></eb-table
    >
  </div>`,
  styles: `
    :host {
      display: block;
      min-width: 0;
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
export class LiftStepsTable {
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  protected readonly lift = inject(LiftSums);

  protected readonly figures = fieldLines('liftStep', ['massKg', 'massUKg', 'xM', 'yM']);
  protected readonly rows = computed(() =>
    (this.lift.balance()?.steps ?? []).map((step, at) => {
      const { within, part } = this.lift.lumps()[at]!;
      const text = (unit: ShownUnit, value: number | null | undefined, digits: number): string =>
        value === null || value === undefined ? '' : fixed(readAs(unit, value), digits);
      return {
        liftStep: step.liftStep,
        state: step.state,
        text: STATE_TEXT[step.state],
        recorded: {
          massKg: text(READ_IN.kg, within?.kg, decimalsFor(within?.uKg ?? 1, 3)),
          massUKg: text(READ_IN.kg, within ? expandedU(within.uKg) : null, decimalsFor(within?.uKg ?? 1, 3)),
          xM: text(READ_IN.m, part?.xM, 2),
          yM: text(READ_IN.m, part?.yM, 2),
        },
        left: step.after ? fixed(readAs(READ_IN.kg, step.after.massKg), 0) : ABSENT,
        inside: step.after
          ? withU(readAs(READ_IN.mm, step.after.insideM), readAs(READ_IN.mm, step.after.uM), unitsShown() === 'metric' ? 0 : 1)
          : ABSENT,
        chance: step.after ? riskText(step.after.tipFraction) : ABSENT,
      };
    }),
  );
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

  protected setRecorded(liftStep: LiftStep, id: string | null): void {
    this.editStep(liftStep, recordedAs(id, this.open.record().subsystems));
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
    const [a, b] = [this.lift.liftSteps()[at], this.lift.liftSteps()[at + by]];
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
