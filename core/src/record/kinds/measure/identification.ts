import { OF_PIECE, instant, library, list, optional, reference, text } from '../field';
import { RECORDED, kind } from '../kind';

/** How the material and process of a piece were found out: what was seen and read, and what was decided from it. */
export const IDENTIFICATION = kind({
  list: 'identifications',
  table: 'identification',
  words: ['identification', 'identifications'],
  name: { of: 'pieceId', otherwise: 'a piece' },
  may: RECORDED,
  fields: {
    ...OF_PIECE,
    /** cues seen */
    cues: list('Seen', text('Cue', 40), 60),
    /** the reading of element fractions it rests on */
    readingId: reference('Alloy reading', 'reading', 'clear', optional),
    /** designation or moulded mark as read off the piece */
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
