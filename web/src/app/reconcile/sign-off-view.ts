import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { counted } from '@each-bolt/core/shared';
import { subsystemStates, type SubsystemState } from '@each-bolt/core/reconcile';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Session } from '../record/session';
import { whenText } from '../record/when';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { VehicleMark } from '../shared/vehicle-mark';
import { CheckingService } from '../checking/checking-service';

/** Each subsystem of each vehicle: what does not close in it, who signed it off, what reopened it. */
@Component({
  selector: 'eb-reconcile-sign-off',
  imports: [ButtonDirective, DataTable, InputText, TableHead, TableRow, VehicleMark],
  template: `<div class="sheet scroll" tabindex="0" role="region" aria-label="Sign-off">
    <header class="sheet-head">
      <div>
        <h1>{{ headline() }}</h1>
        <p class="soft">
          A sign-off says what is closed, what stays open and by whom. A later change reopens what it touches, and says so.
        </p>
      </div>
    </header>
    @if (checking.said() === null) {
      <p class="soft">The checks run over the whole record …</p>
    } @else if (rows().length === 0) {
      <p class="soft">Nothing is recorded yet.</p>
    } @else {
      <eb-table label="Subsystems"
        ><ng-template ebHead>
          <tr>
            <th scope="col">Subsystem</th>
            <th scope="col" class="right">parts recorded</th>
            <th scope="col" class="right">open</th>
            <th scope="col" class="right">explained</th>
            <th scope="col">State</th>
            <th scope="col"></th>
          </tr> </ng-template
        ><ng-template [ebRow]="rows()" track="key" let-row>
          <tr>
            <th scope="row"><eb-vehicle-mark [place]="row.place" /> {{ row.name }}</th>
            <td class="right figure">{{ row.state.parts }}</td>
            <td class="right figure" [class.amber]="row.state.causes.length > 0">{{ row.state.causes.length }}</td>
            <td class="right figure">{{ row.state.explained }}</td>
            <td>
              {{ row.says }}
              @if (row.detail !== '') {
                <small class="soft">{{ row.detail }}</small>
              }
            </td>
            <td class="act">
              @if (row.mayBeSigned && service.can()('signOff.add')) {
                @if (signing() === row.key) {
                  <form (submit)="sign($event, row.state, left.value)">
                    <input
                      pInputText
                      #left
                      type="text"
                      maxlength="4000"
                      [attr.aria-label]="'What stays open in ' + row.name"
                      [placeholder]="row.state.causes.length > 0 ? 'why what is open may stay so' : 'anything to add'"
                    />
                    <button pButton type="submit">Sign</button>
                    <button pButton severity="secondary" type="button" (click)="signing.set('')">Leave it</button>
                    @if (fault() !== '') {
                      <small role="alert">{{ fault() }}</small>
                    }
                  </form>
                } @else {
                  <button pButton severity="secondary" type="button" (click)="begin(row.key)">Sign off</button>
                }
              }
            </td>
          </tr>
        </ng-template></eb-table
      >
    }
  </div>`,
  styles: `
    .right {
      text-align: right;
    }
    .amber {
      color: var(--amber);
      font-weight: 600;
    }
    small {
      display: block;
    }
    form {
      display: flex;
      gap: 6px;
      flex-wrap: wrap;
    }
    form small {
      flex-basis: 100%;
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ReconcileSignOff {
  protected readonly checking = inject(CheckingService);
  protected readonly service = inject(RecordService);
  private readonly open = inject(OpenStudy);
  private readonly edits = inject(RowEdits);
  private readonly session = inject(Session);
  protected readonly signing = signal('');
  protected readonly fault = signal('');

  private readonly states = computed(() => {
    const said = this.checking.said();
    return said === null ? [] : subsystemStates(this.open.record(), said.causes, said.explained);
  });
  protected readonly rows = computed(() => {
    const { vehicles } = this.open.record();
    return this.states().map((state) => {
      const { signed, changed, causes } = state;
      const vehicle = this.open.vehicleById().get(state.vehicleId);
      const name = `${this.open.subsystemById().get(state.subsystemId)?.name ?? ''}, ${vehicle?.name ?? ''}`;
      const by = signed ? `${signed.by}, ${whenText(signed.at)}` : '';
      const says = signed === null ? (causes.length === 0 ? 'closes; not signed off' : 'not signed off') : changed.length > 0 ? 'open again' : `signed off by ${by}`;
      const names = `${changed.slice(0, 3).join(', ')}${changed.length > 3 ? ` and ${changed.length - 3} more` : ''}`;
      const detail = signed === null ? '' : changed.length > 0 ? `signed off by ${by}; changed since: ${names}` : signed.leftOpen;
      return {
        ...{ key: `${state.vehicleId} ${state.subsystemId}`, place: vehicles.findIndex((one) => one.id === state.vehicleId), name, state, says, detail },
        mayBeSigned: signed === null || changed.length > 0,
      };
    });
  }); // prettier-ignore
  protected readonly headline = computed(() => {
    const states = this.states();
    const signed = states.filter((state) => state.signed !== null && state.changed.length === 0).length;
    return this.checking.said() === null ? 'Sign-off' : `${signed} of ${counted(states.length, 'subsystem')} signed off`;
  });

  protected begin(key: string): void {
    this.fault.set('');
    this.signing.set(key);
  }

  protected async sign(event: Event, state: SubsystemState, leftOpen: string): Promise<void> {
    event.preventDefault();
    if (state.causes.length > 0 && leftOpen.trim() === '') {
      this.fault.set(`${counted(state.causes.length, 'cause')} open: say why that may stay so, or mend it first`);
      return;
    }
    const id = await this.edits.add('signOff', {
      ...{ vehicleId: state.vehicleId, subsystemId: state.subsystemId, by: this.session.person?.name ?? '', at: new Date().toISOString() },
      ...{ revision: this.open.record().revision, parts: state.parts, open: state.causes.length, explained: state.explained },
      leftOpen: leftOpen.trim(),
    });
    if (id !== null) this.signing.set('');
  }
}
