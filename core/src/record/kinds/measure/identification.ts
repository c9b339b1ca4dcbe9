import { instant, library, list, optional, reference, text, shown } from '../field';
import { RECORDED, kind } from '../kind';
import { OF_PART } from '../study/of-part';

/** How the material and process of a part were found out: what was seen and read, and what was decided from it. */
export const IDENTIFICATION = kind({
  list: 'identifications',
  table: 'identification',
  words: ['identification', 'identifications'],
  name: { of: 'partId', otherwise: 'a part' },
  may: RECORDED,
  fields: {
    ...OF_PART,
    /** cues seen */
    cues: shown(list('Seen', text('Cue', 40), 60), (cues) => cues.map((cue) => cue.replace(/-/g, ' ')).join(', ') || 'none'),
    /** the reading of element fractions it rests on */
    readingId: reference('Alloy reading', 'reading', 'clear', optional),
    /** designation or material marking as read off the part */
    marking: text('Marking', 200),
    materialId: library('Material', 'material', optional),
    /** exact grade decided on, in words */
    grade: text('Grade', 100),
    processId: library('Process', 'process', optional),
    reason: text('Reason', 1000),
    decidedAt: instant('Decided'),
    decidedBy: text('Decided by', 200),
  },
});
