import type { Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { UNSEEN_BY_X_RAYS, WEAK_BY_X_RAYS, matchGrades, matchHoles, type Grade, type Place } from '@each-bolt/core/measure';
import { FULL_ROWS, ROW_ID } from '../../../../core/testing/rows';
import { words } from '../../../testing/words';
import { AlloyTable } from './alloy-table';
import { CueList } from './cue-list';
import { DensityPanel } from './density-panel';
import { HoleDrawing } from './hole-drawing';

const made = async <T>(part: Type<T>, inputs: Readonly<Record<string, unknown>>): Promise<ComponentFixture<T>> => {
  const fixture = TestBed.createComponent(part);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return fixture;
};
const element = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;
const rows = (fixture: ComponentFixture<unknown>): readonly string[] => [...element(fixture).querySelectorAll('tbody tr')].map(words);

describe('an alloy reading as it is shown', () => {
  const reading = {
    Zn: { fraction: 0.9586, u: 0.002 },
    Al: { fraction: 0.0405, u: 0.0012 },
    Cu: { fraction: 0.0004, u: 0.0001 },
    Mg: { fraction: 0.0005, u: 0.0001 },
  };
  const shown = (): Promise<ComponentFixture<AlloyTable>> =>
    made(AlloyTable, { reading, match: matchGrades(reading, UNSEEN_BY_X_RAYS), weak: WEAK_BY_X_RAYS });

  it('has the element there is most of first, each with its uncertainty, and marks what is read weakly', async () => {
    const fixture = await shown();
    expect(words(element(fixture).querySelector('.elements')!)).toBe(
      'Zn 95.86 ± 0.40 % Al 4.05 ± 0.24 % Mg 0.05 ± 0.02 % Cu 0.04 ± 0.02 %',
    );
    expect([...element(fixture).querySelectorAll('.weak b')].map((b) => b.textContent)).toEqual(['Al', 'Mg']);
  });
  it('has the grade that fits first, and of the other what lies outside and what is allowed', async () => {
    const [first, second] = rows(await shown());
    expect(first).toMatch(/^Zamak 3 .* 100\.0 % within its limits Take$/);
    expect(second).toMatch(/^Zamak 5 .* < 0\.1 % Cu 0\.04 %, allowed 0\.7 % to 1\.2 % Take$/);
  });
  it('gives the grade that is taken', async () => {
    const fixture = await shown();
    const taken: Grade[] = [];
    fixture.componentInstance.taken.subscribe((grade) => taken.push(grade));
    element(fixture).querySelector<HTMLButtonElement>('[aria-label="Take Zamak 3"]')?.click();
    expect(taken.map((g) => g.name)).toEqual(['Zamak 3']);
  });
  it('of a metal whose alloys are not in the catalogue says so', async () => {
    const titanium = { Ti: { fraction: 0.9, u: 0.01 }, Al: { fraction: 0.06, u: 0.01 } };
    const fixture = await made(AlloyTable, { reading: titanium, match: matchGrades(titanium, []) });
    expect(words(element(fixture))).toContain('No alloys of Ti are in the catalogue.');
    expect(rows(fixture)).toEqual([]);
  });
});

describe('weighed against scanned', () => {
  const part = { id: ROW_ID.part, version: 1, ...FULL_ROWS.part };
  const said = async (more: object, volumeM3: number): Promise<string> =>
    words(element(await made(DensityPanel, { part: { ...part, ...more }, volumeM3, uM3: volumeM3 * 0.005 })));

  it('tells the density with its uncertainty and that it agrees with the material', async () => {
    // 164 g in 20.87 cm³ is 7 858 kg/m³, and half a percent of the volume is 39 of that
    const text = await said({}, 2.087e-5);
    expect(text).toMatch(/Density 7.858 ± 83 kg\/m³/);
    expect(text).toMatch(/Recorded is S420MC, 7.850 kg\/m³\./);
    expect(text).toContain('The two agree within their uncertainty.');
  });
  it('names what contradicts: the same mass in sixteen thousand times the volume is a scan in inches', async () => {
    expect(await said({}, 2.087e-5 * 25.4 ** -3)).toContain('the scan was taken as millimetres and is in inches');
  });
  it('without a material places it among those it may be, and without a mass says what is lacking', async () => {
    expect(await said({ materialId: null }, 2.087e-5)).toContain('No material is recorded.');
    expect(await said({ massEachKg: null, evidence: {} }, 2.087e-5)).toContain('The part is not weighed yet');
  });
});

describe('cues', () => {
  it('are ticked and unticked one by one, the others staying', async () => {
    const fixture = await made(CueList, { seen: ['parting-line', 'draft'] });
    const changes: (readonly string[])[] = [];
    fixture.componentInstance.changed.subscribe((seen) => changes.push(seen));
    const box = (word: string): HTMLInputElement =>
      [...element(fixture).querySelectorAll('label')].find((l) => l.textContent.trim() === word)!.querySelector('input')!;
    expect([box('Parting line').checked, box('Flow lines').checked]).toEqual([true, false]);
    box('Flow lines').click();
    box('Parting line').click();
    expect(changes).toEqual([['parting-line', 'draft', 'flow-lines'], ['draft']]);
  });
  it('each stand in one group, with a hint', async () => {
    const fixture = await made(CueList, { seen: [] });
    const labels = [...element(fixture).querySelectorAll('label')].map((l) => l.textContent.trim());
    expect(labels.length).toBeGreaterThan(20);
    expect(new Set(labels).size).toBe(labels.length);
  });
});

describe('a hole pattern as it is drawn', () => {
  const points: readonly Place[] = [[0, 0, 0], [0.094, 0, 0], [0.094, 0.022, 0], [0.047, 0.024, 0]]; // prettier-ignore
  const circles = (fixture: ComponentFixture<unknown>): readonly (readonly number[])[] =>
    [...element(fixture).querySelectorAll('circle')].map((c) => [Number(c.getAttribute('cx')), Number(c.getAttribute('cy'))]);

  it('has its points in their numbers, to one scale both ways, upwards as typed', async () => {
    const fixture = await made(HoleDrawing, { name: 'foot', points });
    const [a, b, c] = circles(fixture) as [number[], number[], number[]];
    expect([...element(fixture).querySelectorAll('text')].map((t) => t.textContent)).toEqual(['1', '2', '3', '4']);
    expect((b[0]! - a[0]!) / 94).toBeCloseTo((b[1]! - c[1]!) / 22, 9);
    expect(c[1]!).toBeLessThan(b[1]!);
    expect(element(fixture).querySelector('svg')?.getAttribute('aria-label')).toBe('Drawing of foot');
  });
  it('registered to another marks the point that is off and draws how far, longer by the factor it says', async () => {
    const onto = points.map((p, i): Place => (i === 3 ? [p[0] + 0.002, p[1], 0] : p));
    const fit = matchHoles(points, onto, 0.0005, false);
    const fixture = await made(HoleDrawing, { name: 'foot', points, onto, fit });
    expect([...element(fixture).querySelectorAll('circle')].map((c) => c.classList.contains('off'))).toEqual([false, false, false, true]);
    expect(element(fixture).querySelectorAll('.under')).toHaveLength(4);
    const pxPerMm = (circles(fixture)[1]![0]! - circles(fixture)[0]![0]!) / 94;
    const factor = Number(/drawn (\d+) times longer/.exec(words(element(fixture)))?.[1]);
    const [, dx] = /l(-?[\d.]+) /.exec(element(fixture).querySelectorAll('.misfit')[3]!.getAttribute('d')!) ?? [];
    // two millimetres to the left of where the other has it
    expect(Number(dx) / pxPerMm / factor).toBeCloseTo(-2, 1);
  });
  it('of two points at one place is drawn all the same', async () => {
    const fixture = await made(HoleDrawing, { name: 'one', points: [[0, 0, 0], [0, 0, 0]] }); // prettier-ignore
    for (const [x, y] of circles(fixture)) expect([Number.isFinite(x), Number.isFinite(y)]).toEqual([true, true]);
  });
});
