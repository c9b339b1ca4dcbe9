import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { words } from '../../../testing/words';
import { EntryLine, type LineKept } from './entry-line';

describe('the entry line', () => {
  let fixture: ComponentFixture<EntryLine>;
  let kept: LineKept[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const input = (): HTMLInputElement => element().querySelector('input')!;
  const type = async (text: string): Promise<void> => {
    input().value = text;
    input().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  const press = async (init: KeyboardEventInit): Promise<void> => {
    input().dispatchEvent(new KeyboardEvent('keydown', { bubbles: true, ...init }));
    await fixture.whenStable();
  };
  const chips = (): readonly string[] => [...element().querySelectorAll('.chip')].map(words);

  beforeEach(async () => {
    fixture = TestBed.createComponent(EntryLine);
    fixture.componentRef.setInput('hint', 'Count, name, material');
    kept = [];
    fixture.componentInstance.kept.subscribe((line) => kept.push(line));
    await fixture.whenStable();
  });

  it('says what to type while it is empty', () => expect(element().textContent).toContain('Count, name, material'));
  it('shows how each stretch is understood while it is typed', async () => {
    await type('2x bracket, hose guide pa66-gf30 inj ~41 g');
    expect(chips()).toEqual([
      'count 2 C',
      'name bracket, hose guide',
      'material PA66-GF30 S',
      'made by injection moulding S',
      'mass each ~41 g I',
    ]);
  });
  it('keeps a sound line on Enter and is empty for the next', async () => {
    await type('lever 100 g');
    await press({ key: 'Enter' });
    expect(kept).toMatchObject([{ line: 'lever 100 g', entry: { kind: 'piece', name: 'lever' } }]);
    expect(input().value).toBe('');
  });
  it('is empty at once, so that the next line can be typed before the screen is drawn again', async () => {
    await type('plate 1 kg');
    input().dispatchEvent(new KeyboardEvent('keydown', { bubbles: true, key: 'Enter' }));
    expect(input().value).toBe('');
    input().value += '4 M6x16';
    input().dispatchEvent(new Event('input'));
    await fixture.whenStable();
    await press({ key: 'Enter' });
    expect(kept.map((line) => line.line)).toEqual(['plate 1 kg', '4 M6x16']);
  });
  it('asks before it keeps, and Enter goes to the first choice', async () => {
    await type('bracket 41');
    expect(chips().at(-1)).toMatch(/settle this first 41 of what: g or kg\? 1 41 g 2 41 kg/);
    document.body.append(element());
    await press({ key: 'Enter' });
    expect(kept).toEqual([]);
    expect(document.activeElement?.textContent).toContain('41 g');
    element().remove();
  });
  it('takes a choice by Alt and its number, one question at a time', async () => {
    await type('bracket aluminium 41');
    expect(chips().filter((chip) => chip.startsWith('settle'))).toHaveLength(1);
    expect(chips().at(-1)).toBe('then settle 41');
    await press({ altKey: true, code: 'Digit3', key: '3' });
    expect(input().value).toBe('bracket aw-6082 41');
    await press({ altKey: true, code: 'Digit1', key: '1' });
    await press({ key: 'Enter' });
    expect(kept).toMatchObject([{ entry: { materialId: 'aw-6082', mass: { eachKg: 0.041 } } }]);
  });
  it('points out a piece heavier than solid, and keeps it all the same', async () => {
    await type('plate dc04 62x41x3.5 1.84 kg');
    expect(chips().at(-1)).toMatch(/^check Solid DC04 of this size weighs/);
    await press({ key: 'Enter' });
    expect(kept).toHaveLength(1);
  });
});
