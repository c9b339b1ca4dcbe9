import { issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { KNOWN_BY, REMARK, length, optional, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PIECE } from '../study/of-piece';

/** A bare circuit board as such; what is placed on it stands in its component sets. */
export const BOARD = kind({
  list: 'boards',
  table: 'board',
  words: ['board', 'boards'],
  name: { of: 'pieceId', otherwise: 'a piece' },
  may: RECORDED,
  fields: {
    pieceId: OF_PIECE.pieceId,
    /** its evidence stands for the whole size */
    lengthM: length('Length', 10, { evidence: 'M' }),
    widthM: length('Width', 10),
    /** sides that carry components */
    sides: whole('Sides with components', 1, 2, { ...optional, evidence: 'S' }),
    layers: whole('Layers', 1, 100, { ...optional, evidence: 'S' }),
    note: REMARK,
    known: KNOWN_BY,
  },
  faults: (board) =>
    allOrNone([board.lengthM, board.widthM])
      ? []
      : [issue('board-incomplete', 'The size of a board needs length and width', 'lengthM', board.id)],
  unique: [{ code: 'board-twice', fields: ['pieceId'], says: 'The board of “${name}” is there already; change that one' }],
});
