import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { words } from '../../../testing/words';
import { BatchPanel } from './batch-panel';

describe('lines that were pasted together', () => {
  let fixture: ComponentFixture<BatchPanel>;
  let kept: { readonly lines: readonly string[] }[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const button = (name: string): HTMLButtonElement =>
    [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === name || b.getAttribute('aria-label') === name)!;

  beforeEach(async () => {
    fixture = TestBed.createComponent(BatchPanel);
    fixture.componentRef.setInput('lines', ['2x stop 12 g', '4 M5x12 T25', 'cover aluminium 0.4 kg']);
    kept = [];
    fixture.componentInstance.kept.subscribe((batch) => kept.push(batch));
    await fixture.whenStable();
  });

  it('are shown as they are understood, and wait for what must be settled', () => {
    expect(words(element().querySelector('h2')!)).toBe('3 lines pasted, 1 to be settled');
    expect([...element().querySelectorAll('small')].map((s) => s.textContent)).toEqual([
      '2x stop 12 g',
      '4 M5x12 T25',
      '“aluminium” is not a grade; which one?',
    ]);
    expect(button('Keep all as one change').disabled).toBe(true);
  });
  it('are kept together once all of them are settled', async () => {
    const third = element().querySelectorAll('input')[2]!;
    third.value = 'cover 6082 0.4 kg';
    third.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    expect(words(element().querySelector('h2')!)).toBe('3 lines pasted: 2 parts, 1 set');
    button('Keep all as one change').click();
    expect(kept).toMatchObject([{ lines: ['2x stop 12 g', '4 M5x12 T25', 'cover 6082 0.4 kg'] }]);
  });
  it('can be left out one by one', async () => {
    button('Leave line 3 out').click();
    await fixture.whenStable();
    expect(button('Keep all as one change').disabled).toBe(false);
  });
});
