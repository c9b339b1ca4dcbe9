import { ChangeDetectionStrategy, Component, computed, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { nextSequence, type Op, type Piece } from '@each-bolt/core/record';
import { massChecks, readingText, removePiecesOps, shown, totalsAt } from '@each-bolt/core/bench';
import { basisOf, pieceCost } from '@each-bolt/core/cost';
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

/** Connects the card to the record: what is chosen goes in, what was edited goes through the ledger. */
@Component({
  selector: 'eb-piece-card-host',
  imports: [KnownDialog, PictureViewer, PieceCard],
  template: `@if (selection.piece(); as piece) {
    <eb-piece-card
      [piece]="piece"
      [study]="open.study()"
      [figures]="figures()"
      [isAssembly]="isAssembly()"
      [checks]="checks()"
      [cost]="cost()"
      [sets]="open.setsOf(piece.id)"
      [editing]="editing() === piece.id"
      [refusal]="refusal()"
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
      (edit)="editing.set($event ? piece.id : '')"
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

  /** id of the piece whose form is open */
  protected readonly editing = signal('');
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
    this.commands.on('edit-piece', () => this.editing.set(this.selection.piece()?.id ?? ''));
  }

  protected async send(ops: readonly Op[]): Promise<void> {
    this.refusal.set(null);
    const result = await this.service.send(ops);
    this.refusal.set(result.kept ? null : result.refusal);
    if (result.kept) this.editing.set('');
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
    const { nodes } = this.open.outline();
    const ids: string[] = [];
    const waiting = [this.place()];
    for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
      const node = nodes[at];
      if (!node) continue;
      ids.push(node.id);
      waiting.push(...node.children);
    }
    const ops = removePiecesOps(this.open.record(), ids);
    this.refusal.set(null);
    const result = await this.service.send(ops);
    if (!result.kept) this.refusal.set(result.refusal);
    else
      void this.selection.choose({ piece: null, ...(ids.includes(this.selection.inside()?.id ?? '') ? { inside: piece.parentId } : {}) });
  }
}
