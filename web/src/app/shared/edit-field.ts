import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { printField, readField, type FieldShape, type FieldValue } from '@each-bolt/core/shared';

export interface FieldOption {
  readonly value: string;
  readonly word: string;
}

let fields = 0;

/** One field that is edited in place: what is typed is read on leaving it, and kept or answered with what is wrong. */
@Component({
  selector: 'eb-edit-field',
  template: `@if (options().length > 0) {
      <select
        [id]="id"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="wrong() !== ''"
        [attr.aria-describedby]="wrong() === '' ? null : id + '-fault'"
        [disabled]="disabled()"
        (change)="choose($any($event.target))"
      >
        @for (option of options(); track option.value) {
          <option [value]="option.value" [selected]="option.value === text()">{{ option.word }}</option>
        }
      </select>
    } @else if (shape().kind === 'lines') {
      <textarea
        [id]="id"
        rows="2"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="wrong() !== ''"
        [attr.aria-describedby]="wrong() === '' ? null : id + '-fault'"
        [value]="text()"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        (change)="commit($any($event.target))"
        (keydown.escape)="restore($any($event.target))"
      ></textarea>
    } @else {
      <input
        [id]="id"
        [type]="shape().kind === 'date' ? 'date' : 'text'"
        autocomplete="off"
        [class.figure]="isFigure()"
        [class.left]="leftward()"
        [class.empty]="text() === ''"
        [attr.aria-label]="label()"
        [attr.aria-invalid]="wrong() !== ''"
        [attr.aria-describedby]="wrong() === '' ? null : id + '-fault'"
        [value]="text()"
        [placeholder]="placeholder()"
        [disabled]="disabled()"
        (change)="commit($any($event.target))"
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
    select,
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
    select option {
      background: var(--sheet);
      color: var(--ink);
    }
    @media (pointer: coarse), (max-width: 1100px) {
      input,
      select {
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
    select:hover:enabled,
    input:focus,
    select:focus,
    textarea:focus {
      border-color: var(--line);
      background: var(--sheet);
    }
    input:disabled,
    select:disabled,
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
    input[type='date'].empty:not(:hover, :focus) {
      color: transparent;
    }
    [aria-invalid='true'] {
      border-color: var(--amber-edge);
      background: var(--amber-tint);
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
  readonly shape = input<FieldShape>({ kind: 'text' });
  readonly label = input.required<string>();
  readonly value = input<FieldValue | undefined>(null);
  readonly options = input<readonly FieldOption[]>([]);
  readonly placeholder = input('');
  readonly showUnit = input(true);
  readonly disabled = input(false);
  /** figures stand at the left edge, where they are one fact among words */
  readonly leftward = input(false);
  /** what is wrong with the value beside others of its record */
  readonly fault = input('');
  readonly committed = output<FieldValue>();

  protected readonly id = `eb-field-${++fields}`;
  private readonly unread = signal('');
  protected readonly wrong = computed(() => this.unread() || this.fault());
  protected readonly text = computed(() => printField(this.shape(), this.value()));
  protected readonly unit = computed(() => {
    const shape = this.shape();
    return this.showUnit() && shape.kind === 'number' ? shape.unit : '';
  });
  protected readonly isFigure = computed(() => ['number', 'whole', 'money', 'effort'].includes(this.shape().kind));

  protected choose(select: HTMLSelectElement): void {
    this.committed.emit(select.value === '' ? null : select.value);
  }

  protected commit(field: HTMLInputElement | HTMLTextAreaElement): void {
    const read = readField(this.shape(), field.value);
    this.unread.set(read.ok ? '' : read.message);
    if (read.ok && field.value.trim() !== this.text().trim()) this.committed.emit(read.value);
  }

  protected restore(field: HTMLInputElement | HTMLTextAreaElement): void {
    field.value = this.text();
    this.unread.set('');
    field.blur();
  }
}
