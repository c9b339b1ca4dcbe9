import { ChangeDetectionStrategy, Component, DestroyRef, inject, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Router } from '@angular/router';
import { tagText } from '@each-bolt/core/bench';
import { editOp, type Op } from '@each-bolt/core/record';
import { of, throwError } from 'rxjs';
import { FULL_ROWS } from '../../../../core/testing/rows';
import { LEFT, STUDY, partNamed, recordOf, teardown, testId } from '../../../testing/record';
import { Session } from '../record/session';
import type { OutboxEntry } from '../record/stored';
import { OpenStudy } from '../record/open-study';
import type { ToldChange } from '@each-bolt/core/wire';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { Commands } from './commands';
import { ShellActs } from './shell-acts';

const plain = recordOf(teardown('plate 1 kg\nlever'));
const plate = { ...partNamed(plain, 'plate'), tag: tagText({ prefix: 'A', number: 7 }) };
const record = {
  ...plain,
  sheets: [
    {
      ...FULL_ROWS.sheet,
      id: testId(41),
      version: 1,
      vehicleId: LEFT.id,
      subsystemId: null,
      packageId: null,
      prefix: 'A',
      firstNumber: 1,
      count: 8,
    },
  ],
  parts: plain.parts.map((p) => (p.id === plate.id ? plate : p)),
  members: [{ id: testId(40), version: 1, personId: testId(900), role: 'lead' as const }],
};
const entry = (ops: readonly Op[]): OutboxEntry =>
  ({
    seq: 3,
    studyId: STUDY.id,
    personId: testId(900),
    typed: 'plate 2 kg',
    refusal: null,
    change: { id: testId(50), ops, undoes: null },
  }) as unknown as OutboxEntry;

describe('what the frame does', () => {
  let acts: ShellActs;
  let sent: (readonly Op[])[];
  let dropped: OutboxEntry[];
  let answer: { kept: boolean; refusal?: object };
  let chosen: { part: string };
  let can: boolean;
  let history: () => ReturnType<RecordApi['history']>;
  let whole: ReadonlyMap<string, object>;
  const refused = signal<readonly OutboxEntry[]>([]);
  const part = signal<unknown>(null);
  const pack = signal<unknown>(null);

  beforeEach(() => {
    [sent, dropped, answer, chosen, can] = [[], [], { kept: true }, { part: '' }, true];
    history = () => of([]);
    refused.set([]);
    part.set(null);
    pack.set(null);
    const service = {
      connection: 'here',
      refused,
      can: () => () => can,
      here: signal([
        { connection: 'here', name: 'Wenna Tarn', partId: null },
        { connection: 'there', name: 'Odo Farrow', partId: plate.id },
      ]),
      people: signal([
        { id: testId(900), name: 'Wenna Tarn' },
        { id: testId(901), name: 'Somebody else of the organisation' },
      ]),
      send: (ops: readonly Op[]) => {
        sent.push(ops);
        return Promise.resolve(answer);
      },
      drop: (one: OutboxEntry) => {
        dropped.push(one);
        refused.set([]);
        return Promise.resolve();
      },
    };
    TestBed.configureTestingModule({
      providers: [
        { provide: RecordService, useValue: service },
        { provide: RecordApi, useValue: { history: () => history(), change: (_study: string, id: string) => of(whole.get(id)) } },
        { provide: OpenStudy, useValue: { record: signal(record), study: signal(STUDY), partById: signal(new Map([[plate.id, plate]])) } },
        {
          provide: Selection,
          useValue: { part, pack, vehicle: signal(LEFT), subsystem: signal(null), choosePart: (id: string) => (chosen.part = id) },
        },
        { provide: Session, useValue: { ended: () => undefined } },
        { provide: Router, useValue: { url: '/studies/x/bench', navigate: () => Promise.resolve(true) } },
      ],
    });
    acts = TestBed.inject(ShellActs);
  });

  it('a question is about the chosen part, else the chosen package, else the vehicle', () => {
    expect(acts.about()).toMatchObject({ kind: 'vehicle', text: 'Left van' });
    pack.set({ id: testId(700), name: 'Door off' });
    expect(acts.about()).toMatchObject({ kind: 'package', text: 'Door off' });
    part.set(plate);
    expect(acts.about()).toMatchObject({ kind: 'part', id: plate.id, text: 'plate' });
  });
  it('who may not ask is told so, and no form is opened', () => {
    can = false;
    acts.ask();
    expect([acts.asking(), acts.said()]).toEqual([false, 'Your role does not ask questions; ask a lead of the study']);
  });
  it('those of the study are named, and the others who have it open, with the part they are at', () => {
    expect(acts.members().map((p) => p.name)).toEqual(['Wenna Tarn']);
    expect(acts.others()).toMatchObject([{ name: 'Odo Farrow', part: 'plate' }]);
  });
  it('a tag that is read opens its part; one that is on none, or is no tag, is told', () => {
    acts.scanned(plate.tag);
    expect([chosen.part, acts.said()]).toEqual([plate.id, `${plate.tag} is on “plate”`]);
    acts.scanned(tagText({ prefix: 'A', number: 8 }));
    expect(acts.said()).toBe(`${tagText({ prefix: 'A', number: 8 })} is on no part yet`);
    acts.scanned(tagText({ prefix: 'A', number: 9 }));
    expect(acts.said()).toContain('was never printed for this study');
    const wrong = `${plate.tag.slice(0, -1)}${plate.tag.endsWith('X') ? '1' : 'X'}`;
    acts.scanned(wrong);
    expect([chosen.part, acts.said() === '']).toEqual([plate.id, false]);
  });
  it('what was mended is sent and then taken from the list; what is refused again stays on it', async () => {
    const ops = [editOp('part', plate, { name: 'panel' })!];
    acts.showingNotKept.set(true);
    answer = { kept: false, refusal: { message: 'Not kept', issues: [{ message: 'Name is taken' }] } };
    await acts.mend({ entry: entry(ops), ops });
    expect([dropped, acts.said(), acts.showingNotKept()]).toEqual([[], 'Not kept. Name is taken', true]);
    answer = { kept: true };
    await acts.mend({ entry: entry(ops), ops });
    expect([sent.length, dropped.length, acts.showingNotKept()]).toEqual([2, 1, false]);
  });
  it('what is given up is sent no more', async () => {
    await acts.mend({ entry: entry([]), ops: [] });
    expect([sent, dropped.length]).toEqual([[], 1]);
  });
  it('a line that was refused goes back into the entry line', async () => {
    const heard: string[] = [];
    TestBed.runInInjectionContext(() => TestBed.inject(Commands).on('put-line-back', (text) => heard.push(text)));
    await acts.lineBack(entry([]));
    expect([heard, dropped.length]).toEqual([['plate 2 kg'], 1]);
  });
  it('a part somebody took off is put back with all that went with it, before one’s own values', async () => {
    const own = editOp('part', plate, { name: 'panel' })!;
    const removal = {
      ops: [{ kind: 'part.remove', id: plate.id }],
      inverse: [
        { kind: 'part.add', id: plate.id },
        { kind: 'fasteners.add', id: testId(8) },
      ],
    };
    // the history tells some of what was taken off, the change itself all of it
    const told = { id: testId(60), ops: removal.ops, inverse: [], opCount: 80 };
    history = () => of([{ ops: [own], inverse: [] }, told] as unknown as readonly ToldChange[]);
    whole = new Map([[told.id, removal]]);
    await acts.putBack({ entry: entry([own]), rowId: plate.id });
    expect(sent).toEqual([[...removal.inverse, own]]);
    history = () => throwError(() => ({ message: 'The server does not answer' }));
    await acts.putBack({ entry: entry([own]), rowId: plate.id });
    expect([sent.length, acts.said()]).toEqual([1, 'The server does not answer']);
  });
});

describe('a command', () => {
  @Component({ template: '', changeDetection: ChangeDetectionStrategy.OnPush })
  class Part {
    readonly heard: string[] = [];
    constructor() {
      inject(Commands).on('find', (text) => this.heard.push(text));
      inject(DestroyRef);
    }
  }
  it('goes to the part that carries it out, as long as that is there', () => {
    const commands = TestBed.inject(Commands);
    const part = TestBed.createComponent(Part);
    commands.give('find', 'lever');
    part.destroy();
    commands.give('find', 'plate');
    expect(part.componentInstance.heard).toEqual(['lever']);
  });
  it('waits for a part that is still being loaded, once, and not for ever', async () => {
    const commands = TestBed.inject(Commands);
    const clock = jest.spyOn(performance, 'now').mockReturnValue(1000);
    commands.give('find', 'lever');
    const part = TestBed.createComponent(Part);
    await Promise.resolve();
    expect(part.componentInstance.heard).toEqual(['lever']);
    expect(TestBed.createComponent(Part).componentInstance.heard).toEqual([]);
    part.destroy();
    TestBed.resetTestingModule();
    const again = TestBed.inject(Commands);
    again.give('find', 'late');
    clock.mockReturnValue(9000);
    const late = TestBed.createComponent(Part);
    await Promise.resolve();
    expect(late.componentInstance.heard).toEqual([]);
    clock.mockRestore();
  });
});
