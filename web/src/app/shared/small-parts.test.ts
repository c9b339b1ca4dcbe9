import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Type } from '@angular/core';
import { EVIDENCE_MARKS } from '@each-bolt/core/shared';
import { words } from '../../../testing/words';
import { KEY_GROUPS, isTyping } from '../shell/keys';
import { EvidenceMark } from './evidence-mark';
import { CountPipe, MassPipe, MoneyPipe } from './pipes';
import { RefusalNote } from './refusal-note';
import { toggled } from './tree-cursor';
import { ViewTabs } from './view-tabs';

const made = async <T>(part: Type<T>, inputs: Readonly<Record<string, unknown>>): Promise<ComponentFixture<T>> => {
  const fixture = TestBed.createComponent(part);
  for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
  await fixture.whenStable();
  return fixture;
};
const element = (fixture: ComponentFixture<unknown>): HTMLElement => fixture.nativeElement as HTMLElement;

describe('figures in tables', () => {
  it('have the same decimals all the way down, and absent is not zero', () => {
    const [mass, money, count] = [new MassPipe(), new MoneyPipe(), new CountPipe()];
    expect([mass.transform(1.8364), mass.transform(0), mass.transform(null), mass.transform(undefined)]).toEqual([
      '1.836',
      '0.000',
      '–',
      '–',
    ]);
    expect([money.transform(14.326), money.transform(0), money.transform(null)]).toEqual(['14.33', '0.00', '–']);
    expect(count.transform(12_345)).toMatch(/^12\s345$/);
    expect([count.transform(0), count.transform(null)]).toEqual(['0', '–']);
  });
});

describe('the mark of how a figure is known', () => {
  it.each(EVIDENCE_MARKS.map((mark) => [mark] as const))('%s: is told in words to those who do not see it', async (mark) => {
    const box = element(await made(EvidenceMark, { mark })).querySelector('[role=img]');
    expect(box?.textContent).toBe(mark);
    expect(box?.getAttribute('aria-label')).toMatch(/[a-z]{3}/);
  });
  it('is dashed where it is weak, so that colour is never alone', async () => {
    const weak = await Promise.all(
      EVIDENCE_MARKS.map(async (mark) => (element(await made(EvidenceMark, { mark })).querySelector('.weak') ? mark : '')),
    );
    expect(weak.filter((m) => m !== '').sort()).toEqual(['?', 'I', 'R']);
  });
  it('of a total says what rests on it', async () => {
    const label = async (inputs: object): Promise<string | null | undefined> =>
      element(await made(EvidenceMark, { mark: 'I', ...inputs }))
        .querySelector('[role=img]')
        ?.getAttribute('aria-label');
    expect(await label({ share: '8 %' })).toMatch(/^weakest evidence: .*, 8 % of the mass$/);
    expect(await label({ of: 'the count' })).toMatch(/^the count: weakest evidence /);
  });
  it('keeps its room where there is none', async () =>
    expect(element(await made(EvidenceMark, { mark: null })).querySelector('[aria-hidden=true]')).not.toBeNull());
});

describe('what was refused', () => {
  it('is told at once to those who do not see it, fault by fault, with what to do', async () => {
    const issues = [
      { code: 'a', message: 'A mass needs its uncertainty', field: null, recordId: null },
      { code: 'b', message: 'Say why the part was left closed', field: null, recordId: null },
    ];
    const fixture = await made(RefusalNote, { message: 'Not kept', issues, action: 'Try again' });
    let acted = 0;
    fixture.componentInstance.acted.subscribe(() => (acted += 1));
    const alert = element(fixture).querySelector('[role=alert]')!;
    expect(words(alert)).toBe('Not kept Try again A mass needs its uncertainty Say why the part was left closed');
    alert.querySelector('button')?.click();
    expect(acted).toBe(1);
  });
  it('has no button where there is nothing to do', async () =>
    expect(element(await made(RefusalNote, { message: 'Not kept' })).querySelector('button, ul')).toBeNull());
});

describe('views of a sheet', () => {
  it('show which one is open, and open another', async () => {
    const tabs = [
      { view: 'materials', word: 'Materials' },
      { view: 'processes', word: 'Processes' },
    ];
    const fixture = await made(ViewTabs as Type<ViewTabs<string>>, { tabs, view: 'materials' });
    const chosen = (): readonly (string | null)[] =>
      [...element(fixture).querySelectorAll('[role=tab]')].map((t) => t.getAttribute('aria-selected'));
    expect(chosen()).toEqual(['true', 'false']);
    element(fixture).querySelectorAll('button')[1]?.click();
    await fixture.whenStable();
    expect([chosen(), fixture.componentInstance.view()]).toEqual([['false', 'true'], 'processes']);
  });
});

describe('keys', () => {
  it('of our own each do one thing only in one place', () => {
    for (const { title, keys } of KEY_GROUPS) {
      const pressed = keys.map((k) => k.keys.join('+'));
      expect([title, pressed]).toEqual([title, [...new Set(pressed)]]);
    }
  });
  it('are text while somebody types into a field, a list or a dialog', () => {
    document.body.innerHTML =
      '<input><textarea></textarea><select></select><p>words</p><div class="p-dialog"><button>Add</button></div><button>Edit</button>';
    const typing = [...document.body.querySelectorAll('input, textarea, select, p, button')].map(
      (e) => `${e.textContent || e.tagName} ${isTyping(e)}`,
    );
    expect(typing).toEqual(['INPUT true', 'TEXTAREA true', 'SELECT true', 'words false', 'Add true', 'Edit false']);
    expect(isTyping(null)).toBe(false);
    document.body.innerHTML = '';
  });
});

describe('a set of opened branches', () => {
  it('gets a key it lacks and loses one it has, and is never changed itself', () => {
    const open = new Set(['a']);
    expect([[...toggled(open, 'b')], [...toggled(open, 'a')], [...open]]).toEqual([['a', 'b'], [], ['a']]);
  });
});
