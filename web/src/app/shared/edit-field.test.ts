import type { ComponentFixture } from '@angular/core/testing';
import { TestBed } from '@angular/core/testing';
import type { FieldShape, FieldValue } from '@each-bolt/core/shared';
import { EditField } from './edit-field';

const hours: FieldShape = { kind: 'number', per: 3600, unit: 'h', digits: 2 };

describe('a field that is edited in place', () => {
  let fixture: ComponentFixture<EditField>;
  let committed: FieldValue[];
  const make = (inputs: Readonly<Record<string, unknown>>): HTMLInputElement => {
    fixture = TestBed.createComponent(EditField);
    for (const [name, value] of Object.entries({ label: 'Time spent', ...inputs })) fixture.componentRef.setInput(name, value);
    committed = [];
    fixture.componentInstance.committed.subscribe((value) => committed.push(value));
    fixture.detectChanges();
    return (fixture.nativeElement as HTMLElement).querySelector('input, select, textarea')!;
  };
  const type = (field: HTMLInputElement, text: string): void => {
    field.value = text;
    field.dispatchEvent(new Event('change'));
    fixture.detectChanges();
  };
  const fault = (): string => (fixture.nativeElement as HTMLElement).querySelector('[role=alert]')?.textContent ?? '';

  it('shows SI in the unit people read, and gives back SI', () => {
    const field = make({ shape: hours, value: 9000 });
    expect(field.value).toBe('2.5');
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('h');
    type(field, '3,25');
    expect(committed).toEqual([11_700]);
  });
  it('keeps what cannot be read in the field and says what is wrong, until it is mended', () => {
    const field = make({ shape: hours, value: null });
    type(field, 'long');
    expect([field.value, committed]).toEqual(['long', []]);
    expect(fault()).toContain('“long” is not a number');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    type(field, '1');
    expect([fault(), committed]).toEqual(['', [3600]]);
  });
  it('says nothing when nothing was changed', () => {
    type(make({ shape: hours, value: 3600 }), '1');
    expect(committed).toEqual([]);
  });
  it('says once what Enter keeps: the browser’s own change follows the key', () => {
    const field = make({ value: '' });
    field.value = 'held back for the water test';
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Enter' }));
    field.dispatchEvent(new Event('change'));
    expect(committed).toEqual(['held back for the water test']);
  });
  it('goes back on Escape', () => {
    const field = make({ value: 'Barrow II' });
    field.value = 'Barr';
    field.dispatchEvent(new KeyboardEvent('keydown', { key: 'Escape' }));
    expect([field.value, committed]).toEqual(['Barrow II', []]);
  });
  it('offers choices, of which the empty one is none', async () => {
    const options = [
      { value: '', word: 'not said' },
      { value: 'bay', word: 'a bay' },
    ];
    make({ options, value: 'bay' });
    await fixture.whenStable();
    fixture.detectChanges();
    const field = (fixture.nativeElement as HTMLElement).querySelector<HTMLElement>('[role=combobox]')!;
    expect([field.getAttribute('aria-label'), field.textContent.trim()]).toEqual(['Time spent', 'a bay']);
    field.click();
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
    [...document.querySelectorAll<HTMLElement>('[role=option]')].find((option) => option.textContent.trim() === 'not said')!.click();
    await fixture.whenStable();
    expect(committed).toEqual([null]);
  });
  it('shows a fault that its record as a whole has', () => {
    make({ value: 1, shape: { kind: 'whole' }, fault: 'A mass needs its uncertainty' });
    expect(fault()).toBe('A mass needs its uncertainty');
  });
});
