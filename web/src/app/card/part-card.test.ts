import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Op, Part } from '@each-bolt/core/record';
import { totalsOf } from '@each-bolt/core/bench';
import { studyRollUp, studyShown } from '@each-bolt/core/cost';
import { FULL_ROWS, ROW_ID } from '../../../../core/testing/rows';
import { STUDY, partNamed, recordOf, teardown } from '../../../testing/record';
import { words } from '../../../testing/words';
import { PartCard } from './part-card';

const record = recordOf(teardown('module\n  plate dc04 stamp 2 kg\n  2-3x guide pom 50 g\nlever ~100 g'));
const rollUp = studyRollUp(record);
const named = (name: string): Part => partNamed(record, name);

describe('the card of a part', () => {
  let fixture: ComponentFixture<PartCard>;
  let heard: string[];
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const button = (text: string): HTMLButtonElement | undefined =>
    [...element().querySelectorAll('button')].find((b) => b.textContent.trim() === text || b.getAttribute('aria-label') === text);
  const press = async (text: string): Promise<void> => {
    button(text)!.click();
    await fixture.whenStable();
  };
  const set = async (inputs: Readonly<Record<string, unknown>>): Promise<void> => {
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
  };
  const show = (part: Part, more: Readonly<Record<string, unknown>> = {}): Promise<void> =>
    set({
      ...{ part, study: STUDY, cost: null, sets: [], isAssembly: record.parts.some((p) => p.parentId === part.id) },
      figures: studyShown(totalsOf(rollUp.rolled, part.id)!, true),
      ...more,
    });

  beforeEach(async () => {
    heard = [];
    fixture = TestBed.createComponent(PartCard);
    const card = fixture.componentInstance;
    card.remove.subscribe(() => heard.push('remove'));
    card.why.subscribe((measure) => heard.push(`why ${measure}`));
    card.sayEvidence.subscribe((field) => heard.push(`known ${field}`));
    card.edit.subscribe((on) => heard.push(`edit ${on}`));
    card.ops.subscribe((ops: readonly Op[]) => heard.push(...ops.map((op) => op.kind)));
    await show(named('plate'));
  });

  it('has every figure with its unit and how it is known, and leads from each to why', async () => {
    const text = words(element());
    expect(text).toMatch(/Mass 2\.000 kg/);
    expect(text).toContain('Material DC04');
    for (const measure of ['count', 'mass', 'cost']) await press(`How do we know the ${measure}?`);
    await press('Material: how is it known?');
    expect(heard).toEqual(['why count', 'why mass', 'why cost', 'known materialId']);
  });
  it('of an assembly counts what is inside it, with the range that is left', async () => {
    await show(named('module'));
    expect(words(element())).toContain('With everything inside, by the counting rule Count 3 (3 to 4)');
  });
  it('of a part without a mass has none: absent is not zero', async () => {
    await show({ ...named('plate'), massEachKg: null, evidence: {} }, { figures: null });
    expect(words(element())).not.toMatch(/Mass 0/);
  });

  it('asks for the part to be deleted; what goes with it is shown before that is done', async () => {
    await press('Delete');
    expect(heard).toEqual(['remove']);
  });
  it('offers to readers what readers do, and nothing else', async () => {
    await set({ mayEdit: false, mayRecord: false, mayAsk: true });
    const offered = [...element().querySelectorAll('button')].map((b) => b.textContent.trim());
    for (const act of ['Edit', 'Delete', 'Record inside', '+ set']) expect(offered).not.toContain(act);
    for (const act of ['Evidence', 'History', '+ question']) expect(offered).toContain(act);
  });
  it('shows what was refused above everything, and who else is at the part', async () => {
    await set({
      refusal: {
        code: 'invalid',
        message: 'Not kept',
        issues: [{ code: 'x', message: 'Name must not be empty', field: null, recordId: null }],
      },
      others: 'Odo Farrow has it open',
    });
    expect(words(element().querySelector('[role=alert]')!)).toBe('Not kept Name must not be empty');
    expect(words(element())).toContain('Odo Farrow has it open');
  });
  it('tells of each question what became of it', async () => {
    const question = { id: ROW_ID.question, version: 1, ...FULL_ROWS.question };
    await set({
      questions: [
        question,
        { ...question, id: 'b', state: 'open', text: 'And with it?' },
        { ...question, id: 'c', state: 'open', kind: 'question', dueOn: null, text: 'Why?' },
        { ...question, id: 'd', state: 'dropped', text: 'How?' },
      ],
    });
    const told = [...element().querySelectorAll('.question')].map(words);
    expect(told).toEqual([
      'What does it weigh without the nut? 152 g',
      'And with it? promised to cost, due 2026-06-01',
      'Why? open',
      'How? dropped',
    ]);
  });
  it('has the readings as they were taken, word for word', async () => {
    await set({ readings: [{ id: 'r', text: '164.0 g', raw: 'READ 3,MASS,1.640000e-1,KG', from: 'Bench scale, Odo Farrow' }] });
    const reading = element().querySelector('.reading')!;
    expect([words(reading), reading.getAttribute('title')]).toEqual(['164.0 g Bench scale, Odo Farrow', 'READ 3,MASS,1.640000e-1,KG']);
  });
});
