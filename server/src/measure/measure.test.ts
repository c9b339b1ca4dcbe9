import { randomUUID } from 'node:crypto';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { USUAL_SHARE, inMetres, measureMesh } from '@each-bolt/core/measure';
import { Api, beginStudy, type Begun, type Problem } from '../../testing/api';
import { sha256 } from '../../testing/pictures';
import { testDatabase } from '../../testing/test-database';
import { unzip } from '../archive/unzip';
import { boxesMesh, stlOf } from '../demo/demo-meshes';

const MESH = boxesMesh([[0, 0, 0, 120, 45, 12]]);
const STL = stlOf(MESH);

let api: Api;
let drop: () => Promise<void>;
let study: Begun;
beforeAll(async () => {
  const database = await testDatabase();
  drop = database.drop;
  api = await Api.over(database.pool);
  study = await beginStudy(api);
});
afterAll(async () => {
  await api.stop();
  await drop();
});

const put = async (bytes: Uint8Array, type: string): Promise<{ readonly status: number; readonly message: string }> => {
  const response = await api.raw(`/api/studies/${study.studyId}/files/${sha256(bytes)}`, {
    method: 'PUT',
    headers: { 'Content-Type': type },
    body: new Uint8Array(bytes),
  });
  return { status: response.status, message: ((await response.json()) as { message?: string }).message ?? '' };
};
const scanOf = (partId: string) => ({
  ...{
    partId,
    sequence: 0,
    sha256: sha256(STL),
    fileName: 'lever.stl',
    format: 'STL',
    bytes: STL.length,
    unit: 'mm',
    unitBy: 'its length',
  },
  figures: inMetres(measureMesh(MESH, USUAL_SHARE).figures, 'mm'),
  offsetM: null,
  ...{ instrument: '', serial: '', takenAt: '2026-06-01T08:00:00.000Z', takenBy: 'Odo', note: '' },
});
const addPart = async (): Promise<string> => {
  const id = randomUUID();
  await api.change(study.studyId, [{ kind: 'part.add', id, fields: study.part() }]);
  return id;
};

describe('a scan', () => {
  it('cannot be recorded before its file has arrived, and comes back as it was sent', async () => {
    const [partId, id] = [await addPart(), randomUUID()];
    const early = await api.change<Problem>(study.studyId, [{ kind: 'scan.add', id, fields: scanOf(partId) }]);
    expect([early.status, early.body.issues[0]?.code]).toEqual([422, 'file-missing']);
    expect((await put(STL, 'model/stl')).status).toBe(201);
    expect((await api.change(study.studyId, [{ kind: 'scan.add', id, fields: scanOf(partId) }])).status).toBe(201);
    const { scans } = await api.record(study.studyId);
    expect(scans).toEqual([{ id, version: expect.any(Number) as number, ...scanOf(partId) }]);
    // 120 × 45 × 12 mm, worked out by the same program the browser uses
    expect(scans[0]?.figures.volumeM3).toBeCloseTo(64.8e-6, 12);
    const back = await api.raw(`/api/studies/${study.studyId}/files/${sha256(STL)}`);
    expect([back.headers.get('content-type'), Buffer.from(await back.arrayBuffer()).equals(STL)]).toEqual(['model/stl', true]);
    expect((await api.raw(`/api/studies/${study.studyId}/files/${sha256(STL)}/thumbnail`)).status).toBe(404);
  });
  it('goes with its part, not before it', async () => {
    const { parts, scans } = await api.record(study.studyId);
    const { id, version: _, ...was } = parts.find((p) => p.id === scans[0]?.partId)!;
    const alone = await api.change<Problem>(study.studyId, [{ kind: 'part.remove', id, was }]);
    expect([alone.status, alone.body.issues[0]?.code]).toEqual([422, 'part-missing']);
  });
  it('that is damaged, or no scan at all, is refused', async () => {
    expect(await put(STL.subarray(0, 300), 'model/stl')).toMatchObject({
      status: 415,
      message: expect.stringMatching(/no STL, PLY or OBJ/) as string,
    });
    expect((await put(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"/>'), 'model/obj')).status).toBe(415);
    // and a scan is no picture
    expect((await put(STL, 'application/octet-stream')).status).toBe(415);
  });
});

describe('a file that is refused before it was read', () => {
  it('is answered, not cut off: whoever sends it is told why', async () => {
    const bytes = new Uint8Array(24_000_000);
    const response = await fetch(`${api.address}/api/studies/${study.studyId}/files/${sha256(bytes)}`, { method: 'PUT', body: bytes });
    expect([401, 403]).toContain(response.status);
    expect(((await response.json()) as Problem).message).not.toBe('');
  });
});

describe('what hangs on something', () => {
  it('says what is missing: a section its scan, an identification its reading', async () => {
    const partId = await addPart();
    const section = {
      partId,
      sequence: 0,
      name: 'sill',
      kind: 'outline',
      dimensions: {},
      scanId: randomUUID(),
      materialId: null,
      note: '',
    };
    const cut = await api.change<Problem>(study.studyId, [
      { kind: 'section.add', id: randomUUID(), fields: { ...section, loops: [[[0, 0], [0.1, 0], [0, 0.1]]] } }, // prettier-ignore
    ]);
    expect([cut.status, cut.body.issues[0]?.message]).toEqual([
      422,
      expect.stringMatching(/“sill” would name a scan that is not in this study/) as string,
    ]);
    const found = await api.change<Problem>(study.studyId, [
      {
        kind: 'identification.add',
        id: randomUUID(),
        fields: {
          ...{
            partId,
            sequence: 0,
            cues: [],
            readingId: randomUUID(),
            marking: '',
            materialId: 'pp',
            grade: '',
            processId: null,
            reason: '',
          },
          ...{ decidedAt: '2026-06-01T08:00:00.000Z', decidedBy: 'Odo' },
        },
      },
    ]);
    expect([found.status, found.body.issues[0]?.code]).toEqual([422, 'reading-missing']);
  });
  it('and what makes no sense in itself is named by field', async () => {
    const partId = await addPart();
    const refused = await api.change<Problem>(study.studyId, [
      {
        kind: 'holePattern.add',
        id: randomUUID(),
        fields: { partId, sequence: 0, name: 'foot', points: [[0, 0, 0]], source: 'caliper', note: '' },
      },
    ]);
    expect([refused.status, refused.body.issues[0]?.message]).toEqual([422, 'A hole pattern needs two points at least']);
    const gaugeStudy = {
      sequence: 0,
      name: 'wall',
      quantity: 'length',
      persons: ['Odo', 'Wenna'],
      parts: ['a', 'b'],
      trials: 2,
      instrument: '',
      note: '',
    };
    const short = await api.change<Problem>(study.studyId, [
      { kind: 'gaugeStudy.add', id: randomUUID(), fields: { ...gaugeStudy, readings: [[[null, null]]] } },
    ]);
    expect([short.status, short.body.issues[0]?.message]).toEqual([422, 'There must be a place for each person, part and time']);
  });
});

describe('an archive', () => {
  it('carries the scan file, and brings it back to the same sum', async () => {
    const response = await api.raw(`/api/studies/${study.studyId}/archive`);
    const zip = Buffer.from(await response.arrayBuffer());
    const dir = await mkdtemp(join(tmpdir(), 'measure-test-'));
    await writeFile(join(dir, 'a.zip'), zip);
    const open = await unzip(join(dir, 'a.zip'));
    expect((await open.read(`scans/${sha256(STL)}.stl`)).equals(STL)).toBe(true);
    open.close();
    await rm(dir, { recursive: true });
    const taken = await api.raw('/api/archives', { method: 'POST', body: new Uint8Array(zip) });
    const { studyId } = (await taken.json()) as { readonly studyId: string };
    const copy = await api.record(studyId);
    expect(copy.scans.map((s) => [s.fileName, s.sha256, s.figures.volumeM3])).toEqual([
      ['lever.stl', sha256(STL), expect.closeTo(64.8e-6, 12) as number],
    ]);
    expect((await api.raw(`/api/studies/${studyId}/files/${sha256(STL)}`)).status).toBe(200);
  });
});
