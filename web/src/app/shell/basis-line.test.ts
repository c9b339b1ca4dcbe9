import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { STUDY } from '../../../testing/record';
import { words } from '../../../testing/words';
import type { SyncState } from '../record/outbox';
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
      /Count loose parts \+ fasteners Cost EUR 2026, 60000 vehicles a year for 7 years, Central Europe Units kg · mm/,
    );
    expect(await text(undefined, { ...STUDY, fastenersIn: false, assembliesAs: 'one' })).toMatch(/assemblies as one no fasteners/);
  });
  it('says in words what became of the last changes', async () => {
    expect(await text({ kind: 'sending', waiting: 3 })).toContain('Sending 3 changes');
    expect(await text({ kind: 'offline', waiting: 0 })).toContain('No connection: what you record waits here');
    expect(await text({ kind: 'offline', waiting: 2 })).toContain('No connection: 2 changes waiting here');
    expect(await text({ kind: 'signed-out', waiting: 1 })).toContain('Signed out: 1 change waiting here');
    expect(await text({ kind: 'kept', at: new Date(2026, 4, 1, 14, 32, 7) })).toContain('All kept 14:32:07');
  });
  it('names what was not kept, and lets it be looked at', async () => {
    let asked = 0;
    fixture.componentInstance.showNotKept.subscribe(() => (asked += 1));
    fixture.componentRef.setInput('notKept', 2);
    expect(await text()).toContain('2 not kept');
    (fixture.nativeElement as HTMLElement).querySelector<HTMLButtonElement>('.alarm')?.click();
    expect(asked).toBe(1);
  });
  it('switches the counting rule only for those who may', async () => {
    fixture.componentRef.setInput('mayCount', false);
    await text();
    const [assemblies] = (fixture.nativeElement as HTMLElement).querySelectorAll('button');
    expect(assemblies?.disabled).toBe(true);
  });
});
