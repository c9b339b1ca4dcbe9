import { DOOR, LEFT, recordOf, teardown } from '../../testing/teardown';
import { subsystemKey } from '../record';
import { costLines, worthCosting } from './cost-lines';
import { studyRollUp } from './study-roll-up';

describe('parts without a cost', () => {
  const record = recordOf(teardown('bracket dc04 stamp 41 g\n2x lever 300 g\nplate 500 g\nlabel'));
  const lines = costLines(record, studyRollUp(record), subsystemKey(LEFT.id, DOOR.id));
  const next = worthCosting(new Map(record.parts.map((p) => [p.id, p])), lines);
  // by hand: two levers of 300 g are 600 g on the vehicle, more than one plate of 500 g; the label is not weighed
  it('are listed by their mass on one vehicle, what is not weighed last; those with a cost are not', () =>
    expect(next.map(({ part }) => part.name)).toEqual(['lever', 'plate', 'label']));
  it('say what each lacks', () => {
    expect(next[0]?.why).toMatch(/material/i);
    expect(next[0]?.why).not.toMatch(/no mass/i);
    expect(next[2]?.why).toMatch(/no mass/i);
  });
});
