import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChild, viewChildren } from '@angular/core';
import {
  heavierThanSolid,
  inAllText,
  parseLine,
  settle,
  suggest,
  takeSuggestion,
  unlikelyFastenerMass,
  type Choice,
  type Entry,
  type Question,
  type Suggestion,
  type Understood,
  type WordBook,
} from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { EvidenceMark } from '../shared/evidence-mark';

/** A line ready to be kept. */
export interface LineKept {
  readonly line: string;
  readonly entry: Entry;
}

type Chip = { readonly start: number; readonly understood: Understood } | { readonly start: number; readonly question: Question };

/** One line of shorthand with how each stretch of it is understood, and what must be settled first. */
@Component({
  selector: 'eb-entry-line',
  imports: [EvidenceMark, ButtonDirective, InputText],
  template: `<div class="box" [class.open]="questions().length > 0">
      <input
        pInputText
        #line
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        aria-label="Entry line"
        aria-describedby="understood"
        placeholder="2x bracket, hose guide pa66-gf30 inj 41 g"
        [value]="text()"
        (input)="onInput(line)"
        (keydown)="onKey($event)"
        (paste)="onPaste($event)"
      />
      <button
        pButton
        [text]="true"
        severity="secondary"
        type="button"
        class="keep"
        [disabled]="parsed().entry === null && !isTagAlone()"
        (click)="keep()"
      >
        Keep <kbd>Enter</kbd>
      </button>
    </div>
    <div class="suggestions" [class.some]="suggestions().length > 0">
      @for (suggestion of suggestions(); track suggestion.text; let i = $index) {
        <button
          pButton
          [text]="true"
          severity="secondary"
          type="button"
          tabindex="-1"
          [class.on]="i === at()"
          [title]="suggestion.why"
          (click)="take(suggestion)"
        >
          {{ suggestion.text }}
          @if (suggestion.why.startsWith('for ')) {
            <small>{{ suggestion.why }}</small>
          }
        </button>
      }
      @if (suggestions().length > 0) {
        <span class="soft"><kbd>Tab</kbd> takes it, <kbd>↓</kbd> the next</span>
      }
    </div>
    <div id="understood" class="chips" aria-live="polite">
      @for (chip of chips(); track $index; let i = $index) {
        @if ('understood' in chip) {
          <span class="chip">
            <small>{{ chip.understood.label }}</small>
            <span class="figure">{{ chip.understood.value }}</span>
            @if (chip.understood.mark; as mark) {
              <eb-mark [mark]="mark" />
            }
          </span>
        } @else {
          @if (chip.question === questions()[0]) {
            <span class="chip question" role="group" [attr.aria-label]="chip.question.message">
              <small>settle this first</small>
              <span class="ask">{{ chip.question.message }}</span>
              @for (choice of chip.question.choices; track choice.label; let n = $index) {
                <button pButton [text]="true" severity="secondary" #choice type="button" (click)="choose(chip.question, choice)">
                  @if (n < 9) {
                    <kbd>Alt {{ n + 1 }}</kbd>
                  }
                  {{ choice.label }}
                </button>
              }
            </span>
          } @else {
            <span class="chip question">
              <small>then settle</small>
              <span class="figure">{{ stretch(chip.question) }}</span>
            </span>
          }
        }
      } @empty {
        <span class="soft hint" [title]="hint()">{{ hint() }}</span>
      }
      @if (inAll() !== '') {
        <span class="chip">
          <small>in all</small>
          <span class="figure">{{ inAll() }}</span>
        </span>
      }
      @if (check() !== '') {
        <span class="chip question" role="note">
          <small>check</small>
          <span class="ask">{{ check() }}</span>
        </span>
      }
    </div>`,
  styles: `
    .box {
      display: flex;
      border: 2px solid var(--dye);
      border-radius: 2px;
      background: var(--sheet);
    }
    .box.open {
      border-color: var(--amber-edge);
    }
    .box:focus-within {
      outline: 2px solid var(--dye);
      outline-offset: 1px;
    }
    input {
      flex: 1;
      min-width: 0;
      height: 40px;
      border: 0;
      background: none;
      padding: 0 14px;
      color: var(--ink);
      font: 400 17px/1 var(--figure);
    }
    input:focus {
      outline: none;
    }
    input::placeholder {
      color: var(--soft);
      opacity: 0.75;
    }
    .keep {
      min-width: 108px;
      border: 0;
      border-left: 1px solid var(--line);
      background: none;
      color: var(--dye);
      font: 600 14px/1 var(--label);
      cursor: pointer;
    }
    .keep:disabled {
      color: var(--soft);
      cursor: default;
    }
    kbd {
      font: 400 11px/1 var(--figure);
      border: 1px solid currentColor;
      border-radius: 2px;
      padding: 1px 4px;
      opacity: 0.8;
    }
    .suggestions {
      display: flex;
      gap: 2px;
      align-items: center;
      min-height: 22px;
      overflow: hidden;
      font-size: 12.5px;
      white-space: nowrap;
    }
    .suggestions:empty {
      display: none;
    }
    .suggestions:empty + .chips {
      min-height: 64px;
    }
    .suggestions button {
      border: 0;
      background: none;
      color: var(--dye);
      padding: 3px 8px;
      font: 500 13px/1.3 var(--label);
      cursor: pointer;
    }
    .suggestions button.on {
      background: var(--dye-tint);
    }
    .suggestions small,
    .suggestions .soft {
      color: var(--soft);
      font-size: 12px;
    }
    .suggestions .soft {
      margin-left: 8px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      min-height: 42px;
      padding-top: 2px;
      align-content: flex-start;
      align-items: flex-start;
    }
    .chip {
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      padding: 3px 10px 4px;
    }
    .chip small {
      display: block;
      font: 500 11.5px/1.3 var(--label);
      color: var(--soft);
    }
    .chip eb-mark {
      margin-left: 6px;
    }
    .keep kbd {
      margin-left: 5px;
    }
    .question {
      border-color: var(--amber-edge);
      background: var(--amber-tint);
    }
    .question small {
      color: var(--amber);
    }
    .question button {
      min-height: 28px;
      margin: 2px 0 2px 6px;
      padding: 3px 9px;
      border: 1px solid var(--amber-edge);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      font: 500 13px/1.3 var(--label);
      cursor: pointer;
    }
    .ask {
      font-weight: 500;
    }
    .hint {
      font-size: 13px;
      padding-top: 4px;
    }
    /* on a low screen the rows of the table matter more; the whole of it comes up over it */
    @media (max-height: 860px) {
      .hint {
        overflow: hidden;
        white-space: nowrap;
        text-overflow: ellipsis;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EntryLine {
  readonly hint = input('');
  /** how many there are of the part that sets go onto */
  readonly onto = input(1);
  /** the words typing help goes by */
  readonly book = input<WordBook>({ words: [], sets: [] });
  /** lines kept before, the last one last */
  readonly before = input<readonly string[]>([]);
  readonly kept = output<LineKept>();
  /** a tag alone: it is looked up, never read as the name of a part */
  readonly tagged = output<string>();
  readonly isTag = input<(line: string) => boolean>(() => false);
  protected readonly isTagAlone = computed(() => this.isTag()(this.text()));
  /** several lines at once */
  readonly pasted = output<readonly string[]>();
  /** somebody is typing */
  readonly typing = output();
  /** what the last removal took over does not hold for it */
  readonly carriedDropped = output();

  private readonly cursor = signal(0);
  protected readonly at = signal(0);
  /** place among the lines kept before, counted from the last; −1 is the line itself */
  private recalled = -1;
  private readonly quiet = signal(false);
  protected readonly suggestions = computed(() => (this.quiet() ? [] : suggest(this.book(), this.text(), this.cursor())));

  readonly text = signal('');
  protected readonly parsed = computed(() => parseLine(this.text()));
  protected readonly questions = computed(() => (this.isTagAlone() ? [] : this.parsed().questions));
  protected readonly chips = computed<readonly Chip[]>(() => {
    const { understood } = this.parsed();
    const questions = this.questions();
    const all: Chip[] = [
      ...understood.map((u) => ({ start: u.start, understood: u })),
      ...questions.map((q) => ({ start: q.start, question: q })),
    ];
    return all.sort((a, b) => a.start - b.start);
  });
  /** what the count of a set comes to on the part it goes onto */
  protected readonly inAll = computed(() => inAllText(this.parsed().entry, this.onto()));
  /** something improbable that does not keep the line from being kept */
  protected readonly check = computed(() => {
    const { entry } = this.parsed();
    if (entry?.kind === 'fasteners') return unlikelyFastenerMass({ ...entry, kind: entry.fastenerKind }, entry.mass?.eachKg ?? null);
    if (entry?.kind !== 'part') return '';
    const [lengthM = null, widthM = null, heightM = null] = entry.envelopeM ?? [];
    return heavierThanSolid({ massEachKg: entry.mass?.eachKg ?? null, lengthM, widthM, heightM, materialId: entry.materialId });
  });
  private readonly line = viewChild.required<ElementRef<HTMLInputElement>>('line');
  private readonly choiceButtons = viewChildren<ElementRef<HTMLButtonElement>>('choice');

  focus(): void {
    this.line().nativeElement.focus();
  }

  /** Puts a line back, for instance one the server refused. */
  isEmpty(): boolean {
    return this.text().trim() === '';
  }

  putBack(line: string): void {
    this.text.set(line);
    this.focus();
  }

  /** Puts text in at the cursor, as a reading of an instrument does. */
  insert(text: string): void {
    const input = this.line().nativeElement;
    const [from, to] = [input.selectionStart ?? input.value.length, input.selectionEnd ?? input.value.length];
    const gap = from > 0 && input.value[from - 1] !== ' ' ? ' ' : '';
    this.setLine(`${input.value.slice(0, from)}${gap}${text} ${input.value.slice(to)}`, from + gap.length + text.length + 1);
  }

  protected onInput(input: HTMLInputElement): void {
    this.text.set(input.value);
    this.cursor.set(input.selectionStart ?? input.value.length);
    this.at.set(0);
    this.quiet.set(false);
    this.recalled = -1;
    this.typing.emit();
  }

  protected onPaste(event: ClipboardEvent): void {
    const lines = (event.clipboardData?.getData('text') ?? '')
      .split(/\r?\n/)
      .map((line) => line.trim())
      .filter((line) => line !== '');
    if (lines.length < 2) return;
    event.preventDefault();
    this.pasted.emit(lines);
  }

  protected take(suggestion: Suggestion): void {
    const { line, cursor } = takeSuggestion(this.text(), suggestion);
    this.setLine(line, cursor);
    this.quiet.set(true);
  }

  private setLine(text: string, cursor: number): void {
    const input = this.line().nativeElement;
    this.text.set(text);
    // at once: the cursor can only stand in what is there
    input.value = text;
    input.setSelectionRange(cursor, cursor);
    this.cursor.set(cursor);
    this.at.set(0);
    this.focus();
  }

  /** The line kept before comes back, to be varied. */
  private recall(by: 1 | -1): void {
    const lines = this.before();
    const next = this.recalled + by;
    if (next < -1 || next >= lines.length) return;
    this.recalled = next;
    const line = next === -1 ? '' : (lines[lines.length - 1 - next] ?? '');
    this.setLine(line, line.length);
    this.quiet.set(true);
  }

  private onSuggestionKey(event: KeyboardEvent): boolean {
    const all = this.suggestions();
    const chosen = all[this.at()];
    if (event.key === 'Tab' && !event.shiftKey && chosen) this.take(chosen);
    else if (event.key === 'ArrowDown' && all.length > 0) this.at.set((this.at() + 1) % all.length);
    else if (event.key === 'Escape' && all.length > 0) this.quiet.set(true);
    else return false;
    event.preventDefault();
    event.stopPropagation();
    return true;
  }

  protected onKey(event: KeyboardEvent): void {
    if (this.onSuggestionKey(event)) return;
    if (event.key === 'ArrowUp' && (this.text() === '' || this.recalled >= 0)) {
      event.preventDefault();
      this.recall(1);
      return;
    }
    if (event.key === 'ArrowDown' && this.recalled >= 0) {
      event.preventDefault();
      this.recall(-1);
      return;
    }
    if (event.altKey && /^(?:Digit|Numpad)0$/.test(event.code)) {
      event.preventDefault();
      this.carriedDropped.emit();
      return;
    }
    const digit = /^(?:Digit|Numpad)([1-9])$/.exec(event.code)?.[1];
    const first = this.questions()[0];
    if (event.altKey && digit !== undefined && first) {
      const choice = first.choices[Number(digit) - 1];
      event.preventDefault();
      if (choice) this.choose(first, choice);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (this.parsed().entry === null && !this.isTagAlone()) this.choiceButtons()[0]?.nativeElement.focus();
      else this.keep();
    }
  }

  /** the words a later question is about */
  protected stretch(question: Question): string {
    return this.text().slice(question.start, question.end);
  }

  protected keep(): void {
    const { entry, line } = this.parsed();
    const isTag = this.isTagAlone();
    if (entry === null && !isTag) return;
    this.recalled = -1;
    this.text.set('');
    // at once, not when the screen is next drawn: a fast hand, or a reader of labels, is typing the next line already
    this.line().nativeElement.value = '';
    this.focus();
    if (isTag) this.tagged.emit(line);
    else if (entry !== null) this.kept.emit({ line, entry });
  }

  protected choose(question: Question, choice: Choice): void {
    this.text.set(settle(this.text(), question, choice.replacement));
    this.focus();
  }
}
