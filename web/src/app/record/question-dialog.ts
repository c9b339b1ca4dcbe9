import { ChangeDetectionStrategy, Component, computed, effect, inject, input, model, output, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormBuilder, ReactiveFormsModule } from '@angular/forms';
import { check, type Issue } from '@each-bolt/core/shared';
import { schemaOf, editTo, rowFaults, type Op, type Question, type QuestionFields } from '@each-bolt/core/record';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import { InputText } from 'primeng/inputtext';
import { Textarea } from 'primeng/textarea';
import { ButtonDirective } from 'primeng/button';
import { RadioButton } from 'primeng/radiobutton';
import { DayField } from '../shared/day-field';
import { Choose, ChoicesPipe } from '../shared/choose';

/** What a new question is about. */
export interface About {
  readonly kind: QuestionFields['aboutKind'];
  readonly id: string;
  readonly field: string | null;
  /** in words: "carrier plate, mass each" */
  readonly text: string;
  /** what is asked, where that is known already; the person who asks may write it otherwise */
  readonly asks?: string;
}

/** A question to be answered or a figure owed: asked, given to somebody, answered. */
@Component({
  selector: 'eb-question-dialog',
  imports: [Dialog, InputText, ReactiveFormsModule, Textarea, ButtonDirective, Choose, ChoicesPipe, DayField, RadioButton, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="heading()"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [closeOnEscape]="!form.dirty"
    [style]="{ width: '520px' }"
  >
    <form [formGroup]="form" (ngSubmit)="save()">
      <p class="soft">About: {{ aboutText() }}</p>
      <div class="kinds" role="radiogroup" aria-label="Kind">
        <label><p-radiobutton formControlName="kind" value="question" /> an open question</label>
        <label><p-radiobutton formControlName="kind" value="promise" /> a figure promised to somebody</label>
      </div>
      <label for="q-text">{{ isPromise() ? 'Which figure' : 'What is to be found out' }}</label>
      <textarea id="q-text" pTextarea rows="2" formControlName="text"></textarea>
      <small role="alert">{{ faultOf('text') }}</small>
      @if (isPromise()) {
        <label for="q-owed">Promised to</label>
        <input id="q-owed" pInputText formControlName="owedTo" autocomplete="off" />
        <small role="alert">{{ faultOf('owedTo') }}</small>
      }
      <div class="two">
        <label>
          <span>Assigned to</span>
          <eb-choose label="Assigned to" formControlName="ownerId" [options]="people() | ebChoices: 'id' : 'name' : 'nobody yet'" />
        </label>
        <label>
          <span>Due</span>
          <eb-day-field label="Due" formControlName="dueOn" />
        </label>
      </div>
      <small role="alert">{{ faultOf('dueOn') }}</small>
      @if (question(); as asked) {
        <label for="q-answer">Answer</label>
        <textarea id="q-answer" pTextarea rows="2" formControlName="answer"></textarea>
        <small role="alert">{{ faultOf('answer') }}</small>
        <div class="kinds" role="radiogroup" aria-label="State">
          <label><p-radiobutton formControlName="state" value="open" /> open</label>
          <label><p-radiobutton formControlName="state" value="answered" /> {{ asked.kind === 'promise' ? 'kept' : 'answered' }}</label>
          <label><p-radiobutton formControlName="state" value="dropped" /> dropped</label>
        </div>
      }
      @for (fault of otherFaults(); track $index) {
        <small role="alert">{{ fault.message }}</small>
      }
      <div class="buttons">
        <button pButton severity="secondary" type="button" (click)="visible.set(false)">Cancel</button>
        <button pButton type="submit">{{ question() ? 'Save' : 'Attach it' }}</button>
      </div>
    </form>
  </p-dialog>`,
  styles: `
    form {
      display: grid;
      gap: 5px;
    }
    label {
      font: 500 13px/1.3 var(--label);
      color: var(--soft);
    }
    .kinds {
      display: flex;
      gap: 18px;
      margin: 4px 0;
    }
    .kinds label {
      color: var(--ink);
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 12px;
    }
    .two label {
      display: grid;
      gap: 3px;
    }
    select {
      height: 36px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 0 6px;
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
export class QuestionDialog {
  readonly visible = model(false);
  /** the question to answer, or null for a new one */
  readonly question = input<Question | null>(null);
  readonly about = input.required<About>();
  readonly people = input.required<readonly { readonly id: string; readonly name: string }[]>();
  readonly saved = output<Op>();

  protected readonly form = inject(FormBuilder).nonNullable.group({
    kind: 'question',
    text: '',
    owedTo: '',
    ownerId: '',
    dueOn: '',
    answer: '',
    state: 'open',
  });
  private readonly issues = signal<readonly Issue[]>([]);
  private readonly kind = toSignal(this.form.controls.kind.valueChanges, { initialValue: 'question' });
  protected readonly isPromise = computed(() => this.kind() === 'promise');
  protected readonly heading = computed(() => (this.question() ? 'Question or promise' : 'New question or promise'));
  protected readonly aboutText = computed(() => this.about().text);
  protected readonly otherFaults = computed(() =>
    this.issues().filter((i) => !['text', 'owedTo', 'dueOn', 'answer'].includes(i.field ?? '')),
  );

  constructor() {
    effect(() => {
      if (!this.visible()) return;
      const q = this.question();
      this.issues.set([]);
      this.form.reset({
        kind: q?.kind ?? 'question',
        text: q?.text ?? this.about().asks ?? '',
        owedTo: q?.owedTo ?? '',
        ownerId: q?.ownerId ?? '',
        dueOn: q?.dueOn ?? '',
        answer: q?.answer ?? '',
        state: q?.state ?? 'open',
      });
    });
  }

  protected faultOf(field: string): string {
    return this.issues().find((issue) => issue.field === field)?.message ?? '';
  }

  protected save(): void {
    const { kind, text, owedTo, ownerId, dueOn, answer, state } = this.form.getRawValue();
    const asked = this.question();
    const { kind: aboutKind, id: aboutId, field: aboutField } = this.about();
    const about = asked ?? { aboutKind, aboutId, aboutField };
    const fields = {
      kind,
      aboutKind: about.aboutKind,
      aboutId: about.aboutId,
      aboutField: about.aboutField,
      text: text.trim(),
      ownerId: ownerId === '' ? null : ownerId,
      dueOn: dueOn === '' ? null : dueOn,
      owedTo: kind === 'promise' ? owedTo.trim() : '',
      state,
      answer: answer.trim(),
    };
    const checked = check(schemaOf('question'), fields);
    const id = asked?.id ?? crypto.randomUUID();
    const faults = checked.ok ? rowFaults('question', { ...checked.value, id, version: 1 }) : checked.issues;
    this.issues.set(faults);
    if (faults.length > 0 || !checked.ok) return;
    const op = asked ? editTo('question', asked, checked.value) : ({ kind: 'question.add', id, fields: checked.value } as const);
    this.visible.set(false);
    if (op) this.saved.emit(op);
  }
}
