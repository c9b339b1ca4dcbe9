import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { EVIDENCE_MARKS, EVIDENCE_WORD, type FieldValue } from '@each-bolt/core/shared';
import {
  fieldLabel,
  evidenceFor,
  type Claim,
  type ClaimFields,
  type Evidence,
  type Vehicle,
  type VehicleFields,
  nextSequence,
  fieldLines,
} from '@each-bolt/core/record';
import { HEADLINE_FIGURES, sampleWarnings } from '@each-bolt/core/plan';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { EditField } from '../shared/edit-field';
import type { FieldChoice } from '@each-bolt/core/record';
import { ButtonDirective } from 'primeng/button';
import { IconButton } from '../shared/icon-button';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { VehicleMark } from '../shared/vehicle-mark';
import { RowEdits } from '../record/row-edits';

const PASSPORT = fieldLines('vehicle', [
  ...(['role', 'maker', 'modelYear', 'generation', 'variant', 'vehicleClass', 'drive', 'builtOn', 'acquiredOn', 'expectedOn'] as const),
  ...(['odometerM', 'obtained', 'price', 'priceCurrency', 'priceYear', 'changes', 'wear'] as const),
]);
const HEADLINE = fieldLines('vehicle', HEADLINE_FIGURES);
const CLAIM_LINES = fieldLines('claim', ['statement', 'vehicleId', 'sourceKind', 'source', 'test', 'state', 'outcome']);

/** Questions, samples and their passports, headline figures, and the public claims that the study will test. */
@Component({
  selector: 'eb-samples-view',
  imports: [EditField, VehicleMark, ButtonDirective, DataTable, TableHead, TableRow, IconButton],
  template: `<div class="sheet scroll">
    <h1>Samples and questions</h1>
    <section aria-label="Questions to answer">
      <h3>Questions the study must answer</h3>
      <eb-edit-field
        of="study.questions"
        [value]="open.study().questions"
        [disabled]="!isLead()"
        [fault]="edits.faultOf(open.study().id, 'questions')"
        (committed)="edits.edit('study', open.study(), { questions: $any($event) })"
      />
    </section>
    @if (warnings().length > 0) {
      <ul class="warnings" aria-label="Warnings about the samples">
        @for (warning of warnings(); track $index) {
          <li>{{ warning.message }}</li>
        }
      </ul>
    }
    @if (vehicles().length === 0) {
      <p class="sheet-empty">No vehicle yet: take one from the choice, or add one with “+ vehicle” below the stack.</p>
    } @else {
      <div class="passports" tabindex="0" role="region" aria-label="Passports of the samples">
        <table class="ruled">
          <thead>
            <tr>
              <th scope="col">Passport</th>
              @for (vehicle of vehicles(); track vehicle.id; let place = $index) {
                <th scope="col">
                  <span class="name"><eb-vehicle-mark [place]="place" /> {{ vehicle.name }}</span>
                </th>
              }
            </tr>
          </thead>
          <tbody>
            @for (line of passport; track line.field) {
              <tr>
                <th scope="row">{{ line.label }}</th>
                @for (vehicle of vehicles(); track vehicle.id) {
                  <td>
                    <eb-edit-field
                      [of]="line.name"
                      [whose]="vehicle.name"
                      [value]="$any(vehicle[line.field])"
                      [leftward]="true"
                      [disabled]="!may()('vehicle.edit')"
                      [fault]="edits.faultOf(vehicle.id, line.field)"
                      (committed)="edit(vehicle, line.field, $event)"
                    />
                  </td>
                }
              </tr>
            }
            <tr>
              <th scope="row">Follows</th>
              @for (vehicle of vehicles(); track vehicle.id) {
                <td>
                  <eb-edit-field
                    of="vehicle.predecessorId"
                    [whose]="vehicle.name"
                    [options]="others(vehicle)"
                    [value]="vehicle.predecessorId ?? ''"
                    [disabled]="!may()('vehicle.edit')"
                    (committed)="edit(vehicle, 'predecessorId', $event)"
                  />
                </td>
              }
            </tr>
            <tr class="break">
              <th scope="row" [attr.colspan]="vehicles().length + 1">Headline figures</th>
            </tr>
            @for (line of headline; track line.field) {
              <tr>
                <th scope="row">{{ line.label }}</th>
                @for (vehicle of vehicles(); track vehicle.id) {
                  <td>
                    <div class="evidence">
                      <eb-edit-field
                        [of]="line.name"
                        [whose]="vehicle.name"
                        [value]="$any(vehicle[line.field])"
                        [disabled]="!may()('vehicle.edit')"
                        [fault]="edits.faultOf(vehicle.id, line.field) || doubtOf(vehicle, line.field)"
                        (committed)="edit(vehicle, line.field, $event)"
                      />
                      @if (evidenceOf(vehicle, line.field); as said) {
                        <eb-edit-field
                          [label]="'How ' + line.label.toLowerCase() + ' of ' + vehicle.name + ' is known'"
                          [options]="marks"
                          [value]="said.mark"
                          [disabled]="!may()('vehicle.edit')"
                          (committed)="know(vehicle, line.field, { mark: $any($event) })"
                        />
                        <eb-edit-field
                          [label]="'Who says the ' + line.label.toLowerCase() + ' of ' + vehicle.name"
                          placeholder="source"
                          [value]="said.source"
                          [disabled]="!may()('vehicle.edit')"
                          (committed)="know(vehicle, line.field, { source: $any($event) })"
                        />
                      }
                    </div>
                  </td>
                }
              </tr>
            }
          </tbody>
        </table>
      </div>
    }
    <section aria-label="Claims to test">
      <div class="sheet-head">
        <h2>Public claims to test</h2>
        @if (may()('claim.add')) {
          <button pButton severity="secondary" type="button" (click)="addClaim()">Add a claim</button>
        }
      </div>
      @if (claims().length === 0) {
        <p class="soft">None yet. What makers, press or owners say of a vehicle is tested here and carried to the findings.</p>
      } @else {
        <eb-table class="claims"
          ><ng-template ebHead>
            <tr>
              <th scope="col">Claim</th>
              <th scope="col">About</th>
              <th scope="col">Said by</th>
              <th scope="col">Where and when</th>
              <th scope="col">How it is tested</th>
              <th scope="col">State</th>
              <th scope="col">What the test showed</th>
              <th></th>
            </tr> </ng-template
          ><ng-template [ebRow]="claims()" track="id" let-claim>
            <tr>
              @for (cell of claimLines; track cell.field) {
                <td>
                  <eb-edit-field
                    [of]="cell.name"
                    [options]="cell.field === 'vehicleId' ? about() : null"
                    [value]="$any(claim[cell.field]) ?? ''"
                    [disabled]="!may()('claim.edit')"
                    [fault]="edits.faultOf(claim.id, cell.field)"
                    (committed)="editClaim(claim, cell.field, $event)"
                  />
                </td>
              }
              <td>
                @if (may()('claim.remove')) {
                  <eb-icon-button label="Delete claim" (acted)="edits.remove('claim', claim)" />
                }
              </td>
            </tr> </ng-template
        ></eb-table>
      }
    </section>
  </div>`,
  styles: `
    .claims th:nth-child(2),
    .claims th:nth-child(3),
    .claims th:nth-child(6) {
      width: 122px;
    }
    .claims td {
      vertical-align: top;
    }
    .passports {
      overflow-x: auto;
    }
    th[scope='row'] {
      width: 170px;
      font-weight: 500;
      white-space: nowrap;
    }
    .name {
      display: inline-flex;
      gap: 6px;
      align-items: center;
      font: 600 14px/1.3 var(--label);
      color: var(--ink);
    }
    .break th {
      padding-top: 12px;
      font-weight: 600;
    }
    .evidence ::placeholder {
      font-size: 12px;
    }
    .evidence {
      display: grid;
      grid-template-columns: minmax(122px, 3fr) 46px minmax(0, 3fr);
      gap: 4px;
      align-items: start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SamplesView {
  protected readonly open = inject(OpenStudy);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);
  protected readonly may = this.service.can;
  protected readonly passport = PASSPORT;
  protected readonly headline = HEADLINE;
  protected readonly isLead = computed(() => this.service.role() === 'lead' && this.may()('study.edit'));
  protected readonly vehicles = computed(() => this.open.record().vehicles);
  protected readonly claims = computed(() => [...this.open.record().claims].sort((a, b) => a.sequence - b.sequence));
  protected readonly warnings = computed(() => sampleWarnings(this.open.record(), (figure) => fieldLabel('vehicle', figure)));
  protected readonly claimLines = CLAIM_LINES;
  protected readonly about = computed((): readonly FieldChoice[] => [
    { value: '', word: 'all' },
    ...this.vehicles().map((v) => ({ value: v.id, word: v.name })),
  ]);
  protected readonly marks: readonly FieldChoice[] = EVIDENCE_MARKS.map((mark) => ({
    value: mark,
    word: `${mark} ${EVIDENCE_WORD[mark]}`,
  }));

  protected others(vehicle: Vehicle): readonly FieldChoice[] {
    return [
      { value: '', word: 'none of these' },
      ...this.vehicles()
        .filter((v) => v.id !== vehicle.id)
        .map((v) => ({ value: v.id, word: v.name })),
    ];
  }

  protected evidenceOf(vehicle: Vehicle, field: string): Evidence | null {
    return evidenceFor('vehicle', vehicle, field);
  }

  /** a figure no vehicle has is kept, and questioned where it stands */
  protected doubtOf(vehicle: Vehicle, field: string): string {
    return this.warnings().find((w) => w.recordId === vehicle.id && w.field === field && w.code === 'no-such-figure')?.message ?? '';
  }

  protected know(vehicle: Vehicle, field: string, said: Partial<Evidence>): void {
    const before = this.evidenceOf(vehicle, field);
    if (before) void this.edits.edit('vehicle', vehicle, { evidence: { ...vehicle.evidence, [field]: { ...before, ...said } } });
  }

  protected edit(vehicle: Vehicle, field: keyof VehicleFields, value: FieldValue): void {
    const text = value === null && ['role', 'maker'].includes(field) ? '' : value;
    void this.edits.edit('vehicle', vehicle, field === 'price' ? this.priced(vehicle, value) : { [field]: text });
  }

  private priced(vehicle: Vehicle, value: FieldValue): Partial<VehicleFields> {
    if (value === null) return { price: null, priceCurrency: null, priceYear: null };
    const { currency, priceYear } = this.open.study();
    return { price: value as string, priceCurrency: vehicle.priceCurrency ?? currency, priceYear: vehicle.priceYear ?? priceYear };
  }

  protected addClaim(): void {
    const sequence = nextSequence(this.claims());
    void this.edits.add('claim', {
      ...{ sequence, vehicleId: this.vehicles()[0]?.id ?? null, statement: 'What is claimed', sourceKind: 'the maker' as const },
      ...{ source: '', test: '', state: 'to test' as const, outcome: '' },
    });
  }

  protected editClaim(claim: Claim, field: keyof ClaimFields, value: FieldValue): void {
    void this.edits.edit('claim', claim, { [field]: value });
  }
}
