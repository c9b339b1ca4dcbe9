import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { applyOps, subsystemKey, type Op, type Part, type StudyRecord } from '@each-bolt/core/record';
import { DOOR, LEFT, STUDY, partNamed, recordOf, teardown } from '../../../testing/record';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { ShellActs } from './shell-acts';
import { TreeActs } from './tree-acts';

const first = recordOf(teardown('module\n  plate 1 kg\n  lever\nlatch 350 g'));

describe('acts on the tree', () => {
  const record = signal<StudyRecord>(first);
  const partId = signal('');
  const said = signal('');
  let chosen: object[];
  let may: boolean;
  let acts: TreeActs;
  const id = (name: string): string => partNamed(record(), name).id;
  const names = (): readonly string[] => acts.parts().map((part) => part.name);
  const pick = (name: string): void => partId.set(id(name));

  beforeEach(() => {
    record.set(first);
    partId.set('');
    said.set('');
    [chosen, may] = [[], true];
    const partOf = (): Part | null => record().parts.find((part) => part.id === partId()) ?? null;
    TestBed.configureTestingModule({
      providers: [
        {
          provide: OpenStudy,
          useValue: { record, study: () => STUDY, subsystemById: () => new Map(record().subsystems.map((s) => [s.id, s])) },
        },
        {
          provide: RecordService,
          useValue: {
            can: () => () => may,
            send: (ops: readonly Op[]) => {
              record.set(applyOps(record(), ops, record().revision + 1));
              return Promise.resolve({ kept: true });
            },
          },
        },
        {
          provide: Selection,
          useValue: {
            part: partOf,
            partId,
            vehicle: () => LEFT,
            subsystem: () => DOOR,
            subsystemKey: () => subsystemKey(LEFT.id, DOOR.id),
            inside: () => null,
            choose: (what: object) => chosen.push(what),
          },
        },
        { provide: ShellActs, useValue: { said } },
      ],
    });
    acts = TestBed.inject(TreeActs);
  });

  it('are about the parts chosen together, else about the one that is chosen', () => {
    expect(names()).toEqual([]);
    pick('latch');
    expect(names()).toEqual(['latch']);
    acts.mark(id('plate'));
    acts.mark(id('lever'));
    expect([names(), acts.names()]).toEqual([['plate', 'lever'], 'plate and 1 more']);
  });
  it('forget what was chosen together when another part is chosen: nothing is deleted that is not seen to be meant', async () => {
    acts.mark(id('plate'));
    acts.mark(id('lever'));
    pick('latch');
    expect(names()).toEqual(['latch']);
    acts.ask('delete');
    expect(await acts.remove()).toBe(true);
    expect(record().parts.map((part) => part.name)).toEqual(['module', 'plate', 'lever']);
  });
  it('mean what was chosen when they were asked, whatever is chosen meanwhile', async () => {
    pick('plate');
    acts.ask('delete');
    pick('latch');
    expect(names()).toEqual(['plate']);
    await acts.remove();
    expect(record().parts.map((part) => part.name)).toEqual(['module', 'lever', 'latch']);
  });
  it('say so when somebody else has deleted the part meanwhile', async () => {
    pick('plate');
    acts.ask('delete');
    record.update((before) => ({ ...before, parts: before.parts.filter((part) => part.name !== 'plate') }));
    expect([await acts.remove(), acts.fault()]).toEqual([false, 'It is not there any more: somebody else has deleted it']);
  });
  it('put what was cut into what is chosen then, or under the subsystem where that is what was cut', async () => {
    pick('latch');
    acts.cutParts();
    pick('module');
    await acts.put();
    expect([partNamed(record(), 'latch').parentId, acts.cut()]).toEqual([id('module'), []]);
    pick('latch');
    acts.cutParts();
    await acts.put();
    expect(partNamed(record(), 'latch')).toMatchObject({ parentId: null, subsystemId: DOOR.id });
  });
  it('tell in the frame what cannot be, and beside the question where one is asked', async () => {
    pick('module');
    await acts.move({ kind: 'part', id: id('plate') });
    expect(said()).toContain('would be inside itself');
    acts.ask('split');
    await acts.split(1);
    expect(acts.fault()).toContain('only a count of two or more can be split');
  });
  it('are for those who record', () => {
    may = false;
    pick('plate');
    acts.ask('delete');
    expect([acts.asking(), said()]).toEqual([null, 'Your role does not change the tree; ask a recorder or a lead']);
  });
});
