import { randomUUID } from 'node:crypto';
import { deflateRawSync } from 'node:zlib';
import Ajv from 'ajv/dist/2020';
import addFormats from 'ajv-formats';
import fc from 'fast-check';
import { ZipFile } from 'yazl';
import type { BroughtIn } from '@each-bolt/core/wire';
import { blank, evidence, type KeptChange, type StudyRecord } from '@each-bolt/core/record';
import { readParts } from '@each-bolt/core/bench';
import { Api, beginStudy, listen, type Begun, type Problem } from '../../testing/api';
import { pngOf, sha256 } from '../../testing/pictures';
import { testDatabase } from '../../testing/test-database';
import { one } from '../db/rows';
import { people as peopleOf } from '../people/queries';
import type { Pool } from '../db/pool';
import { ARCHIVE_VERSION, type Manifest } from './format';
import { unzip } from './unzip';
import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

let api: Api;
let pool: Pool;
let drop: () => Promise<void>;
let study: Begun;

/** A study with one of everything: parts, sets, marks, a question, a picture, a member gone, a name with HTML in it. */
const fullStudy = async (): Promise<void> => {
  study = await beginStudy(api);
  const [plate, arm, png] = [randomUUID(), randomUUID(), await pngOf(70)];
  const odo = await api.as('Odo Farrow');
  await api.invite(study.studyId, odo, 'recorder');
  await odo.put(`/api/studies/${study.studyId}/files/${sha256(png)}`, png);
  await odo.change(study.studyId, [
    {
      kind: 'part.add',
      id: plate,
      fields: study.part({
        name: '<b>plate</b> =1+1',
        quantity: 2,
        evidence: {
          quantity: evidence('P', { low: 2, high: 3, source: 'picture 4' }),
          massEachKg: evidence('M', { u: 0.0003, typed: '1.836 kg' }),
        },
        massEachKg: 1.836,
      }),
    },
    { kind: 'part.add', id: arm, fields: study.part({ name: 'arm', parentId: plate, subsystemId: null }) },
    {
      kind: 'fasteners.add',
      id: randomUUID(),
      fields: { ...blank('fasteners', { partId: plate }), count: 12, threadM: 0.006, lengthM: 0.016 },
    },
    { kind: 'joints.add', id: randomUUID(), fields: { ...blank('joints', { partId: arm }), count: 34 } },
    {
      kind: 'picture.add',
      id: randomUUID(),
      fields: {
        partId: plate,
        sequence: 0,
        sha256: sha256(png),
        widthPx: 70,
        heightPx: 40,
        shows: 'latch',
        marks: [{ kind: 'arrow', fromX: 0.1, fromY: 0.2, toX: 0.5, toY: 0.5, text: '' }],
      },
    },
    {
      kind: 'question.add',
      id: randomUUID(),
      fields: {
        kind: 'promise',
        aboutKind: 'part',
        aboutId: plate,
        aboutField: 'massEachKg',
        text: 'Weigh it dry',
        ownerId: odo.personId,
        dueOn: '2026-12-01',
        owedTo: 'Lisk Amberley',
        state: 'open',
        answer: '',
      },
    },
  ]);
  await odo.change(study.studyId, [{ kind: 'part.edit', id: plate, was: { tag: '' }, fields: { tag: 'DR2-1' } }]);
};
const archiveOf = async (person: Api, studyId: string): Promise<Buffer> => {
  const response = await person.raw(`/api/studies/${studyId}/archive`);
  expect(response.headers.get('content-type')).toBe('application/zip');
  return Buffer.from(await response.arrayBuffer());
};
const bring = (person: Api, zip: Uint8Array) =>
  person
    .raw('/api/archives', { method: 'POST', body: new Uint8Array(zip) })
    .then(async (r) => ({ status: r.status, body: (await r.json()) as BroughtIn & Problem }));
const contents = async (zip: Buffer): Promise<Map<string, Buffer>> => {
  const dir = await mkdtemp(join(tmpdir(), 'archive-test-'));
  await writeFile(join(dir, 'a.zip'), zip);
  const open = await unzip(join(dir, 'a.zip'));
  const all = new Map<string, Buffer>();
  for (const path of open.paths) all.set(path, await open.read(path));
  open.close();
  await rm(dir, { recursive: true });
  return all;
};
const zipped = (files: ReadonlyMap<string, Buffer>): Promise<Buffer> =>
  new Promise((done) => {
    const zip = new ZipFile();
    const chunks: Buffer[] = [];
    zip.outputStream.on('data', (chunk: Buffer) => chunks.push(chunk)).on('end', () => done(Buffer.concat(chunks)));
    for (const [path, bytes] of files) zip.addBuffer(bytes, path);
    zip.end();
  });

/** Every place of a value in a tree of JSON. */
const placesIn = (tree: object): readonly { readonly holder: object; readonly key: string }[] =>
  Object.entries(tree).flatMap(([key, value]: [string, unknown]) => [
    { holder: tree, key },
    ...(typeof value === 'object' && value !== null ? placesIn(value) : []),
  ]);

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  api = await Api.over(pool);
  await fullStudy();
});
afterAll(async () => {
  await api.stop();
  await drop();
});

describe('a study out as an archive and in again', () => {
  it('comes back without loss into an empty database: record, history, people, pictures, to the same sums', async () => {
    const empty = await testDatabase();
    const { address, stop } = await listen(empty.pool);
    const there = await new Api(address, empty.pool, stop).as('Somebody Else', 'lead');
    const zip = await archiveOf(api, study.studyId);
    const taken = await bring(there, zip);
    expect(taken).toMatchObject({ status: 201, body: { studyId: study.studyId, copied: false } });
    // who brought it in was made its lead, which is one change more
    const [ours, theirs] = [await api.record(study.studyId), await there.record(study.studyId)];
    expect(theirs.revision).toBe(ours.revision + 1);
    const without = (record: StudyRecord) => ({
      ...record,
      revision: 0,
      members: record.members.filter((m) => m.personId !== there.personId),
    });
    expect(without(theirs)).toEqual(without(ours));
    const changes = async (person: Api) =>
      (await person.get<readonly { revision: number; device: string }[]>(`/api/studies/${study.studyId}/changes`)).body;
    // as the archive tells it: made by nobody of this organisation, whatever accounts there are
    const told = (change: { device: string }) => ({ ...change, personId: null, device: `told by an archive, ${change.device}` });
    expect((await changes(there)).slice(0, -1)).toEqual((await changes(api)).map(told));
    const odoHere = (await peopleOf(empty.pool)).find((person) => person.name === 'Odo Farrow');
    expect(await one(empty.pool, 'select count(*) as made from change where person_id = $1', [odoHere?.id])).toEqual({ made: 0 });
    const [before, after] = [await contents(zip), await contents(await archiveOf(there, study.studyId))];
    for (const path of [...before.keys()].filter((p) => p.startsWith('pictures/') || p.startsWith('csv/')))
      expect(after.get(path)).toEqual(before.get(path));
    await stop();
    await empty.drop();
  });
  it('is brought in a second time beside the first, with ids of its own', async () => {
    const before = await api.record(study.studyId);
    const taken = await bring(api, await archiveOf(api, study.studyId));
    expect(taken.body.copied).toBe(true);
    const copy = await api.record(taken.body.studyId);
    const names = (record: StudyRecord) => record.parts.map((p) => p.name).sort();
    expect(names(copy)).toEqual(names(before));
    expect(new Set([...copy.parts, ...before.parts].map((p) => p.id)).size).toBe(4);
    expect(copy.questions[0]?.aboutId).toBe(copy.parts.find((p) => p.tag === 'DR2-1')?.id);
    expect(await api.record(study.studyId)).toEqual(before);
    // the copy says the same once more: neither of the two is an earlier study of the other, nor is the copy of the copy
    const again = await bring(api, await archiveOf(api, taken.body.studyId));
    const three = [study.studyId, taken.body.studyId, again.body.studyId];
    expect(new Set(three).size).toBe(3);
    for (const id of three)
      for (const asked of ['experience', 'held-vehicles']) {
        const { status, body } = await api.get<readonly unknown[]>(`/api/studies/${id}/plan/${asked}`);
        expect([status, body]).toEqual([200, []]);
      }
    // to a study of another kind the three are one
    const other = await beginStudy(api);
    const held = (await api.get<readonly { study: string }[]>(`/api/studies/${other.studyId}/plan/held-vehicles`)).body;
    expect(held.length).toBe(before.vehicles.length);
  });
  it('holds the parts as CSV that the import reads, with formulas defused', async () => {
    const csv = (await contents(await archiveOf(api, study.studyId))).get('csv/parts-1.csv')?.toString() ?? '';
    const { rows, issues } = readParts(csv);
    expect(issues).toEqual([]);
    expect(
      rows.map((r) => [r.fields.name, r.fields.quantity, r.fields.massEachKg, r.fields.evidence?.quantity?.mark, r.fasteners.length]),
    ).toEqual([
      ['<b>plate</b> =1+1', 2, 1.836, 'P', 1],
      ['arm', 1, undefined, undefined, 0],
    ]);
  });
  it('holds the JSON Schema of its record, which a checker that was not made here finds true', async () => {
    const files = await contents(await archiveOf(api, study.studyId));
    const ajv = new Ajv({ allowUnionTypes: true });
    addFormats(ajv);
    const isStudy = ajv.compile(JSON.parse(files.get('schema.json')!.toString()) as object);
    const held = JSON.parse(files.get('study.json')!.toString()) as { readonly record: StudyRecord };
    expect([isStudy(held), isStudy.errors ?? []]).toEqual([true, []]);
    const heavy = { ...held, record: { ...held.record, parts: held.record.parts.map((p) => ({ ...p, massEachKg: '1.8 kg' })) } };
    expect(isStudy(heavy)).toBe(false);
  });
  it('lists every file with its sum', async () => {
    const files = await contents(await archiveOf(api, study.studyId));
    const manifest = JSON.parse(files.get('manifest.json')!.toString()) as Manifest;
    expect(manifest.files.map((f) => [f.path, f.sha256])).toEqual(
      [...files].filter(([path]) => path !== 'manifest.json').map(([path, bytes]) => [path, sha256(bytes)]),
    );
  });
});

describe('a study with a change of many megabytes', () => {
  it('has it whole in its archive, between the small ones, and comes in again', async () => {
    const long = await beginStudy(api);
    const notes = 'gemessen ohne Öl, 20 °C; '.repeat(30);
    const many = Array.from({ length: 2500 }, (_, i) => ({
      kind: 'part.add' as const,
      id: randomUUID(),
      fields: long.part({ name: `rib ${i + 1}`, notes }),
    }));
    const added = await api.change(long.studyId, many);
    await api.change(long.studyId, [{ kind: 'part.edit', id: many[0]!.id, was: { tag: '' }, fields: { tag: 'RIB-1' } }]);
    const taken = many.slice(1).map(({ id, fields }) => ({ kind: 'part.remove' as const, id, was: fields }));
    const removed = await api.change(long.studyId, taken);
    expect([added.status, removed.status]).toEqual([201, 201]);
    const zip = await archiveOf(api, long.studyId);
    const lines = (await contents(zip)).get('changes.jsonl')!.toString().trimEnd().split('\n');
    const changes = lines.map((line) => JSON.parse(line) as KeptChange & { digest: string });
    expect(changes.map(({ revision }) => revision)).toEqual([1, 2, 3, 4]);
    for (const { id, ops, inverse, madeBy, digest } of [changes[1]!, changes[3]!]) {
      const { body } = await api.get<KeptChange>(`/api/studies/${long.studyId}/changes/${id}`);
      expect([madeBy, digest]).toEqual([body.madeBy, expect.stringMatching(/^[0-9a-f]{64}$/)]);
      expect(ops.length).toBeGreaterThan(2000);
      // compared as text: as trees of a hundred thousand values it would take half a minute
      expect(JSON.stringify([ops, inverse]) === JSON.stringify([body.ops, body.inverse])).toBe(true);
    }
    expect(await bring(api, zip)).toMatchObject({ status: 201 });
  });
});

describe('an archive of an earlier program', () => {
  it('without what came later is read, and what came later is empty', async () => {
    const files = await contents(await archiveOf(api, study.studyId));
    const held = JSON.parse(files.get('study.json')!.toString()) as {
      record: Record<string, unknown> & { parts: Record<string, unknown>[] };
    };
    const lists = [
      'sessions',
      'steps',
      'readings',
      'connections',
      'componentSets',
      'boards',
      'fluids',
      'recounts',
      'sheets',
      'scans',
      'identifications',
      'sections',
      'holePatterns',
      'gaugeStudies',
    ];
    const without = (row: object, fields: readonly string[]): object =>
      Object.fromEntries(Object.entries(row).filter(([field]) => !fields.includes(field)));
    const parts = held.record.parts.map((part) => without(part, ['closedRisk', 'seenOutside', 'damageFrom']));
    const earlier = { ...held, record: { ...without(held.record, lists), parts } };
    const bytes = Buffer.from(JSON.stringify(earlier));
    files.set('study.json', bytes);
    const manifest = JSON.parse(files.get('manifest.json')!.toString()) as Manifest;
    const listed = manifest.files.map((f) => (f.path === 'study.json' ? { ...f, bytes: bytes.length, sha256: sha256(bytes) } : f));
    const older = (formatVersion: number): Promise<Buffer> => {
      files.set('manifest.json', Buffer.from(JSON.stringify({ ...manifest, formatVersion, files: listed })));
      return zipped(files);
    };
    const answer = await bring(api, await older(2));
    expect([answer.status, answer.body]).toEqual([201, expect.objectContaining({ copied: true }) as object]);
    // the same said to be of today is not whole
    expect((await bring(api, await older(ARCHIVE_VERSION))).status).toBe(422);
  });
});

describe('an archive that is not sound changes nothing', () => {
  const counts = () =>
    one(
      pool,
      `select (select count(*) from study) as studies, (select count(*) from change) as changes, (select count(*) from person) as people, (select count(*) from file) as files`,
    );
  const refused = async (zip: Uint8Array, message: RegExp): Promise<void> => {
    const before = await counts();
    const answer = await bring(api, zip);
    expect([answer.status, answer.body.message]).toEqual([422, expect.stringMatching(message) as string]);
    expect(answer.body.message).toMatch(/Nothing was written/);
    expect(await counts()).toEqual(before);
  };
  const altered = async (change: (files: Map<string, Buffer>) => void): Promise<Buffer> => {
    const files = await contents(await archiveOf(api, study.studyId));
    change(files);
    return zipped(files);
  };
  /** The files with sums that agree, as somebody would make them who means it. */
  const summed = (files: Map<string, Buffer>): Map<string, Buffer> => {
    const manifest = JSON.parse(files.get('manifest.json')!.toString()) as Manifest;
    const listed = manifest.files.map((f) => ({ ...f, bytes: files.get(f.path)!.length, sha256: sha256(files.get(f.path)!) }));
    return files.set('manifest.json', Buffer.from(JSON.stringify({ ...manifest, files: listed })));
  };
  /** Alters a file and its sum with it. */
  const forged = (path: string, change: (text: string) => string): Promise<Buffer> =>
    altered((files) => void summed(files.set(path, Buffer.from(change(files.get(path)!.toString())))));

  it('no ZIP at all, or cut short', async () => {
    await refused(Buffer.from('hello'), /no ZIP file, or cut short/);
    await refused((await archiveOf(api, study.studyId)).subarray(0, 2000), /no ZIP file, or cut short/);
  });
  it('a byte changed in a file', async () =>
    refused(
      await altered((files) => files.set('study.json', Buffer.from(files.get('study.json')!.toString().replace('DR2-1', 'DR2-2')))),
      /study\.json is damaged: its sum does not agree/,
    ));
  it('a file missing, or one too many', async () => {
    await refused(await altered((files) => files.delete('changes.jsonl')), /changes\.jsonl is missing/);
    await refused(await altered((files) => files.set('csv/parts-9.csv', Buffer.from('x'))), /parts-9\.csv is not in its list/);
  });
  it('a record that breaks a rule, though its sum agrees', async () => {
    await refused(await forged('study.json', (text) => text.replace('"quantity":2', '"quantity":-2')), /Quantity must be at least 1/);
    await refused(await forged('study.json', (text) => text.replace(/"u": ?0.0003/, '"u":null')), /A mass needs its uncertainty/);
    await refused(
      await forged('study.json', (text) => text.replace(/"parentId":"[^"]+"/, `"parentId":"${randomUUID()}"`)),
      /does not hold together/,
    );
    await refused(await forged('changes.jsonl', (text) => text.split('\n').slice(1).join('\n')), /every change of the study once/);
  });
  it('values nested a hundred thousand deep, in its record or in its history', async () => {
    const deep = `${'['.repeat(100_000)}${']'.repeat(100_000)}`;
    const nested = /is nested deeper than a record ever is/;
    await refused(await forged('study.json', (text) => text.replace(/"u": ?0.0003/, `"u":${deep}`)), nested);
    await refused(await forged('changes.jsonl', (text) => text.replace(/"undoes" ?: ?null/, `"undoes":null,"more":${deep}`)), nested);
  });
  it('anything else in place of a value: never more than refused, with its place', async () => {
    const whole = await contents(await archiveOf(api, study.studyId));
    const odd = fc.constantFrom<unknown>(null, '', 'x', -1, 1e300, true, [], {}, [null], '\u0000', '-'.repeat(36), { id: null });
    const cases = fc.sample(fc.tuple(fc.constantFrom('study.json', 'changes.jsonl', 'manifest.json'), fc.nat(), odd, fc.boolean()), {
      numRuns: Number(process.env.FUZZ_ARCHIVES ?? 60),
      seed: Number(process.env.FUZZ_SEED ?? 7),
    });
    for (const [path, at, value, isGone] of cases) {
      const files = new Map(whole);
      const text = files.get(path)!.toString();
      const lines = path === 'changes.jsonl' ? text.split('\n').filter((line) => line !== '') : [text];
      const line = at % lines.length;
      const tree = JSON.parse(lines[line]!) as object;
      const places = placesIn(tree);
      const { holder, key } = places[at % places.length]!;
      if (isGone) Reflect.deleteProperty(holder, key);
      else Reflect.set(holder, key, value);
      lines[line] = JSON.stringify(tree);
      files.set(path, Buffer.from(lines.join('\n')));
      const answer = await bring(api, await zipped(path === 'manifest.json' ? files : summed(files)));
      if (answer.status === 201) continue;
      expect([answer.status, answer.body.message]).toEqual([422, expect.stringMatching(/^The archive cannot be read: .{10}/) as string]);
    }
  });
  it('a picture that is none', async () => {
    const files = await contents(await archiveOf(api, study.studyId));
    const path = [...files.keys()].find((p) => p.startsWith('pictures/'))!;
    await refused(await forged(path, () => '<svg onload="alert(1)"/>'), /neither a JPEG nor a PNG/);
  });
  it('names that lead outside of it', async () => {
    const evil = Buffer.from(await altered((files) => files.set('csv/parts-8.csv', Buffer.from('x'))));
    const text = evil.toString('latin1').replaceAll('csv/parts-8.csv', '../../etc/hosts');
    await refused(Buffer.from(text, 'latin1'), /names files outside of itself/);
    await refused(await altered((files) => files.set('run.sh', Buffer.from('x'))), /holds “run\.sh”, which no study archive has/);
  });
  it('a bomb: a little that would unpack to very much', async () => {
    await refused(
      await altered((files) => files.set('csv/parts-7.csv', Buffer.alloc(64 * 1024 * 1024))),
      /would unpack to more than 200 times its size/,
    );
    // one that lies about its size
    const lying = await altered((files) => files.set('csv/parts-7.csv', Buffer.alloc(3 * 1024 * 1024)));
    const packed = deflateRawSync(Buffer.alloc(3 * 1024 * 1024));
    const at = lying.indexOf(packed.subarray(0, 12));
    expect(at).toBeGreaterThan(0);
    const size = Buffer.alloc(4);
    size.writeUInt32LE(3 * 1024 * 1024);
    const small = Buffer.alloc(4);
    small.writeUInt32LE(10);
    const text = lying.toString('latin1').replaceAll(size.toString('latin1'), small.toString('latin1'));
    await refused(Buffer.from(text, 'latin1'), /damaged|not in its list/);
  });
  it('an archive of a newer program, or of something else', async () => {
    const manifest = (change: object) =>
      altered((files) =>
        files.set(
          'manifest.json',
          Buffer.from(JSON.stringify({ ...(JSON.parse(files.get('manifest.json')!.toString()) as object), ...change })),
        ),
      );
    await refused(await manifest({ formatVersion: 99 }), /newer version/);
    await refused(await manifest({ format: 'holiday' }), /not an archive of a study/);
  });
});
