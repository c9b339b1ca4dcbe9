import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { STUDY } from '../../../testing/record';
import { words } from '../../../testing/words';
import type { SyncState } from '../record/record-service';
import { BasisLine } from './basis-line';

describe('the basis line', () => {
  let fixture: ComponentFixture<BasisLine>;
  const text = async (sync: SyncState = { kind: 'kept', at: null }, study = STUDY): Promise<string> => {
    fixture.componentRef.setInput('study', study);
    fixture.componentRef.setInput('sync', sync);
    fixture.componentRef.setInput('themeNow', 'day');
    await fixture.whenStable();
    return words(fixture.nativeElement as HTMLElement);
  };
  beforeEach(() => {
    fixture = TestBed.createComponent(BasisLine);
  });

  it('says what the figures stand on', async () => {
    expect(await text()).toMatch(
      /Count loose pieces \+ fasteners Cost EUR 2026, 60000 vehicles a year for 7 years, Central Europe Units kg · mm/,
    );
    expect(await text(undefined, { ...STUDY, fastenersIn: false, assembliesAs: 'one' })).toMatch(/assemblies as one no fasteners/);
  });
  it('says in words what became of the last changes', async () => {
    expect(await text({ kind: 'sending', waiting: 3 })).toContain('Sending 3 changes');
    expect(await text({ kind: 'refused', refusal: { code: 'invalid', message: '', issues: [] } })).toContain(
      'The last change was not kept',
    );
    expect(await text({ kind: 'kept', at: new Date(2026, 4, 1, 14, 32, 7) })).toContain('All kept 14:32:07');
  });
});
