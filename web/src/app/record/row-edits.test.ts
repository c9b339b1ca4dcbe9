import { TestBed } from '@angular/core/testing';
import { blank, type Op, type WorkPackage } from '@each-bolt/core/record';
import type { Kept } from './record-service';
import { RecordService } from './record-service';
import { RowEdits } from './row-edits';

const PACK: WorkPackage = {
  id: '00000000-0000-4000-8000-000000000001',
  version: 3,
  ...blank('package', { name: 'Door off', sequence: 0 }),
};

describe('rows edited in place', () => {
  let sent: (readonly Op[])[];
  let answer: Kept;
  let edits: RowEdits;
  beforeEach(() => {
    sent = [];
    answer = { kept: true, id: 'x' };
    const service = { send: (ops: readonly Op[]) => (sent.push(ops), Promise.resolve(answer)) };
    TestBed.configureTestingModule({ providers: [RowEdits, { provide: RecordService, useValue: service }] });
    edits = TestBed.inject(RowEdits);
  });

  it('are sent with what they were, and only where something differs', async () => {
    expect(await edits.edit('package', PACK, { people: 2 })).toBe(true);
    expect(sent).toEqual([[{ kind: 'package.edit', id: PACK.id, was: { people: 1 }, fields: { people: 2 } }]]);
    expect(await edits.edit('package', PACK, { people: 1 })).toBe(true);
    expect(sent).toHaveLength(1);
  });
  it('are not sent when they break a rule of the record; the fault stands at the field until it is mended', async () => {
    expect(await edits.edit('package', PACK, { people: 1.5 })).toBe(false);
    expect(edits.faultOf(PACK.id, 'people')).toBe('People must be a whole number');
    expect(await edits.edit('package', PACK, { doneOn: '2026-06-01' })).toBe(false);
    expect([edits.faultOf(PACK.id, 'people'), edits.faultOf(PACK.id, 'doneOn')]).toEqual([
      '',
      'A package that is done was started: say on which day',
    ]);
    expect(sent).toEqual([]);
    await edits.edit('package', PACK, { people: 2 });
    expect(edits.faultOf(PACK.id, 'doneOn')).toBe('');
  });
  it('say what the record refused as a whole', async () => {
    answer = { kept: false, refusal: { code: 'forbidden', message: 'As reader of this study you may not do this', issues: [] } };
    expect(await edits.add('package', blank('package', { name: 'Seat off', sequence: 1 }))).toBeNull();
    expect(edits.refused().map((i) => i.message)).toEqual(['As reader of this study you may not do this']);
  });
  it('are never added without a name', async () => {
    expect(await edits.add('package', blank('package', { name: ' ', sequence: 1 }))).toBeNull();
    expect([sent, edits.refused()[0]?.message]).toEqual([[], 'Name must not be empty']);
  });
});
