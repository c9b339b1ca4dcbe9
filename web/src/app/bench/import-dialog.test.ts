import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { TableReader, type UnknownValue } from '@each-bolt/core/bench';
import type { Op } from '@each-bolt/core/record';
import { providePrimeNG } from 'primeng/config';
import { DOOR, LEFT, recordOf } from '../../../testing/record';
import { ImportDialog } from './import-dialog';
import { ImportMemory } from './import-memory';
import { ImportReader } from './import-reader';

/** The reader without its worker. */
const readerHere = (): Partial<ImportReader> => {
  const reader = new TableReader();
  return {
    share: signal(null),
    open: (bytes, encoding) => reader.open(bytes, encoding),
    head: (sheet, row) => Promise.resolve(reader.head(sheet, row)),
    read: (sheet, options) => Promise.resolve(reader.read(sheet, options)),
    stop: () => undefined,
  };
};

describe('importing a file', () => {
  let fixture: ComponentFixture<ImportDialog>;
  let loaded: { readonly ops: readonly Op[]; readonly rows: number }[];
  const page = (): string => document.body.textContent.replace(/\s+/g, ' ');
  const choose = async (text: string): Promise<void> => {
    const input = document.querySelector<HTMLInputElement>('input[type=file]')!;
    Object.defineProperty(input, 'files', {
      value: [{ name: 'door.csv', arrayBuffer: () => Promise.resolve(new TextEncoder().encode(text).buffer) }],
      configurable: true,
    });
    Object.defineProperty(input, 'value', { value: '', writable: true, configurable: true });
    input.dispatchEvent(new Event('change'));
    await settled();
  };
  /** the file is read in steps, each awaited by the page */
  const settled = async (): Promise<void> => {
    for (let i = 0; i < 12; i += 1) await fixture.whenStable();
  };
  /** what the lists of the dialog call when a choice is made in them */
  const inner = () =>
    fixture.componentInstance as unknown as {
      readonly mean: (said: { readonly word: UnknownValue; readonly meaning: string }) => void;
      readonly chooseColumn: (said: { readonly at: number; readonly key: string }) => void;
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
    localStorage.clear();
    TestBed.configureTestingModule({ providers: [providePrimeNG(), { provide: ImportReader, useFactory: readerHere }] });
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
      '1 row can be loaded; 1 has faults. 1 more is inside one of those and stay out with it. Nothing is loaded until you decide.',
    );
    expect(page()).toContain('mass: 36 of what: g or kg?');
    expect(loaded).toEqual([]);
    await press(/Load 1 row, leave out 2/);
    expect(loaded).toMatchObject([{ rows: 1, ops: [{ kind: 'part.add', fields: { name: 'arm', vehicleId: LEFT.id } }] }]);
  });
  it('says what is wrong with a file that cannot be read at all', async () => {
    await choose('mass\n1 kg');
    expect(page()).toContain('No column is the name of the part. Say above which one holds it');
    expect(page()).not.toContain('can be loaded');
  });
  it('a cell is put right where it stands, and a word is translated once for all its rows', async () => {
    await choose('Teil,Verfahren,Gewicht\nBlech,Stanzen,36\nHebel,Stanzen,1 kg');
    expect(page()).toContain('“Stanzen” made by, 2 rows');
    const cell = document.querySelector<HTMLInputElement>('input[aria-label="mass in line 2"]')!;
    cell.value = '36 g';
    cell.dispatchEvent(new Event('change'));
    await settled();
    expect(page()).not.toContain('of what: g or kg?');
    inner().mean({ word: { heading: 'made_by', value: 'Stanzen', rows: 2 }, meaning: 'stamp' });
    await settled();
    expect(page()).toContain('All 2 rows can be loaded.');
    // a word that was said wrongly is said anew
    expect(page()).toContain('1 word taken for what you said');
    inner().mean({ word: { heading: 'made_by', value: 'Stanzen', rows: 2 }, meaning: '' });
    await settled();
    expect(page()).toContain('0 rows can be loaded; 2 have faults.');
    inner().mean({ word: { heading: 'made_by', value: 'STANZEN', rows: 2 }, meaning: 'stamp' });
    await settled();
    await press(/Load 2 rows/);
    expect(loaded[0]?.ops).toMatchObject([
      { fields: { name: 'Blech', massEachKg: 0.036, processId: 'stamping' } },
      { fields: { name: 'Hebel', massEachKg: 1, processId: 'stamping' } },
    ]);
    // what was said is remembered for the next file of that shape
    expect(TestBed.inject(ImportMemory).columnsOf(['TEIL', 'Verfahren ', 'gewicht'])).toHaveLength(3);
    expect(TestBed.inject(ImportMemory).values()).toEqual({ made_by: { stanzen: 'stamp' } });
  });
  it('a heading that is not known is said to be a column of ours', async () => {
    await choose('Was,kg\nBlech,1.2 kg');
    expect(page()).toContain('No column is the name of the part');
    inner().chooseColumn({ at: 0, key: 'name' });
    inner().chooseColumn({ at: 1, key: 'mass' });
    await settled();
    expect(page()).toContain('The one row can be loaded.');
    expect(page()).toContain('2 of 2 are read');
  });
});
