import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { ENTITIES, applyOps, emptyRecord, type Op } from '@each-bolt/core/record';
import { studyRollUp } from '@each-bolt/core/cost';
import { BARE_ROWS, FULL_ROWS, PERSON_ID, ROW_ID } from '../../../../core/testing/rows';
import { testId } from '../../../testing/record';
import { Names } from './names';
import { RecordService } from './record-service';

const namesOf = (rows: typeof FULL_ROWS): ((id: string) => string | null) => {
  const ops = ENTITIES.filter((e) => e !== 'study').map((e) => ({ kind: `${e}.add`, id: ROW_ID[e], fields: rows[e] }) as unknown as Op);
  const record = applyOps(emptyRecord({ id: ROW_ID.study, version: 1, ...rows.study }), ops, 1);
  TestBed.resetTestingModule();
  TestBed.configureTestingModule({
    providers: [
      {
        provide: RecordService,
        useValue: {
          state: signal({ kind: 'ready', record, rollUp: studyRollUp(record) }),
          people: signal([{ id: PERSON_ID, name: 'Odo Farrow' }]),
        },
      },
    ],
  });
  return TestBed.inject(Names).of();
};

describe('what records are called', () => {
  const names = namesOf(FULL_ROWS);
  it.each(ENTITIES.map((entity) => [entity] as const))('%s: has a name for people, which is not its id', (entity) => {
    const name = names(ROW_ID[entity]);
    expect(name).toMatch(/\S/);
    expect(name).not.toContain('-0000-');
  });
  it('are the words people gave them', () => {
    const named = (['vehicle', 'part', 'fasteners', 'member', 'scan', 'scope', 'step', 'picture'] as const).map((e) => names(ROW_ID[e]));
    expect(named).toEqual([
      'Drayman II',
      'bracket',
      expect.stringContaining('12-14 M6x0.75x16'),
      'Odo Farrow',
      'bracket.stl',
      'Sliding cargo door of Drayman II',
      'bracket',
      'the bent flange',
    ]);
  });
  it('of people are theirs; of what is not there is nothing', () =>
    expect([names(PERSON_ID), names(testId(1))]).toEqual(['Odo Farrow', null]));
  it('are something also where nobody gave one', () => {
    const bare = namesOf(BARE_ROWS);
    expect([bare(ROW_ID.picture), bare(ROW_ID.step)]).toEqual(['picture', 'a removal']);
  });
});
