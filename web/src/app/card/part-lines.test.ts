import { TestBed } from '@angular/core/testing';
import { partState } from '@each-bolt/core/bench';
import { partCost } from '@each-bolt/core/cost';
import { STUDY, partNamed, recordOf, teardown } from '../../../testing/record';
import { words } from '../../../testing/words';
import { CostTerms } from './cost-terms';
import { partLines } from './part-lines';

const plate = partNamed(recordOf(teardown('2x carrier plate dc04 stamp t0.8 620x410x35 1.84 kg')), 'carrier plate');
const shownLines = (part: typeof plate) =>
  partLines(part, [], partState(part, new Set())).map(({ label, value, mark }) => [label, value, mark]);

describe('a part on its card', () => {
  it('reads in words and units, with the mark of how each value is known', () => {
    expect(shownLines(plate)).toEqual([
      ['Quantity', '2', 'C'],
      ['Material', 'DC04', 'S'],
      ['Made by', 'stamping', 'S'],
      ['Mass each', '1.8400 ± 0.0058 kg  (typed 1.84 kg)', 'M'],
      ['Thickness', '0.800 ± 0.058 mm', 'M'],
      ['Envelope', '620 × 410 × 35\u00a0mm, 8.90\u00a0L', 'M'],
    ]);
  });
  it('says that nothing is weighed, why it was left closed, and what a price stands on', () => {
    const closed = {
      ...plate,
      massEachKg: null,
      opened: 'closed' as const,
      closedReason: 'sealed',
      boughtPrice: '4.20',
      boughtCurrency: 'EUR',
      boughtPriceYear: 2026,
      boughtVolumePerYear: 60_000,
      boughtRegion: 'Central Europe',
    };
    expect(shownLines(closed)).toEqual(
      expect.arrayContaining([
        ['Mass each', '–', null],
        ['State', 'left closed: sealed', null],
        ['Price', 'EUR 4.20 (2026, 60\u202f000 a year, Central Europe)', 'T'],
      ]),
    );
  });
  it('questions a mass that the envelope cannot hold', () => {
    expect(partLines({ ...plate, lengthM: 0.062, widthM: 0.041, heightM: 0.0035 }).find((l) => l.label === 'Check')?.value).toMatch(
      /Centimetres for millimetres/,
    );
  });
});

describe('the cost on the card', () => {
  const text = async (part: typeof plate, isAssembly: boolean): Promise<string> => {
    const fixture = TestBed.createComponent(CostTerms);
    fixture.componentRef.setInput('cost', partCost(part, 1, STUDY));
    fixture.componentRef.setInput('currency', 'EUR');
    fixture.componentRef.setInput('isAssembly', isAssembly);
    await fixture.whenStable();
    return words(fixture.nativeElement as HTMLElement);
  };
  it('is worked out term by term, each with its source', async () => {
    expect(await text(plate, false)).toContain('Material EUR 2.69 1.84 kg × 0.95 EUR/kg ÷ (1 − 0.35 scrap) DC04: price 2026, assumed');
  });
  it('says what is missing, and that an opened assembly costs what is inside it', async () => {
    expect(await text({ ...plate, materialId: null }, false)).toContain('No material yet');
    expect(await text(plate, true)).toContain('An opened assembly costs what its parts and fasteners cost');
  });
});
