import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Op } from '@each-bolt/core/record';
import { partNamed, recordOf, teardown } from '../../../testing/record';
import { SetList } from './set-list';

describe('fasteners and joints in the card', () => {
  const record = recordOf(teardown('plate\n  12 M6x16 T30 8.8 -z\n  34 spot'));
  let fixture: ComponentFixture<SetList>;
  let sent: (readonly Op[])[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const press = async (text: string): Promise<void> => {
    [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === text || b.getAttribute('aria-label') === text)?.click();
    await fixture.whenStable();
  };
  const type = async (line: string): Promise<void> => {
    element().querySelector('input')!.value = line;
    element()
      .querySelector('form')!
      .dispatchEvent(new Event('submit', { cancelable: true }));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    fixture = TestBed.createComponent(SetList);
    fixture.componentRef.setInput('part', partNamed(record, 'plate'));
    fixture.componentRef.setInput('sets', [
      ...record.fastenerSets.map((row) => ({ kind: 'fasteners', row })),
      ...record.jointSets.map((row) => ({ kind: 'joints', row })),
    ]);
    sent = [];
    fixture.componentInstance.ops.subscribe((ops) => sent.push(ops));
    await fixture.whenStable();
  });

  it('stand as the lines they were typed in, with what their mass rests on', () => {
    expect([...element().querySelectorAll('.line')].map((l) => l.textContent.trim())).toEqual(['12 M6x16 T30 8.8 -z', '34 spot']);
    expect(element().textContent).toContain('6.0 g each, from standard sizes');
  });
  it('are edited as a line', async () => {
    await press('12 M6x16 T30 8.8 -z');
    await type('10 M6x20 T30 8.8 -z');
    expect(sent[0]).toMatchObject([{ kind: 'fasteners.edit', was: { count: 12, lengthM: 0.016 }, fields: { count: 10, lengthM: 0.02 } }]);
  });
  it('are added as a line, and a line that is not one is refused with a word', async () => {
    await press('+ set');
    await type('lever 100 g');
    expect(element().querySelector('[role=alert]')?.textContent).toMatch(/Type what holds or feeds it/);
    await type('bead 1.4 m');
    expect(sent).toMatchObject([[{ kind: 'joints.add', fields: { kind: 'adhesive bead', lengthEachM: 1.4, sequence: 3 } }]]);
  });
  it('are removed as they were seen', async () => {
    await press('Remove 34 spot');
    expect(sent[0]).toMatchObject([{ kind: 'joints.remove', id: record.jointSets[0]?.id, was: { count: 34 } }]);
  });
});
