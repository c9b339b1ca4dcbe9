import { issue } from '../../../shared';
import { allOrNone } from '../../whole-sets';
import { EVIDENCE, REMARK, flag, length, optional, whole } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** A bare circuit board as such; what is placed on it stands in its component sets. */
export const BOARD = kind({
  list: 'boards',
  table: 'board',
  words: ['board', 'boards'],
  name: { of: 'partId', otherwise: 'a part' },
  may: RECORDED,
  fields: {
    partId: OF_PART.partId,
    /** its evidence stands for the whole size */
    lengthM: length('Length', 10, { evidence: 'M' }),
    widthM: length('Width', 10),
    /** sides that carry components */
    sides: whole('Sides with components', 1, 2, { ...optional, evidence: 'S' }),
    layers: whole('Layers', 1, 100, { ...optional, evidence: 'S' }),
    /** fitted components as counted on the whole board, whatever their class */
    componentsCounted: whole('Components counted in all', 0, 100_000, { ...optional, evidence: 'C', later: true }),
    pressFitPins: whole('Press-fit pins', 0, 100_000, { ...optional, evidence: 'C', later: true }),
    solderedPins: whole('Soldered through pins', 0, 100_000, { ...optional, evidence: 'C', later: true }),
    /** joints soldered, parts placed or glued by hand, as seen */
    handJoints: whole('Joints made by hand', 0, 100_000, { ...optional, evidence: 'C', later: true }),
    potted: flag('Potted', { ...optional, evidence: 'S', later: true }),
    coated: flag('Coated', { ...optional, evidence: 'S', later: true }),
    note: REMARK,
    evidence: EVIDENCE,
  },
  faults: (board) =>
    allOrNone([board.lengthM, board.widthM])
      ? []
      : [issue('board-incomplete', 'The size of a board needs length and width', 'lengthM', board.id)],
  unique: [{ code: 'board-twice', fields: ['partId'], says: 'The board of “${name}” is there already; change that one' }],
});
