import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, effect, input, output, signal, viewChild } from '@angular/core';
import { editTo, removeOp, type FastenerSet, type JointSet, type Op, type Piece } from '@each-bolt/core/record';
import { fastenerFields, fastenerLine, fastenerMass, jointFields, jointLine, parseLine, type Entry } from '@each-bolt/core/bench';
import { fixed } from '@each-bolt/core/shared';

/** One set as a line that can be edited. */
interface SetLine {
  readonly kind: 'fasteners' | 'joints';
  readonly id: string;
  readonly row: FastenerSet | JointSet;
  readonly sequence: number;
  readonly line: string;
  readonly note: string;
}

const grams = (set: FastenerSet): string => {
  const mass = fastenerMass(set);
  if (mass === null) return 'no mass';
  const each = `${fixed(mass.kg * 1000, 1)} g each`;
  return set.massEachKg === null ? `${each}, from standard sizes` : each;
};

/** Fastener and joint sets of a piece; each is edited as its shorthand line. */
@Component({
  selector: 'eb-set-list',
  template: `<h3>Fasteners and joints</h3>
    @for (set of sets(); track set.id) {
      @if (editing() === set.id) {
        <form (submit)="save($event, set)">
          <input
            #line
            type="text"
            class="figure"
            spellcheck="false"
            autocomplete="off"
            [value]="set.line"
            aria-label="Fastener or joint set in shorthand"
            (input)="fault.set('')"
            (keydown.escape)="stop($event)"
          />
          <button type="submit" class="quiet-button">Save</button>
        </form>
      } @else {
        <div class="set">
          <button type="button" class="figure line" title="Edit" [disabled]="!mayRecord()" (click)="editing.set(set.id)">
            {{ set.line }}
          </button>
          @if (mayRecord()) {
            <button type="button" class="off" [attr.aria-label]="'Remove ' + set.line" title="Remove" (click)="remove(set)">
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
          #line
          type="text"
          class="figure"
          spellcheck="false"
          autocomplete="off"
          placeholder="12 M6x16 T30 8.8 -z"
          aria-label="New fastener or joint set in shorthand"
          (input)="fault.set('')"
          (keydown.escape)="stop($event)"
        />
        <button type="submit" class="quiet-button">Keep</button>
      </form>
    } @else if (mayRecord()) {
      <button type="button" class="quiet-button add" (click)="editing.set('new')">+ set</button>
    }
    @if (fault() !== '') {
      <p class="fault" role="alert">{{ fault() }}</p>
    }`,
  styles: `
    h3 {
      margin-bottom: 6px;
    }
    .set {
      display: grid;
      grid-template-columns: minmax(0, 1fr) auto;
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
  readonly piece = input.required<Piece>();
  readonly fastenerSets = input.required<readonly FastenerSet[]>();
  readonly jointSets = input.required<readonly JointSet[]>();
  readonly mayRecord = input(true);
  readonly ops = output<readonly Op[]>();

  protected readonly editing = signal('');
  protected readonly fault = signal('');
  private readonly line = viewChild<ElementRef<HTMLInputElement>>('line');
  protected readonly sets = computed<readonly SetLine[]>(() => [
    ...this.fastenerSets().map((set): SetLine => ({
      kind: 'fasteners',
      id: set.id,
      row: set,
      sequence: set.sequence,
      line: fastenerLine(set),
      note: grams(set),
    })),
    ...this.jointSets().map((set): SetLine => ({
      kind: 'joints',
      id: set.id,
      row: set,
      sequence: set.sequence,
      line: jointLine(set),
      note: '',
    })),
  ]);

  constructor() {
    effect(() => this.line()?.nativeElement.focus());
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
    if (parsed.entry === null || parsed.entry.kind === 'piece')
      return this.fault.set('Type a fastener or joint set, such as 12 M6x16 T30 8.8 -z or 34 spot');
    if (set !== null && set.kind !== parsed.entry.kind)
      return this.fault.set(`This was ${set.kind}; remove it and add the other as a new set`);
    const sequence = set?.sequence ?? Math.max(-1, ...this.sets().map((s) => s.sequence)) + 1;
    const op = this.op(parsed.entry, set, sequence);
    if (op) this.ops.emit([op]);
    this.editing.set('');
    this.fault.set('');
  }

  private op(entry: Exclude<Entry, { readonly kind: 'piece' }>, set: SetLine | null, sequence: number): Op | null {
    const fields =
      entry.kind === 'fasteners' ? fastenerFields(entry, this.piece().id, sequence) : jointFields(entry, this.piece().id, sequence);
    if (set === null) return { kind: `${entry.kind}.add`, id: crypto.randomUUID(), fields } as Op;
    return editTo(set.kind, set.row as never, fields);
  }
}
