import { ChangeDetectionStrategy, Component, computed, input, linkedSignal, output } from '@angular/core';
import { counted } from '@each-bolt/core/shared';
import { entriesText, parseLine, printLine, type Entry } from '@each-bolt/core/bench';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { IconButton } from '../shared/icon-button';

/** Lines that were pasted together: how each is understood, to be mended and kept as one change. */
@Component({
  selector: 'eb-batch-panel',
  imports: [ButtonDirective, InputText, IconButton],
  template: `<section aria-label="Pasted lines">
    <header class="sheet-head">
      <h2>{{ heading() }}</h2>
      <div class="acts">
        <button pButton type="button" [disabled]="open() > 0" (click)="keep()">Keep all as one change</button>
        <button pButton severity="secondary" type="button" (click)="cancelled.emit()">Discard them</button>
      </div>
    </header>
    <ol>
      @for (row of rows(); track $index; let i = $index) {
        <li [class.open]="row.question !== ''">
          <input
            pInputText
            class="figure"
            type="text"
            autocomplete="off"
            spellcheck="false"
            [attr.aria-label]="'Line ' + (i + 1)"
            [attr.aria-invalid]="row.question !== ''"
            [value]="row.line"
            (change)="edit(i, $any($event.target).value)"
          />
          <small>{{ row.question === '' ? row.kind : row.question }}</small>
          <eb-icon-button [label]="'Leave line ' + (i + 1) + ' out'" (acted)="drop(i)" />
        </li>
      }
    </ol>
  </section>`,
  styles: `
    section {
      border: 1px solid var(--line);
      background: var(--sheet);
      padding: 10px 12px;
      overflow: auto;
      max-height: 50vh;
      flex: none;
    }
    ol {
      margin: 8px 0 0;
      padding-left: 26px;
    }
    li {
      margin-bottom: 2px;
    }
    li::marker {
      color: var(--soft);
      font-size: 12px;
    }
    input {
      width: calc(100% - 270px);
      height: 28px;
      padding: 2px 6px;
      border: 1px solid transparent;
      border-bottom-color: var(--line);
      background: transparent;
      color: var(--ink);
    }
    .open input {
      background: var(--amber-tint);
      border-color: var(--amber-edge);
    }
    small {
      display: inline-block;
      width: 226px;
      margin-left: 8px;
      color: var(--soft);
      vertical-align: middle;
    }
    .open small {
      color: var(--amber);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BatchPanel {
  readonly lines = input.required<readonly string[]>();
  readonly kept = output<{ readonly entries: readonly Entry[]; readonly lines: readonly string[] }>();
  readonly cancelled = output();
  private readonly now = linkedSignal(() => this.lines());
  protected readonly rows = computed(() =>
    this.now().map((line) => {
      const { entry, questions } = parseLine(line);
      return {
        line,
        entry,
        question: questions[0]?.message ?? (entry === null ? 'Nothing is in this line' : ''),
        kind: entry ? printLine(entry) : '',
      };
    }),
  );
  protected readonly open = computed(() => this.rows().filter((row) => row.question !== '').length);
  protected readonly heading = computed(() => {
    const entries = this.rows().flatMap((row) => row.entry ?? []);
    const open = this.open();
    return open > 0
      ? `${counted(this.rows().length, 'line')} pasted, ${open} to be settled`
      : `${counted(this.rows().length, 'line')} pasted: ${entriesText(entries)}`;
  });

  protected edit(at: number, line: string): void {
    this.now.update((lines) => lines.map((old, i) => (i === at ? line : old)));
  }

  protected drop(at: number): void {
    this.now.update((lines) => lines.filter((_, i) => i !== at));
    if (this.now().length === 0) this.cancelled.emit();
  }

  protected keep(): void {
    this.kept.emit({ entries: this.rows().flatMap((row) => row.entry ?? []), lines: this.now() });
  }
}
