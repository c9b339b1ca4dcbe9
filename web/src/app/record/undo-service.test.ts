import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import {
  applyOps,
  editOp,
  inverseOps,
  namedRows,
  netEffect,
  type Change,
  type NetEffect,
  type Op,
  type StudyRecord,
} from '@each-bolt/core/record';
import { Subject, of, throwError, type Observable } from 'rxjs';
import { STUDY, partNamed, recordOf, teardown, testId } from '../../../testing/record';
import { Session } from './session';
import { LocalStore } from './local-store';
import { RecordApi } from './record-api';
import { RecordService } from './record-service';
import { UndoService } from './undo-service';

const WENNA = testId(900);

describe('undo and redo of one’s own acts', () => {
  let undo: UndoService;
  let record: StudyRecord;
  /** what this device knows of its own changes, with what undoes them */
  let local: { id: string; undoes: string | null; inverse: readonly Op[] }[];
  let server: () => Observable<{ inverse: readonly Op[] }>;
  let refusal: { message: string; issues: { message: string }[] } | null;
  const made = new Subject<Change>();
  const heard = new Subject<{ change: { id: string; undoes: string | null; personId: string } }>();
  const refused = signal<readonly { change: { id: string } }[]>([]);
  let ids = 0;

  const effect = (ops: readonly Op[]): NetEffect => netEffect(ops, namedRows(record, ops), record.revision + 1);
  const send = (ops: readonly Op[], { undoes = null }: { undoes?: string | null } = {}): Promise<object> => {
    if (refusal) return Promise.resolve({ kept: false, refusal });
    const id = testId(600 + ids++);
    local.push({ id, undoes, inverse: inverseOps(effect(ops).effects) });
    record = applyOps(record, ops, record.revision + 1);
    made.next({ id, ops, undoes });
    return Promise.resolve({ kept: true, id });
  };
  const name = (): string | undefined => record.parts[0]?.name;
  const rename = (to: string): Promise<object> => send([editOp('part', record.parts[0]!, { name: to })!]);

  beforeEach(async () => {
    record = recordOf(teardown('plate 1 kg\nlever'));
    [local, refusal, ids] = [[], null, 0];
    server = () => throwError(() => ({ code: 'no-answer', message: 'The server does not answer' }));
    refused.set([]);
    TestBed.configureTestingModule({
      providers: [
        {
          provide: RecordService,
          useValue: { studyId: STUDY.id, made, heard, refused, waiting: signal([]), effectOf: (ops: readonly Op[]) => effect(ops), send },
        },
        { provide: RecordApi, useValue: { mine: () => throwError(() => ({ code: 'no-answer' })), change: () => server() } },
        { provide: LocalStore, useValue: { own: () => Promise.resolve(local) } },
        { provide: Session, useValue: { person: { id: WENNA, name: 'Wenna Tarn' } } },
      ],
    });
    undo = TestBed.inject(UndoService);
    undo.begin(STUDY.id, Promise.resolve());
    await undo.undo();
  });

  it('go back and forth over several acts, each once', async () => {
    for (const to of ['panel', 'skin', 'outer skin']) await rename(to);
    expect([undo.canUndo(), undo.canRedo()]).toEqual([true, false]);
    await undo.undo();
    await undo.undo();
    expect([name(), undo.said(), undo.canRedo()]).toEqual(['panel', 'Undone', true]);
    await undo.redo();
    expect([name(), undo.said()]).toEqual(['skin', 'Done again']);
    await undo.undo();
    await undo.undo();
    expect([name(), undo.canUndo()]).toEqual(['plate', false]);
  });
  it('wait for one another: two quick presses undo two things', async () => {
    for (const to of ['panel', 'skin']) await rename(to);
    await Promise.all([undo.undo(), undo.undo()]);
    expect(name()).toBe('plate');
  });
  it('ask about what somebody else has changed since, and write nothing until it is answered', async () => {
    await rename('panel');
    record = applyOps(record, [editOp('part', record.parts[0]!, { name: 'door skin' })!], 9);
    await undo.undo();
    expect([name(), undo.asked()?.conflicts.length]).toEqual(['door skin', 1]);
    await undo.answer('leave');
    expect([name(), undo.asked()]).toEqual(['door skin', null]);
    await undo.undo();
    await undo.answer('over');
    expect([name(), undo.said()]).toEqual(['plate', 'Undone']);
  });
  it('undo only where nobody else was, when that is answered', async () => {
    await send([editOp('part', record.parts[0]!, { name: 'panel', tag: 'A-001' })!]);
    record = applyOps(record, [editOp('part', record.parts[0]!, { name: 'door skin' })!], 9);
    await undo.undo();
    await undo.answer('rest');
    expect([name(), record.parts[0]?.tag]).toEqual(['door skin', '']);
    // all of it was changed since: nothing is left to undo, and that is said
    await rename('panel');
    record = applyOps(record, [editOp('part', record.parts[0]!, { name: 'outer skin' })!], 12);
    await undo.undo();
    await undo.answer('rest');
    expect([name(), undo.said()]).toEqual(['outer skin', 'Nothing of it was left to undo']);
  });
  it('of what was done on another device need the server, and say so without it', async () => {
    heard.next({ change: { id: testId(77), undoes: null, personId: WENNA } });
    await undo.undo();
    expect(undo.said()).toContain('was done on another device');
    const lever = partNamed(record, 'lever');
    server = () => of({ inverse: [editOp('part', lever, { name: 'arm' })!] });
    await undo.undo();
    expect(record.parts[1]?.name).toBe('arm');
  });
  it('leave acts of others alone, and those the server refused', async () => {
    heard.next({ change: { id: testId(78), undoes: null, personId: testId(901) } });
    expect(undo.canUndo()).toBe(false);
    await rename('panel');
    refused.set([{ change: { id: local[0]!.id } }]);
    TestBed.tick();
    expect(undo.canUndo()).toBe(false);
  });
  it('never take a study back', async () => {
    server = () => of({ inverse: [{ kind: 'study.remove', id: STUDY.id, was: {} } as unknown as Op] });
    heard.next({ change: { id: testId(79), undoes: null, personId: WENNA } });
    await undo.undo();
    expect(undo.said()).toContain('can be archived');
  });
  it('that are refused say why, and stay to be tried again', async () => {
    await rename('panel');
    refusal = { message: 'Not kept', issues: [{ message: 'The study is archived' }] };
    await undo.undo();
    expect([name(), undo.said(), undo.canUndo()]).toEqual(['panel', 'Not kept. The study is archived', true]);
  });
});
