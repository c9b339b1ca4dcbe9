import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MATERIALS, PROCESSES, counted } from '@each-bolt/core/shared';
import { DAMAGE_FROM, HANDS, OPENED, PART_STATES } from '@each-bolt/core/record';
import type { CsvHeading, TranslatedValue, UnknownValue } from '@each-bolt/core/bench';
import { Choose, type Choice } from '../shared/choose';

const choicesOf = (rows: readonly { readonly id: string; readonly name: string }[]): readonly Choice[] =>
  rows.map(({ id, name }) => ({ value: id, word: name }));
const wordsOf = (words: readonly string[]): readonly Choice[] => words.map((word) => ({ value: word, word }));
/** What a word in a column may mean. */
const MEANINGS: Partial<Record<CsvHeading, readonly Choice[]>> = {
  material: choicesOf(MATERIALS),
  made_by: choicesOf(PROCESSES),
  hand: wordsOf(HANDS),
  state: wordsOf(PART_STATES),
  opened: wordsOf(OPENED),
  damage_from: wordsOf(DAMAGE_FROM),
};

interface WordRow {
  readonly word: UnknownValue;
  readonly meaning: string;
  readonly where: string;
  readonly choices: readonly Choice[];
}

/** Words of a file that are not known here: what each means is said once, for all its rows. */
@Component({
  selector: 'eb-import-words',
  imports: [Choose, NgTemplateOutlet],
  template: `@if (unknown().length > 0) {
      <section aria-label="Words that are not known here">
        <h3>Words that are not known here: say what each means, once for all its rows</h3>
        @for (row of asked(); track row.word.heading + row.word.value) {
          <ng-container [ngTemplateOutlet]="line" [ngTemplateOutletContext]="{ $implicit: row }" />
        }
      </section>
    }
    @if (translated().length > 0) {
      <details>
        <summary>{{ toldText() }}</summary>
        @for (row of told(); track row.word.heading + row.word.value) {
          <ng-container [ngTemplateOutlet]="line" [ngTemplateOutletContext]="{ $implicit: row }" />
        }
      </details>
    }
    <ng-template #line let-row>
      <label>
        <span
          >“{{ row.word.value }}” <small class="soft">{{ row.where }}</small></span
        >
        <eb-choose
          [label]="'Meaning of ' + row.word.value"
          [value]="row.meaning"
          placeholder="means …"
          [options]="row.choices"
          (valueChange)="meant.emit({ word: row.word, meaning: $event })"
        />
      </label>
    </ng-template>`,
  styles: `
    section {
      border: 1px solid var(--amber-edge);
      background: var(--amber-tint);
      padding: 8px 12px;
      margin-bottom: 10px;
      max-height: 200px;
      overflow: auto;
    }
    details {
      margin-bottom: 10px;
    }
    summary {
      cursor: pointer;
      font: 500 13px/1.6 var(--label);
    }
    label {
      display: flex;
      gap: 8px;
      align-items: center;
      justify-content: space-between;
      padding: 2px 0;
      font-size: 13.5px;
    }
    eb-choose {
      width: 260px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ImportWords {
  readonly unknown = input.required<readonly UnknownValue[]>();
  /** words that are taken for what they were said to mean */
  readonly translated = input<readonly TranslatedValue[]>([]);
  /** names of the subsystems of the study */
  readonly subsystems = input<readonly string[]>([]);
  readonly meant = output<{ readonly word: UnknownValue; readonly meaning: string }>();

  protected readonly asked = computed(() => this.unknown().map((word) => this.row(word, '')));
  protected readonly told = computed(() => this.translated().map((word) => this.row(word, word.meaning)));
  protected readonly toldText = computed(() => `${counted(this.translated().length, 'word')} taken for what you said`);

  private row(word: UnknownValue, meaning: string): WordRow {
    const meanings = word.heading === 'subsystem' ? wordsOf(this.subsystems()) : (MEANINGS[word.heading] ?? []);
    return {
      word,
      meaning,
      where: `${word.heading.replaceAll('_', ' ')}, ${counted(word.rows, 'row')}`,
      choices: meaning === '' ? meanings : [{ value: '', word: 'as it stands' }, ...meanings],
    };
  }
}
