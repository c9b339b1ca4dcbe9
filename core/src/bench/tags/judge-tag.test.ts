import { DOOR, LEFT, RIGHT, recordOf, teardown } from '../../../testing/teardown';
import type { StudyRecord, TagSheet } from '../../record';
import { judgeTag, tagFault } from './judge-tag';
import { tagText } from './tag';
import { nextFreeTag, nextTagNumber, tagPrefix, tagsOf } from './tag-sheets';
import { LABEL_STOCKS, labelPlace } from './label-stock';

const sheet = (id: string, vehicleId: string, prefix: string, more: Partial<TagSheet> = {}): TagSheet => ({
  ...{ id, version: 1, vehicleId, subsystemId: DOOR.id, packageId: null, prefix, firstNumber: 1, count: 3, stock: 'Roll' },
  printedAt: '2026-06-01T08:00:00.000Z',
  ...more,
});
const on = (prefix: string, number: number): string => tagText({ prefix, number });
const RECORD: StudyRecord = {
  ...recordOf(teardown(`plate 1 kg #${on('A01', 1)}\nlever`, LEFT)),
  sheets: [sheet('s1', LEFT.id, 'A01'), sheet('s2', RIGHT.id, 'B01'), sheet('s3', LEFT.id, 'A02', { subsystemId: 'other' })],
};
const HERE = { vehicleId: LEFT.id, subsystemId: DOOR.id, packageId: null };

describe('a scanned tag', () => {
  it('opens the part it is on', () =>
    expect(judgeTag(RECORD, on('A01', 1).toLowerCase(), HERE)).toMatchObject({ kind: 'opens', part: { name: 'plate' } }));
  it('is free when it was printed for here and is on nothing yet', () =>
    expect(judgeTag(RECORD, on('A01', 2), HERE)).toEqual({ kind: 'free', tag: on('A01', 2) }));
  it.each([
    ['of another vehicle', on('B01', 1), 'other-vehicle', /another vehicle than the one on the bench/],
    ['of another subsystem', on('A02', 1), 'other-subsystem', /another subsystem/],
    ['that was never printed', on('A01', 9), 'not-printed', /never printed for this study/],
    ['that was misread', on('A01', 2).slice(0, -1) + (on('A01', 2).endsWith('0') ? '1' : '0'), 'misread', /check character would be/],
  ])('%s is stopped, with the reason and the likely right one', (_, tag, code, message) => {
    const judged = judgeTag(RECORD, tag, HERE);
    expect(judged).toMatchObject({ kind: 'stop', code, message: expect.stringMatching(message) as string, likely: on('A01', 2) });
  });
  it('printed for one work package is stopped in another', () => {
    const record = { ...RECORD, sheets: [sheet('s4', LEFT.id, 'A01', { packageId: 'p1' })] };
    expect(judgeTag(record, on('A01', 2), { ...HERE, packageId: 'p2' })).toMatchObject({ kind: 'stop', code: 'other-step' });
    expect(judgeTag(record, on('A01', 2), { ...HERE, packageId: 'p1' })).toMatchObject({ kind: 'free' });
  });
  it('on another part already cannot go on a second one, but its own part may keep it', () => {
    const plate = RECORD.parts[0]!;
    expect(tagFault(RECORD, on('A01', 1), HERE, null)).toMatch(/is on “plate” already .* The next free one here is A01-002/);
    expect(tagFault(RECORD, on('A01', 1), HERE, plate.id)).toBeNull();
    expect(tagFault(RECORD, '', HERE, null)).toBeNull();
    expect(tagFault(RECORD, 'DR2-7', HERE, null)).toBeNull();
  });
});

describe('sheets of tags', () => {
  it('get a prefix of vehicle and subsystem, the same one again, and never one that means something else', () => {
    expect(tagPrefix({ ...RECORD, sheets: [] }, RIGHT, DOOR)).toBe('B01');
    expect(tagPrefix(RECORD, LEFT, DOOR)).toBe('A01');
    const taken = { ...RECORD, sheets: [sheet('s5', RIGHT.id, 'A01', { subsystemId: 'x' })] };
    expect(tagPrefix(taken, LEFT, DOOR)).toBe('A01X1');
  });
  it('count on where the last one ended', () => {
    expect(nextTagNumber(RECORD.sheets, 'A01')).toBe(4);
    expect(nextTagNumber(RECORD.sheets, 'C09')).toBe(1);
    expect(tagsOf(RECORD.sheets[0]!)).toEqual([1, 2, 3].map((n) => on('A01', n)));
    expect(nextFreeTag(RECORD, { ...HERE, vehicleId: 'nowhere' })).toBeNull();
  });
  it.each(LABEL_STOCKS)('$name: every label lies on its page, and none on another', (stock) => {
    const perPage = stock.columns * stock.rows;
    const places = Array.from({ length: perPage }, (_, n) => labelPlace(stock, n, 0));
    for (const { page, xMm, yMm } of places) {
      expect(page).toBe(0);
      expect(xMm + stock.labelWidthMm).toBeLessThanOrEqual(stock.pageWidthMm + 1e-9);
      expect(yMm + stock.labelHeightMm).toBeLessThanOrEqual(stock.pageHeightMm + 1e-9);
    }
    expect(stock.columns === 1 || stock.pitchXMm >= stock.labelWidthMm).toBe(true);
    expect(stock.rows === 1 || stock.pitchYMm >= stock.labelHeightMm - 1e-9).toBe(true);
    expect(labelPlace(stock, 0, perPage)).toEqual({ ...labelPlace(stock, 0, 0), page: 1 });
  });
});
