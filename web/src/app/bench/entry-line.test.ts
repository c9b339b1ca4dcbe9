import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { wordBook } from '@each-bolt/core/bench';
import { recordOf, teardown } from '../../../testing/record';
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
    expect(kept).toMatchObject([{ line: 'lever 100 g', entry: { kind: 'part', name: 'lever' } }]);
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
    expect(chips().at(-1)).toMatch(/settle this first 41 of what: g or kg\? Alt 1 41 g Alt 2 41 kg/);
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
  it('points out a part heavier than solid, and keeps it all the same', async () => {
    await type('plate dc04 62x41x3.5 1.84 kg');
    expect(chips().at(-1)).toMatch(/^check Solid DC04 of this size weighs/);
    await press({ key: 'Enter' });
    expect(kept).toHaveLength(1);
  });
  it('questions a fastener that weighs many times its standard size', async () => {
    await type('4 M6x16 SW10 8.8 24 g');
    expect(chips().at(-1)).toBe(
      'settle this first 24 g for one of these? A standard one weighs about 5.5 g Alt 1 24 g in all Alt 2 24 g, as it stands Alt 3 without a mass',
    );
    await press({ code: 'Digit1', key: '1', altKey: true });
    expect(chips().at(-1)).toBe('mass in all 24 g M');
  });
  it('says what a count comes to on a part that is there twice', async () => {
    fixture.componentRef.setInput('onto', 2);
    await type('4 M6x16');
    expect(chips().at(-1)).toBe('in all 4 each on 2 = 8');
  });
});

describe('typing help of the entry line', () => {
  let fixture: ComponentFixture<EntryLine>;
  let pasted: (readonly string[])[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const input = (): HTMLInputElement => element().querySelector('input')!;
  const type = async (text: string): Promise<void> => {
    input().value = text;
    input().setSelectionRange(text.length, text.length);
    input().dispatchEvent(new Event('input'));
    await fixture.whenStable();
  };
  const press = async (key: string): Promise<boolean> => {
    const event = new KeyboardEvent('keydown', { bubbles: true, cancelable: true, key });
    input().dispatchEvent(event);
    await fixture.whenStable();
    return event.defaultPrevented;
  };
  const offers = (): readonly string[] => [...element().querySelectorAll('.suggestions button')].map((b) => b.textContent.trim());

  beforeEach(async () => {
    fixture = TestBed.createComponent(EntryLine);
    fixture.componentRef.setInput('book', wordBook(recordOf(teardown('bracket, hose guide\nbracket, cable guide'))));
    fixture.componentRef.setInput('before', ['plate 1 kg', '4 M6x16 T30']);
    pasted = [];
    fixture.componentInstance.pasted.subscribe((lines) => pasted.push(lines));
    await fixture.whenStable();
  });

  it('offers the words of the study; Tab takes the first, ↓ goes to the next', async () => {
    await type('2x brac');
    expect(offers().slice(0, 3)).toEqual(['bracket', 'bracket, cable guide', 'bracket, hose guide']);
    await press('ArrowDown');
    expect(await press('Tab')).toBe(true);
    expect(input().value).toBe('2x bracket, cable guide ');
    expect(offers()).toEqual([]);
  });
  it('lets Tab go on through the page when there is nothing to take', async () => {
    await type('2x ');
    expect(await press('Tab')).toBe(false);
    await type('brac');
    await press('Escape');
    expect([offers(), await press('Tab')]).toEqual([[], false]);
  });
  it('brings the lines kept before back, to be varied', async () => {
    await press('ArrowUp');
    expect(input().value).toBe('4 M6x16 T30');
    await press('ArrowUp');
    expect(input().value).toBe('plate 1 kg');
    await press('ArrowDown');
    await press('ArrowDown');
    expect(input().value).toBe('');
  });
  it('takes several lines at once as a batch, and one as text', async () => {
    const paste = (text: string): boolean => {
      const event = new Event('paste', { bubbles: true, cancelable: true });
      Object.defineProperty(event, 'clipboardData', { value: { getData: () => text } });
      input().dispatchEvent(event);
      return event.defaultPrevented;
    };
    expect(paste('plate 1 kg\r\n\n 4 M6x16 \n')).toBe(true);
    expect(pasted).toEqual([['plate 1 kg', '4 M6x16']]);
    expect(paste('plate 1 kg')).toBe(false);
    await fixture.whenStable();
  });
  it('puts a reading in at the cursor', async () => {
    await type('plate t 1 kg');
    input().setSelectionRange(7, 7);
    fixture.componentInstance.insert('0.81 mm');
    await fixture.whenStable();
    expect(input().value).toBe('plate t 0.81 mm  1 kg');
  });
});
