import { issue } from '../../../shared';
import { SEQUENCE, choice, file, list, number, optional, group, reference, text, whole, type ValueOf } from '../field';
import { RECORDED, kind } from '../kind';

const PICTURE_MARKS = ['arrow', 'circle', 'text'] as const;

const inPicture = number('Mark', '', {
  min: 0,
  max: 1,
  says: { min: '${label} lies in the picture', max: '${label} lies in the picture' },
});

const MARK = group('Mark', {
  kind: choice('Mark', PICTURE_MARKS),
  fromX: inPicture,
  fromY: inPicture,
  /** head of the arrow, or a point on the circle; the same as `from` for text */
  toX: inPicture,
  toY: inPicture,
  text: text('Text of the mark', 200),
});
/** A mark drawn over a picture; places are fractions of its width and height, so that they hold at every size. */
export type PictureMark = ValueOf<typeof MARK>;

/** A picture of a part or of a rig. Its file is kept once, under its content hash. */
export const PICTURE = kind({
  list: 'pictures',
  table: 'picture',
  words: ['picture', 'pictures'],
  name: { field: 'shows', otherwise: 'picture' },
  may: RECORDED,
  fields: {
    /** one of the two is null */
    partId: reference('Part', 'part', 'remove too', { ...optional, unsaid: true }),
    rigId: reference('Rig', 'rig', 'remove too', { ...optional, later: true, unsaid: true }),
    sequence: SEQUENCE,
    sha256: file('File', 'picture'),
    widthPx: whole('Width', 1, 100_000, { unsaid: true }),
    heightPx: whole('Height', 1, 100_000, { unsaid: true }),
    /** what it shows */
    shows: text('Shows', 400),
    marks: list('Marks', MARK, 200),
  },
  faults: (picture) =>
    (picture.partId === null) === (picture.rigId === null)
      ? [issue('place', 'A picture shows either a part or a rig: give one of the two', 'partId', picture.id)]
      : [],
});
