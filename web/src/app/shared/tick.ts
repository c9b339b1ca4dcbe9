import { ChangeDetectionStrategy, Component, forwardRef, input, model, signal } from '@angular/core';
import { FormsModule, NG_VALUE_ACCESSOR, type ControlValueAccessor } from '@angular/forms';
import { Checkbox } from 'primeng/checkbox';

/** A box to tick, with its words. */
@Component({
  selector: 'eb-tick',
  imports: [FormsModule, Checkbox],
  template: `<label>
    <p-checkbox
      [binary]="true"
      [disabled]="disabled() || isBarred()"
      [ngModel]="checked()"
      (ngModelChange)="take($event)"
      (onBlur)="touched()"
    />
    <span><ng-content /></span>
  </label>`,
  styles: `
    :host {
      display: inline-block;
    }
    label {
      display: inline-flex;
      align-items: flex-start;
      gap: 7px;
      padding: 3px 0;
      font-size: 13.5px;
      cursor: pointer;
    }
    p-checkbox {
      margin-top: 1px;
    }
    @media (pointer: coarse), (max-width: 1100px) {
      label {
        padding: 10px 0;
      }
    }
  `,
  providers: [{ provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => Tick), multi: true }],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Tick implements ControlValueAccessor {
  readonly checked = model(false);
  readonly disabled = input(false);

  protected readonly isBarred = signal(false);
  private changed: (value: boolean) => void = () => undefined;
  protected touched: () => void = () => undefined;

  protected take(value: boolean): void {
    this.checked.set(value);
    this.changed(value);
  }

  writeValue(value: boolean | null): void {
    this.checked.set(value ?? false);
  }

  registerOnChange(changed: (value: boolean) => void): void {
    this.changed = changed;
  }

  registerOnTouched(touched: () => void): void {
    this.touched = touched;
  }

  setDisabledState(isBarred: boolean): void {
    this.isBarred.set(isBarred);
  }
}
