import { SEQUENCE, reference } from '../field';

/** A record that belongs to a piece and goes with it. */
export const OF_PIECE = {
  pieceId: reference('Piece', 'piece', 'remove too', { unsaid: true }),
  sequence: SEQUENCE,
} as const;
