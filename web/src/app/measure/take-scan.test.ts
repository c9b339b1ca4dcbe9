import { createHash, webcrypto } from 'node:crypto';
import { TestBed } from '@angular/core/testing';
import type { Op, ScanFields } from '@each-bolt/core/record';
import { of, throwError, type Observable } from 'rxjs';
import { FULL_ROWS } from '../../../../core/testing/rows';
import { STUDY } from '../../../testing/record';
import { LocalStore } from '../record/local-store';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { TakePicture } from '../pictures/take-picture';
import { TakeScan } from './take-scan';

const BYTES = Buffer.from('solid plate\nendsolid');
const SHA256 = createHash('sha256').update(BYTES).digest('hex');
/** A file as the browser gives it; the test’s own has no way to read its bytes. */
const file = (bytes: Uint8Array, type = ''): Blob =>
  Object.assign(new Blob([new Uint8Array(bytes)], { type }), {
    arrayBuffer: () => Promise.resolve(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength)),
    name: 'plate.stl',
  });
const { sha256: _sha, bytes: _bytes, ...fields } = FULL_ROWS.scan;

describe('files that are taken in', () => {
  let stored: Map<string, Blob>;
  let sent: (readonly Op[])[];
  let refusal: object | null;
  let server: () => Observable<Blob>;
  beforeEach(() => {
    stored = new Map<string, Blob>();
    sent = [];
    refusal = null;
    server = () => throwError(() => ({ code: 'no-answer', message: 'The server does not answer', issues: [] }));
    const digest = (way: string, bytes: ArrayBuffer): Promise<ArrayBuffer> =>
      webcrypto.subtle.digest(way, Buffer.from(new Uint8Array(bytes)));
    Object.defineProperty(globalThis.crypto, 'subtle', { value: { digest }, configurable: true });
    Object.defineProperty(globalThis.crypto, 'randomUUID', { value: () => '00000000-0000-4000-8000-000000000042', configurable: true });
    TestBed.configureTestingModule({
      providers: [
        {
          provide: LocalStore,
          useValue: {
            putFile: (sha256: string, blob: Blob) => (stored.set(sha256, blob), Promise.resolve()),
            file: (sha256: string) => Promise.resolve(stored.get(sha256) ?? null),
          },
        },
        { provide: RecordApi, useValue: { file: () => server() } },
        {
          provide: RecordService,
          useValue: {
            studyId: STUDY.id,
            send: (ops: readonly Op[]) => (sent.push(ops), Promise.resolve(refusal ? { kept: false, refusal } : { kept: true, id: '' })),
          },
        },
      ],
    });
  });

  it('a scan is kept on this device under what is in it before it is recorded, so that it is there without a network', async () => {
    expect(await TestBed.inject(TakeScan).keep(file(BYTES), fields as Omit<ScanFields, 'sha256' | 'bytes'>)).toBeNull();
    expect([...stored.keys()]).toEqual([SHA256]);
    expect(stored.get(SHA256)?.type).toBe('model/stl');
    expect(sent).toMatchObject([[{ kind: 'scan.add', fields: { sha256: SHA256, bytes: BYTES.length, fileName: 'bracket.stl' } }]]);
  });
  it('a scan that the record refuses is told, word for word', async () => {
    refusal = { code: 'invalid', message: 'Not kept', issues: [] };
    expect(await TestBed.inject(TakeScan).keep(file(BYTES), fields as Omit<ScanFields, 'sha256' | 'bytes'>)).toEqual(refusal);
  });
  it('is read from this device first, from the server else, and what cannot be had says so', async () => {
    const takes = TestBed.inject(TakeScan);
    const own = file(BYTES);
    stored.set(SHA256, own);
    expect(await takes.file({ sha256: SHA256 })).toBe(own);
    const theirs = new Blob(['x']);
    server = () => of(theirs);
    expect(await takes.file({ sha256: 'other' })).toBe(theirs);
    server = () => throwError(() => ({ code: 'not-found', message: 'The file is not there', issues: [] }));
    expect(await takes.file({ sha256: 'other' })).toMatchObject({ message: 'The file is not there' });
  });

  describe('of pictures', () => {
    const PNG = Buffer.from('iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==', 'base64');
    const asFile = (bytes: Uint8Array, name: string): File => Object.assign(file(bytes), { name }) as File;
    beforeEach(() => {
      globalThis.URL.createObjectURL = () => 'blob:here';
      globalThis.createImageBitmap = () => Promise.resolve({ width: 4000, height: 3000, close: () => undefined });
    });
    it('several are one change, numbered on from those that are there', async () => {
      const other = Buffer.concat([PNG]);
      const faults = await TestBed.inject(TakePicture).take(
        { partId: FULL_ROWS.picture.partId, rigId: null },
        [asFile(PNG, 'a.png'), asFile(other, 'b.png')],
        5,
      );
      expect(faults).toEqual([]);
      expect(sent).toHaveLength(1);
      expect(sent[0]).toMatchObject([
        { kind: 'picture.add', fields: { sequence: 5, widthPx: 4000, heightPx: 3000 } },
        { kind: 'picture.add', fields: { sequence: 6 } },
      ]);
    });
    it('one that is none, or is damaged, is named; the others are kept', async () => {
      const take = TestBed.inject(TakePicture);
      const faults = await take.take({ partId: 'p', rigId: null }, [asFile(Buffer.from('<svg/>'), 'drawing.svg'), asFile(PNG, 'a.png')], 0);
      expect(faults).toHaveLength(1);
      expect(faults[0]).toMatch(/^drawing\.svg: /);
      expect(sent[0]).toHaveLength(1);
      globalThis.createImageBitmap = () => Promise.reject(new Error('cannot decode'));
      expect(await take.take({ partId: 'p', rigId: null }, [asFile(PNG, 'broken.png')], 0)).toEqual([
        'broken.png: the picture is damaged and cannot be drawn; take it from the camera again',
      ]);
      expect(sent).toHaveLength(1);
    });
    it('are shown from this device until the server has them, also after a reload', async () => {
      const take = TestBed.inject(TakePicture);
      expect(take.url({ sha256: 'ab' }, true)).toContain(STUDY.id);
      stored.set('ab', file(PNG));
      await take.recall([{ sha256: 'ab' } as never]);
      expect(take.url({ sha256: 'ab' }, true)).toBe('blob:here');
    });
  });
});
