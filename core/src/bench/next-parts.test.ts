import { LEFT, RIGHT, recordOf, teardown, testId } from '../../testing/teardown';
import { blank, type StudyRecord } from '../record';
import { notRemovedYet, withoutTag, worthRecounting } from './next-parts';

const RECORD: StudyRecord = recordOf(
  teardown('door #A1 20 kg\n  lock 0.8 kg\n    ~6 M6x16\n    2 M5x12\n  rail 2 kg\n    12 rivet\narm 1.2 kg\n  2-3 M8x25\nlamp 0.3 kg'),
);
const idOf = (name: string): string => RECORD.parts.find((p) => p.name === name)!.id;
const told = (rows: readonly { readonly part: { readonly name: string }; readonly why: string }[]): readonly string[] =>
  rows.map(({ part, why }) => `${part.name}: ${why}`);

describe('what is to be done next', () => {
  it('at the removals: parts straight under a subsystem that no removal names', () => {
    const step = { id: testId(800), version: 1, ...blank('step', { vehicleId: LEFT.id, sequence: 0 }), parts: [idOf('arm')] };
    expect(notRemovedYet({ ...RECORD, steps: [step] }, LEFT.id).map(({ part }) => part.name)).toEqual(['door', 'lamp']);
    const parts = RECORD.parts.map((p) => (p.name === 'lamp' ? { ...p, state: 'fitted' as const } : p));
    expect(notRemovedYet({ ...RECORD, parts, steps: [step] }, LEFT.id).map(({ part }) => part.name)).toEqual(['door']);
    expect(notRemovedYet(RECORD, RIGHT.id)).toEqual([]);
  });
  it('at the tags: what has none, loose parts first, the heaviest before the others', () => {
    expect(told(withoutTag(RECORD, LEFT.id))).toEqual([
      'arm: loose, without a tag',
      'lamp: loose, without a tag',
      'rail: inside an assembly, without a tag',
      'lock: inside an assembly, without a tag',
    ]);
    const parts = RECORD.parts.map((p) => ({ ...p, state: 'returned' as const }));
    expect(withoutTag({ ...RECORD, parts }, LEFT.id)).toEqual([]);
  });
  it('at the blind recounts: counts that are not sure first, then the most fasteners; how many there are is not told', () => {
    expect(told(worthRecounting(RECORD, LEFT.id))).toEqual([
      'lock: 1 count not sure, 2 sets',
      'arm: 1 count not sure, 1 set',
      'rail: 1 set',
    ]);
    const recount = {
      id: testId(801),
      version: 1,
      ...blank('recount', { partId: idOf('lock'), by: 'Odo', countedAt: '', state: 'agrees' }),
    };
    expect(worthRecounting({ ...RECORD, recounts: [recount] }, LEFT.id).map(({ part }) => part.name)).toEqual(['arm', 'rail']);
  });
});
