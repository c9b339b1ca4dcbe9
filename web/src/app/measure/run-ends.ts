import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { fixed, type FieldValue } from '@each-bolt/core/shared';
import { blank, nextSequence, removalOps, type Connection, type Passage, type Port, type Triple } from '@each-bolt/core/record';
import { portsById, routeOf } from '@each-bolt/core/measure';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { RowEdits } from '../record/row-edits';
import { Selection } from '../record/selection';
import { Choose, ChoicesPipe } from '../shared/choose';
import { EditField } from '../shared/edit-field';

const POINT = /^\s*(-?\d+(?:[.,]\d+)?)\s+(-?\d+(?:[.,]\d+)?)\s+(-?\d+(?:[.,]\d+)?)\s*$/;

/** Points as people type them, x y z in mm with semicolons between; null where one is not such a point. */
export const readRoute = (text: string): readonly Triple[] | null => {
  const points = text
    .replaceAll('−', '-')
    .split(';')
    .filter((part) => part.trim() !== '');
  const read = points.map((point) =>
    POINT.exec(point)
      ?.slice(1)
      .map((n) => Number(n.replace(',', '.')) / 1000),
  );
  return read.every((p) => p !== undefined) ? (read as unknown as readonly Triple[]) : null;
};

const routeText = (points: readonly Triple[]): string =>
  points.map((p) => p.map((m) => String(Math.round(m * 1e5) / 100)).join(' ')).join('; ');

/** Ports of the chosen part, ways through it, and the ends of its lines. */
@Component({
  selector: 'eb-run-ends',
  imports: [ButtonDirective, InputText, Choose, ChoicesPipe, EditField],
  template: `<h2>Ends of lines on {{ selection.part()?.name }}</h2>
    <p class="soft">
      A port is where a line meets a part; its place counts from the front axle rearwards, from the middle to the right and from the ground
      up. A way through leads from port to port: what resists falls by the square of the flow, a pump has its pressure at no flow and its
      flow at no pressure.
    </p>
    @for (p of ports(); track p.id) {
      <div class="line" role="group" [attr.aria-label]="'Port ' + p.name">
        <eb-edit-field of="port.name" [value]="p.name" [disabled]="!may()" (committed)="port(p, { name: $any($event) })" />
        @for (axis of axes; track axis.field) {
          <eb-edit-field
            class="narrow"
            [of]="axis.name"
            [label]="axis.word + ' of ' + p.name"
            [value]="p[axis.field]"
            [disabled]="!may()"
            [fault]="edits.faultOf(p.id, axis.field)"
            [placeholder]="axis.word"
            (committed)="place(p, axis.field, $event)"
          />
        }
        @if (may()) {
          <button
            pButton
            [text]="true"
            severity="secondary"
            type="button"
            [attr.aria-label]="'Delete port ' + p.name"
            (click)="drop('port', p.id)"
          >
            ×
          </button>
        }
      </div>
    }
    @if (may()) {
      <form (submit)="addPort($event, portName, placeText)">
        <input pInputText #portName type="text" maxlength="100" aria-label="Name of the new port" placeholder="coolant outlet" />
        <input pInputText #placeText type="text" aria-label="Place of the new port, x y z in mm" placeholder="x y z in mm" />
        <button pButton severity="secondary" type="submit">Add the port</button>
        @if (ports().length >= 2) {
          <button pButton severity="secondary" type="button" (click)="addPassage()">Add a way through</button>
        }
      </form>
      @if (fault() !== '') {
        <p class="warn" role="alert">{{ fault() }}</p>
      }
    }
    @for (w of passages(); track w.id) {
      <div class="line" role="group" [attr.aria-label]="'Way through ' + w.name">
        <eb-edit-field of="passage.name" [value]="w.name" [disabled]="!may()" (committed)="passage(w, { name: $any($event) })" />
        <eb-choose
          label="From port"
          [value]="w.fromPortId ?? ''"
          [options]="ports() | ebChoices: 'id' : 'name' : 'from …'"
          [disabled]="!may()"
          (valueChange)="passage(w, { fromPortId: $event || null })"
        />
        <eb-choose
          label="To port"
          [value]="w.toPortId ?? ''"
          [options]="ports() | ebChoices: 'id' : 'name' : 'to …'"
          [disabled]="!may()"
          (valueChange)="passage(w, { toPortId: $event || null })"
        />
        <eb-edit-field of="passage.does" [value]="w.does" [disabled]="!may()" (committed)="passage(w, { does: $any($event) })" />
        <eb-edit-field
          class="narrow"
          of="passage.pressurePa"
          [value]="w.pressurePa"
          [disabled]="!may()"
          [fault]="edits.faultOf(w.id, 'pressurePa')"
          placeholder="pressure"
          (committed)="passage(w, { pressurePa: $any($event) })"
        />
        <eb-edit-field
          class="narrow"
          of="passage.flowM3PerS"
          [value]="w.flowM3PerS"
          [disabled]="!may()"
          [fault]="edits.faultOf(w.id, 'flowM3PerS')"
          placeholder="flow"
          (committed)="passage(w, { flowM3PerS: $any($event) })"
        />
        @if (may()) {
          <button
            pButton
            [text]="true"
            severity="secondary"
            type="button"
            [attr.aria-label]="'Delete way through ' + w.name"
            (click)="drop('passage', w.id)"
          >
            ×
          </button>
        }
      </div>
    }
    @for (l of lines(); track l.line.id) {
      <div class="line" role="group" [attr.aria-label]="'Ends of ' + l.text">
        <span>{{ l.text }}</span>
        <eb-choose
          label="Leads from"
          [value]="l.line.fromPortId ?? ''"
          [options]="everyPort() | ebChoices: 'id' : 'name' : 'from …'"
          [disabled]="!may()"
          (valueChange)="connection(l.line, { fromPortId: $event || null })"
        />
        <eb-choose
          label="Leads to"
          [value]="l.line.toPortId ?? ''"
          [options]="everyPort() | ebChoices: 'id' : 'name' : 'to …'"
          [disabled]="!may()"
          (valueChange)="connection(l.line, { toPortId: $event || null })"
        />
        <input
          pInputText
          type="text"
          aria-label="Route points, x y z in mm, semicolons between"
          placeholder="over x y z; x y z"
          [value]="l.route"
          [disabled]="!may()"
          (change)="lead(l.line, $any($event.target).value)"
        />
        <span class="soft figure">{{ l.told }}</span>
      </div>
      @for (i of l.issues; track i.code) {
        <p class="warn">{{ i.message }}.</p>
      }
    }`,
  styles: `
    :host {
      display: block;
      margin: 14px 0;
    }
    h2 {
      margin: 0 0 2px;
      font-size: 14px;
    }
    p {
      margin: 3px 0;
    }
    .line,
    form {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      align-items: center;
      padding: 2px 0;
      font-size: 13px;
    }
    .line eb-edit-field,
    .line eb-choose {
      flex: 0 1 150px;
      min-width: 0;
    }
    .line .narrow {
      flex-basis: 110px;
    }
    .line input {
      flex: 1 1 160px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RunEnds {
  protected readonly selection = inject(Selection);
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  protected readonly edits = inject(RowEdits);

  protected readonly axes = [
    { field: 'xM', word: 'x', name: 'port.xM' },
    { field: 'yM', word: 'y', name: 'port.yM' },
    { field: 'zM', word: 'z', name: 'port.zM' },
  ] as const;
  protected readonly fault = signal('');
  protected readonly may = computed(() => this.service.can()('port.add'));
  private readonly partId = computed(() => this.selection.part()?.id ?? '');
  protected readonly ports = computed(() => this.open.record().ports.filter(({ partId }) => partId === this.partId()));
  protected readonly passages = computed(() => this.open.record().passages.filter(({ partId }) => partId === this.partId()));
  /** ports of the vehicle, with the part they are on */
  protected readonly everyPort = computed(() => {
    const vehicleId = this.selection.part()?.vehicleId;
    return this.open.record().ports.flatMap((port) => {
      const part = this.open.partById().get(port.partId);
      return part?.vehicleId === vehicleId ? [{ id: port.id, name: `${port.name}, ${part?.name ?? ''}` }] : [];
    });
  });
  protected readonly lines = computed(() => {
    const byId = portsById(this.open.record());
    return this.open
      .record()
      .connections.filter(({ partId, kind }) => partId === this.partId() && kind !== 'connector')
      .map((line) => {
        const { straightM, overPointsM, issues } = routeOf(line, this.selection.part()?.name ?? '', byId);
        const told =
          straightM === null
            ? ''
            : `straight ${fixed(straightM, 3)} m${line.route.length === 0 ? '' : `, over its points ${fixed(overPointsM!, 3)} m`}`;
        const long = line.lengthEachM === null ? ', no length' : ` ${fixed(line.lengthEachM, 3)} m`;
        return { line, text: `${line.count} ${line.kind}${long}`, route: routeText(line.route), told, issues };
      });
  });

  protected async addPort(event: Event, name: HTMLInputElement, at: HTMLInputElement): Promise<void> {
    event.preventDefault();
    const place = at.value.trim() === '' ? [] : readRoute(at.value);
    if (place === null || place.length > 1) {
      this.fault.set(`“${at.value}” is not a place: type x, y and z in mm with blanks between, such as 1840 −420 350`);
      return;
    }
    this.fault.set('');
    const sequence = nextSequence(this.open.record().ports);
    const [xM = null, yM = null, zM = null] = place[0] ?? [];
    const added = await this.edits.add('port', {
      ...blank('port', { partId: this.partId(), sequence, name: name.value.trim() }),
      xM,
      yM,
      zM,
    });
    if (added !== null) [name.value, at.value] = ['', ''];
  }

  protected addPassage(): void {
    const [from, to] = this.ports();
    const sequence = nextSequence(this.open.record().passages);
    void this.edits.add('passage', {
      ...blank('passage', { partId: this.partId(), sequence, name: 'through' }),
      ...{ fromPortId: from?.id ?? null, toPortId: to?.id ?? null },
    });
  }

  protected port(row: Port, fields: Partial<Port>): void {
    void this.edits.edit('port', row, fields);
  }

  /** A place is all three or none: the ones not typed yet begin at 0. */
  protected place(row: Port, field: 'xM' | 'yM' | 'zM', value: FieldValue): void {
    const at = typeof value === 'number' ? value : null;
    const rest = at === null ? { xM: null, yM: null, zM: null } : { xM: row.xM ?? 0, yM: row.yM ?? 0, zM: row.zM ?? 0 };
    void this.edits.edit('port', row, { ...rest, [field]: at });
  }

  protected passage(row: Passage, fields: Partial<Passage>): void {
    void this.edits.edit('passage', row, fields);
  }

  protected connection(row: Connection, fields: Partial<Connection>): void {
    void this.edits.edit('connection', row, fields);
  }

  protected lead(row: Connection, text: string): void {
    const route = readRoute(text);
    this.fault.set(route === null ? `“${text}” is not a route: type points as x y z in mm, semicolons between` : '');
    if (route !== null) this.connection(row, { route });
  }

  protected drop(entity: 'port' | 'passage', id: string): void {
    void this.edits.send(removalOps(this.open.record(), entity, [id]));
  }
}
