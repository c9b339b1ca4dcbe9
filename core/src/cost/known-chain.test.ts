import { subsystemKey } from '../record';
import { DOOR, LEFT, pieceNamed, recordOf, teardown } from '../../testing/teardown';
import { knownChain, restsOn } from './known-chain';
import { studyRollUp } from './study-roll-up';

const record = recordOf(
  teardown(`2x module
  3x bracket dc04 stamp ~41 g
  2-3x clip, trim 5 g
  cover dc04@T stamp 1.2 kg
  4 M6x16 6 g`),
);
const rollUp = studyRollUp(record);
const chainOf = (key: string, measure: 'count' | 'mass' | 'cost') =>
  knownChain(record, rollUp, rollUp.rolled.outline.placeOf.get(key) ?? -1, measure)!;
const named = (name: string) => pieceNamed(record, name);

describe('how a total is known', () => {
  it('is told part by part, the weakest evidence first, with each part’s share', () => {
    const { whole, parts } = chainOf(named('module').id, 'mass');
    // by hand: 2 × (3 × 41 + 2.5 × 5 + 1200 + 4 × 6) g; two, perhaps three is 2.5
    expect(whole).toMatchObject({ mark: 'I', value: expect.closeTo(2 * (0.123 + 0.0125 + 1.2 + 0.024), 12) as number });
    expect(parts.map((p) => [p.kind, p.mark, Number(p.value?.toFixed(4))])).toEqual([
      ['piece', 'I', 0.246],
      ['piece', 'M', 2.4],
      ['fasteners', 'M', 0.048],
      ['piece', 'M', 0.025],
    ]);
    expect(parts.reduce((sum, p) => sum + (p.fraction ?? 0), 0)).toBeCloseTo(1, 12);
  });
  it('carries ranges of counts up to the vehicle', () => {
    // by hand, an opened assembly as its pieces: 2 × (3 + 2…3 + 1) pieces and 2 × 4 fasteners
    expect(chainOf(LEFT.id, 'count').whole).toMatchObject({ value: 20, low: 20, high: 22, mark: 'C' });
    expect(chainOf(subsystemKey(LEFT.id, DOOR.id), 'count').parts).toMatchObject([{ low: 20, high: 22 }]);
  });
  it('lets a cost rest on mass, material and process: the weakest of them', () => {
    expect(chainOf(named('bracket').id, 'cost').whole.mark).toBe('I');
    expect(chainOf(named('cover').id, 'cost').whole.mark).toBe('T');
  });
  it('ends in the reading of a piece', () => {
    expect(chainOf(named('bracket').id, 'mass')).toMatchObject({ isReading: true, parts: [] });
    expect(chainOf(named('module').id, 'mass').isReading).toBe(false);
    expect(restsOn('cost', named('cover'))).toEqual(['massEachKg', 'materialId', 'processId', 'quantity']);
  });
  it('is nothing where nothing stands', () => expect(knownChain(record, rollUp, -1, 'mass')).toBeNull());
});
