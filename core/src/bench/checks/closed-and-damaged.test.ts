import { LEFT, DOOR, partNamed, recordOf, teardown } from '../../../testing/teardown';
import { outline as outlineOf, subsystemKey, type StudyRecord } from '../../record';
import { closedAndDamaged, closedBelow, closedWords } from './closed-and-damaged';

const plain = recordOf(teardown('module\n  lock\n  plate\n    pump\narm\nlamp'));
const marked = (marks: Readonly<Record<string, object>>): StudyRecord => ({
  ...plain,
  parts: plain.parts.map((p) => ({ ...p, ...marks[p.name] })),
});
const CLOSED = { opened: 'closed', closedReason: 'sealed' };

describe('what was left closed', () => {
  const record = marked({ lock: CLOSED, pump: CLOSED, lamp: { ...CLOSED, damage: 'lens cracked' }, arm: { damage: 'bent' } });
  it('is listed, as is what is damaged, in the order of the record', () => {
    const { closed, damaged } = closedAndDamaged(record);
    expect(closed.map((p) => p.name).sort()).toEqual(['lamp', 'lock', 'pump']);
    expect(damaged.map((p) => p.name).sort()).toEqual(['arm', 'lamp']);
    expect(closed.map((p) => p.sequence)).toEqual(closed.map((p) => p.sequence).sort((a, b) => a - b));
  });
  it('is counted in and below every node: a total knows how much it does not hold', () => {
    const outline = outlineOf(record);
    const below = closedBelow(outline, new Map(record.parts.map((p) => [p.id, p])));
    const at = (key: string): number => below[outline.placeOf.get(key)!]!;
    const of = (name: string): number => at(partNamed(record, name).id);
    expect([of('module'), of('plate'), of('pump'), of('arm'), of('lamp')]).toEqual([2, 1, 1, 0, 1]);
    expect([at(subsystemKey(LEFT.id, DOOR.id)), at(LEFT.id)]).toEqual([3, 3]);
  });
  it('is said in words where a figure stands, and nothing is said where all was opened', () =>
    expect([0, 1, 3].map(closedWords)).toEqual([
      '',
      '1 part left closed: what is inside it is not in this figure',
      '3 parts left closed: what is inside them is not in this figure',
    ]));
});
