import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { STAGES, STAGE_WORD } from '@each-bolt/core/shared';
import { words } from '../../../testing/words';
import { Strip, type Beside, type StageFigures } from './strip';

const figures = Object.fromEntries(
  STAGES.map((stage, n) => [stage, { figure: `${n} of 9`, progress: n === 0 ? 'full' : n === 1 ? 'half' : 'empty' }]),
) as unknown as StageFigures;
const beside: Beside = { questions: '3 open, 2 late', late: true, revision: 41, here: [] };

describe('the strip of stages', () => {
  let fixture: ComponentFixture<Strip>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideRouter([])] });
    fixture = TestBed.createComponent(Strip);
    for (const [name, value] of Object.entries({ title: 'Last-mile vans', figures, beside })) fixture.componentRef.setInput(name, value);
    await fixture.whenStable();
  });
  const stages = (): readonly Element[] => [...element().querySelectorAll('nav[aria-label="Stages"] .stage')];
  const links = (): readonly (Element | null)[] => stages().map((stage) => stage.querySelector('a'));

  it('has the stages in the order of work, each with one live figure', () =>
    expect(stages().map(words)).toEqual(STAGES.map((stage, n) => `${STAGE_WORD[stage]} ${n} of 9`)));
  it('leads to each of them', () => expect(links().map((a) => a?.getAttribute('href'))).toEqual(STAGES.map((stage) => `/${stage}`)));
  it('tells how far each has come by more than colour: empty, half or full', () =>
    expect(stages().map((a) => a.querySelectorAll('path').length)).toEqual(STAGES.map((_, n) => (n < 2 ? 2 : 1))));
  it('opens the list behind a figure, each line leading to its place', async () => {
    const line = { name: 'Sliding cargo door, Drayman II', figure: '166 counted', path: 'bench/record', params: { vehicle: 'v1' } };
    fixture.componentRef.setInput('behind', (stage: string) => () => (stage === 'bench' ? [line] : []));
    element().querySelector<HTMLButtonElement>('button[aria-label^="Bench: 1 of 9"]')!.click();
    await fixture.whenStable();
    const list = document.querySelector('[role=dialog]')!;
    expect(words(list)).toBe('Sliding cargo door, Drayman II 166 counted');
    expect(list.querySelector('a')?.getAttribute('href')).toBe('/bench/record?vehicle=v1');
  });
  it('says what is late, at which revision the study is, and who else is here', async () => {
    const text = (): string => words(element().querySelector('.beside')!);
    expect(text()).toBe('Questions 3 open, 2 late History revision 41 People only you here');
    expect(element().querySelector('.late')).not.toBeNull();
    fixture.componentRef.setInput('beside', { ...beside, late: false, here: ['Odo Farrow', 'Lisk Amberley'] });
    await fixture.whenStable();
    expect([text().endsWith('People Odo Farrow, Lisk Amberley'), element().querySelector('.late')]).toEqual([true, null]);
  });
});
