import { ScanReader, type Fed } from './scan-reader';

const typed = (text: string, everyMs: number): readonly Fed[] => {
  const reader = new ScanReader();
  return text
    .split(/(?=.)/)
    .map((key, i) => reader.feed(key, i * everyMs))
    .concat(reader.feed('Enter', text.length * everyMs));
};
const keysOf = (fed: readonly Fed[]): string => fed.flatMap(({ keys }) => keys).join('');

describe('a reader of labels', () => {
  it('is told by its speed: its text is whole with the Enter, and no letter of it means anything else', () => {
    const fed = typed('Z03-017Z', 12);
    expect(fed.at(-1)?.text).toBe('Z03-017Z');
    expect(keysOf(fed)).toBe('');
  });
  it('comes with a Shift before each capital', () => {
    const reader = new ScanReader();
    let at = 0;
    for (const key of ['Shift', 'A', '0', '3', '-', '0', '1', '7', 'Shift', 'K']) reader.feed(key, (at += 8));
    expect(reader.feed('Enter', at + 8).text).toBe('A03-017K');
  });
  it('is no person: slow keys are their own, each as the next one comes', () => {
    const fed = typed('A03-017Z', 120);
    expect(fed.every(({ text }) => text === null)).toBe(true);
    expect(keysOf(fed)).toBe('A03-017Z');
  });
  it('is no person either when two keys roll over one another, or one is pressed right after Shift', () => {
    expect(keysOf(typed('1Z', 20))).toBe('1Z');
    const reader = new ScanReader();
    reader.feed('Shift', 0);
    reader.feed('Z', 5);
    expect(reader.isHolding).toBe(true);
    expect(reader.release()).toEqual(['Z']);
    expect(reader.isHolding).toBe(false);
  });
  it('keeps no small letter waiting, for no tag begins with one', () => {
    const reader = new ScanReader();
    expect(reader.feed('l', 0).keys).toEqual(['l']);
    expect(reader.feed('z', 5).keys).toEqual(['z']);
    expect(reader.isHolding).toBe(false);
  });
  it('begins anew after a pause or another key', () => {
    const reader = new ScanReader();
    reader.feed('X', 0);
    expect(reader.feed('ArrowDown', 10).keys).toEqual(['X']);
    let at = 500;
    for (const key of ['B', '0', '1', '-', '0', '0', '1', 'Q']) reader.feed(key, (at += 10));
    expect(reader.feed('Enter', at + 10).text).toBe('B01-001Q');
  });
});
