import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { fieldInput, type FieldChoice, type FieldName } from '@each-bolt/core/record';
import { printField, readField, type FieldShape, type FieldValue, asShown } from '@each-bolt/core/shared';
import { Textarea } from 'primeng/textarea';
import { InputText } from 'primeng/inputtext';
import { DayField } from './day-field';
import { Choose } from './choose';

let fields = 0;

/**
 * One field that is edited in place: what is typed is read on leaving it, and kept or answered with what is wrong. Of a declared
 * field the label, the shape and the choices follow from its declaration.
 */
@Component({
  selector: 'eb-edit-field',
  imports: [Textarea, InputText, Choose, DayField],
  template: `@if (choices().length > 0) {
      <eb-choose
        [inputId]="id"
        [label]="name()"
        [options]="choices()"
        [value]="text()"
        [invalid]="wrong() !== ''"
        [disabled]="disabled()"
        (valueChange)="committed.emit($event === '' ? null : $event)"
      />
    } @else if (typed().kind === 'date') {
      <eb-day-field
        [inputId]="id"
        [label]="name()"
        [value]="text()"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        (valueChange)="read($event)"
      />
    } @else if (typed().kind === 'lines') {
      <textarea
        pTextarea
        [id]="id"
        rows="2"
        [attr.aria-label]="name()"
        [attr.aria-invalid]="wrong() !== ''"
        [attr.aria-describedby]="wrong() === '' ? null : id + '-fault'"
        [value]="text()"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        (change)="read($any($event.target).value)"
        (keydown.escape)="restore($any($event.target))"
      ></textarea>
    } @else {
      <input
        pInputText
        [id]="id"
        type="text"
        autocomplete="off"
        [class.figure]="isFigure()"
        [class.left]="leftward()"
        [attr.aria-label]="name()"
        [attr.aria-invalid]="wrong() !== ''"
        [attr.aria-describedby]="wrong() === '' ? null : id + '-fault'"
        [value]="text()"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        (change)="read($any($event.target).value)"
        (keydown.escape)="restore($any($event.target))"
      />
    }
    @if (unit() !== '') {
      <span class="unit">{{ unit() }}</span>
    }
    @if (wrong() !== '') {
      <small [id]="id + '-fault'" role="alert">{{ wrong() }}</small>
    }`,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
      align-items: center;
      gap: 0 5px;
      min-width: 0;
    }
    input,
    textarea {
      width: 100%;
      min-width: 0;
      height: 28px;
      padding: 2px 6px;
      border: 1px solid transparent;
      border-bottom-color: var(--line);
      border-radius: 2px;
      background: transparent;
      color: var(--ink);
      font-size: 13.5px;
    }
    @media (pointer: coarse), (max-width: 1100px) {
      input {
        height: 40px;
      }
    }
    textarea {
      height: auto;
      min-height: 48px;
      max-height: 220px;
      field-sizing: content;
      resize: vertical;
      border-color: var(--line);
    }
    input:hover:enabled,
    input:focus,
    textarea:focus {
      border-color: var(--line);
      background: var(--sheet);
    }
    input:disabled,
    textarea:disabled {
      border-color: transparent;
      color: var(--ink);
      opacity: 1;
    }
    input.figure {
      text-align: right;
    }
    input.left {
      text-align: left;
    }
    [aria-invalid='true'] {
      border-color: var(--amber-edge);
      background: var(--amber-tint);
    }
    eb-choose,
    eb-day-field {
      width: 100%;
    }
    .unit {
      min-width: 24px;
      color: var(--soft);
      font-size: 12.5px;
      white-space: nowrap;
    }
    small {
      grid-column: 1 / -1;
      color: var(--amber);
      font-size: 12.5px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EditField {
  /** the declared field, such as `rig.ratedN` */
  readonly of = input<FieldName | null>(null);
  /** whose field it is, for those who hear its label without its place */
  readonly whose = input('');
  /** in place of what is declared, or of what no kind of record declares */
  readonly label = input('');
  readonly shape = input<FieldShape | null>(null);
  readonly options = input<readonly FieldChoice[] | null>(null);
  readonly value = input<FieldValue | undefined>(null);
  readonly placeholder = input('');
  readonly showUnit = input(true);
  readonly disabled = input(false);
  /** figures stand at the left edge, where they are one fact among words */
  readonly leftward = input(false);
  /** what is wrong with the value beside others of its record */
  readonly fault = input('');
  readonly committed = output<FieldValue>();

  protected readonly id = `eb-field-${++fields}`;
  private readonly declared = computed(() => {
    const of = this.of();
    return of === null ? null : fieldInput(of);
  });
  protected readonly typed = computed((): FieldShape => this.shape() ?? this.declared()?.shape ?? { kind: 'text' });
  protected readonly choices = computed(() => this.options() ?? (this.shape() === null ? (this.declared()?.choices ?? []) : []));
  protected readonly name = computed(() => {
    const label = this.label() || (this.declared()?.label ?? '');
    return this.whose() === '' ? label : `${label}, ${this.whose()}`;
  });
  private readonly unread = signal('');
  protected readonly wrong = computed(() => this.unread() || this.fault());
  protected readonly text = computed(() => printField(this.typed(), this.value()));
  protected readonly unit = computed(() => {
    const shape = this.typed();
    return this.showUnit() && shape.kind === 'number' ? asShown(shape).unit : '';
  });
  protected readonly isFigure = computed(() => ['number', 'whole', 'money', 'effort'].includes(this.typed().kind));

  protected read(text: string): void {
    const read = readField(this.typed(), text);
    this.unread.set(read.ok ? '' : read.message);
    if (read.ok && text.trim() !== this.text().trim()) this.committed.emit(read.value);
  }

  protected restore(field: HTMLInputElement | HTMLTextAreaElement): void {
    field.value = this.text();
    this.unread.set('');
    field.blur();
  }
}
