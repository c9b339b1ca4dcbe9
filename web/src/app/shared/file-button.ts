import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { ButtonDirective } from 'primeng/button';

/** A button that opens the system's own choice of files, and takes what is dropped on it. */
@Component({
  selector: 'eb-file-button',
  imports: [ButtonDirective],
  template: `<label pButton [severity]="isMain() ? null : 'secondary'">
    <ng-content />
    <input
      type="file"
      [accept]="accept()"
      [multiple]="multiple()"
      [attr.capture]="isCamera() ? 'environment' : null"
      [attr.aria-label]="label()"
      (change)="choose($any($event.target))"
    />
  </label>`,
  styles: `
    :host {
      display: inline-flex;
    }
    label {
      position: relative;
      overflow: hidden;
      width: 100%;
    }
    label:focus-within {
      outline: 2px solid var(--dye);
      outline-offset: 1px;
    }
    input {
      position: absolute;
      inset: 0;
      opacity: 0;
      cursor: pointer;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FileButton {
  readonly label = input.required<string>();
  readonly accept = input.required<string>();
  readonly multiple = input(false);
  readonly isMain = input(false);
  /** opens the camera of a tablet at once, the one that looks away */
  readonly isCamera = input(false);
  readonly picked = output<readonly File[]>();

  protected choose(field: HTMLInputElement): void {
    const files = [...(field.files ?? [])];
    // the same file may be chosen once more
    field.value = '';
    if (files.length > 0) this.picked.emit(files);
  }
}
