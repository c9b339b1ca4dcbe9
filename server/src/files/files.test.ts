import { randomUUID } from 'node:crypto';
import { deflateSync } from 'node:zlib';
import sharp from 'sharp';
import { pictureFile } from '@each-bolt/core/shared';
import { Api, beginStudy, type Begun, type Problem } from '../../testing/api';
import { jpegWithPlace, pngOf, sha256 } from '../../testing/pictures';
import { testDatabase } from '../../testing/test-database';
import type { Pool } from '../db/pool';
import { one } from '../db/rows';

let api: Api;
let pool: Pool;
let drop: () => Promise<void>;
let study: Begun;

beforeAll(async () => {
  ({ pool, drop } = await testDatabase());
  api = await Api.over(pool);
  study = await beginStudy(api);
});
afterAll(async () => {
  await api.stop();
  await drop();
});

const cleaned = (bytes: Uint8Array): Buffer => {
  const read = pictureFile(bytes);
  if (!read.ok) throw new Error(read.message);
  return Buffer.from(read.file.bytes);
};
const put = (bytes: Uint8Array, name = sha256(bytes)) =>
  api.put<Problem & { widthPx: number; heightPx: number }>(`/api/studies/${study.studyId}/files/${name}`, bytes);
const got = async (path: string): Promise<Buffer> =>
  Buffer.from(await (await api.raw(`/api/studies/${study.studyId}/files/${path}`)).arrayBuffer());
const files = async (): Promise<number> => (await one<{ count: number }>(pool, 'select count(*) as count from file')).count;

describe('a picture', () => {
  it('is kept byte for byte under its content hash, without the place it was taken at', async () => {
    const camera = await jpegWithPlace();
    expect((await sharp(camera).metadata()).exif?.includes(Buffer.from('Bench camera'))).toBe(true);
    const clean = cleaned(camera);
    expect((await put(clean)).status).toBe(201);
    const kept = await got(sha256(clean));
    expect(kept.equals(clean)).toBe(true);
    // a browser keeps it for good, but gives it out to no other session
    const { headers } = await api.raw(`/api/studies/${study.studyId}/files/${sha256(clean)}`);
    expect([headers.get('cache-control'), headers.get('vary')]).toEqual([
      expect.stringContaining('private') as string,
      expect.stringContaining('Cookie') as string,
    ]);
    const { exif, orientation } = await sharp(kept).metadata();
    expect(orientation).toBe(6);
    // 38 bytes hold the orientation and nothing else
    expect(exif?.length).toBeLessThan(40);
    expect(kept.includes(Buffer.from('Odo Farrow'))).toBe(false);
    // the picture itself is not coded again
    expect((await sharp(kept).raw().toBuffer()).equals(await sharp(camera).raw().toBuffer())).toBe(true);
  });
  it('is cleaned on the server too, so that a client cannot leave the place in', async () => {
    const camera = await jpegWithPlace(1);
    const answer = await put(camera);
    expect([answer.status, answer.body.message]).toEqual([422, expect.stringContaining('is not the one its address names') as string]);
    expect((await put(camera, sha256(cleaned(camera)))).status).toBe(201);
    expect((await got(sha256(cleaned(camera)))).includes(Buffer.from('Bench camera'))).toBe(false);
  });
  it('stands upright in its thumbnail, and its size is told as it is seen', async () => {
    const clean = cleaned(await jpegWithPlace(6));
    expect((await put(clean)).body).toMatchObject({ widthPx: 40, heightPx: 60 });
    const thumbnail = sharp(await got(`${sha256(clean)}/thumbnail`));
    expect(await thumbnail.metadata()).toMatchObject({ width: 40, height: 60 });
    // turned by a quarter to the right, what was left is on top
    const { data } = await thumbnail.extract({ left: 20, top: 5, width: 1, height: 1 }).raw().toBuffer({ resolveWithObject: true });
    expect(data[0]).toBeGreaterThan(200);
  });
  it('sent twice is kept once', async () => {
    const png = await pngOf(61);
    const before = await files();
    expect([(await put(png)).status, (await put(png)).status, (await files()) - before]).toEqual([201, 201, 1]);
  });
  it('belongs to the study it was sent to: others do not read it by its hash', async () => {
    const png = await pngOf(62);
    await put(png);
    const other = await beginStudy(api);
    expect((await api.get(`/api/studies/${other.studyId}/files/${sha256(png)}`)).status).toBe(404);
  });
  it('cannot be attached before it has arrived, and goes with its part', async () => {
    const [partId, pictureId, png] = [randomUUID(), randomUUID(), await pngOf(63)];
    const fields = { partId, rigId: null, sequence: 0, sha256: sha256(png), widthPx: 63, heightPx: 40, shows: 'latch side', marks: [] };
    const ops = [
      { kind: 'part.add', id: partId, fields: study.part() },
      { kind: 'picture.add', id: pictureId, fields },
    ];
    const early = await api.change<Problem>(study.studyId, ops);
    expect([early.status, early.body.issues[0]?.code]).toEqual([422, 'file-missing']);
    await put(png);
    expect((await api.change(study.studyId, ops)).status).toBe(201);
    const { parts, pictures } = await api.record(study.studyId);
    expect(pictures).toEqual([{ id: pictureId, version: expect.any(Number) as number, ...fields }]);
    const { id, version: _, ...was } = parts.find((p) => p.id === partId)!;
    const alone = await api.change<Problem>(study.studyId, [{ kind: 'part.remove', id, was }]);
    expect([alone.status, alone.body.issues[0]?.code]).toEqual([422, 'part-missing']);
  });
});

describe('what is refused, with nothing written and a message that says why', () => {
  const refused = async (bytes: Uint8Array, status: number, message: RegExp, name?: string): Promise<void> => {
    const before = await files();
    const answer = await put(bytes, name);
    expect([answer.status, answer.body.message]).toEqual([status, expect.stringMatching(message) as string]);
    expect(await files()).toBe(before);
  };
  it('an SVG with script, whatever it is called', () =>
    refused(Buffer.from('<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>'), 415, /neither a JPEG nor a PNG/));
  it('HTML that begins like a picture but is none', () =>
    refused(Buffer.concat([Buffer.from([0xff, 0xd8, 0xff, 0xe0, 0, 4, 0, 0]), Buffer.from('<script>alert(1)</script>')]), 415, /damaged/));
  it('a picture cut short', async () => refused((await pngOf(500)).subarray(0, 120), 415, /damaged or cut short/));
  it('a picture whose pixels are damaged', async () => {
    const png = await pngOf(300, 300);
    png.fill(0x55, 60, png.length - 20);
    await refused(png, 415, /cannot be drawn|damaged/);
  });
  it('a small file that would unpack to 900 megapixels', async () => {
    const chunk = (name: string, data: Buffer): Buffer => {
      const body = Buffer.concat([Buffer.from(name), data]);
      const crc = Buffer.alloc(4);
      crc.writeUInt32BE(crc32(body));
      const length = Buffer.alloc(4);
      length.writeUInt32BE(data.length);
      return Buffer.concat([length, body, crc]);
    };
    const head = Buffer.alloc(13);
    head.writeUInt32BE(30_000, 0);
    head.writeUInt32BE(30_000, 4);
    head.set([1, 0, 0, 0, 0], 8);
    const bomb = Buffer.concat([
      Buffer.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
      chunk('IHDR', head),
      chunk('IDAT', deflateSync(Buffer.alloc(3751 * 30_000))),
      chunk('IEND', Buffer.alloc(0)),
    ]);
    await refused(bomb, 415, /120 megapixels/);
  });
  it('a picture of 200 MB', () => refused(Buffer.alloc(200 * 1024 * 1024, 0xff), 413, /too large/, 'a'.repeat(64)));
  it('a path in place of a hash', async () => {
    const png = await pngOf(64);
    for (const name of ['..%2F..%2Fetc%2Fpasswd', encodeURIComponent('../../../etc/passwd'), `${'a'.repeat(63)}G`]) {
      expect([404, 405]).toContain((await put(png, name)).status);
      expect((await api.raw(`/api/studies/${study.studyId}/files/${name}`)).status).toBe(404);
    }
  });
});

/** CRC-32 of ISO 3309, as PNG uses it; written out so that the bomb is a sound PNG. */
const crc32 = (bytes: Uint8Array): number => {
  let crc = 0xffffffff;
  for (const byte of bytes) {
    crc ^= byte;
    for (let bit = 0; bit < 8; bit++) crc = crc & 1 ? (crc >>> 1) ^ 0xedb88320 : crc >>> 1;
  }
  return (crc ^ 0xffffffff) >>> 0;
};
