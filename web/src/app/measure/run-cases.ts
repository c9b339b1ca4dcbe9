import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { fixed, readNumber } from '@each-bolt/core/shared';
import { blank, nextSequence, removalOps, type Part, type RunChange, type Triple } from '@each-bolt/core/record';
import { runCaseReport, type Run } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Session } from '../record/session';
import { Choose, ChoicesPipe } from '../shared/choose';
import { DataTable, TableHead, TableRow } from '../shared/data-table';
import { keptChoice } from '../shared/kept-choice';
import { readRoute } from './run-ends';
import { RunPicture } from './run-picture';

/** What if a port were elsewhere, a line of another length, or not there: beside what is recorded, with author and reason. */
@Component({
  selector: 'eb-run-cases',
  imports: [ButtonDirective, InputText, Choose, ChoicesPipe, DataTable, TableHead, TableRow, RunPicture],
  template: `<h2>What if</h2>
    <div class="acts">
      <label
        >Vehicle
        <eb-choose
          label="Vehicle of the lines"
          [value]="vehicleId()"
          (valueChange)="vehicleId.set($event)"
          [options]="vehicles() | ebChoices: 'id' : 'name'"
        />
      </label>
      @if (own().length > 0) {
        <label
          >What-if
          <eb-choose
            label="What-if of lines"
            [value]="chosenId()"
            (valueChange)="chosenId.set($event)"
            [options]="own() | ebChoices: 'id' : 'name'"
          />
        </label>
      }
      @if (may()) {
        <form (submit)="begin($event, why)">
          <input
            pInputText
            #why
            type="text"
            maxlength="400"
            aria-label="What would it tell of the lines?"
            placeholder="what would it tell?"
          />
          <button pButton severity="secondary" type="submit">What if …</button>
        </form>
      }
    </div>
    @if (chosen(); as c) {
      <p>
        <b>{{ c.name }}</b> {{ c.author === '' ? '' : 'by ' + c.author + ': ' }}{{ c.reason }}
        @if (may()) {
          <button pButton [text]="true" severity="secondary" type="button" (click)="drop('runCase', c.id)">Delete this what-if</button>
        }
      </p>
      @for (x of changes(); track x.row.id) {
        <p class="line">
          {{ x.text }}
          @if (may()) {
            <button
              pButton
              [text]="true"
              severity="secondary"
              type="button"
              [attr.aria-label]="'Take back: ' + x.text"
              (click)="drop('runChange', x.row.id)"
            >
              ×
            </button>
          }
        </p>
      }
      @if (may()) {
        <form (submit)="move($event, at)">
          <eb-choose
            label="Port to move"
            [value]="portId()"
            (valueChange)="portId.set($event)"
            [options]="ports() | ebChoices: 'id' : 'name' : 'move a port …'"
          />
          <input pInputText #at type="text" aria-label="Its new place, x y z in mm" [placeholder]="portAt()" />
          <button pButton severity="secondary" type="submit">Move it</button>
        </form>
        <form (submit)="shorten($event, long)">
          <eb-choose
            label="Line to change"
            [value]="lineId()"
            (valueChange)="lineId.set($event)"
            [options]="lines() | ebChoices: 'id' : 'name' : 'change a line …'"
          />
          <input pInputText #long type="text" aria-label="Its new length in mm" placeholder="new length, mm" />
          <button pButton severity="secondary" type="submit">Change it</button>
          <button pButton severity="secondary" type="button" (click)="leaveOut()">Leave it out</button>
        </form>
        @if (fault() !== '') {
          <p class="warn" role="alert">{{ fault() }}</p>
        }
      }
      @if (report(); as r) {
        @if (r.sentence !== '') {
          <p class="sentence" role="status">{{ r.sentence }}. <span class="soft">Computed, not measured.</span></p>
        }
        @for (l of r.changed.lacks; track l) {
          <p class="warn">Cannot be told: {{ l }}.</p>
        }
        <eb-table label="Lines as recorded and as they would be">
          <ng-template ebHead>
            <tr>
              <th scope="col">Figure</th>
              <th scope="col" class="right">as recorded</th>
              <th scope="col" class="right">{{ c.name }}</th>
              <th scope="col" class="right">Change</th>
            </tr>
          </ng-template>
          <ng-template [ebRow]="r.rows" track="word" let-f>
            <tr>
              <th scope="row">{{ f.word }}</th>
              <td class="right figure">{{ f.recorded }}</td>
              <td class="right figure">{{ f.would }}</td>
              <td class="right figure">{{ f.change }}</td>
            </tr>
          </ng-template>
        </eb-table>
      }
    }
    <eb-run-picture [lines]="drawn()" [ports]="allPorts()" [would]="would()" />`,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      margin: 14px 0;
      min-width: 0;
    }
    h2 {
      margin: 0;
      font-size: 14px;
    }
    p {
      margin: 0;
    }
    .acts,
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: end;
    }
    form {
      align-items: center;
    }
    form eb-choose {
      min-width: 220px;
    }
    label {
      font: 500 12.5px/1.5 var(--label);
      color: var(--soft);
    }
    .line {
      font-size: 13px;
    }
    .sentence {
      padding: 8px 12px;
      border-left: 3px solid var(--dye);
      background: var(--sheet);
      font-size: 14px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunCases {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly edits = inject(RowEdits);
  private readonly session = inject(Session);
  private readonly selection = inject(Selection);

  /** lines that are looked at, of all vehicles */
  readonly runs = input.required<readonly Run[]>();
  readonly isOfThem = input.required<(part: Part) => boolean>();
  readonly timesOf = input.required<(partId: string) => number>();
  readonly fluid = input.required<string>();
  readonly densityKgPerM3 = input.required<number>();
  readonly viscosityPaS = input.required<number>();

  protected readonly fault = signal('');
  protected readonly portId = signal('');
  protected readonly lineId = signal('');
  protected readonly may = computed(() => this.service.can()('runCase.add'));
  protected readonly vehicles = computed(() => this.open.record().vehicles);
  private readonly cases = computed(() => this.open.record().runCases);
  /** that of the chosen part, else the first with a what-if */
  protected readonly vehicleId = keptChoice(
    () => this.selection.part()?.vehicleId,
    (id) => this.vehicles().some((vehicle) => vehicle.id === id),
    () => this.selection.part()?.vehicleId ?? this.cases()[0]?.vehicleId ?? this.vehicles()[0]?.id ?? '',
  );
  protected readonly own = computed(() => this.cases().filter(({ vehicleId }) => vehicleId === this.vehicleId()));
  protected readonly chosenId = keptChoice(
    () => this.vehicleId(),
    (id) => this.own().some((theCase) => theCase.id === id),
    () => this.own().at(-1)?.id ?? '',
  );
  protected readonly chosen = computed(() => this.own().find(({ id }) => id === this.chosenId()) ?? null);
  private readonly ofVehicle = computed(() => this.runs().filter(({ part }) => part.vehicleId === this.vehicleId()));
  protected readonly drawn = computed(() => this.ofVehicle().map(({ connection }) => connection));
  protected readonly allPorts = computed(() => this.open.record().ports);
  protected readonly ports = computed(() => {
    const parts = this.open.partById();
    return this.allPorts().flatMap((port) => {
      const part = parts.get(port.partId);
      return part?.vehicleId === this.vehicleId() ? [{ id: port.id, name: `${port.name}, ${part.name}`, port }] : [];
    });
  });
  /** where the port to move is now, to be typed over */
  protected readonly portAt = computed(() => {
    const port = this.ports().find(({ id }) => id === this.portId())?.port;
    const at = [port?.xM ?? null, port?.yM ?? null, port?.zM ?? null].flatMap((m) => (m === null ? [] : [Math.round(m * 1000)]));
    return at.length === 0 ? 'x y z in mm' : `from ${at.join(' ')} to x y z, mm`;
  });
  protected readonly lines = computed(() =>
    this.ofVehicle().map(({ connection: line, part }) => ({
      id: line.id,
      name: `${line.kind}${line.lengthEachM === null ? '' : ` ${fixed(line.lengthEachM, 3)} m`}, ${part.name}`,
    })),
  );
  protected readonly changes = computed(() =>
    this.open
      .record()
      .runChanges.filter(({ caseId }) => caseId === this.chosen()?.id)
      .map((row) => ({ row, text: this.textOf(row) })),
  );
  protected readonly report = computed(() => {
    const theCase = this.chosen();
    if (theCase === null) return null;
    const isOfThem = (part: Part): boolean => part.vehicleId === this.vehicleId() && this.isOfThem()(part);
    const data = { densityKgPerM3: this.densityKgPerM3(), viscosityPaS: this.viscosityPaS() };
    return runCaseReport(this.open.record(), theCase, isOfThem, this.timesOf(), this.fluid(), data);
  });

  /** lines of the vehicle as they would be */
  protected readonly would = computed(() => {
    const changed = this.report()?.changed;
    const own = new Set(this.drawn().map(({ id }) => id));
    return { lines: changed?.connections.filter(({ id }) => own.has(id)) ?? [], ports: changed?.ports ?? [] };
  });

  protected async begin(event: Event, why: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const reason = why.value.trim();
    this.fault.set(reason === '' ? 'A what-if needs its reason: what would it tell?' : '');
    const sequence = nextSequence(this.cases());
    const fields = { vehicleId: this.vehicleId(), sequence, name: `what if ${this.own().length + 1}`, reason };
    const id = await this.edits.add('runCase', { ...blank('runCase', fields), author: this.session.person?.name ?? '' });
    if (id === null) return;
    why.value = '';
    this.chosenId.set(id);
  }

  protected async move(event: Event, at: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const place: Triple | undefined = readRoute(at.value)?.[0];
    if (this.portId() === '' || !place) {
      this.fault.set('To move a port, choose it and type its new place as x y z in mm, such as 1500 −400 350');
      return;
    }
    const [xM, yM, zM] = place;
    if (await this.add({ change: 'move a port', portId: this.portId(), xM, yM, zM })) at.value = '';
  }

  protected async shorten(event: Event, long: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const read = readNumber(long.value.trim());
    const mm = read.kind === 'number' ? read.number.value : 0;
    if (this.lineId() === '' || mm <= 0) {
      this.fault.set('To change a line, choose it and type its new length in mm, such as 640');
      return;
    }
    if (await this.add({ change: 'another length', connectionId: this.lineId(), lengthEachM: mm / 1000 })) long.value = '';
  }

  protected leaveOut(): void {
    if (this.lineId() === '') this.fault.set('To leave a line out, choose it first');
    else void this.add({ change: 'leave out', connectionId: this.lineId() });
  }

  protected drop(entity: 'runCase' | 'runChange', id: string): void {
    void this.edits.send(removalOps(this.open.record(), entity, [id]));
  }

  /** A port or line has one change in a what-if: a new one takes the place of that before it. */
  private async add(fields: Partial<RunChange> & Pick<RunChange, 'change'>): Promise<boolean> {
    const caseId = this.chosen()?.id ?? '';
    this.fault.set('');
    const before = this.changes().filter(({ row }) =>
      fields.portId === undefined ? row.connectionId === fields.connectionId : row.portId === fields.portId,
    );
    const sequence = nextSequence(this.open.record().runChanges);
    const more = removalOps(
      this.open.record(),
      'runChange',
      before.map(({ row }) => row.id),
    );
    return (await this.edits.add('runChange', { ...blank('runChange', { caseId, sequence }), ...fields }, more)) !== null;
  }

  private textOf(row: RunChange): string {
    if (row.change === 'move a port') {
      const port = this.ports().find(({ id }) => id === row.portId);
      return `${port?.name ?? 'a port'} at ${[row.xM, row.yM, row.zM].map((m) => Math.round((m ?? 0) * 1000)).join(' ')} mm`;
    }
    const line = this.lines().find(({ id }) => id === row.connectionId)?.name ?? 'a line of another subsystem';
    return row.change === 'leave out' ? `${line}: left out` : `${line}: ${fixed(row.lengthEachM ?? 0, 3)} m`;
  }
}
