import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { expect, type APIRequestContext, type Page } from '@playwright/test';
import { PerspectiveCamera, Vector3 } from 'three';
import { boxesMesh, plateMesh, stlOf } from '../server/src/demo/demo-meshes';
import { test } from './test';
import { allKept, change, makeStudy, record, type MadeStudy } from './study';
import { choose } from './controls';

interface Read {
  readonly parts: readonly {
    readonly id: string;
    readonly materialId: string | null;
    readonly materialDetail: string;
    readonly lengthM: number | null;
    readonly wallThicknessM: number | null;
    readonly evidence: Readonly<Record<string, { readonly mark: string; readonly u: number | null; readonly source: string }>>;
  }[];
  readonly scans: readonly { readonly unit: string; readonly unitBy: string; readonly figures: { readonly volumeM3: number } }[];
  readonly sections: readonly { readonly kind: string; readonly scanId: string | null }[];
  readonly holePatterns: readonly { readonly points: readonly (readonly [number, number, number])[]; readonly source: string }[];
  readonly readings: readonly { readonly aboutField: string | null; readonly raw: string; readonly instrument: string }[];
  readonly identifications: readonly { readonly cues: readonly string[]; readonly readingId: string | null }[];
}
const read = async (request: APIRequestContext, id: string): Promise<Read> =>
  (await (await request.get(`/api/studies/${id}`)).json()) as Read;

const view = (page: Page, name: string): ReturnType<Page['getByRole']> =>
  page.getByRole('navigation', { name: 'Views of measuring' }).getByRole('link', { name, exact: true });

/** A study with one part that is chosen, in the stage of measuring. */
const begin = async (page: Page, request: APIRequestContext, title: string, line: string): Promise<MadeStudy> => {
  const study = await makeStudy(request, title);
  await page.goto(`/studies/${study.id}/bench`);
  await record(page, line);
  await allKept(page);
  await page.keyboard.press('Escape');
  await page.keyboard.press('m');
  await expect(page.getByRole('heading', { name: /^Scans of / })).toBeVisible();
  return study;
};

/** A box as binary STL, in whatever unit its sides are given. */
const boxStl = (x: number, y: number, z: number): Buffer => stlOf(boxesMesh([[0, 0, 0, x, y, z]]));
const unitOf = (page: Page): ReturnType<Page['getByRole']> => page.getByRole('combobox', { name: 'Unit of the file' });
const openScan = (page: Page, name: string, buffer: Buffer): Promise<void> =>
  page.getByLabel('Scan file').setInputFiles({ name, mimeType: 'model/stl', buffer });

test('a real scan is measured, weighed against its material, cut, and its section held against another height', async ({
  page,
  request,
}) => {
  const study = await begin(page, request, 'Gear wheel', 'gear wheel dc04 70 g');
  // of the npm package stl-models 0.12.0: 8922.637 and 4508.734 in the unit of the file; minimum bounding box 13878 by another program
  await openScan(page, 'gearwheel.stl', await readFile('node_modules/stl-models/objects/gearwheel.bin.stl'));
  const figures = page.getByRole('table', { name: 'Figures of the scan' });
  // the surface may lie 0.05 mm too far out or in: u(V) is 45.1 cm² × 0.05 mm = 0.226 cm³
  await expect(figures.getByRole('row', { name: /^Volume/ })).toContainText('8.92 ± 0.45 cm³', { timeout: 30_000 });
  await expect(figures.getByRole('row', { name: /^Volume/ })).toContainText('watertight');
  await expect(figures.getByRole('row', { name: /^Surface/ })).toContainText('45.1 cm²');
  await expect(figures.getByRole('row', { name: /^Minimum bounding box/ })).toContainText('41.7 × 41.7 × 8.00 mm');
  // 70 g in 8.92 cm³ is steel, and the unit was taken by that
  await expect(unitOf(page)).toHaveText('millimetres');
  const weighed = page.getByRole('region', { name: 'Weighed against scanned' });
  await expect(weighed).toContainText('The two agree within their uncertainty');
  await page.getByRole('button', { name: 'Keep the scan with gear wheel' }).click();
  await expect(page.getByRole('table', { name: 'Scans' })).toContainText('gearwheel.stl');
  await choose(page.getByLabel('Square to the plane'), 'z');
  await expect(page.getByText(/\d+ closed lines?/)).toBeVisible();
  await page.getByRole('button', { name: 'Keep this section' }).click();
  await allKept(page);
  await view(page, 'Sections').click();
  const section = page.getByRole('table', { name: 'Figures of the section' });
  await expect(section.getByRole('row', { name: /^Bending stiffness E I/ })).toContainText(/\d/);
  // nothing of a section is worth its mass twice: 1.2 times as high is 1.2 times as heavy and 1.728 times as stiff
  await choose(page.getByLabel('Section to hold it against'), 'the same, varied');
  await expect(section.getByRole('row', { name: /^Mass per length/ })).toContainText('1.20 ×');
  await expect(section.getByRole('row', { name: /^Second moment, bending up and down/ })).toContainText('1.73 ×');
  const kept = await read(request, study.id);
  expect(kept.scans[0]).toMatchObject({ unit: 'mm' });
  expect(kept.scans[0]?.figures.volumeM3).toBeCloseTo(8922.637e-9, 12);
  expect(kept.sections[0]).toMatchObject({ kind: 'outline' });
});

test('a scan in inches is caught by what is recorded, and the envelope is taken over with its evidence', async ({ page, request }) => {
  const study = await begin(page, request, 'Inches', 'lever aw-6082 120x45x12 175 g');
  await openScan(page, 'lever.stl', boxStl(4.7244, 1.7717, 0.4724));
  await expect(unitOf(page)).toHaveText('inches', { timeout: 20_000 });
  await expect(page.getByRole('region', { name: 'Unit of the file' })).toContainText(
    'its longest side is then 120 mm, recorded are 120 mm',
  );
  await expect(page.getByRole('region', { name: 'Weighed against scanned' })).toContainText('The two agree');
  await choose(unitOf(page), 'millimetres');
  await expect(page.getByRole('region', { name: 'Unit of the file' })).toContainText('More likely inches');
  await expect(page.getByRole('list', { name: 'What contradicts' })).toContainText('the scan was taken as millimetres and is in inches');
  await choose(unitOf(page), 'inches');
  await page.getByRole('button', { name: 'Keep the scan with lever' }).click();
  await page.getByRole('button', { name: 'Take the minimum bounding box over as the envelope' }).click();
  await allKept(page);
  await expect.poll(async () => (await read(request, study.id)).parts[0]?.evidence.lengthM?.source).toContain('scan lever.stl');
});

test('a damaged file is refused with what is wrong, and nothing is kept', async ({ page, request }) => {
  const study = await begin(page, request, 'Damaged scan', 'lever 1 kg');
  await openScan(page, 'cut.stl', boxStl(1, 2, 3).subarray(0, 300));
  await expect(page.getByRole('alert')).toContainText('promises 12 triangles and holds 4: it was cut off');
  await openScan(page, 'words.stl', Buffer.from('solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 zero 0\n'));
  await expect(page.getByRole('alert')).toContainText('line 4: “zero” stands where y of corner 1 should stand');
  expect((await read(request, study.id)).scans).toEqual([]);
});

test('the scanner of the bench delivers, and two scans are registered and their deviation shown', async ({ page, request }) => {
  await begin(page, request, 'Two scans', 'lever aw-6082 175 g');
  await page.getByRole('button', { name: 'From Mesh scanner' }).click();
  await expect(page.getByRole('table', { name: 'Figures of the scan' })).toContainText('watertight', { timeout: 30_000 });
  await choose(unitOf(page), 'millimetres');
  await page.getByRole('button', { name: /^Keep the scan with/ }).click();
  await expect(page.getByRole('table', { name: 'Scans' }).getByRole('row')).toHaveCount(2);
  await openScan(page, 'second.stl', boxStl(120, 45, 12.3));
  await expect(unitOf(page)).toBeVisible({ timeout: 20_000 });
  await choose(unitOf(page), 'millimetres');
  await choose(page.getByLabel('Scan to register it to'), 1);
  await expect(page.getByText(/off by .* rms, .* at most/)).toBeVisible({ timeout: 30_000 });
});

test('an alloy reading names the grade and contradicts a wrong material', async ({ page, request }) => {
  const study = await begin(page, request, 'Alloy', 'housing dc04 hpdc 0.6 kg');
  const { parts } = await read(request, study.id);
  const elements = { Al: [0.8545, 0.003], Si: [0.095, 0.002], Cu: [0.03, 0.001], Fe: [0.008, 0.0005], Zn: [0.006, 0.0004], Mn: [0.003, 0.0003], Mg: [0.003, 0.0006] } as const; // prettier-ignore
  await change(request, study.id, [
    {
      kind: 'reading.add',
      id: randomUUID(),
      fields: {
        ...{
          aboutKind: 'part',
          aboutId: parts[0]?.id,
          aboutField: 'materialId',
          quantity: 'element fractions',
          value: null,
          u: null,
          tare: null,
        },
        elements: Object.fromEntries(Object.entries(elements).map(([symbol, [fraction, u]]) => [symbol, { fraction, u }])),
        ...{
          raw: 'READ 1,ALLOY',
          instrument: 'Alloy analyser',
          serial: 'XA-11',
          stable: true,
          takenAt: '2026-06-01T08:00:00.000Z',
          takenBy: 'Odo',
          note: '',
        },
      },
    },
  ]);
  await view(page, 'Material and process').click();
  const grades = page.getByRole('table', { name: 'Grades' });
  await expect(grades.getByRole('row').nth(1)).toContainText('EN AC-46000');
  await expect(grades.getByRole('row').nth(1)).toContainText('within its limits');
  await expect(page.getByRole('alert')).toContainText('The reading is of aluminium, and the material is DC04');
  await page.getByRole('button', { name: 'Take EN AC-46000' }).click();
  await expect(page.getByLabel('Material', { exact: true })).toHaveText('AlSi9Cu3(Fe)');
  await expect(page.getByRole('alert')).toHaveCount(0);
  // a wrought number is no casting
  await page.getByLabel('Marking or designation').fill('6082');
  await expect(page.getByRole('alert')).toContainText('6082 is the number of a wrought alloy, and the part is a casting');
  await page.getByLabel('Marking or designation').fill('EN AC-46000');
  await page.getByLabel('Ejector', { exact: false }).first().check();
  await page.getByLabel('Flow lines').check();
  await expect(page.getByRole('table', { name: 'Likely processes' }).getByRole('row').nth(1)).toContainText('high-pressure die casting');
  await page.getByRole('button', { name: 'Keep the decision with housing' }).click();
  await expect(page.getByRole('list', { name: 'Decisions before' })).toContainText('EN AC-46000');
  await allKept(page);
  const after = await read(request, study.id);
  expect(after.parts[0]).toMatchObject({ materialId: 'alsi9cu3', materialDetail: 'EN AC-46000', evidence: { materialId: { mark: 'M' } } });
  expect(after.identifications[0]).toMatchObject({ cues: ['ejector-marks', 'flow-lines'] });
});

test('two hole patterns: what would bolt on, and which point does not', async ({ page, request }) => {
  await begin(page, request, 'Holes', 'bracket 0.4 kg');
  await view(page, 'Holes').click();
  const add = async (name: string, points: string): Promise<void> => {
    await page.getByLabel('Name of the hole pattern').fill(name);
    await page.getByLabel('Points of the hole pattern, mm').fill(points);
    await page.getByRole('button', { name: 'Add the hole pattern' }).click();
  };
  await add('nonsense', '0 0\nleft 3');
  await expect(page.getByRole('alert')).toContainText('Line 2: “left 3” is no point');
  await add('ours', '0 0\n80 0\n80 50\n10 60');
  await expect(page.getByRole('button', { name: 'ours · 4' })).toBeVisible();
  // turned by a quarter and shifted, one hole 3 mm off
  await add('theirs', '100 100\n100 180\n50 180\n40 113');
  await expect(page.getByRole('button', { name: 'theirs · 4' })).toBeVisible();
  await page.getByRole('button', { name: 'ours · 4' }).click();
  await choose(page.getByLabel('Hole pattern it would go onto'), 1);
  await expect(page.getByRole('status').filter({ hasText: 'would not bolt on' })).toContainText(
    /point 4 lies 3\.\d\d mm off; the others fit to 0\.\d\d mm/,
  );
  await page.getByLabel('Clearance, mm').fill('3');
  await expect(page.getByRole('status').filter({ hasText: 'would bolt on: every point within 3 mm' })).toBeVisible();
});

test('holes clicked on a scan become a pattern, and whether it would bolt on is told from it', async ({ page, request }) => {
  const study = await begin(page, request, 'Holes of a scan', 'foot dc04 118x42x2 73 g');
  const sides = [118, 42, 2] as const;
  const holes = [[12, 10, 4.3], [106, 10, 4.3], [106, 32, 3.4], [59, 34, 4.3]] as const; // prettier-ignore
  await openScan(page, 'foot.stl', stlOf(plateMesh([0, 0, 0, ...sides], holes)));
  await page.getByRole('button', { name: 'Keep the scan with foot' }).click({ timeout: 20_000 });
  await page.getByRole('radio', { name: 'a hole, by three corners' }).check();
  const measured = page.getByRole('status', { name: 'Measured on the scan' });
  await expect(measured).toHaveText('click 3 more on the rim');
  // where a corner is on the screen, seen from where the view begins: from the front, a little above and from the right
  const picture = page.getByRole('application', { name: /foot\.stl/ });
  await picture.scrollIntoViewIfNeeded();
  const frame = (await picture.boundingBox())!;
  const camera = new PerspectiveCamera(35, frame.width / frame.height, 0.1, 10_000);
  const centre = new Vector3(...sides).multiplyScalar(0.5);
  camera.up.set(0, 0, 1);
  camera.position
    .copy(centre)
    .add(new Vector3(1.1, -1.6, 0.9).normalize().multiplyScalar((centre.length() * 3.6) / Math.min(1, camera.aspect)));
  camera.lookAt(centre);
  camera.updateMatrixWorld();
  const click = (x: number, y: number, z: number): Promise<void> => {
    const at = new Vector3(x, y, z).project(camera);
    return page.mouse.click(frame.x + ((at.x + 1) / 2) * frame.width, frame.y + ((1 - at.y) / 2) * frame.height);
  };
  const clickRim = async ([x, y, r]: readonly [number, number, number], turns: readonly number[]): Promise<void> => {
    for (const turn of turns) {
      // a little beside the corner, as a hand does
      const angle = 2 * Math.PI * turn;
      await click(x + (r + 0.4) * Math.cos(angle), y + (r + 0.4) * Math.sin(angle), sides[2]);
    }
  };
  await clickRim(holes[0], [0, 0.25, 0.5]);
  await expect(measured).toContainText('hole 1: 8.60 mm wide');
  // one that went wrong is forgotten
  await clickRim(holes[1], [0.25, 0.375, 0.5]);
  await page.getByRole('button', { name: 'Forget hole 2' }).click();
  for (const hole of holes.slice(1)) await clickRim(hole, [0, 0.25, 0.5]);
  await expect(measured).toContainText('hole 4: 8.60 mm wide');
  await page.getByRole('button', { name: 'Keep the 4 holes as a hole pattern' }).click();
  await allKept(page);
  const [pattern] = (await read(request, study.id)).holePatterns;
  expect(pattern?.source).toBe('scan');
  pattern?.points.forEach((point, i) => {
    const [x, y] = holes[i]!;
    expect(Math.hypot(point[0] - x / 1000, point[1] - y / 1000, point[2] - sides[2] / 1000)).toBeLessThan(1e-6);
  });
  await view(page, 'Holes').click();
  await expect(page.getByRole('button', { name: 'holes of foot.stl · 4' })).toBeVisible();
  // the drawing of the other part, turned by a quarter: its last hole is 1 mm off
  await page.getByLabel('Name of the hole pattern').fill('drawing');
  await page.getByLabel('Points of the hole pattern, mm').fill('0 0\n0 94\n-22 94\n-24 48');
  await page.getByRole('button', { name: 'Add the hole pattern' }).click();
  await page.getByRole('button', { name: 'holes of foot.stl · 4' }).click();
  await choose(page.getByLabel('Hole pattern it would go onto'), 1);
  await expect(page.getByRole('status').filter({ hasText: 'would not bolt on' })).toBeVisible();
  await page.getByLabel('Clearance, mm').fill('1');
  await expect(page.getByRole('status').filter({ hasText: 'would bolt on: every point within 1 mm' })).toBeVisible();
});

test('a wall read three times by hand: a slip is named, the mean goes into the part, every reading is kept', async ({ page, request }) => {
  const study = await begin(page, request, 'By hand', 'housing 0.6 kg');
  await view(page, 'By hand').click();
  const type = async (text: string): Promise<void> => {
    await page.getByLabel('Reading, with its unit').fill(text);
    await page.getByRole('button', { name: 'Add it' }).click();
  };
  await page.getByLabel('Read with').fill('micrometer 4');
  await type('2.98');
  await expect(page.getByRole('status')).toContainText(['2.98 of what? Write the unit with it']);
  for (const text of ['2.98 mm', '3.01 mm', '2.99 mm', '29.9 mm', '3.00 mm']) await type(text);
  await expect(page.getByRole('table', { name: 'Readings' }).getByRole('row').nth(4)).toContainText('a slip?');
  await page.getByRole('button', { name: 'Leave reading 4 out' }).click();
  await expect(page.getByText(/Mean of 4:/)).toContainText('2.995');
  await page.getByRole('button', { name: 'Keep as wall thickness of housing' }).click();
  await allKept(page);
  await expect.poll(async () => (await read(request, study.id)).readings.length).toBe(4);
  const { parts, readings } = await read(request, study.id);
  expect(parts[0]?.wallThicknessM).toBeCloseTo(0.002995, 9);
  expect(parts[0]?.evidence.wallThicknessM).toMatchObject({ mark: 'M', source: 'mean of 4' });
  expect(new Set(readings.map((r) => r.instrument))).toEqual(new Set(['micrometer 4']));
});

test('a gauge R&R study tells what the measuring is worth', async ({ page, request }) => {
  await begin(page, request, 'Gauge', 'housing 0.6 kg');
  await view(page, 'Gauge R&R').click();
  await page.getByLabel('Name of the gauge R&R study').fill('wall with the caliper');
  await page.getByLabel('Operators').fill('Odo, Wenna');
  await page.getByLabel('How many parts').fill('2');
  await page.getByLabel('Trials per part').fill('2');
  await page.getByRole('button', { name: 'Begin the study' }).click();
  const readings = { 'Odo, part 1': [2, 2.01], 'Odo, part 2': [3, 3.01], 'Wenna, part 1': [2.01, 2], 'Wenna, part 2': [3.01, 3] };
  for (const [who, values] of Object.entries(readings))
    for (const [k, value] of values.entries()) {
      const cell = page.getByLabel(`${who}, time ${k + 1}`);
      await cell.fill(String(value));
      await cell.blur();
    }
  await expect(page.getByRole('status').filter({ hasText: 'Good: the measuring makes' })).toBeVisible();
  await allKept(page);
  await page.reload();
  await expect(page.getByRole('status').filter({ hasText: 'Good: the measuring makes' })).toBeVisible();
});

test('where no part is chosen, it lists what is worth measuring, and what each part lacks', async ({ page, request }) => {
  const study = await makeStudy(request, 'Worth measuring');
  await page.goto(`/studies/${study.id}/bench`);
  for (const line of ['bracket dc04 stamp 60x40x20', 'cover pp inj ~400 g']) await record(page, line);
  await allKept(page);
  await page.goto(`/studies/${study.id}/measure/scans`);
  const rows = page.getByRole('table', { name: 'Worth measuring' }).getByRole('row');
  // 15 % of a box of 60 × 40 × 20 mm in steel of 7850 kg/m³; 10 % of what was estimated
  await expect(rows.nth(1)).toHaveText(/bracket.*~ 57.*no mass/);
  await expect(rows.nth(2)).toHaveText(/cover.*40.*mass inferred/);
  await page.getByRole('button', { name: 'bracket' }).click();
  await expect(page.getByRole('heading', { name: /^Scans of / })).toBeVisible();
});
