import { issue } from '../../../shared';
import { REMARK, choice, list, text } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';
import { place } from '../place';
import { triple } from './scan';

export const HOLE_PATTERN_SOURCES = ['scan', 'caliper', 'drawing', 'other'] as const;

/** Places of holes or mounting points of a part. */
export const HOLE_PATTERN = kind({
  list: 'holePatterns',
  table: 'hole_pattern',
  words: ['hole pattern', 'hole patterns'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 100, { needed: true, unsaid: true }),
    /** [point] x, y, z in m */
    points: list('Points', triple('Point', place('Place')), 40),
    source: choice('Taken from', HOLE_PATTERN_SOURCES),
    note: REMARK,
  },
  faults: (pattern) =>
    pattern.points.length < 2 ? [issue('few-points', 'A hole pattern needs two points at least', 'points', pattern.id)] : [],
});
