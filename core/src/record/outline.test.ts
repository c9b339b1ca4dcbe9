import { DOOR, LEFT, RIGHT, STUDY, recordOf, teardown, testId } from '../../testing/teardown';
import { outline, subsystemKey } from './outline';
import { costBasisText, countingRuleText } from './rule-words';

describe('the outline of a study', () => {
  const record = recordOf(teardown('module\n  plate\n  lever\narm'));
  const names = new Map<string, string>([...record.parts, ...record.vehicles].map((row) => [row.id, row.name]));
  const tree = outline(record);

  it('has every vehicle with the same subsystems, and every parent before what is inside it', () => {
    expect(tree.nodes.map((node) => [node.depth, names.get(node.id) ?? 'door'])).toEqual([
      [0, 'Left van'],
      [1, 'door'],
      [2, 'module'],
      [3, 'plate'],
      [3, 'lever'],
      [2, 'arm'],
      [0, 'Right van'],
      [1, 'door'],
    ]);
    expect(tree.placeOf.get(subsystemKey(RIGHT.id, DOOR.id))).toBe(7);
  });
  it('holds parents and inner nodes in packed form too', () => {
    expect([...tree.parentOf]).toEqual([-1, 0, 1, 2, 2, 1, -1, 6]);
    expect([...tree.innerOf]).toEqual([0, 1, 2, -1, -1, -1, 3, -1]);
    expect(tree.innerCount).toBe(4);
  });
  it('keeps the order people gave, and a fixed one among equals', () => {
    const reversed = { ...record, parts: record.parts.map((part) => ({ ...part, sequence: 100 - part.sequence })) };
    const below = (key: string) =>
      outline(reversed)
        .nodes.filter((n) => n.parent === outline(reversed).placeOf.get(key))
        .map((n) => names.get(n.id));
    expect(below(subsystemKey(LEFT.id, DOOR.id))).toEqual(['arm', 'module']);
    const equal = { ...record, parts: [...record.parts].reverse().map((part) => ({ ...part, sequence: 0 })) };
    expect(outline(equal).nodes.map((n) => n.key)).toEqual(tree.nodes.map((n) => n.key));
  });
  it('names parts whose parent is not there', () => {
    const lost = {
      ...record,
      parts: record.parts.map((part) => (part.name === 'plate' ? { ...part, parentId: testId(999) } : part)),
    };
    expect(outline(lost).issues.map((i) => i.message)).toEqual(['“plate” hangs nowhere: its parent is missing or it is inside itself']);
  });
});

describe('the rule and the basis in words', () => {
  it('say what the figures stand on', () => {
    expect(countingRuleText(STUDY)).toBe('loose parts + fasteners');
    expect(countingRuleText({ fastenersIn: false, assembliesAs: 'one' })).toBe('opened assemblies as one, fasteners left out');
    expect(costBasisText(STUDY)).toBe('EUR 2026, 60000 vehicles a year for 7 years, Central Europe');
  });
});
