import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, model, output, signal } from '@angular/core';
import { editTo, type Op } from '@each-bolt/core/record';
import { SET_KIND_WORD, SET_KINDS, blankSet, setForm, setFormFields, setFromForm, type SetKind } from '@each-bolt/core/bench';
import type { Issue } from '@each-bolt/core/shared';
import { Dialog } from 'primeng/dialog';
import { FocusBack } from '../shared/focus-back';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Choose } from '../shared/choose';
import type { RecordedSet } from '../record/open-study';

/** A set as a form: the same fields and limits as its line of shorthand. */
@Component({
  selector: 'eb-set-form-dialog',
  imports: [Dialog, ButtonDirective, InputText, Choose, FocusBack],
  template: `<p-dialog
    closeAriaLabel="Close"
    [header]="heading()"
    [(visible)]="visible"
    [ebFocusBack]="visible()"
    [modal]="true"
    [closeOnEscape]="!isTyped()"
    [style]="{ width: '520px' }"
  >
    <form (submit)="save($event)">
      @if (set() === null) {
        <label for="form-kind">What it is</label>
        <eb-choose inputId="form-kind" label="What it is" (valueChange)="kind.set($any($event))" [value]="kind()" [options]="kinds" />
      }
      @for (field of fields(); track field.field) {
        <label [for]="'set-' + field.field">
          {{ field.label }}
          @if (field.unit !== '') {
            <span class="soft">, {{ field.unit }}</span>
          }
        </label>
        <div>
          @if (field.choices.length > 0) {
            <eb-choose
              [inputId]="'set-' + field.field"
              [label]="field.label"
              (valueChange)="type(field.field, $event)"
              [value]="typed()[field.field] ?? ''"
              [options]="field.choices"
            />
          } @else {
            <input
              pInputText
              [id]="'set-' + field.field"
              type="text"
              autocomplete="off"
              [attr.aria-invalid]="faultOf(field.field) !== ''"
              [value]="typed()[field.field] ?? ''"
              (input)="type(field.field, $any($event.target).value)"
            />
          }
          @if (faultOf(field.field); as fault) {
            <small role="alert">{{ fault }}</small>
          }
        </div>
      }
      @if (faultOf(null); as fault) {
        <small role="alert" class="all">{{ fault }}</small>
      }
      <div class="buttons all">
        <button pButton severity="secondary" type="button" (click)="visible.set(false)">Cancel</button>
        <button pButton type="submit">Keep</button>
      </div>
    </form>
  </p-dialog>`,
  styles: `
    form {
      display: grid;
      grid-template-columns: max-content minmax(0, 1fr);
      gap: 6px 14px;
      align-items: center;
    }
    label {
      font: 500 13px/1.3 var(--label);
    }
    input,
    select {
      width: 100%;
    }
    small {
      color: var(--amber);
    }
    .all {
      grid-column: 1 / -1;
    }
    .buttons {
      display: flex;
      justify-content: flex-end;
      gap: 8px;
      margin-top: 8px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SetFormDialog {
  readonly visible = model(false);
  readonly partId = input.required<string>();
  /** the set that is edited; null for a new one */
  readonly set = input<RecordedSet | null>(null);
  /** the sets there are, for the place of a new one */
  readonly sets = input<readonly RecordedSet[]>([]);
  readonly saved = output<readonly Op[]>();

  protected readonly kinds = SET_KINDS.map((value) => ({ value, word: SET_KIND_WORD[value] }));
  protected readonly kind = linkedSignal<SetKind>(() => this.set()?.kind ?? 'fasteners');
  protected readonly heading = computed(() => (this.set() === null ? 'A new set' : `Edit: ${SET_KIND_WORD[this.kind()]}`));
  protected readonly fields = computed(() => setFormFields(this.kind()));
  private readonly before = computed(() => (this.set()?.row ?? blankSet(this.kind(), this.partId())) as never);
  protected readonly typed = linkedSignal<Readonly<Record<string, string>>>(() => {
    this.visible();
    return setForm(this.kind(), this.before());
  });
  /** what was typed is not dropped by a press of Esc */
  protected readonly isTyped = computed(() => {
    const before: Readonly<Record<string, string>> = setForm(this.kind(), this.before());
    return Object.entries(this.typed()).some(([field, text]) => text !== (before[field] ?? ''));
  });
  private readonly issues = signal<readonly Issue[]>([]);

  protected type(field: string, text: string): void {
    this.typed.update((all) => ({ ...all, [field]: text }));
  }

  protected faultOf(field: string | null): string {
    const own = new Set(this.fields().map((f) => f.field));
    return this.issues().find((i) => (field === null ? i.field === null || !own.has(i.field) : i.field === field))?.message ?? '';
  }

  protected save(event: Event): void {
    event.preventDefault();
    const { id: _id, version: _version, ...before } = { id: '', version: 0, ...(this.before() as object) };
    const read = setFromForm(this.kind(), before as never, this.typed());
    this.issues.set(read.ok ? [] : read.issues);
    if (!read.ok) return;
    const op = this.op(read.value);
    if (op) this.saved.emit([op]);
    this.visible.set(false);
  }

  private op(fields: object): Op | null {
    const kind = this.kind();
    const own = this.sets().filter((s) => s.kind === kind);
    const edited = this.set() ?? (kind === 'board' ? (own[0] ?? null) : null);
    if (edited) return editTo(kind, edited.row as never, fields);
    const sequence = Math.max(-1, ...own.map((s) => ('sequence' in s.row ? s.row.sequence : 0))) + 1;
    return { kind: `${kind}.add`, id: crypto.randomUUID(), fields: kind === 'board' ? fields : { ...fields, sequence } } as unknown as Op;
  }
}
