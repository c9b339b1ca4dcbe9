import { Injectable, computed, inject, signal } from '@angular/core';
import type { Piece } from '@each-bolt/core/record';
import { Selection } from './selection';

/** The piece in the card: the one that is chosen; while it is being edited also when somebody has taken it off meanwhile. */
@Injectable({ providedIn: 'root' })
export class CardedPiece {
  private readonly selection = inject(Selection);
  /** the piece whose form is open, as it was when it was opened */
  readonly edited = signal<Piece | null>(null);
  readonly piece = computed<Piece | null>(() => {
    const edited = this.edited();
    return this.selection.piece() ?? (edited !== null && edited.id === this.selection.pieceId() ? edited : null);
  });
}
