import { issue } from '../../../shared';
import { REMARK, choice, list, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PIECE } from '../study/of-piece';
import { place } from './place';
import { triple } from './scan';

export const PATTERN_SOURCES = ['scan', 'caliper', 'drawing', 'other'] as const;

/** Places of holes or mounting points of a piece. */
export const PATTERN = kind({
  list: 'patterns',
  table: 'pattern',
  words: ['pattern of holes', 'patterns of holes'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PIECE,
    name: text('Name', 100, { needed: true, unsaid: true }),
    /** [point] x, y, z in m */
    points: list('Points', triple('Point', place('Place')), 40),
    source: choice('Taken from', PATTERN_SOURCES),
    note: REMARK,
  },
  faults: (pattern) =>
    pattern.points.length < 2 ? [issue('few-points', 'A pattern needs two points at least', 'points', pattern.id)] : [],
});
