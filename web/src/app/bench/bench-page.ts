import { ChangeDetectionStrategy, Component, computed, inject, signal, viewChild } from '@angular/core';
import { countingRuleText, type Op, type Part } from '@each-bolt/core/record';
import {
  closedWords,
  entriesText,
  judgeTag,
  printLine,
  readTag,
  tagFault,
  takeLength,
  totalsAt,
  type Entry,
  type Taken,
} from '@each-bolt/core/bench';
import { studyShown } from '@each-bolt/core/cost';
import { counted } from '@each-bolt/core/shared';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { ContextMenu } from 'primeng/contextmenu';
import { IconButton } from '../shared/icon-button';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { RefusalNote } from '../shared/refusal-note';
import { VehicleMark } from '../shared/vehicle-mark';
import { Commands } from '../acts/commands';
import { CheckingService } from '../checking/checking-service';
import { TreeActs } from '../acts/tree-acts';
import { partItems } from '../acts/tree-menu';
import { BatchPanel } from './batch-panel';
import { ElsewhereQuestion, type ElsewhereAnswer } from './elsewhere-question';
import { BenchWork } from './bench-work';
import { EntryLine, type LineKept } from './entry-line';
import { ImportDialog } from './import-dialog';
import { InstrumentStrip } from './instrument-strip';
import { PartsTable } from './parts-table';
import { partDetail, rowFigures } from './row-figures';
import { FirstSteps } from './first-steps';
import { SessionBar } from './session-bar';

/** So many lines are remembered to be varied. */
const MOST_BEFORE = 50;

interface RefusedLine {
  readonly line: string;
  readonly refusal: Refusal;
}

/** Recording at the bench: the entry line and the tree it fills. */
@Component({
  selector: 'eb-bench-page',
  imports: [
    BatchPanel,
    ContextMenu,
    EntryLine,
    ImportDialog,
    InstrumentStrip,
    PartsTable,
    RefusalNote,
    SessionBar,
    VehicleMark,
    ButtonDirective,
    IconButton,
    ElsewhereQuestion,
    FirstSteps,
  ],
  template: `<div class="sheet">
    @if (mayRecord()) {
      <eb-first-steps />
    }
    @if (selection.vehicle(); as vehicle) {
      <header class="title">
        <nav aria-label="Where new parts go">
          <eb-vehicle-mark [place]="selection.vehiclePlace()" />
          <span>{{ vehicle.name }}</span>
          @if (selection.inside() !== null) {
            <i class="pi pi-angle-right" aria-hidden="true"></i>
            <button pButton [text]="true" severity="secondary" type="button" (click)="recordAt(null)">
              {{ selection.subsystem()?.name }}
            </button>
          }
          @for (part of above(); track part.id) {
            <i class="pi pi-angle-right" aria-hidden="true"></i>
            <button pButton [text]="true" severity="secondary" type="button" (click)="recordAt(part.id)">{{ part.name }}</button>
          }
          <i class="pi pi-angle-right" aria-hidden="true"></i>
          <h1>{{ heading() }}</h1>
        </nav>
        <p class="said" role="status">{{ said() }}</p>
        @if (mayRecord()) {
          <button pButton severity="secondary" type="button" [disabled]="selection.subsystem() === null" (click)="importing.set(true)">
            <i class="pi pi-file-import" aria-hidden="true"></i> Import a file
          </button>
        }
      </header>
      @if (mayRecord()) {
        <eb-session-bar />
      }
      @if (selection.subsystem() === null) {
        <p class="sheet-empty">
          The study has no subsystem yet. Add one with “+ subsystem” below the stack; then parts can be recorded under it.
        </p>
      } @else {
        @if (mayRecord()) {
          <eb-entry-line
            [hint]="hint()"
            [onto]="selection.part()?.quantity ?? 1"
            [book]="work.book()"
            [before]="before()"
            [isTag]="isTag"
            (kept)="keep($event)"
            (tagged)="scanned($event)"
            (pasted)="batch.set($event)"
            (typing)="work.touch()"
            (carriedDropped)="dropCarried()"
          />
          <eb-instrument-strip (asText)="insert($event)" (said)="said.set($event)" />
        }
        @if (batch().length > 0) {
          <eb-batch-panel [lines]="batch()" (kept)="keepBatch($event)" (cancelled)="batch.set([])" />
        }
        @if (work.elsewhere(); as asked) {
          <eb-elsewhere-question [asked]="asked" (answered)="answerElsewhere($event)" />
        }
        @for (lost of refused(); track $index) {
          <eb-refusal
            [message]="lost.refusal.message + ' — “' + lost.line + '”'"
            [issues]="lost.refusal.issues"
            action="Restore the line"
            (acted)="putBack($index)"
          />
        }
        @if (isEmpty()) {
          <p class="sheet-empty">
            Nothing is recorded under {{ selection.subsystem()?.name }} on {{ vehicle.name }} yet.
            @if (mayRecord()) {
              Type the first part above and press Enter, or import a file of parts.
            }
          </p>
        } @else {
          @if (tree.marked().size > 0) {
            <section class="acts" aria-label="Parts chosen together">
              <b>{{ marks() }}</b>
              <button pButton severity="secondary" type="button" (click)="tree.ask('move')">Move to …</button>
              <button pButton severity="secondary" type="button" (click)="tree.ask('assemble')">Assemble …</button>
              <button pButton severity="secondary" type="button" [disabled]="tree.marked().size < 2" (click)="tree.merge()">Merge</button>
              <button pButton severity="secondary" type="button" (click)="tree.ask('give')">Give …</button>
              <button pButton severity="secondary" type="button" (click)="tree.ask('copy')">Copy to …</button>
              <button pButton severity="secondary" type="button" (click)="tree.ask('delete')">Delete …</button>
              <eb-icon-button label="Choose none" (acted)="tree.marked.set(none)" />
            </section>
          }
          <eb-parts-table
            [outline]="open.outline()"
            [root]="root()"
            [figuresOf]="figuresOf()"
            [total]="total()"
            [chosen]="selection.part()?.id ?? ''"
            [position]="selection.inside()?.id ?? ''"
            [currency]="open.study().currency"
            [countTitle]="'By the counting rule: ' + rule()"
            [marked]="tree.marked()"
            [cut]="tree.cut()"
            [mayMove]="mayRecord()"
            (picked)="pick($event)"
            (markedToo)="tree.mark($event)"
            (dropped)="tree.move($event.place, $event.ids)"
            (menuAsked)="partMenu.show($event)"
          />
          <p-contextmenu #partMenu [model]="partItems()" appendTo="body" />
        }
      }
      @defer (when importing(); prefetch on idle) {
        <eb-import-dialog
          [(visible)]="importing"
          [record]="open.record()"
          [vehicle]="vehicle"
          [subsystem]="selection.subsystem()"
          (loadRows)="load($event)"
        />
      }
    } @else {
      <p class="sheet-empty">The study has no vehicle yet. Add the first with “+ vehicle” below the stack.</p>
    }
  </div>`,
  styles: `
    nav {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 2px 6px;
      font: 500 13px/1.4 var(--label);
      color: var(--soft);
    }
    nav button {
      border: 0;
      background: none;
      padding: 2px;
      color: var(--dye);
      font: inherit;
      cursor: pointer;
    }
    nav i {
      font-size: 11px;
    }
    nav h1 {
      color: var(--ink);
    }
    .sheet {
      gap: 6px;
      padding-top: 8px;
    }
    nav h1 {
      font-size: 18px;
    }
    .title {
      display: flex;
      gap: 16px;
      align-items: center;
    }
    .said {
      flex: 1;
      min-width: 0;
      text-align: right;
      font-size: 13px;
      color: var(--soft);
      overflow: hidden;
      text-overflow: ellipsis;
      white-space: nowrap;
    }
    /* at twice the size what was said stands below the title */
    @media (max-width: 760px) {
      .title {
        flex-wrap: wrap;
        gap: 4px 16px;
      }
      .said {
        order: 1;
        flex: 1 1 100%;
        text-align: left;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class BenchPage {
  protected readonly open = inject(OpenStudy);
  private readonly checking = inject(CheckingService);
  protected readonly selection = inject(Selection);
  protected readonly work = inject(BenchWork);
  protected readonly tree = inject(TreeActs);
  protected readonly partItems = computed(() => partItems(this.tree));
  protected readonly marks = computed(() => `${counted(this.tree.marked().size, 'part')} chosen`);
  protected readonly none: ReadonlySet<string> = new Set();
  private readonly service = inject(RecordService);
  protected readonly mayRecord = computed(() => this.service.can()('part.add'));
  private readonly entryLine = viewChild(EntryLine);

  protected readonly importing = signal(false);
  protected readonly said = signal('');
  /** lines that were not kept, each until it is put back: nothing typed is lost */
  protected readonly refused = signal<readonly RefusedLine[]>([]);
  /** lines kept at this bench, for the next one to be a variation of */
  protected readonly before = signal<readonly string[]>([]);
  /** lines pasted together, until they are kept or given up */
  protected readonly batch = signal<readonly string[]>([]);

  protected readonly root = computed(() => this.open.outline().placeOf.get(this.selection.subsystemKey()) ?? -1);
  protected readonly isEmpty = computed(() => (this.open.outline().nodes[this.root()]?.children.length ?? 0) === 0);
  protected readonly rule = computed(() => countingRuleText(this.open.study()));
  protected readonly heading = computed(
    () => this.selection.inside()?.name ?? this.selection.subsystem()?.name ?? this.selection.vehicle()?.name ?? '',
  );
  protected readonly goes = computed(() =>
    this.selection.inside()
      ? `New parts go inside ${this.selection.inside()?.name}.`
      : `New parts go straight under ${this.selection.subsystem()?.name ?? 'the subsystem'}.`,
  );
  protected readonly hint = computed(() => {
    const part = this.selection.part();
    const sets = part
      ? `What holds or feeds it (12 M6x16 T30 8.8 -z, 34 spot, bead 1.4 m, 2 connector 12p latch, hose id8 1.2 m, fluid coolant 0.4 kg) goes onto ${part.name}; how it came off after “>”.`
      : 'Choose a part to record what holds and feeds it.';
    return `${this.goes()} Count, name, material, process, size, mass. ${sets}`;
  });
  /** assemblies between the subsystem and the position, for the way back */
  protected readonly above = computed<readonly Part[]>(() => {
    const parts: Part[] = [];
    for (let at = this.selection.inside()?.parentId ?? null; at !== null;) {
      const part = this.open.partById().get(at);
      if (!part) break;
      parts.unshift(part);
      at = part.parentId;
    }
    return parts;
  });
  protected readonly figuresOf = computed(() => {
    const { rolled } = this.open.rollUp();
    const { fastenersIn } = this.open.study();
    const parts = this.open.partById();
    const causes = this.checking.countAt();
    return (place: number) => {
      const part = parts.get(rolled.outline.nodes[place]?.id ?? '');
      const totals = totalsAt(rolled, place);
      if (!totals) throw new RangeError(`no totals at ${place}`);
      const closed = closedWords((this.open.closed()[place] ?? 0) - (part?.opened === 'closed' ? 1 : 0));
      const detail = [part ? partDetail(part) : '', closed].filter((text) => text !== '').join(' · ');
      return rowFigures(part?.name ?? '', detail, studyShown(totals, fastenersIn), causes[place]);
    };
  });
  protected readonly total = computed(() => {
    const totals = totalsAt(this.open.rollUp().rolled, this.root());
    const closed = closedWords(this.open.closed()[this.root()] ?? 0);
    return totals ? rowFigures('Total', closed, studyShown(totals, this.open.study().fastenersIn)) : null;
  });

  constructor() {
    const commands = inject(Commands);
    commands.on('entry-line', () => this.entryLine()?.focus());
    commands.on('import', () => this.importing.set(this.mayRecord() && this.selection.subsystem() !== null));
    commands.on('record-inside', () => this.recordAt(this.selection.part()?.id ?? null));
    commands.on('put-line-back', (line) => this.entryLine()?.putBack(line));
    commands.on('record-above', () => this.recordAt(this.selection.inside()?.parentId ?? null));
  }

  protected recordAt(partId: string | null): void {
    void this.selection.choose({ inside: partId });
    this.entryLine()?.focus();
  }

  protected async keep({ line, entry }: LineKept): Promise<void> {
    const wrong = entry.kind === 'part' ? this.wrongTag(entry.tag) : null;
    if (wrong !== null) {
      this.refuse(line, { code: 'tag', message: wrong, issues: [] });
      return;
    }
    this.before.update((lines) => [...lines, line].slice(-MOST_BEFORE));
    const holder = this.selection.part()?.name ?? '';
    const result = await this.work.keep([entry], line);
    if (!result.kept) {
      if (result.refusal) this.refuse(line, result.refusal);
      // where the next line is being typed already, this one waits beside it
      else if (this.entryLine()?.isEmpty() === false)
        this.refuse(line, { code: 'back', message: 'Not kept: you took the line back', issues: [] });
      else this.entryLine()?.putBack(line);
      return;
    }
    const about = result.partId ?? this.selection.part()?.id;
    if (about !== undefined) await this.keepReadings(line, about);
    const onto = entry.kind === 'part' || entry.kind === 'step' ? 'Kept' : `Kept on ${this.selection.part()?.name ?? holder}`;
    this.said.set(`${onto}: ${printLine(entry)}`);
  }

  private readonly tags = computed(() => new Set(this.open.record().parts.map((p) => p.tag.toUpperCase())));
  /** one of the organisation, misread ones too, or one that some part has */
  protected readonly isTag = (line: string): boolean => {
    const text = line.trim().replace(/^#/, '');
    return text !== '' && this.selection.vehicle() !== null && (readTag(text).kind !== 'other' || this.tags().has(text.toUpperCase()));
  };

  /** A tag alone opens its part; what must not be used here is stopped with the reason. */
  protected scanned(line: string): void {
    const judged = judgeTag(this.open.record(), line.trim().replace(/^#/, ''), this.tagPlace());
    if (judged.kind === 'opens') {
      this.selection.choosePart(judged.part.id);
      this.said.set(`${judged.tag} is on ${judged.part.name}`);
    } else if (judged.kind === 'free') {
      const part = this.selection.part();
      if (part?.tag === '') void this.tagPart(part, judged.tag);
      else this.entryLine()?.putBack(`#${judged.tag} `);
    } else {
      const instead = judged.likely === null ? '' : ` The next free one here is ${judged.likely}.`;
      this.refuse(line, { code: judged.code, message: `${judged.message}.${instead}`, issues: [] });
    }
  }

  private async tagPart(part: Part, tag: string): Promise<void> {
    const refusal = await this.work.send([{ kind: 'part.edit', id: part.id, was: { tag: part.tag }, fields: { tag } }]);
    if (refusal) this.refuse(`#${tag}`, refusal);
    else this.said.set(`${tag} is on ${part.name} now`);
  }

  private tagPlace(): { readonly vehicleId: string; readonly subsystemId: string | null; readonly packageId: string | null } {
    return {
      vehicleId: this.selection.vehicle()?.id ?? '',
      subsystemId: this.selection.subsystem()?.id ?? null,
      packageId: this.work.session()?.packageId ?? null,
    };
  }

  private wrongTag(tag: string): string | null {
    return tagFault(this.open.record(), tag, this.tagPlace(), null);
  }

  protected async keepBatch({ entries, lines }: { readonly entries: readonly Entry[]; readonly lines: readonly string[] }): Promise<void> {
    const wrong = entries.flatMap((entry) => (entry.kind === 'part' ? (this.wrongTag(entry.tag) ?? []) : []));
    if (wrong[0] !== undefined) {
      this.refuse(lines[0] ?? '', { code: 'tag', message: wrong[0], issues: [] });
      return;
    }
    const result = await this.work.keep(entries, lines.join('\n'));
    if (!result.kept) {
      if (result.refusal) this.refuse(lines[result.line] ?? '', result.refusal);
      return;
    }
    this.batch.set([]);
    this.said.set(`Kept as one change: ${entriesText(entries)}`);
  }

  /** A reading goes into the line at the cursor. */
  private readonly written = signal<readonly { readonly text: string; readonly taken: Taken }[]>([]);

  protected insert({ text, ...taken }: Taken & { readonly text: string }): void {
    this.work.touch();
    this.written.update((before) => [...before, { text, taken }]);
    this.entryLine()?.insert(text);
  }

  /** The readings of a line that was kept, to be kept as they were read. */
  private async keepReadings(line: string, partId: string): Promise<void> {
    const read = this.written().filter(({ text }) => line.includes(text));
    this.written.set([]);
    const refusal = await this.work.send(read.map(({ taken }) => takeLength(taken, partId, () => crypto.randomUUID())));
    if (refusal) this.refuse(line, refusal);
  }

  private refuse(line: string, refusal: Refusal): void {
    this.refused.update((lines) => [...lines, { line, refusal }]);
  }

  protected putBack(at: number): void {
    const line = this.refused()[at]?.line;
    if (line === undefined) return;
    this.refused.update((lines) => lines.filter((_, i) => i !== at));
    this.entryLine()?.putBack(line);
  }

  protected async load({
    ops,
    rows,
    done,
  }: {
    readonly ops: readonly Op[];
    readonly rows: number;
    readonly done: (refusal: Refusal | null) => void;
  }): Promise<void> {
    const result = await this.service.send(ops);
    done(result.kept ? null : result.refusal);
    if (result.kept) this.said.set(`Loaded ${counted(rows, 'row')} as one change.`);
  }

  protected async dropCarried(): Promise<void> {
    const had = this.work.lastStep()?.carried.length ?? 0;
    const refusal = await this.work.dropCarried();
    this.said.set(refusal?.message ?? (had === 0 ? 'The last removal took nothing over' : 'Dropped what the last removal took over'));
  }

  protected answerElsewhere(answer: ElsewhereAnswer): void {
    this.work.answerElsewhere(answer);
    this.entryLine()?.focus();
  }

  /** One part is chosen, and no others with it. */
  protected pick(id: string): void {
    this.tree.marked.set(this.none);
    this.selection.choosePart(id);
  }
}
