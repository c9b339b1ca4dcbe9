import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { countingRuleText, type Op, type Piece, type Place } from '@each-bolt/core/record';
import { fastenerFields, jointFields, pieceFields, printLine, shown, totalsAt } from '@each-bolt/core/bench';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { Commands } from '../shell/commands';
import { EntryLine, type LineKept } from './entry-line';
import { ImportDialog } from './import-dialog';
import { PiecesTable } from './pieces-table';
import { pieceDetail, rowFigures } from './row-figures';

/** A piece that fasteners and joints can be recorded on. */
type Holder = Pick<Piece, 'id' | 'name'>;

interface RefusedLine {
  readonly line: string;
  readonly refusal: Refusal;
}

/** Recording at the bench: the entry line and the tree it fills. */
@Component({
  selector: 'eb-bench-page',
  imports: [EntryLine, ImportDialog, PiecesTable, RefusalNote, VehicleMark],
  template: `<div class="sheet">
    @if (selection.vehicle(); as vehicle) {
      <header>
        <nav aria-label="Where new pieces go">
          <eb-vehicle-mark [place]="selection.vehiclePlace()" />
          <span>{{ vehicle.name }}</span>
          @if (selection.inside() !== null) {
            <i class="pi pi-angle-right" aria-hidden="true"></i>
            <button type="button" (click)="recordAt(null)">{{ selection.subsystem()?.name }}</button>
          }
          @for (piece of above(); track piece.id) {
            <i class="pi pi-angle-right" aria-hidden="true"></i>
            <button type="button" (click)="recordAt(piece.id)">{{ piece.name }}</button>
          }
        </nav>
        <div class="title">
          <h1>{{ heading() }}</h1>
          @if (mayRecord()) {
            <button type="button" class="quiet-button" [disabled]="selection.subsystem() === null" (click)="importing.set(true)">
              <i class="pi pi-file-import" aria-hidden="true"></i> Import a file
            </button>
          }
        </div>
        @if (mayRecord()) {
          <p class="soft">{{ goes() }}</p>
        }
      </header>
      @if (selection.subsystem() === null) {
        <p class="sheet-empty">
          The study has no subsystem yet. Add one with “+ subsystem” below the stack; then pieces can be recorded under it.
        </p>
      } @else {
        @if (mayRecord()) {
          <eb-entry-line [hint]="hint()" (kept)="keep($event)" />
        }
        @for (lost of refused(); track $index) {
          <eb-refusal
            [message]="lost.refusal.message + ' — “' + lost.line + '”'"
            [issues]="lost.refusal.issues"
            action="Put the line back"
            (acted)="putBack($index)"
          />
        }
        <p class="said" role="status">{{ said() }}</p>
        @if (isEmpty()) {
          <p class="sheet-empty">
            Nothing is recorded under {{ selection.subsystem()?.name }} on {{ vehicle.name }} yet.
            @if (mayRecord()) {
              Type the first piece above and press Enter, or import a file of pieces.
            }
          </p>
        } @else {
          <eb-pieces-table
            [outline]="open.outline()"
            [root]="root()"
            [figuresOf]="figuresOf()"
            [total]="total()"
            [chosen]="selection.piece()?.id ?? ''"
            [position]="selection.inside()?.id ?? ''"
            [currency]="open.study().currency"
            [countTitle]="'By the counting rule: ' + rule()"
            (picked)="selection.choosePiece($event)"
          />
        }
      }
      @defer (when importing(); prefetch on idle) {
        <eb-import-dialog
          [(visible)]="importing"
          [record]="open.record()"
          [vehicle]="vehicle"
          [subsystem]="selection.subsystem()"
          (loadRows)="load($event)"
        />
      }
    } @else {
      <p class="sheet-empty">The study has no vehicle yet. Add the first with “+ vehicle” below the stack.</p>
    }
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    nav {
      display: flex;
      align-items: center;
      gap: 6px;
      font: 500 13px/1.4 var(--label);
      color: var(--soft);
    }
    nav button {
      border: 0;
      background: none;
      padding: 2px;
      color: var(--dye);
      font: inherit;
      cursor: pointer;
    }
    nav i {
      font-size: 11px;
    }
    .title {
      display: flex;
      justify-content: space-between;
      align-items: center;
    }
    header p {
      font-size: 13px;
    }
    .said {
      min-height: 18px;
      font-size: 13px;
      color: var(--soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  private readonly service = inject(RecordService);
  protected readonly mayRecord = computed(() => this.service.can()('piece.add'));
  private readonly entryLine = viewChild(EntryLine);

  protected readonly importing = signal(false);
  protected readonly said = signal('');
  /** lines that were not kept, each until it is put back: nothing typed is lost */
  protected readonly refused = signal<readonly RefusedLine[]>([]);
  /** the piece that is on its way to the server: what is typed next belongs to it */
  private readonly onItsWay = signal<Holder | null>(null);

  protected readonly root = computed(() => this.open.outline().placeOf.get(this.selection.subsystemKey()) ?? -1);
  protected readonly isEmpty = computed(() => (this.open.outline().nodes[this.root()]?.children.length ?? 0) === 0);
  protected readonly rule = computed(() => countingRuleText(this.open.study()));
  protected readonly heading = computed(
    () => this.selection.inside()?.name ?? this.selection.subsystem()?.name ?? this.selection.vehicle()?.name ?? '',
  );
  protected readonly goes = computed(() =>
    this.selection.inside()
      ? `New pieces go inside ${this.selection.inside()?.name}.`
      : `New pieces go straight under ${this.selection.subsystem()?.name ?? 'the subsystem'}.`,
  );
  protected readonly hint = computed(() => {
    const piece = this.selection.piece();
    const sets = piece
      ? `Fasteners and joints (12 M6x16 T30 8.8 -z, 34 spot, bead 1.4 m) go onto ${piece.name}.`
      : 'Choose a piece to record its fasteners and joints.';
    return `Count, name, material, process, size, mass. ${sets}`;
  });
  /** assemblies between the subsystem and the position, for the way back */
  protected readonly above = computed<readonly Piece[]>(() => {
    const pieces: Piece[] = [];
    for (let at = this.selection.inside()?.parentId ?? null; at !== null;) {
      const piece = this.open.pieceById().get(at);
      if (!piece) break;
      pieces.unshift(piece);
      at = piece.parentId;
    }
    return pieces;
  });
  protected readonly figuresOf = computed(() => {
    const { rolled } = this.open.rollUp();
    const { fastenersIn } = this.open.study();
    const pieces = this.open.pieceById();
    return (place: number) => {
      const piece = pieces.get(rolled.outline.nodes[place]?.id ?? '');
      const totals = totalsAt(rolled, place);
      if (!totals) throw new RangeError(`no totals at ${place}`);
      return rowFigures(piece?.name ?? '', piece ? pieceDetail(piece) : '', shown(totals, fastenersIn));
    };
  });
  protected readonly total = computed(() => {
    const totals = totalsAt(this.open.rollUp().rolled, this.root());
    return totals ? rowFigures('In all', '', shown(totals, this.open.study().fastenersIn)) : null;
  });

  constructor() {
    const commands = inject(Commands);
    commands.on('entry-line', () => this.entryLine()?.focus());
    commands.on('import', () => this.importing.set(this.mayRecord() && this.selection.subsystem() !== null));
    commands.on('record-inside', () => this.recordAt(this.selection.piece()?.id ?? null));
    commands.on('put-line-back', (line) => this.entryLine()?.putBack(line));
    commands.on('record-above', () => this.recordAt(this.selection.inside()?.parentId ?? null));
  }

  protected recordAt(pieceId: string | null): void {
    void this.selection.choose({ inside: pieceId });
    this.entryLine()?.focus();
  }

  protected async keep({ line, entry }: LineKept): Promise<void> {
    const holder: Holder | null = this.onItsWay() ?? this.selection.piece();
    const id = crypto.randomUUID();
    const op = this.opOf(entry, id, holder);
    if (op === null) {
      this.refuse(line, { code: 'no-piece', message: 'Choose the piece first that these hold', issues: [] });
      return;
    }
    if (entry.kind === 'piece') this.onItsWay.set({ id, name: entry.name });
    const result = await this.service.send([op], { typed: line });
    if (result.kept && entry.kind === 'piece') await this.selection.choose({ piece: id });
    if (this.onItsWay()?.id === id) this.onItsWay.set(null);
    if (!result.kept) {
      this.refuse(line, result.refusal);
      return;
    }
    this.said.set(entry.kind === 'piece' ? `Kept: ${printLine(entry)}` : `Kept on ${holder?.name ?? ''}: ${printLine(entry)}`);
  }

  private refuse(line: string, refusal: Refusal): void {
    this.refused.update((lines) => [...lines, { line, refusal }]);
  }

  private opOf(entry: LineKept['entry'], id: string, piece: Holder | null): Op | null {
    switch (entry.kind) {
      case 'piece': {
        const place = this.place();
        return place && { kind: 'piece.add', id, fields: pieceFields(entry, place, this.nextPieceSequence()) };
      }
      case 'fasteners':
        return (
          piece && {
            kind: 'fasteners.add',
            id,
            fields: fastenerFields(entry, piece.id, nextSequence(this.open.fastenersOf().get(piece.id))),
          }
        );
      case 'joints':
        return piece && { kind: 'joints.add', id, fields: jointFields(entry, piece.id, nextSequence(this.open.jointsOf().get(piece.id))) };
    }
  }

  private place(): Place | null {
    const vehicle = this.selection.vehicle();
    const subsystem = this.selection.subsystem();
    const inside = this.selection.inside();
    if (!vehicle || !subsystem) return null;
    return { vehicleId: vehicle.id, subsystemId: inside ? null : subsystem.id, parentId: inside?.id ?? null };
  }

  private nextPieceSequence(): number {
    return this.open.record().pieces.reduce((last, piece) => Math.max(last, piece.sequence), -1) + 1;
  }

  protected putBack(at: number): void {
    const line = this.refused()[at]?.line;
    if (line === undefined) return;
    this.refused.update((lines) => lines.filter((_, i) => i !== at));
    this.entryLine()?.putBack(line);
  }

  protected async load({
    ops,
    rows,
    done,
  }: {
    readonly ops: readonly Op[];
    readonly rows: number;
    readonly done: (refusal: Refusal | null) => void;
  }): Promise<void> {
    const result = await this.service.send(ops);
    done(result.kept ? null : result.refusal);
    if (result.kept) this.said.set(`Loaded ${rows} rows as one change.`);
  }
}

const nextSequence = (rows: readonly { readonly sequence: number }[] | undefined): number =>
  Math.max(-1, ...(rows ?? []).map((row) => row.sequence)) + 1;
