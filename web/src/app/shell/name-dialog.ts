import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, input, model, output, signal, viewChild } from '@angular/core';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import { InputText } from 'primeng/inputtext';
import { ButtonDirective } from 'primeng/button';
import { Choose, ChoicesPipe } from '../shared/choose';

/** Asks for one name, and a role where roles are given. */
@Component({
  selector: 'eb-name-dialog',
  imports: [Dialog, InputText, ButtonDirective, Choose, ChoicesPipe, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="heading()"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [style]="{ width: '420px' }"
    (onShow)="focus()"
  >
    <form (submit)="submit($event)">
      <label for="new-name">Name</label>
      <input #name id="new-name" pInputText autocomplete="off" maxlength="200" />
      @if (roles().length > 0) {
        <label for="new-role">Role in the study</label>
        <eb-choose
          #role
          inputId="new-role"
          label="Role in the study"
          [value]="roles()[0]?.value ?? ''"
          [options]="roles() | ebChoices: 'value' : 'label'"
        />
      }
      @if (fault() !== '') {
        <p class="fault" role="alert">{{ fault() }}</p>
      }
      <div class="buttons">
        <button pButton severity="secondary" type="button" (click)="visible.set(false)">Cancel</button>
        <button pButton type="submit">Add</button>
      </div>
    </form>
  </p-dialog>`,
  styles: `
    form {
      display: grid;
      gap: 6px;
    }
    label {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
    }
    select {
      height: 34px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      font-size: 14px;
      padding: 0 6px;
    }
    .fault {
      color: var(--amber);
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 12px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NameDialog {
  readonly heading = input.required<string>();
  readonly roles = input<readonly { readonly value: string; readonly label: string }[]>([]);
  readonly visible = model(false);
  readonly named = output<{ readonly name: string; readonly role: string }>();
  protected readonly fault = signal('');
  private readonly name = viewChild<ElementRef<HTMLInputElement>>('name');
  private readonly role = viewChild<Choose>('role');

  protected focus(): void {
    this.fault.set('');
    this.name()?.nativeElement.focus();
  }

  protected submit(event: Event): void {
    event.preventDefault();
    const name = this.name()?.nativeElement.value.trim() ?? '';
    if (name === '') {
      this.fault.set('Give it a name');
      return;
    }
    this.named.emit({ name, role: this.role()?.value() ?? '' });
    this.visible.set(false);
  }
}
