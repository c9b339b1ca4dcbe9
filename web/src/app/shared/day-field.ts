import { ChangeDetectionStrategy, Component, computed, forwardRef, input, model, signal } from '@angular/core';
import { FormsModule, NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { isDay } from '@each-bolt/core/shared';
import { lightFormat } from 'date-fns';
import { DatePicker } from 'primeng/datepicker';

/**
 * A day of the calendar, written as YYYY-MM-DD or chosen from a sheet. What is written and is no day is told as it was written,
 * so that it can be answered with what is wrong.
 */
@Component({
  selector: 'eb-day-field',
  imports: [FormsModule, DatePicker],
  template: `<p-datepicker
    [inputId]="inputId()"
    [ariaLabel]="label()"
    dateFormat="yy-mm-dd"
    [placeholder]="placeholder()"
    [showIcon]="true"
    iconDisplay="input"
    [showOnFocus]="false"
    [keepInvalid]="true"
    [firstDayOfWeek]="1"
    appendTo="body"
    [fluid]="true"
    [disabled]="disabled() || isBarred()"
    [ngModel]="shown()"
    (input)="written.set($any($event.target).value)"
    (onSelect)="written.set($event); tell()"
    (onBlur)="tell(); touched()"
    (keydown.enter)="tell()"
  />`,
  styles: `
    :host {
      display: inline-block;
      min-width: 0;
      width: 136px;
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => DayField), multi: true }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DayField implements ControlValueAccessor {
  readonly label = input.required<string>();
  readonly value = model('');
  readonly placeholder = input('');
  readonly disabled = input(false);
  readonly inputId = input<string>();

  protected readonly isBarred = signal(false);
  protected readonly shown = computed(() => {
    const value = this.value();
    return isDay(value) ? new Date(`${value}T00:00`) : value === '' ? null : value;
  });
  /** what the field holds and has not told yet */
  protected readonly written = signal<Date | string | null>(null);
  private changed: (value: string) => void = () => undefined;
  protected touched: () => void = () => undefined;

  protected tell(): void {
    const written = this.written();
    if (written === null) return;
    this.written.set(null);
    const text = written instanceof Date ? lightFormat(written, 'yyyy-MM-dd') : written.trim();
    if (text === this.value()) return;
    this.value.set(text);
    this.changed(text);
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
