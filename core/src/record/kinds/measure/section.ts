import { issue, millimetres } from '../../../shared';
import { REMARK, byName, choice, library, list, number, optional, reference, text, tuple, shown } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';
import { place } from '../place';

export const SECTION_KINDS = ['rectangle', 'round tube', 'rectangular tube', 'channel', 'hat', 'closed hat', 'outline'] as const;
export type SectionKind = (typeof SECTION_KINDS)[number];

const LEAST_POINTS = 3;

/** A section of a part: a shape of the library with its dimensions, or an outline. */
export const SECTION = kind({
  list: 'sections',
  table: 'section',
  words: ['section', 'sections'],
  name: { field: 'name' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    name: text('Name', 100, { needed: true, unsaid: true }),
    kind: choice('Shape', SECTION_KINDS),
    /** m, by name of the dimension; empty for an outline */
    dimensions: shown(
      byName('Dimensions', number('Dimension', 'm', { min: 0, max: 10 }), 'Dimensions must be lengths from 0 to 10 m by name'),
      (dimensions) =>
        Object.entries(dimensions)
          .map(([name, m]) => `${name.replace(/[A-Z]/g, (capital) => ` ${capital.toLowerCase()}`)} ${millimetres(m)} mm`)
          .join(', ') || 'none',
    ),
    /** [loop][point] x, y in m, of an outline; empty for a shape */
    loops: list('Outline', list('Loop', tuple('Point', place('Point'), 2), 5000), 50, { unsaid: true }),
    /** the scan it was cut from */
    scanId: reference('Scan', 'scan', 'clear', optional),
    materialId: library('Material', 'material', optional),
    note: REMARK,
  },
  faults: (section) =>
    section.kind === 'outline'
      ? section.loops.length === 0
        ? [issue('no-outline', 'An outline needs one loop of three points at least', 'loops', section.id)]
        : section.loops.flatMap((loop) =>
            loop.length < LEAST_POINTS ? [issue('short-loop', 'A loop needs three points at least', 'loops', section.id)] : [],
          )
      : section.loops.length > 0
        ? [issue('two-shapes', 'A section is either a shape with dimensions or an outline', 'loops', section.id)]
        : [],
});
