import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal, viewChild } from '@angular/core';
import { editTo, removeOp, type FastenerSet, type Op, type Part, nextSequence } from '@each-bolt/core/record';
import { fastenerMass, parseLine, setFields, setLineOf, type SetEntry } from '@each-bolt/core/bench';
import { gramsText } from '@each-bolt/core/shared';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import type { RecordedSet } from '../record/open-study';
import { SetFormDialog } from './set-form-dialog';

/** One set as a line that can be edited. */
interface SetLine extends RecordedSet {
  readonly sequence: number;
  readonly line: string;
  readonly note: string;
}

const grams = (set: FastenerSet): string => {
  const mass = fastenerMass(set);
  if (mass === null) return 'no mass';
  const each = `${gramsText(mass.kg, 1)} each`;
  return set.massEachKg === null ? `${each}, from standard sizes` : each;
};

/** What holds and feeds a part, and what is on its board; each is edited as its shorthand line. */
@Component({
  selector: 'eb-set-list',
  imports: [SetFormDialog, ButtonDirective, InputText],
  template: `<h3>Fasteners, joints, connections</h3>
    @for (set of lines(); track set.row.id) {
      @if (editing() === set.row.id) {
        <form (submit)="save($event, set)">
          <input
            pInputText
            #line
            type="text"
            class="figure"
            spellcheck="false"
            autocomplete="off"
            [value]="set.line"
            aria-label="Set in shorthand"
            (input)="fault.set('')"
            (keydown.escape)="stop($event)"
          />
          <button pButton severity="secondary" type="submit">Save</button>
        </form>
      } @else {
        <div class="set">
          <button
            pButton
            [text]="true"
            severity="secondary"
            type="button"
            class="figure line"
            title="Edit"
            [disabled]="!mayRecord()"
            (click)="editing.set(set.row.id)"
          >
            {{ set.line }}
          </button>
          @if (mayRecord()) {
            <button
              pButton
              [text]="true"
              severity="secondary"
              type="button"
              class="off"
              [attr.aria-label]="'Edit ' + set.line + ' in a form'"
              title="Edit in a form"
              (click)="openForm(set)"
            >
              <i class="pi pi-list" aria-hidden="true"></i>
            </button>
            <button
              pButton
              [text]="true"
              severity="secondary"
              type="button"
              class="off"
              [attr.aria-label]="'Remove ' + set.line"
              title="Remove"
              (click)="remove(set)"
            >
              <i class="pi pi-times" aria-hidden="true"></i>
            </button>
          }
          <small class="soft">{{ set.note }}</small>
        </div>
      }
    } @empty {
      <p class="soft">None recorded.</p>
    }
    @if (editing() === 'new') {
      <form (submit)="save($event, null)">
        <input
          pInputText
          #line
          type="text"
          class="figure"
          spellcheck="false"
          autocomplete="off"
          placeholder="12 M6x16 T30 8.8 -z"
          aria-label="New set in shorthand"
          (input)="fault.set('')"
          (keydown.escape)="stop($event)"
        />
        <button pButton severity="secondary" type="submit">Keep</button>
      </form>
    } @else if (mayRecord()) {
      <button pButton severity="secondary" type="button" class="add" (click)="editing.set('new')">+ set</button>
      <button pButton severity="secondary" type="button" class="add" (click)="openForm(null)">+ set in a form</button>
    }
    @if (fault() !== '') {
      <p class="fault" role="alert">{{ fault() }}</p>
    }
    @defer (when inForm(); prefetch on idle) {
      <eb-set-form-dialog [(visible)]="inForm" [partId]="part().id" [set]="formed()" [sets]="sets()" (saved)="ops.emit($event)" />
    }`,
  styles: `
    h3 {
      margin-bottom: 6px;
    }
    .set {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto auto;
      border-bottom: 1px solid var(--fine);
    }
    .line {
      border: 0;
      background: none;
      padding: 3px 0;
      text-align: left;
      color: var(--ink);
      cursor: text;
      white-space: normal;
    }
    .line:hover {
      color: var(--dye);
    }
    .off {
      border: 0;
      background: none;
      color: var(--soft);
      cursor: pointer;
      padding: 4px;
    }
    .off {
      min-width: 28px;
      min-height: 28px;
    }
    .off i {
      font-size: 11px;
    }
    small {
      grid-column: 1 / -1;
      font-size: 12px;
    }
    form {
      display: flex;
      gap: 6px;
      margin: 4px 0;
    }
    input {
      flex: 1;
      min-width: 0;
      height: 32px;
      padding: 0 8px;
      border: 1px solid var(--dye);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
    }
    .add {
      margin-top: 8px;
    }
    .fault {
      margin-top: 6px;
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SetList {
  readonly part = input.required<Part>();
  readonly sets = input.required<readonly RecordedSet[]>();
  readonly mayRecord = input(true);
  readonly ops = output<readonly Op[]>();

  protected readonly editing = signal('');
  /** the set in the form, null for a new one */
  protected readonly formed = signal<RecordedSet | null>(null);
  protected readonly inForm = signal(false);
  protected readonly fault = signal('');
  private readonly line = viewChild<ElementRef<HTMLInputElement>>('line');
  protected readonly lines = computed<readonly SetLine[]>(() =>
    this.sets().map((set): SetLine => ({
      ...set,
      sequence: 'sequence' in set.row ? set.row.sequence : 0,
      line: setLineOf(set.kind, set.row as never),
      note: set.kind === 'fasteners' ? grams(set.row as FastenerSet) : '',
    })),
  );

  constructor() {
    effect(() => this.line()?.nativeElement.focus());
  }

  protected openForm(set: RecordedSet | null): void {
    this.formed.set(set && { kind: set.kind, row: set.row });
    this.inForm.set(true);
  }

  protected stop(event: Event): void {
    event.stopPropagation();
    this.editing.set('');
    this.fault.set('');
  }

  protected remove(set: SetLine): void {
    this.ops.emit([removeOp(set.kind, set.row as never)]);
  }

  protected save(event: Event, set: SetLine | null): void {
    event.preventDefault();
    const parsed = parseLine(this.line()?.nativeElement.value ?? '');
    const [question] = parsed.questions;
    if (question) return this.fault.set(question.message);
    if (parsed.entry === null || parsed.entry.kind === 'part' || parsed.entry.kind === 'step')
      return this.fault.set('Type what holds or feeds it, such as 12 M6x16 T30 8.8 -z, 34 spot, 2 connector 12p latch');
    if (set !== null && set.kind !== parsed.entry.kind)
      return this.fault.set('This is of another kind than before; remove it and add the other as a new set');
    const op = this.op(parsed.entry, set);
    if (op) this.ops.emit([op]);
    this.editing.set('');
    this.fault.set('');
  }

  private op(entry: SetEntry, set: SetLine | null): Op | null {
    const own = this.lines().filter((s) => s.kind === entry.kind);
    const sequence = set?.sequence ?? nextSequence(own);
    const fields = setFields(entry, this.part().id, sequence);
    const board = entry.kind === 'board' ? own[0] : undefined;
    if (set === null && !board) return { kind: `${entry.kind}.add`, id: crypto.randomUUID(), fields } as Op;
    return editTo(entry.kind, (set ?? board)!.row as never, fields);
  }
}
