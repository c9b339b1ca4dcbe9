import { TestBed } from '@angular/core/testing';
import { compareVehicles } from '@each-bolt/core/compare';
import { studyRollUp } from '@each-bolt/core/cost';
import { DOOR, LEFT, RIGHT, recordOf, teardown } from '../../../testing/record';
import { words } from '../../../testing/words';
import { CompareTable } from './compare-table';

describe('the comparison table', () => {
  const record = recordOf(teardown('plate dc04 stamp 2 kg\n  4 M6x16 5 g\narm'), teardown('plate dc04 stamp ~1 kg', RIGHT, 500));
  const comparison = compareVehicles(record, studyRollUp(record), LEFT.id, RIGHT.id, DOOR.id)!;
  const rows = async (inputs: object): Promise<readonly string[]> => {
    const fixture = TestBed.createComponent(CompareTable);
    const all = { left: { name: 'Left van', place: 0 }, right: { name: 'Right van', place: 1 }, currency: 'EUR', ...inputs };
    for (const [name, value] of Object.entries(all)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
    return [...(fixture.nativeElement as HTMLElement).querySelectorAll('tbody tr')].map(words);
  };

  it('states each unit once, the difference with its sign, and the weakest mark beside each figure', async () => {
    const [count, , , joints, mass] = await rows({ groups: [{ heading: '', rows: comparison.totals }] });
    expect(count).toBe('Count 6 C 1 C +5 6.00');
    expect(joints).toBe('Joints – – – –');
    // weighed to the kilogram: 0.5 kg without preference on both sides; 2.02 times, √((0.289/2.02)² + 0.289²) of it
    expect(mass).toBe('Mass, kg 2.020 M ± 0.58 1.000 I ± 0.58 +1.020 ± 0.82 2.02 ± 1.3');
  });
  it('has the ends of a count that is a range under it', async () => {
    const ranged = recordOf(teardown('8-12x plate dc04\n  3+ clip'), teardown('plate dc04', RIGHT, 500));
    const { totals } = compareVehicles(ranged, studyRollUp(ranged), LEFT.id, RIGHT.id, DOOR.id)!;
    const [count, fasteners] = await rows({ groups: [{ heading: '', rows: totals }] });
    expect(count).toBe('Count 32 C at least 32 1 C +31 32.0');
    expect(fasteners).toBe('Fasteners 24 C at least 24 – – –');
  });
  it('shows what a side does not use as 0 and what is there without a mass as absent', async () => {
    const by = (label: string) => ({ heading: label, rows: comparison.byMaterial.filter((row) => row.label === label) });
    expect(await rows({ groups: [by('not stated')] })).toEqual(['not stated', 'Count 1 C 0 +1 –', 'Mass, kg – 0 – –', 'Cost, EUR – 0 – –']);
  });
});
