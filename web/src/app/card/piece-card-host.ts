import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { nextSequence, removalOps, type Op, type Piece } from '@each-bolt/core/record';
import { massChecks, meanwhileFaults, readingText, shown, tagTaken, totalsAt } from '@each-bolt/core/bench';
import { basisOf, pieceCost } from '@each-bolt/core/cost';
import { issue } from '@each-bolt/core/shared';
import type { OutboxEntry } from '../record/local-store';
import { CardedPiece } from '../record/carded-piece';
import { Names } from '../record/names';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { KnownDialog } from '../known/known-dialog';
import { WhyService } from '../known/why-service';
import { PictureViewer } from '../pictures/picture-viewer';
import { TakePicture } from '../pictures/take-picture';
import { Commands } from '../shell/commands';
import { ShellActs } from '../shell/shell-acts';
import { whenText } from '../record/when';
import { PieceCard, type ShownReading } from './piece-card';
import type { RefusedEdit } from './piece-editor';

/** Connects the card to the record: what is chosen goes in, what was edited goes through the ledger. */
@Component({
  selector: 'eb-piece-card-host',
  imports: [KnownDialog, PictureViewer, PieceCard],
  template: `@if (carded.piece(); as piece) {
    <eb-piece-card
      [piece]="piece"
      [study]="open.study()"
      [figures]="figures()"
      [isAssembly]="isAssembly()"
      [checks]="checks()"
      [cost]="cost()"
      [sets]="open.setsOf(piece.id)"
      [editing]="carded.edited()?.id === piece.id"
      [refusal]="refusal() ?? gone()"
      [readings]="readings()"
      [pictures]="pictures()"
      [pictureFaults]="pictureFaults()"
      [questions]="open.questionsOf().get(piece.id) ?? []"
      [others]="others()"
      [mayEdit]="service.can()('piece.edit')"
      [mayRecord]="service.can()('piece.add')"
      [mayAsk]="service.can()('question.add')"
      (sayKnown)="knowing.set($event)"
      (why)="whys.ask(piece.id, $event)"
      (history)="showHistory(piece)"
      (ask)="acts.ask()"
      (addPictures)="addPictures(piece, $event)"
      (openPicture)="viewing.set($event.id)"
      [saving]="saving()"
      [refusedEdit]="refusedEdit()"
      (edit)="edit($event ? piece : null)"
      (saveEdit)="saveEdit(piece, $event)"
      (ops)="send($event)"
      (remove)="remove(piece)"
      (recordInside)="commands.give('record-inside')"
      (closed)="selection.choose({ piece: null })"
    />
    @defer (when knowing() !== ''; prefetch on idle) {
      <eb-known-dialog
        [visible]="knowing() !== ''"
        (visibleChange)="knowing.set('')"
        [piece]="piece"
        [field]="knownField()"
        (saved)="send([$event])"
      />
    }
    @defer (when viewed() !== null; prefetch on idle) {
      @if (viewed(); as picture) {
        <eb-picture-viewer
          [picture]="picture"
          [url]="takes.url(picture, false)"
          [mayEdit]="service.can()('picture.edit')"
          (ops)="sendPicture($event)"
          (closed)="viewing.set('')"
        />
      }
    }
  }`,
  styles: `
    :host {
      display: contents;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PieceCardHost {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly commands = inject(Commands);
  protected readonly service = inject(RecordService);
  protected readonly whys = inject(WhyService);
  protected readonly acts = inject(ShellActs);
  protected readonly takes = inject(TakePicture);
  private readonly router = inject(Router);
  private readonly names = inject(Names);

  protected readonly carded = inject(CardedPiece);
  /** said when the piece that is being edited was taken off meanwhile */
  protected readonly gone = computed<Refusal | null>(() => {
    if (this.selection.piece() !== null || this.carded.piece() === null) return null;
    const message =
      'Somebody has taken this piece off meanwhile. Save keeps what you typed under “Not kept”, from where it can be put back';
    return { code: 'gone', message, issues: [] };
  });
  protected readonly saving = signal(false);
  protected readonly refusedEdit = signal<RefusedEdit | null>(null);
  /** edits of the open form that the server did not keep: they are given up once a later one is kept */
  private refusedBefore: OutboxEntry[] = [];
  protected readonly refusal = signal<Refusal | null>(null);
  private readonly place = computed(() => this.open.outline().placeOf.get(this.selection.piece()?.id ?? '') ?? -1);
  protected readonly figures = computed(() => {
    const totals = totalsAt(this.open.rollUp().rolled, this.place());
    return totals ? shown(totals, this.open.study().fastenersIn) : null;
  });
  /** what does not add up about its mass */
  protected readonly checks = computed(() => massChecks(this.open.rollUp().rolled, this.place()).map((found) => found.message));
  protected readonly isAssembly = computed(() => (this.open.outline().nodes[this.place()]?.children.length ?? 0) > 0);
  protected readonly cost = computed(() => {
    const piece = this.selection.piece();
    return piece ? pieceCost(piece, this.open.rollUp().meanPerVehicle[this.place()] ?? 1, basisOf(this.open.study())) : null;
  });

  /** the field whose knowledge is being edited */
  protected readonly knowing = signal('');
  protected readonly knownField = computed(() => (this.knowing() === '' ? 'quantity' : this.knowing()));
  protected readonly viewing = signal('');
  protected readonly pictureFaults = signal<readonly string[]>([]);
  private readonly ownPictures = computed(() => this.open.picturesOf().get(this.selection.piece()?.id ?? '') ?? []);
  protected readonly pictures = computed(() => this.ownPictures().map((picture) => ({ picture, url: this.takes.url(picture, true) })));
  protected readonly viewed = computed(() => this.ownPictures().find((p) => p.id === this.viewing()) ?? null);
  protected readonly readings = computed<readonly ShownReading[]>(() => {
    const piece = this.selection.piece();
    if (!piece) return [];
    const own = new Set([piece.id, ...this.open.setsOf(piece.id).map((set) => set.row.id)]);
    return this.open
      .record()
      .readings.filter((r) => own.has(r.aboutId))
      .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
      .map((r) => ({
        id: r.id,
        text: [readingText(r), r.note].filter((part) => part !== '').join(', '),
        raw: r.raw,
        from: [`${r.instrument} ${r.serial}`.trim(), r.takenBy, whenText(r.takenAt)].filter((part) => part !== '').join(' · '),
      }));
  });
  protected readonly others = computed(() => {
    const here = this.acts.others().filter((h) => h.pieceId === this.selection.piece()?.id);
    const names = [...new Set(here.map((h) => h.name))];
    return names.length === 0 ? '' : `${names.join(' and ')} ${names.length === 1 ? 'has' : 'have'} this piece open too`;
  });

  constructor() {
    effect(() => void this.takes.recall(this.ownPictures()));
    effect(() => {
      this.selection.piece();
      untracked(() => this.pictureFaults.set([]));
    });
    effect(() => {
      const edited = this.carded.edited();
      if (edited === null || this.selection.pieceId() === edited.id) return;
      untracked(() => this.edit(null));
    });
    inject(DestroyRef).onDestroy(() => this.carded.edited.set(null));
    this.commands.on('edit-piece', () => this.edit(this.selection.piece()));
  }

  protected async send(ops: readonly Op[]): Promise<void> {
    this.refusal.set(null);
    const result = await this.service.send(ops);
    this.refusal.set(result.kept ? null : result.refusal);
  }

  /** Opens the form of a piece, or closes it. */
  protected edit(piece: Piece | null): void {
    if (piece !== null && this.carded.edited()?.id === piece.id) return;
    this.refusedBefore = [];
    this.refusal.set(null);
    this.refusedEdit.set(null);
    this.carded.edited.set(piece);
  }

  /** Records what the form says. It stays open with what was typed until the record has it, or the server is known to be away. */
  protected async saveEdit(piece: Piece, ops: readonly Op[]): Promise<void> {
    if (this.saving()) return;
    this.refusal.set(null);
    const tag = ops.flatMap((op) => (op.kind === 'piece.edit' ? [op.fields.tag ?? ''] : []))[0] ?? '';
    const fault = tagTaken(this.open.record().pieces, tag, piece.id);
    if (fault !== null) {
      this.refusedEdit.set({ now: null, issues: [issue('tag-twice', fault, 'tag', piece.id)] });
      return;
    }
    this.saving.set(true);
    const made = await this.service.send(ops);
    const became = made.kept ? await this.service.outcome(made.id) : null;
    this.saving.set(false);
    const refusal = made.kept ? (became?.kind === 'refused' ? became.refusal : null) : made.refusal;
    if (became?.kind === 'refused') this.refusedBefore.push(became.entry);
    if (refusal) {
      this.refuse(piece, refusal);
      return;
    }
    for (const entry of this.refusedBefore) await this.service.drop(entry);
    if (this.carded.edited()?.id === piece.id) this.edit(null);
  }

  private refuse(piece: Piece, refusal: Refusal): void {
    const conflict = refusal.conflicts?.find(({ id }) => id === piece.id);
    const meanwhile = conflict?.current ? meanwhileFaults(conflict.cells, piece.id, this.names.of()) : [];
    this.refusedEdit.set({ now: (conflict?.current ?? null) as Piece | null, issues: [...meanwhile, ...refusal.issues] });
    const message =
      conflict?.current === null
        ? `${conflict.by ?? 'Somebody'} took this piece off meanwhile. What you typed is kept under “Not kept”, from where it can be put back`
        : refusal.message;
    this.refusal.set({ ...refusal, message, issues: refusal.issues.filter(({ field }) => field === null) });
  }

  protected async addPictures(piece: Piece, files: readonly File[]): Promise<void> {
    const next = nextSequence(this.ownPictures());
    this.pictureFaults.set(await this.takes.take({ pieceId: piece.id, rigId: null }, files, next));
  }

  protected async sendPicture(ops: readonly Op[]): Promise<void> {
    this.viewing.set('');
    const result = await this.service.send(ops);
    this.pictureFaults.set(result.kept ? [] : [result.refusal.message]);
  }

  protected showHistory(piece: Piece): void {
    void this.router.navigate(['/studies', this.service.studyId, 'history'], {
      queryParams: { about: piece.id },
      queryParamsHandling: 'merge',
    });
  }

  /** Takes a piece off with everything inside it and everything that holds it, as one change. */
  protected async remove(piece: Piece): Promise<void> {
    const ops = removalOps(this.open.record(), 'piece', [piece.id]);
    const ids = ops.flatMap((op) => (op.kind === 'piece.remove' ? [op.id] : []));
    this.refusal.set(null);
    const result = await this.service.send(ops);
    if (!result.kept) this.refusal.set(result.refusal);
    else
      void this.selection.choose({ piece: null, ...(ids.includes(this.selection.inside()?.id ?? '') ? { inside: piece.parentId } : {}) });
  }
}
