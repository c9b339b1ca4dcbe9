import { ChangeDetectionStrategy, Component, signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { Choose, ChoicesPipe } from './choose';
import { DayField } from './day-field';
import { Tick } from './tick';

@Component({
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Choose, ChoicesPipe, DayField, ReactiveFormsModule, Tick],
  template: `<eb-choose label="Hazard" [(value)]="hazard" [options]="hazards | ebChoices: 'id' : 'name' : 'any hazard'" />
    <eb-choose label="Unit" [formControl]="unit" [options]="units | ebChoices" />
    <eb-choose #add label="Add one" [options]="units | ebChoices" (valueChange)="$event !== '' && added.push($event); add.value.set('')" />
    <eb-day-field label="Due" [value]="due()" (valueChange)="told.push($event)" />
    <eb-tick [(checked)]="ticked">only rows with faults</eb-tick>`,
})
class Host {
  readonly hazard = signal('');
  readonly hazards = [
    { id: 'hv', name: 'High voltage' },
    { id: 'fuel', name: 'Fuel' },
  ];
  readonly units = ['mm', 'in'];
  readonly unit = new FormControl('in');
  readonly added: string[] = [];
  readonly due = signal('2026-06-03');
  readonly told: string[] = [];
  readonly ticked = signal(false);
}

describe('controls', () => {
  let fixture: ComponentFixture<Host>;
  const element = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const settle = async (): Promise<void> => {
    fixture.detectChanges();
    await fixture.whenStable();
    fixture.detectChanges();
  };
  const list = (label: string): HTMLElement => element().querySelector<HTMLElement>(`[role=combobox][aria-label="${label}"]`)!;
  const choose = async (label: string, word: string): Promise<void> => {
    list(label).click();
    await settle();
    [...document.querySelectorAll<HTMLElement>('[role=option]')].find((option) => option.textContent.trim() === word)!.click();
    await settle();
  };
  beforeEach(async () => {
    fixture = TestBed.createComponent(Host);
    await settle();
  });

  it('a list shows the word of its value, none included, and gives the value of a word', async () => {
    expect(list('Hazard').textContent.trim()).toBe('any hazard');
    await choose('Hazard', 'Fuel');
    expect([fixture.componentInstance.hazard(), list('Hazard').textContent.trim()]).toEqual(['fuel', 'Fuel']);
    fixture.componentInstance.hazard.set('hv');
    await settle();
    expect(list('Hazard').textContent.trim()).toBe('High voltage');
  });
  it('a list takes part in a form', async () => {
    expect(list('Unit').textContent.trim()).toBe('in');
    await choose('Unit', 'mm');
    expect(fixture.componentInstance.unit.value).toBe('mm');
    fixture.componentInstance.unit.setValue('in');
    await settle();
    expect(list('Unit').textContent.trim()).toBe('in');
  });
  it('a list whose choice is an act is empty again, for the same one to be chosen once more', async () => {
    await choose('Add one', 'mm');
    await choose('Add one', 'mm');
    expect(fixture.componentInstance.added).toEqual(['mm', 'mm']);
    expect(list('Add one').textContent.trim()).toBe('');
  });
  it('a day is written and told when the field is left; what is no day is told as it was written', async () => {
    const field = element().querySelector<HTMLInputElement>('input[aria-label="Due"]')!;
    expect(field.value).toBe('2026-06-03');
    const write = async (text: string): Promise<void> => {
      field.value = text;
      field.dispatchEvent(new Event('input', { bubbles: true }));
      field.dispatchEvent(new Event('blur'));
      await settle();
    };
    await write('2026-07-01');
    await write('2026-02-30');
    await write('');
    expect(fixture.componentInstance.told).toEqual(['2026-07-01', '2026-02-30', '']);
  });
  it('a box is ticked by its words', async () => {
    element().querySelector<HTMLElement>('eb-tick label')!.click();
    await settle();
    expect(fixture.componentInstance.ticked()).toBe(true);
  });
});
