import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { InstrumentNow, InstrumentReading } from '@each-bolt/core/bench';
import type { Op } from '@each-bolt/core/record';
import { partNamed, recordOf, teardown } from '../../../testing/record';
import { words } from '../../../testing/words';
import { Session } from '../record/session';
import { OpenStudy } from '../record/open-study';
import { Selection } from '../record/selection';
import { BenchWork } from './bench-work';
import { CountByWeighing } from './count-by-weighing';
import { InstrumentService } from './instrument-service';

const record = recordOf(teardown('plate\n  12 M6x16 T30 8.8 -z'));
const plate = partNamed(record, 'plate');

describe('a count by weighing', () => {
  const instruments = signal<readonly InstrumentNow[]>([]);
  let fixture: ComponentFixture<CountByWeighing>;
  let sent: (readonly Op[])[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const scale = (massKg: number, more: Partial<InstrumentReading> = {}, state: InstrumentNow['state'] = 'ready'): void => {
    const last = { seq: 1, at: new Date().toISOString(), quantity: 'mass', value: massKg, u: 0.0001, tare: 0, stable: true, overload: false, elements: null, raw: `${massKg} kg`, ...more }; // prettier-ignore
    instruments.set([
      { id: 's', name: 'Bench scale', kind: 'scale', serial: 'BP6-0142', state, fault: '', most: 6, last } as unknown as InstrumentNow,
    ]);
  };
  const press = async (text: string | RegExp): Promise<void> => {
    [...element().querySelectorAll('button')]
      .find((b) => (typeof text === 'string' ? b.textContent.trim() === text : text.test(b.textContent)))!
      .click();
    await fixture.whenStable();
  };
  const few = (count: number): void => {
    element().querySelector('input')!.value = String(count);
  };

  /** types a percentage into the field of that name */
  const percent = async (label: string, text: string): Promise<void> => {
    const input = element().querySelector<HTMLInputElement>(`input[aria-label="${label}, percent"]`)!;
    input.value = text;
    input.dispatchEvent(new Event('change'));
    await fixture.whenStable();
  };

  beforeEach(async () => {
    sent = [];
    instruments.set([]);
    TestBed.configureTestingModule({
      providers: [
        { provide: InstrumentService, useValue: { all: instruments, now: () => new Date().toISOString() } },
        { provide: BenchWork, useValue: { send: (ops: readonly Op[]) => (sent.push(ops), Promise.resolve(null)) } },
        { provide: OpenStudy, useValue: { fastenersOf: signal(new Map([[plate.id, record.fastenerSets]])) } },
        { provide: Selection, useValue: { part: signal(plate) } },
        { provide: Session, useValue: { person: { id: 'w', name: 'Wenna Tarn' } } },
      ],
    });
    fixture = TestBed.createComponent(CountByWeighing);
    await fixture.whenStable();
  });

  it('of a few first and then the lot is certain when it can be, and goes into the set with how it was counted', async () => {
    few(10);
    scale(0.06);
    await press('These lie on the scale');
    expect(words(element())).toContain('10 weigh 60.0 g');
    // by hand: 6 g each; 84 g are fourteen
    scale(0.084);
    await press('Now the whole lot');
    // parts that may scatter, and a lot that may be another than the sample: not certain, until it is known that they do not
    expect(words(element().querySelector('.result')!)).toMatch(/^About 14 parts, not certain: 13 to 15 are possible/);
    await percent('Parts scatter by', '0.5');
    await percent('Lot and sample differ by at most', '0.5');
    expect(words(element().querySelector('.result')!)).toMatch(/^14 parts: certain to \d/);
    await press(/^Into .* of plate$/);
    expect(sent).toHaveLength(1);
    expect(sent[0]).toMatchObject([
      { kind: 'reading.add', fields: { aboutKind: 'fasteners', aboutField: 'count', serial: 'BP6-0142', takenBy: 'Wenna Tarn' } },
      { kind: 'fasteners.edit', was: { count: 12 }, fields: { count: 14, evidence: { count: { mark: 'C', low: null, high: null } } } },
    ]);
    expect(words(element())).toContain('14 counted by weighing, kept in the set');
  });
  it('that is not certain says so with what is possible, and its range goes along', async () => {
    few(10);
    scale(0.06, { u: 0.0006 });
    await press('These lie on the scale');
    scale(3, { u: 0.004 });
    await press('Now the whole lot');
    expect(words(element().querySelector('.result')!)).toMatch(/^About 500 parts, not certain: 4\d\d to 5\d\d are possible/);
    await press(/^Into .* of plate$/);
    const evidence = (sent[0]![1] as unknown as { fields: { evidence: { count: { low: number; high: number } } } }).fields.evidence.count;
    expect([evidence.low < 500, evidence.high > 500]).toEqual([true, true]);
  });
  it.each([
    ['moves', { stable: false }, 'has not settled'],
    ['is overloaded', { overload: true }, 'is overloaded'],
    ['is empty', { value: 0 }, 'nothing on it'],
    ['fell silent', { at: '2026-01-01T00:00:00.000Z' }, 'has said nothing for'],
  ])('on a scale that %s is not taken, and it is said why', async (_, more, why) => {
    few(10);
    scale(0.06, more);
    await press('These lie on the scale');
    expect(element().querySelector('[role=alert]')?.textContent).toContain(why);
    expect(words(element())).not.toContain('weigh 60');
  });
  it('without a scale says so, and with no number of counted ones asks for it', async () => {
    await press('These lie on the scale');
    expect(element().querySelector('[role=alert]')?.textContent).toContain('No scale is set up');
    scale(0.06);
    few(0.5);
    await press('These lie on the scale');
    expect(element().querySelector('[role=alert]')?.textContent).toContain('a whole number from 1');
  });
});
