import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router } from '@angular/router';
import { changeWords, type OpWords } from '@each-bolt/core/bench';
import { kindWord } from '@each-bolt/core/record';
import { firstValueFrom } from 'rxjs';
import { RefusalNote } from '../shared/refusal-note';
import { Names } from './names';
import { OpenStudy } from './open-study';
import type { Refusal, ToldChange } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { InputText } from 'primeng/inputtext';
import { Choose, ChoicesPipe } from '../shared/choose';
import { RecordApi } from './record-api';
import { RecordService } from './record-service';
import { Selection } from './selection';
import { whenText } from './when';

/** More records of one change than this are counted, not listed. */
const MOST_SHOWN = 12;
const PAGE = 100;

interface Line {
  readonly change: ToldChange;
  readonly when: string;
  readonly words: readonly OpWords[];
  readonly more: number;
  readonly undoes: string;
}

/** Everything ever done to the study, or to one part and what holds it, newest first. */
@Component({
  selector: 'eb-history-page',
  imports: [RefusalNote, ButtonDirective, InputText, Choose, ChoicesPipe],
  template: `<div class="sheet">
    <header>
      <h1>{{ heading() }}</h1>
      <div class="filters">
        @if (about() !== '') {
          <button pButton severity="secondary" type="button" (click)="ofAll()">Of the whole study</button>
        } @else if (selection.part(); as part) {
          <button pButton severity="secondary" type="button" (click)="ofPart(part.id)">Only {{ part.name }}</button>
        }
        <label>
          <span>By</span>
          <eb-choose (valueChange)="by.set($event)" label="Done by" [options]="makers() | ebChoices: undefined : undefined : 'everybody'" />
        </label>
        <label>
          <span>Containing</span>
          <input
            pInputText
            type="search"
            (input)="text.set($any($event.target).value)"
            aria-label="Containing"
            placeholder="mass, latch …"
          />
        </label>
      </div>
    </header>
    @if (refusal(); as why) {
      <eb-refusal [message]="why.message" action="Try again" (acted)="read()" />
    }
    @if (waiting() > 0) {
      <p class="soft">{{ waiting() }} of your changes wait on this device and come into the history when they are sent.</p>
    }
    <ol>
      @for (line of shown(); track line.change.id) {
        <li>
          <p class="head">
            <span class="figure">{{ line.when }}</span>
            <b>{{ line.change.madeBy }}</b>
            <span class="soft">{{ line.change.device }}</span>
            @if (line.undoes !== '') {
              <span class="undo">{{ line.undoes }}</span>
            }
            <span class="figure soft revision" title="Revision of the study">{{ line.change.revision }}</span>
          </p>
          @for (op of line.words; track op.id + op.did) {
            <div class="op">
              <span>{{ op.did }}</span>
              <span class="soft">{{ word(op.entity) }}</span>
              @if (isThere(op)) {
                <button pButton [text]="true" severity="secondary" type="button" class="link" (click)="jump(op)">{{ op.name }}</button>
              } @else {
                <span>{{ op.name }}</span>
              }
              @if (op.cells.length > 0) {
                <dl>
                  @for (cell of op.cells; track cell.label) {
                    <dt>{{ cell.label }}</dt>
                    <dd>
                      @if (op.did === 'changed') {
                        <del>{{ cell.was }}</del> <span class="to" aria-hidden="true">→</span> <ins>{{ cell.now }}</ins>
                      } @else {
                        {{ op.did === 'added' ? cell.now : cell.was }}
                      }
                    </dd>
                  }
                </dl>
              }
            </div>
          }
          @if (line.more > 0) {
            <p class="soft">and {{ line.more }} records more in the same change</p>
          }
        </li>
      } @empty {
        @if (!reading() && refusal() === null) {
          <li class="soft">{{ lines().length === 0 ? 'Nothing was done yet.' : 'Nothing of what is read so far fits the filter.' }}</li>
        }
      }
    </ol>
    @if (reading()) {
      <p role="status">Reading the history …</p>
    } @else if (hasMore()) {
      <button pButton severity="secondary" type="button" class="older" (click)="read()">Older changes</button>
    }
  </div>`,
  styles: `
    :host {
      display: contents;
    }
    .sheet {
      overflow: auto;
    }
    header {
      display: flex;
      gap: 12px 24px;
      flex-wrap: wrap;
      justify-content: space-between;
      align-items: center;
    }
    .filters {
      display: flex;
      gap: 12px;
      align-items: center;
    }
    label {
      display: flex;
      gap: 6px;
      align-items: center;
      font: 500 13px/1 var(--label);
      color: var(--soft);
    }
    select,
    input {
      height: 32px;
      border: 1px solid var(--line);
      border-radius: 2px;
      background: var(--sheet);
      color: var(--ink);
      padding: 0 8px;
      max-width: 180px;
    }
    ol {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      border-top: 1px solid var(--line);
      padding: 8px 0;
    }
    .head {
      display: flex;
      gap: 12px;
      align-items: baseline;
    }
    .head b {
      font: 600 14px/1.4 var(--label);
    }
    .revision {
      margin-left: auto;
    }
    .undo {
      font: 500 12.5px/1.3 var(--label);
      color: var(--dye);
    }
    .op {
      display: flex;
      flex-wrap: wrap;
      gap: 2px 8px;
      padding-left: 12px;
    }
    dl {
      flex-basis: 100%;
      display: grid;
      grid-template-columns: 170px minmax(0, 1fr);
      gap: 1px 12px;
      margin: 0 0 4px;
      font-size: 13px;
    }
    dt {
      color: var(--soft);
    }
    dd {
      margin: 0;
      overflow-wrap: anywhere;
    }
    .to {
      margin: 0 6px;
    }
    del {
      color: var(--soft);
    }
    ins {
      text-decoration: none;
      font-weight: 500;
    }
    .link {
      border: 0;
      background: none;
      padding: 0;
      color: var(--dye);
      font: inherit;
      cursor: pointer;
      text-align: left;
    }
    .older {
      align-self: flex-start;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class HistoryPage {
  private readonly api = inject(RecordApi);
  private readonly service = inject(RecordService);
  private readonly open = inject(OpenStudy);
  private readonly names = inject(Names);
  private readonly router = inject(Router);
  protected readonly selection = inject(Selection);
  protected readonly word = kindWord;

  /** id of the part the history is of; empty: of the study */
  readonly about = input('', { transform: (id?: string) => id ?? '' });
  protected readonly by = signal('');
  protected readonly text = signal('');
  protected readonly reading = signal(false);
  protected readonly hasMore = signal(true);
  protected readonly refusal = signal<Refusal | null>(null);
  private readonly older = signal<readonly ToldChange[]>([]);
  protected readonly waiting = computed(() => this.service.waiting().length);
  protected readonly heading = computed(() => {
    const part = this.open.partById().get(this.about());
    return this.about() === '' ? 'History of the study' : `History of ${part?.name ?? 'a part taken off since'}`;
  });
  protected readonly lines = computed<readonly Line[]>(() => {
    const nameOf = this.names.of();
    const revisions = new Map(this.older().map((c) => [c.id, c.revision]));
    return this.older().map((change) => {
      const rows = this.rowsOf(this.about());
      const all = changeWords(change, nameOf);
      const words = rows.length === 0 ? all : all.filter((w) => rows.includes(w.id));
      const undone = change.undoes === null ? undefined : revisions.get(change.undoes);
      return {
        change,
        when: whenText(change.madeAt),
        words: words.slice(0, MOST_SHOWN),
        more: Math.max(0, (rows.length === 0 ? change.opCount : words.length) - MOST_SHOWN),
        undoes: change.undoes === null ? '' : undone === undefined ? 'undoes an earlier change' : `undoes ${undone}`,
      };
    });
  });
  protected readonly makers = computed(() => [...new Set(this.older().map((c) => c.madeBy))].sort());
  protected readonly shown = computed(() => {
    const [by, text] = [this.by(), this.text().trim().toLowerCase()];
    const fits = (line: Line): boolean =>
      line.words.some((w) =>
        [w.name, w.did, kindWord(w.entity), ...w.cells.flatMap((c) => [c.label, c.was, c.now])].join(' ').toLowerCase().includes(text),
      );
    return this.lines().filter((line) => (by === '' || line.change.madeBy === by) && (text === '' || fits(line)));
  });

  constructor() {
    queueMicrotask(() => void this.read());
    const heard = toSignal(this.service.heard);
    effect(() => {
      if (heard()) untracked(() => void this.readNew());
    });
  }

  protected async read(): Promise<void> {
    if (this.reading()) return;
    this.reading.set(true);
    try {
      const before = this.older().at(-1)?.revision ?? null;
      const page = await firstValueFrom(this.api.history(this.service.studyId, this.rowsOf(this.about()), before));
      this.older.update((older) => [...older, ...page]);
      this.hasMore.set(page.length === PAGE);
      this.refusal.set(null);
    } catch (refusal) {
      this.refusal.set(refusal as Refusal);
    }
    this.reading.set(false);
  }

  /** What was done while the page is open comes on top. */
  private async readNew(): Promise<void> {
    const page = await firstValueFrom(this.api.history(this.service.studyId, this.rowsOf(this.about()), null)).catch(() => []);
    const newest = this.older()[0]?.revision ?? 0;
    this.older.update((older) => [...page.filter((c) => c.revision > newest), ...older]);
  }

  /** A part with the sets, pictures and questions that belong to it. */
  private rowsOf(partId: string): readonly string[] {
    if (partId === '') return [];
    return [
      partId,
      ...(this.open.fastenersOf().get(partId) ?? []).map((set) => set.id),
      ...(this.open.jointsOf().get(partId) ?? []).map((set) => set.id),
      ...(this.open.picturesOf().get(partId) ?? []).map((picture) => picture.id),
      ...(this.open.questionsOf().get(partId) ?? []).map((question) => question.id),
    ];
  }

  protected isThere({ entity, id }: OpWords): boolean {
    return entity === 'part' && this.open.partById().has(id);
  }

  protected jump({ id }: OpWords): void {
    void this.router
      .navigate(['/studies', this.service.studyId, 'bench'], { queryParamsHandling: 'preserve' })
      .then(() => this.selection.choosePart(id));
  }

  protected ofPart(about: string): void {
    this.again();
    void this.router.navigate([], { queryParams: { about }, queryParamsHandling: 'merge' }).then(() => this.read());
  }

  protected ofAll(): void {
    this.again();
    void this.router.navigate([], { queryParams: { about: null }, queryParamsHandling: 'merge' }).then(() => this.read());
  }

  private again(): void {
    this.older.set([]);
    this.hasMore.set(true);
    this.text.set('');
    this.by.set('');
  }
}
