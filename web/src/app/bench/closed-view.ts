import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { type Part, type PartFields, fieldLines } from '@each-bolt/core/record';
import { closedAndDamaged } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { PartLink } from '../record/part-link';
import { Selection } from '../record/selection';
import { EditField } from '../shared/edit-field';
import { VehicleMark } from '../shared/vehicle-mark';

/** What was left closed, and what is damaged: with reasons, so that no figure is taken for more than it is. */
@Component({
  selector: 'eb-closed-view',
  imports: [EditField, VehicleMark, ButtonDirective, InputText, DataTable, TableHead, TableRow, PartLink],
  template: `<div class="sheet scroll">
    <header class="sheet-head">
      <div>
        <h1>Left closed and damaged</h1>
        <p class="soft">What is inside a part that stayed closed is in no count, mass or cost of this study; each total says so.</p>
      </div>
    </header>
    @if (selection.part(); as part) {
      @if (mayEdit()) {
        <div class="acts">
          @if (part.opened !== 'closed') {
            <button pButton severity="secondary" type="button" (click)="leaveClosed(part, why)">
              Leave “{{ part.name }}” closed, because
            </button>
            <input pInputText #why type="text" class="reason" maxlength="400" placeholder="reason" aria-label="Reason to leave it closed" />
          }
          @if (part.damage === '') {
            <button pButton severity="secondary" type="button" (click)="damaged(part, what)">“{{ part.name }}” is damaged:</button>
            <input
              pInputText
              #what
              type="text"
              class="reason"
              maxlength="400"
              placeholder="what happened"
              aria-label="What the damage is"
            />
          }
        </div>
      }
    } @else if (mayEdit()) {
      <p class="soft">Choose a part in the stack to put it on one of the two lists.</p>
    }
    <section aria-label="Left closed">
      <h2>Left closed</h2>
      @if (register().closed.length === 0) {
        <p class="soft">Nothing was left closed.</p>
      } @else {
        <eb-table label="Left closed"
          ><ng-template ebHead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Why it stays closed</th>
              <th scope="col">What may be missed</th>
              <th scope="col">Seen from outside</th>
            </tr> </ng-template
          ><ng-template [ebRow]="register().closed" track="id" let-row>
            <tr>
              <th scope="row">
                <eb-vehicle-mark [place]="placeOf(row)" />
                <eb-part-link [partId]="row.id" [name]="row.name" />
              </th>
              @for (field of closedFields; track field.field) {
                <td>
                  <eb-edit-field
                    [of]="field.name"
                    [whose]="row.name"
                    [value]="row[field.field]"
                    [disabled]="!mayEdit()"
                    [fault]="edits.faultOf(row.id, field.field)"
                    (committed)="edit(row, field.field, $any($event))"
                  />
                </td>
              }
            </tr> </ng-template
        ></eb-table>
      }
    </section>
    <section aria-label="Damaged">
      <h2>Damaged</h2>
      @if (register().damaged.length === 0) {
        <p class="soft">No damage is recorded.</p>
      } @else {
        <eb-table label="Damaged"
          ><ng-template ebHead>
            <tr>
              <th scope="col">Part</th>
              <th scope="col">Damage</th>
              <th scope="col">From</th>
              <th scope="col" class="right">Pictures</th>
            </tr> </ng-template
          ><ng-template [ebRow]="register().damaged" track="id" let-row>
            <tr>
              <th scope="row">
                <eb-vehicle-mark [place]="placeOf(row)" />
                <eb-part-link [partId]="row.id" [name]="row.name" />
              </th>
              <td>
                <eb-edit-field
                  of="part.damage"
                  [whose]="row.name"
                  [value]="row.damage"
                  [disabled]="!mayEdit()"
                  (committed)="edit(row, 'damage', $any($event))"
                />
              </td>
              <td class="from">
                <eb-edit-field
                  of="part.damageFrom"
                  [whose]="row.name"
                  [value]="row.damageFrom ?? ''"
                  [disabled]="!mayEdit()"
                  (committed)="edit(row, 'damageFrom', $any($event))"
                />
              </td>
              <td class="right figure">{{ open.picturesOf().get(row.id)?.length ?? 'none yet' }}</td>
            </tr>
          </ng-template></eb-table
        >
        <p class="soft small">A picture is taken in the card of the part, or with the camera of the bench.</p>
      }
    </section>
  </div>`,
  styles: `
    .reason {
      min-width: 220px;
    }
    .from {
      width: 150px;
    }
    section h2 {
      margin: 10px 0 4px;
    }
    .small {
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ClosedView {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly edits = inject(RowEdits);
  private readonly service = inject(RecordService);

  protected readonly mayEdit = computed(() => this.service.can()('part.add'));
  protected readonly register = computed(() => closedAndDamaged(this.open.record()));
  protected readonly closedFields = fieldLines('part', ['closedReason', 'closedRisk', 'seenOutside']);

  protected placeOf(part: Part): number {
    return this.open.record().vehicles.findIndex((v) => v.id === part.vehicleId);
  }

  protected edit(part: Part, field: keyof PartFields, value: string | null): void {
    void this.edits.edit('part', part, { [field]: value });
  }

  protected async leaveClosed(part: Part, why: HTMLInputElement): Promise<void> {
    if (why.value.trim() === '') {
      why.focus();
      return;
    }
    if (await this.edits.edit('part', part, { opened: 'closed', closedReason: why.value.trim() })) why.value = '';
  }

  protected async damaged(part: Part, what: HTMLInputElement): Promise<void> {
    if (what.value.trim() === '') {
      what.focus();
      return;
    }
    if (await this.edits.edit('part', part, { damage: what.value.trim(), damageFrom: 'taking apart' })) what.value = '';
  }
}
