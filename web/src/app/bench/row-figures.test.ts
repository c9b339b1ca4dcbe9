import { totalsOf } from '@each-bolt/core/bench';
import { studyRollUp, studyShown } from '@each-bolt/core/cost';
import { LEFT, partNamed, recordOf, teardown } from '../../../testing/record';
import { massUText, partDetail, rowFigures } from './row-figures';

const record = recordOf(teardown('2x guide, cable pa66-gf30 inj t2 41 g\nlever\n  4 clip'));
const figures = (key: string) => rowFigures('', '', studyShown(totalsOf(studyRollUp(record).rolled, key)!, true));

describe('a row of the parts table', () => {
  it('says beside the name what is known of the part', () => {
    expect(partDetail(partNamed(record, 'guide, cable'))).toBe('2 × · PA66-GF30 · injection moulding · 2 mm');
    expect(partDetail({ ...partNamed(record, 'lever'), opened: 'closed' })).toBe('left closed');
  });
  it('shows nothing recorded as absent, not as 0', () => {
    expect(figures(partNamed(record, 'guide, cable').id)).toMatchObject({
      count: 2,
      fasteners: null,
      joints: null,
      weighed: 'all 2',
      costGap: '',
    });
    expect(figures(partNamed(record, 'lever').id)).toMatchObject({
      count: 5,
      fasteners: 4,
      massKg: null,
      massU: '',
      weighed: 'no mass',
      costGap: 'not costed',
    });
  });
  it('gives how much of a total rests on the weakest mark, and what is missing', () => {
    expect(figures(LEFT.id)).toMatchObject({
      weighed: '2 of 3',
      weighedTitle: '2 of 3 weighed; 1 without mass; 4 fasteners without mass',
      costTitle: '2 of 3 parts costed; 4 fasteners without cost',
      costGap: '2 of 3',
    });
  });
  it('states the expanded uncertainty, k = 2, in grams to two digits', () => {
    expect([massUText(0.0042), massUText(0.045), massUText(0.00029), massUText(null)]).toEqual(['± 8.4 g', '± 90 g', '± 0.58 g', '']);
  });
});
