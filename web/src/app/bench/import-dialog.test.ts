import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Op } from '@each-bolt/core/record';
import { providePrimeNG } from 'primeng/config';
import { DOOR, LEFT, recordOf } from '../../../testing/record';
import { ImportDialog } from './import-dialog';

describe('importing a file', () => {
  let fixture: ComponentFixture<ImportDialog>;
  let loaded: { readonly ops: readonly Op[]; readonly rows: number }[];
  const page = (): string => document.body.textContent.replace(/\s+/g, ' ');
  const choose = async (text: string): Promise<void> => {
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
    Object.defineProperty(input, 'files', { value: [{ name: 'door.csv', text: () => Promise.resolve(text) }], configurable: true });
    Object.defineProperty(input, 'value', { value: '', writable: true, configurable: true });
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
    await fixture.whenStable();
  };
  const press = async (text: RegExp): Promise<void> => {
    [...document.querySelectorAll('button')].find((b) => text.test(b.textContent))?.click();
    await fixture.whenStable();
  };

  beforeEach(async () => {
    let n = 0;
    Object.defineProperty(globalThis.crypto, 'randomUUID', {
      value: () => `00000000-0000-4000-8000-${String(++n).padStart(12, '0')}`,
      configurable: true,
    });
    TestBed.configureTestingModule({ providers: [providePrimeNG()] });
    fixture = TestBed.createComponent(ImportDialog);
    fixture.componentRef.setInput('record', recordOf());
    fixture.componentRef.setInput('vehicle', LEFT);
    fixture.componentRef.setInput('subsystem', DOOR);
    fixture.componentRef.setInput('visible', true);
    loaded = [];
    fixture.componentInstance.loadRows.subscribe((load) => loaded.push(load));
    await fixture.whenStable();
  });
  afterEach(() => {
    fixture.destroy();
    document.body.innerHTML = '';
  });

  it('says where the rows go', () => expect(page()).toContain('Rows go to Left van, under Sliding cargo door'));
  it('loads nothing by itself, and on demand only the rows without fault', async () => {
    await choose('no,inside_of,name,mass\n1,,module,36\n1.1,1,plate,1 kg\n2,,arm,1 kg');
    expect(page()).toContain(
      '1 rows can be loaded; 1 have faults. 1 more are inside one of those and stay out with it. Nothing is loaded until you decide.',
    );
    expect(page()).toContain('mass: 36 of what: g or kg?');
    expect(loaded).toEqual([]);
    await press(/Load 1 rows, leave out 2/);
    expect(loaded).toMatchObject([{ rows: 1, ops: [{ kind: 'part.add', fields: { name: 'arm', vehicleId: LEFT.id } }] }]);
  });
  it('says what is wrong with a file that cannot be read at all', async () => {
    await choose('mass\n1 kg');
    expect(page()).toContain('at least the column “name”');
    expect(page()).not.toContain('can be loaded');
  });
});
