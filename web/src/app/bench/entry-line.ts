import type { ElementRef } from '@angular/core';
import { ChangeDetectionStrategy, Component, computed, input, output, signal, viewChild, viewChildren } from '@angular/core';
import { heavierThanSolid, parseLine, settle, type Choice, type Entry, type Question, type Understood } from '@each-bolt/core/bench';
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
  imports: [EvidenceMark],
  template: `<div class="box" [class.open]="questions().length > 0">
      <input
        #line
        type="text"
        autocomplete="off"
        autocapitalize="off"
        spellcheck="false"
        aria-label="Entry line"
        aria-describedby="understood"
        placeholder="2x bracket, hose guide pa66-gf30 inj 41 g"
        [value]="text()"
        (input)="text.set(line.value)"
        (keydown)="onKey($event)"
      />
      <button type="button" class="keep" [disabled]="parsed().entry === null" (click)="keep()">Keep <kbd>Enter</kbd></button>
    </div>
    <div id="understood" class="chips" aria-live="polite">
      @for (chip of chips(); track $index; let i = $index) {
        @if ('understood' in chip) {
          <span class="chip">
            <small>{{ chip.understood.label }}</small>
            <span class="figure">{{ chip.understood.value }}</span>
            @if (chip.understood.evidence; as mark) {
              <eb-mark [mark]="mark" />
            }
          </span>
        } @else {
          @if (chip.question === questions()[0]) {
            <span class="chip question" role="group" [attr.aria-label]="chip.question.message">
              <small>settle this first</small>
              <span class="ask">{{ chip.question.message }}</span>
              @for (choice of chip.question.choices; track choice.label; let n = $index) {
                <button #choice type="button" (click)="choose(chip.question, choice)">
                  @if (n < 9) {
                    <kbd>{{ n + 1 }}</kbd>
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
        <span class="soft hint">{{ hint() }}</span>
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
      height: 44px;
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
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      min-height: 96px;
      padding-top: 7px;
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
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class EntryLine {
  readonly hint = input('');
  readonly kept = output<LineKept>();

  readonly text = signal('');
  protected readonly parsed = computed(() => parseLine(this.text()));
  protected readonly questions = computed(() => this.parsed().questions);
  protected readonly chips = computed<readonly Chip[]>(() => {
    const { understood, questions } = this.parsed();
    const all: Chip[] = [
      ...understood.map((u) => ({ start: u.start, understood: u })),
      ...questions.map((q) => ({ start: q.start, question: q })),
    ];
    return all.sort((a, b) => a.start - b.start);
  });
  /** something improbable that does not keep the line from being kept */
  protected readonly check = computed(() => {
    const { entry } = this.parsed();
    if (entry?.kind !== 'piece') return '';
    const [lengthM = null, widthM = null, heightM = null] = entry.envelopeM ?? [];
    return heavierThanSolid({ massEachKg: entry.mass?.eachKg ?? null, lengthM, widthM, heightM, materialId: entry.materialId });
  });
  private readonly line = viewChild.required<ElementRef<HTMLInputElement>>('line');
  private readonly choiceButtons = viewChildren<ElementRef<HTMLButtonElement>>('choice');

  focus(): void {
    this.line().nativeElement.focus();
  }

  /** Puts a line back, for instance one the server refused. */
  putBack(line: string): void {
    this.text.set(line);
    this.focus();
  }

  protected onKey(event: KeyboardEvent): void {
    const digit = /^Digit([1-9])$/.exec(event.code)?.[1];
    const first = this.questions()[0];
    if (event.altKey && digit !== undefined && first) {
      const choice = first.choices[Number(digit) - 1];
      event.preventDefault();
      if (choice) this.choose(first, choice);
    } else if (event.key === 'Enter') {
      event.preventDefault();
      if (this.parsed().entry === null) this.choiceButtons()[0]?.nativeElement.focus();
      else this.keep();
    }
  }

  /** the words a later question is about */
  protected stretch(question: Question): string {
    return this.text().slice(question.start, question.end);
  }

  protected keep(): void {
    const { entry, line } = this.parsed();
    if (entry === null) return;
    this.text.set('');
    // at once, not when the screen is next drawn: a fast hand, or a reader of labels, is typing the next line already
    this.line().nativeElement.value = '';
    this.focus();
    this.kept.emit({ line, entry });
  }

  protected choose(question: Question, choice: Choice): void {
    this.text.set(settle(this.text(), question, choice.replacement));
    this.focus();
  }
}
