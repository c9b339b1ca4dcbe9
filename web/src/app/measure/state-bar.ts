import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Choose, ChoicesPipe } from '../shared/choose';
import type { StateEntity, States } from './states';

/** Which state is looked at, which one beside it, and a new what-if with its reason. */
@Component({
  selector: 'eb-state-bar',
  imports: [ButtonDirective, InputText, Choose, ChoicesPipe],
  template: `@if (states(); as s) {
    <label
      >State
      <eb-choose
        [label]="'State of the ' + word()"
        [value]="s.chosenId()"
        (valueChange)="s.chosenId.set($event)"
        [options]="s.choices() | ebChoices: 'id' : 'name'"
      />
    </label>
    <label
      >beside
      <eb-choose
        label="Beside it"
        [value]="s.besideId()"
        (valueChange)="s.besideId.set($event)"
        [options]="s.others() | ebChoices: 'id' : 'name' : 'nothing'"
      />
    </label>
    @if (s.may()) {
      <form (submit)="whatIf($event, why)">
        <input pInputText #why type="text" maxlength="400" aria-label="What would a what-if tell?" placeholder="what would it tell?" />
        <button pButton severity="secondary" type="submit">What if …</button>
      </form>
      @if (s.chosen()?.isWhatIf) {
        <button pButton [text]="true" severity="secondary" type="button" (click)="s.remove()">Delete this what-if</button>
      }
    }
  }`,
  styles: `
    /* it shares the line of whatever else acts there */
    :host {
      display: contents;
    }
    label {
      font: 500 12.5px/1.5 var(--label);
      color: var(--soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StateBar {
  readonly states = input.required<States<StateEntity>>();
  /** what there are states of, in words */
  readonly word = input.required<string>();

  protected async whatIf(event: Event, why: HTMLInputElement): Promise<void> {
    event.preventDefault();
    if (await this.states().whatIf(why.value.trim())) why.value = '';
  }
}
