import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { evidence, type Op, type Part } from '@each-bolt/core/record';
import { providePrimeNG } from 'primeng/config';
import { STUDY, partNamed, recordOf, teardown } from '../../../testing/record';
import { PartEditor } from './part-editor';

describe('editing a part in the card', () => {
  let fixture: ComponentFixture<PartEditor>;
  let saved: (readonly Op[])[];
  let cancelled: number;
  const plate: Part = partNamed(recordOf(teardown('carrier plate dc04 stamp t0.8 1.84 kg')), 'carrier plate');
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const fill = (label: string, text: string): void => {
    const id = [...element().querySelectorAll('label')].find((l) => l.textContent === label)?.htmlFor ?? '';
    const input = element().querySelector<HTMLInputElement>(`#${id}`)!;
    input.value = text;
    input.dispatchEvent(new Event('input'));
  };
  const save = async (): Promise<void> => {
    [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === 'Save')?.click();
    await fixture.whenStable();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [providePrimeNG()] });
    fixture = TestBed.createComponent(PartEditor);
    fixture.componentRef.setInput('part', plate);
    fixture.componentRef.setInput('study', STUDY);
    saved = [];
    cancelled = 0;
    fixture.componentInstance.saved.subscribe((ops) => saved.push(ops));
    fixture.componentInstance.cancelled.subscribe(() => (cancelled += 1));
    await fixture.whenStable();
  });

  it('has a field for everything a part can hold', () => {
    expect(element().querySelectorAll('label')).toHaveLength(29);
  });
  it('sends only what was changed, with what was there when it was opened', async () => {
    fill('Tag', 'DR2-7');
    fill('Mass each, with unit', '1.9 kg');
    await save();
    expect(saved).toEqual([
      [
        {
          kind: 'part.edit',
          id: plate.id,
          was: { massEachKg: 1.84, tag: '', evidence: { massEachKg: plate.evidence.massEachKg } },
          fields: {
            tag: 'DR2-7',
            massEachKg: 1.9,
            evidence: { massEachKg: evidence('M', { u: expect.closeTo(0.1 / Math.sqrt(12), 9) as number, typed: '1.9 kg' }) },
          },
        },
      ],
    ]);
  });
  it('says at the field what is wrong, sends nothing and keeps what was typed', async () => {
    fill('Mass each, with unit', '8');
    fill('Name', '');
    await save();
    expect(saved).toEqual([]);
    expect([...element().querySelectorAll('.fault')].map((f) => f.textContent)).toEqual(['Name must not be empty', '8 of what: g or kg?']);
    expect(element().querySelector<HTMLInputElement>('#edit-mass')?.value).toBe('8');
  });
  it('does not overwrite what is being typed when the record moves on, and says what it stood on', async () => {
    fill('Tag', 'mine');
    fixture.componentRef.setInput('part', { ...plate, version: 9, function: 'carries the lock' });
    await fixture.whenStable();
    expect(element().querySelector<HTMLInputElement>('#edit-tag')?.value).toBe('mine');
    await save();
    expect(saved[0]).toMatchObject([{ was: { tag: '' }, fields: { tag: 'mine' } }]);
  });
  it('closes without a change when nothing was changed', async () => {
    await save();
    expect([saved.length, cancelled]).toEqual([0, 1]);
  });
});
