import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { removeOp, type Op, type Piece } from '@each-bolt/core/record';
import { shown, totalsAt } from '@each-bolt/core/bench';
import { basisOf, pieceCost } from '@each-bolt/core/cost';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { Commands } from '../shell/commands';
import { PieceCard } from './piece-card';

/** Connects the card to the record: what is chosen goes in, what was edited goes through the ledger. */
@Component({
  selector: 'eb-piece-card-host',
  imports: [PieceCard],
  template: `@if (selection.piece(); as piece) {
    <eb-piece-card
      [piece]="piece"
      [study]="open.study()"
      [figures]="figures()"
      [isAssembly]="isAssembly()"
      [cost]="cost()"
      [fastenerSets]="open.fastenersOf().get(piece.id) ?? []"
      [jointSets]="open.jointsOf().get(piece.id) ?? []"
      [editing]="editing() === piece.id"
      [refusal]="refusal()"
      (edit)="editing.set($event ? piece.id : '')"
      (ops)="send($event)"
      (remove)="remove(piece)"
      (recordInside)="commands.give('record-inside')"
      (closed)="selection.choose({ piece: null })"
    />
  }`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PieceCardHost {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly commands = inject(Commands);
  private readonly service = inject(RecordService);

  /** id of the piece whose form is open */
  protected readonly editing = signal('');
  protected readonly refusal = signal<Refusal | null>(null);
  private readonly place = computed(() => this.open.outline().placeOf.get(this.selection.piece()?.id ?? '') ?? -1);
  protected readonly figures = computed(() => {
    const totals = totalsAt(this.open.rollUp().rolled, this.place());
    return totals ? shown(totals, this.open.study().fastenersIn) : null;
  });
  protected readonly isAssembly = computed(() => (this.open.outline().nodes[this.place()]?.children.length ?? 0) > 0);
  protected readonly cost = computed(() => {
    const piece = this.selection.piece();
    return piece ? pieceCost(piece, this.open.rollUp().perVehicle[this.place()] ?? 1, basisOf(this.open.study())) : null;
  });

  constructor() {
    this.commands.on('edit-piece', () => this.editing.set(this.selection.piece()?.id ?? ''));
  }

  protected async send(ops: readonly Op[]): Promise<void> {
    this.refusal.set(null);
    const result = await this.service.send(ops);
    this.refusal.set(result.kept ? null : result.refusal);
    if (result.kept) this.editing.set('');
  }

  /** Takes a piece off with everything inside it and everything that holds it, as one change. */
  protected async remove(piece: Piece): Promise<void> {
    const { nodes } = this.open.outline();
    const ids: string[] = [];
    const waiting = [this.place()];
    for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
      const node = nodes[at];
      if (!node) continue;
      ids.push(node.id);
      waiting.push(...node.children);
    }
    const ops = ids.flatMap((id): readonly Op[] => {
      const row = this.open.pieceById().get(id);
      return [
        ...(this.open.picturesOf().get(id) ?? []).map((picture) => removeOp('picture', picture)),
        ...(this.open.fastenersOf().get(id) ?? []).map((set) => removeOp('fasteners', set)),
        ...(this.open.jointsOf().get(id) ?? []).map((set) => removeOp('joints', set)),
        ...(row ? [removeOp('piece', row)] : []),
      ];
    });
    this.refusal.set(null);
    const result = await this.service.send(ops);
    if (!result.kept) this.refusal.set(result.refusal);
    else
      void this.selection.choose({ piece: null, ...(ids.includes(this.selection.inside()?.id ?? '') ? { inside: piece.parentId } : {}) });
  }
}
