import {
  ChangeDetectionStrategy,
  Component,
  Pipe,
  computed,
  forwardRef,
  input,
  linkedSignal,
  model,
  signal,
  viewChild,
  type PipeTransform,
} from '@angular/core';
import { FormsModule, NG_VALUE_ACCESSOR, NgModel, type ControlValueAccessor } from '@angular/forms';
import { Select } from 'primeng/select';

/** What can be chosen: the value that is kept, and the word people read. */
export interface Choice {
  readonly value: string;
  readonly word: string;
}

/**
 * Rows as choices: `vehicles | ebChoices: 'id' : 'name'`; words stand for themselves: `units | ebChoices`. The word of no choice,
 * where none may be made, comes first.
 */
@Pipe({ name: 'ebChoices' })
export class ChoicesPipe implements PipeTransform {
  transform<T extends string | object>(rows: readonly T[], value?: keyof T, word = value, none?: string): readonly Choice[] {
    const of = (row: T, key?: keyof T): string => (key === undefined ? (row as string) : (row[key] as string));
    const choices = rows.map((row) => ({ value: of(row, value), word: of(row, word) }));
    return none === undefined ? choices : [{ value: '', word: none }, ...choices];
  }
}

/** More choices than are seen at once are looked through by typing. */
const SEEN_AT_ONCE = 12;

/** One of several choices, from a list that opens. */
@Component({
  selector: 'eb-choose',
  imports: [FormsModule, Select],
  template: `<p-select
    [inputId]="inputId()"
    [ariaLabel]="label()"
    [options]="list()"
    optionLabel="word"
    optionValue="value"
    appendTo="body"
    [filter]="list().length > most"
    [autofocusFilter]="true"
    [resetFilterOnHide]="true"
    ariaFilterLabel="Look for"
    emptyFilterMessage="Nothing of that name"
    emptyMessage="Nothing to choose"
    [placeholder]="placeholder()"
    [fluid]="true"
    [pt]="pass"
    [invalid]="invalid()"
    [disabled]="disabled() || isBarred()"
    [ngModel]="shown()"
    (ngModelChange)="take($event)"
    (onHide)="touched()"
  />`,
  styles: `
    :host {
      display: inline-block;
      min-width: 0;
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => Choose), multi: true }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Choose implements ControlValueAccessor {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Choice[]>();
  readonly value = model('');
  readonly placeholder = input('');
  readonly disabled = input(false);
  readonly invalid = input(false);
  readonly inputId = input<string>();

  protected readonly most = SEEN_AT_ONCE;
  /** the arrow says nothing that the field does not say */
  protected readonly pass = { dropdown: { role: 'presentation', 'aria-hidden': 'true', 'aria-label': null } };
  protected readonly list = computed(() => [...this.options()]);
  protected readonly isBarred = signal(false);
  /** what the list shows; it goes back to the value it is told where a choice is answered with another */
  protected readonly shown = linkedSignal(() => this.value());
  private readonly field = viewChild(NgModel);
  private changed: (value: string) => void = () => undefined;
  protected touched: () => void = () => undefined;

  protected take(value: string): void {
    this.shown.set(value);
    this.value.set(value);
    this.changed(value);
    // where the choice is an act, or is answered with another value, the field goes back to what it is told
    queueMicrotask(() => {
      this.shown.set(this.value());
      if (this.value() !== value) this.field()?.control.setValue(this.value(), { emitViewToModelChange: false });
    });
  }

  writeValue(value: string | null): void {
    this.value.set(value ?? '');
  }

  registerOnChange(changed: (value: string) => void): void {
    this.changed = changed;
  }

  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }

  setDisabledState(isBarred: boolean): void {
    this.isBarred.set(isBarred);
  }
}
