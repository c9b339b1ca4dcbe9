import { ChangeDetectionStrategy, Component, computed, effect, inject, input, model, output, signal } from '@angular/core';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { EVIDENCE_MARKS, EVIDENCE_WORD, type EvidenceMark, type Issue } from '@each-bolt/core/shared';
import { editOp, fieldLabel, type Op, type Part } from '@each-bolt/core/record';
import { evidenceForm, evidenceFormHas, evidenceFromForm } from '@each-bolt/core/bench';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import { InputText } from 'primeng/inputtext';
import { ButtonDirective } from 'primeng/button';
import { RadioButton } from 'primeng/radiobutton';

const MEASURED: EvidenceMark = 'M';

/** Says how one value of a part is known. */
@Component({
  selector: 'eb-evidence-dialog',
  imports: [Dialog, InputText, ReactiveFormsModule, ButtonDirective, RadioButton, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="heading()"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [closeOnEscape]="!form.dirty"
    [style]="{ width: '460px' }"
  >
    <form [formGroup]="form" (ngSubmit)="save()">
      <fieldset role="radiogroup" aria-label="Evidence">
        @for (mark of marks; track mark) {
          <label>
            <p-radiobutton formControlName="mark" [value]="mark" />
            <span class="mark">{{ mark }}</span> {{ words[mark] }}
          </label>
        }
      </fieldset>
      @if (has().u) {
        <label for="evidence-u">±, with unit (expanded, k = 2)</label>
        <input id="evidence-u" pInputText formControlName="u" autocomplete="off" />
        <small role="alert">{{ faultOf('u') }}</small>
      }
      @if (has().range) {
        <label for="evidence-range">Range, where the count is not certain: 2-3, or 20+ for at least 20</label>
        <input id="evidence-range" pInputText formControlName="range" autocomplete="off" />
        <small role="alert">{{ faultOf('range') }}</small>
      }
      <label for="evidence-instrument">Instrument</label>
      <input id="evidence-instrument" pInputText formControlName="instrument" autocomplete="off" placeholder="bench scale 2" />
      <label for="evidence-source">Who or what says so</label>
      <input id="evidence-source" pInputText formControlName="source" autocomplete="off" placeholder="supplier’s sheet, picture 4" />
      <div class="buttons">
        <button pButton severity="secondary" type="button" (click)="visible.set(false)">Cancel</button>
        <button pButton type="submit">Save</button>
      </div>
    </form>
  </p-dialog>`,
  styles: `
    form {
      display: grid;
      gap: 4px;
    }
    fieldset {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 6px 12px;
      border: 0;
      padding: 0;
      margin: 0 0 8px;
    }
    fieldset label {
      color: var(--ink);
    }
    label {
      font: 500 13px/1.4 var(--label);
      color: var(--soft);
    }
    .mark {
      display: inline-block;
      width: 18px;
      text-align: center;
      font: 500 13px/1 var(--figure);
    }
    small {
      color: var(--amber);
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 10px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EvidenceDialog {
  readonly visible = model(false);
  readonly part = input.required<Part>();
  readonly field = input.required<string>();
  readonly saved = output<Op>();

  protected readonly marks = EVIDENCE_MARKS;
  protected readonly words = EVIDENCE_WORD;
  protected readonly form = inject(FormBuilder).nonNullable.group({
    mark: MEASURED,
    u: '',
    range: '',
    instrument: '',
    source: '',
  });
  private readonly issues = signal<readonly Issue[]>([]);
  protected readonly has = computed(() => evidenceFormHas(this.field()));
  protected readonly heading = computed(() => `${fieldLabel('part', this.field() as never)}: how is it known?`);

  constructor() {
    effect(() => {
      if (!this.visible()) return;
      this.issues.set([]);
      this.form.setValue({ ...evidenceForm('part', this.part(), this.field()) });
    });
  }

  protected faultOf(field: string): string {
    return this.issues().find((issue) => issue.field === field)?.message ?? '';
  }

  protected save(): void {
    const read = evidenceFromForm(this.form.getRawValue(), this.part(), this.field());
    this.issues.set(read.ok ? [] : read.issues);
    if (!read.ok) return;
    const op = editOp('part', this.part(), read.value);
    this.visible.set(false);
    if (op) this.saved.emit(op);
  }
}
