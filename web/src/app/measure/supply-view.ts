import { ChangeDetectionStrategy, Component, computed, effect, inject, viewChild, type ElementRef } from '@angular/core';
import { ABSENT, fixed, threeDigits } from '@each-bolt/core/shared';
import { blank, fieldLines, nextSequence, removalOps, type Supply } from '@each-bolt/core/record';
import { lineText, supplyTree } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Choose, ChoicesPipe } from '../shared/choose';
import { keptChoice } from '../shared/kept-choice';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { InputForm } from './input-form';

const GROUPS = [
  { title: 'The point', lines: fieldLines('supply', ['name', 'role', 'voltageV', 'currentA', 'fuseA', 'efficiency', 'note']) },
];

const volts = (value: number | null): string => (value === null ? ABSENT : fixed(value, 2));

/** The electrical supply of a vehicle as a tree: what feeds what, what it takes, what reaches it, and what nothing feeds. */
@Component({
  selector: 'eb-supply-view',
  imports: [ButtonDirective, InputText, Choose, ChoicesPipe, DataTable, TableHead, TableRow, InputForm],
  template: `<div class="sheet scroll">
    <div class="acts">
      <label
        >Vehicle
        <eb-choose
          label="Vehicle"
          [value]="vehicleId()"
          (valueChange)="vehicleId.set($event)"
          [options]="vehicles() | ebChoices: 'id' : 'name'"
        />
      </label>
      @if (may()) {
        @if (selection.part(); as part) {
          <form (submit)="add($event, part.id, name)">
            <input
              pInputText
              #name
              type="text"
              maxlength="100"
              aria-label="Name of the new supply point"
              [placeholder]="'a point on ' + part.name"
            />
            <button pButton severity="secondary" type="submit">Add the point</button>
          </form>
        } @else {
          <span class="soft">Choose a part in the stack to add a point of the supply on it.</span>
        }
      }
    </div>
    @for (i of tree().issues; track i.code + i.recordId) {
      <p class="fault" role="alert">{{ i.message }}</p>
    }
    @if (tree().nodes.length === 0) {
      <p class="soft">
        No point of the supply is recorded on this vehicle. Begin with its source, then fuses, converters and loads; each says what it is
        fed from and through which line.
      </p>
    } @else {
      <eb-table label="Supply tree">
        <ng-template ebHead>
          <tr>
            <th scope="col">Point</th>
            <th scope="col">Role</th>
            <th scope="col">On</th>
            <th scope="col">Through</th>
            <th scope="col" class="right">Takes, A</th>
            <th scope="col" class="right">Lost on the way, V</th>
            <th scope="col" class="right">Reaches it, V</th>
          </tr>
        </ng-template>
        <ng-template [ebRow]="rows()" track="id" let-r>
          <tr [class.chosen]="r.id === chosenId()" [class.unfed]="!r.isFed">
            <th scope="row">
              <div class="named">
                <span class="branch figure" aria-hidden="true">{{ r.branch }}</span>
                <button pButton [text]="true" severity="secondary" type="button" class="link-button" (click)="chosenId.set(r.id)">
                  {{ r.name }}
                </button>
                @if (!r.isFed) {
                  <small>nothing feeds it</small>
                }
              </div>
            </th>
            <td>{{ r.role }}</td>
            <td>{{ r.part }}</td>
            <td>{{ r.line }}</td>
            <td class="right figure">{{ r.takes }}</td>
            <td class="right figure">{{ r.drop }}</td>
            <td class="right figure">{{ r.reaches }}</td>
          </tr>
        </ng-template>
      </eb-table>
      <p class="soft">
        Currents are added up from the loads; a converter takes what it gives over its efficiency. Lines drop voltage out and back through
        their conductors at 20 °C, one way alone where only one conductor is recorded. An en dash: a load or a line does not say enough; ≤:
        a line on the way is not recorded.
      </p>
    }
    @if (chosen(); as point) {
      <div class="point" #pointForm>
        @if (formula() !== '') {
          <p class="figure soft">{{ point.name }} {{ formula() }}</p>
        }
        <eb-input-form entity="supply" [row]="point" [groups]="groups" [may]="may()" />
        <dl>
          <dt>Fed from</dt>
          <dd>
            <eb-choose
              label="Fed from"
              [value]="point.feedId ?? ''"
              (valueChange)="set(point, { feedId: $event === '' ? null : $event })"
              [options]="feeds() | ebChoices: 'id' : 'name' : 'nothing'"
              [disabled]="!may()"
            />
          </dd>
          <dt>Through</dt>
          <dd>
            <eb-choose
              label="Through"
              [value]="point.connectionId ?? ''"
              (valueChange)="set(point, { connectionId: $event === '' ? null : $event })"
              [options]="lines() | ebChoices: 'id' : 'name' : 'no line recorded'"
              [disabled]="!may()"
            />
          </dd>
        </dl>
        @if (may()) {
          <button pButton [text]="true" severity="secondary" type="button" (click)="remove(point)">Delete this point</button>
        }
      </div>
    }
  </div>`,
  styles: `
    .acts {
      display: flex;
      flex-wrap: wrap;
      gap: 10px;
      align-items: end;
      margin-bottom: 10px;
    }
    label {
      font: 500 12.5px/1.5 var(--label);
      color: var(--soft);
    }
    .fault,
    .unfed small {
      color: var(--amber);
    }
    .unfed small {
      margin-left: 8px;
    }
    .unfed th {
      padding-left: 8px;
      border-left: 3px solid var(--amber);
    }
    .named {
      display: flex;
      align-items: baseline;
    }
    .branch {
      white-space: pre;
      color: var(--soft);
    }
    .point {
      max-width: 480px;
      margin-top: 12px;
    }
    dl {
      display: grid;
      grid-template-columns: minmax(110px, 3fr) minmax(190px, 4fr);
      gap: 2px 8px;
      align-items: center;
      margin: 0 0 8px;
      font-size: 13px;
    }
    dd {
      margin: 0;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SupplyView {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly edits = inject(RowEdits);

  protected readonly groups = GROUPS;
  protected readonly may = computed(() => this.service.can()('supply.add'));
  protected readonly vehicles = computed(() => this.open.record().vehicles);
  protected readonly vehicleId = keptChoice(
    () => this.selection.part()?.id,
    (id) => this.vehicles().some((vehicle) => vehicle.id === id),
    () => this.selection.part()?.vehicleId ?? this.vehicles()[0]?.id ?? '',
  );
  protected readonly tree = computed(() => supplyTree(this.open.record(), this.vehicleId()));
  protected readonly rows = computed(() =>
    this.tree().nodes.map(({ point, part, depth, isFed, takesA, dropV, reachesV, isAtMost, line }) => ({
      ...{
        id: point.id,
        name: point.name,
        role: point.role,
        part: part.name,
        isFed,
        line,
      },
      branch: depth === 0 ? '' : `${'   '.repeat(depth - 1)}└─ `,
      takes: takesA === null ? ABSENT : threeDigits(takesA),
      drop: depth === 0 ? '' : volts(dropV),
      reaches: reachesV !== null && isAtMost ? `≤ ${volts(reachesV)}` : volts(reachesV),
    })),
  );
  protected readonly chosenId = keptChoice(
    () => this.selection.part()?.id,
    (id) => this.tree().nodes.some(({ point }) => point.id === id),
    () => this.tree().nodes.find(({ part }) => part.id === this.selection.part()?.id)?.point.id ?? '',
  );
  protected readonly chosen = computed(() => this.open.record().supplies.find(({ id }) => id === this.chosenId()) ?? null);
  protected readonly formula = computed(() => this.tree().nodes.find(({ point }) => point.id === this.chosenId())?.formula ?? '');
  protected readonly feeds = computed(() =>
    this.tree()
      .nodes.filter(({ point }) => point.id !== this.chosenId())
      .map(({ point, part }) => ({ id: point.id, name: `${point.name}, ${part.name}` })),
  );
  /** cables and connectors of the vehicle */
  protected readonly lines = computed(() =>
    this.open.record().connections.flatMap((line) => {
      const part = this.open.partById().get(line.partId);
      if (part?.vehicleId !== this.vehicleId() || (line.kind !== 'cable' && line.kind !== 'connector')) return [];
      return [{ id: line.id, name: `${lineText(line)}, ${part.name}` }];
    }),
  );

  private readonly form = viewChild<ElementRef<HTMLElement>>('pointForm');

  constructor() {
    // what was chosen in the tree is edited below it
    effect(() => {
      this.chosenId();
      this.form()?.nativeElement.scrollIntoView({ block: 'nearest' });
    });
  }

  protected async add(event: Event, partId: string, name: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const sequence = nextSequence(this.open.record().supplies);
    const id = await this.edits.add('supply', blank('supply', { partId, sequence, name: name.value.trim() }));
    if (id === null) return;
    name.value = '';
    this.chosenId.set(id);
  }

  protected set(point: Supply, fields: Partial<Supply>): void {
    void this.edits.edit('supply', point, fields);
  }

  protected remove(point: Supply): void {
    void this.edits.send(removalOps(this.open.record(), 'supply', [point.id]));
  }
}
