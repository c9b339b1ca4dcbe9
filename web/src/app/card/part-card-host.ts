import { ChangeDetectionStrategy, Component, DestroyRef, computed, effect, inject, signal, untracked } from '@angular/core';
import { Router } from '@angular/router';
import { editOp, nextSequence, type Op, type Part } from '@each-bolt/core/record';
import { judgeTag, massChecks, meanwhileFaults, partState, readingText, tagTaken, totalsAt } from '@each-bolt/core/bench';
import { basisOf, partCost, studyShown } from '@each-bolt/core/cost';
import { issue } from '@each-bolt/core/shared';
import { Menu } from 'primeng/menu';
import type { OutboxEntry } from '../record/stored';
import { CardedPart } from '../record/carded-part';
import { Names } from '../record/names';
import { OpenStudy } from '../record/open-study';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { EvidenceDialog } from '../evidence/evidence-dialog';
import { WhyService } from '../evidence/why-service';
import { PictureViewer } from '../pictures/picture-viewer';
import { tagInPictures } from '../pictures/tag-in-picture';
import { TakePicture } from '../pictures/take-picture';
import { Commands } from '../acts/commands';
import { ShellActs } from '../acts/shell-acts';
import { TreeActs } from '../acts/tree-acts';
import { partItems } from '../acts/tree-menu';
import { CheckingService } from '../checking/checking-service';
import { whenText } from '../record/when';
import { PartCard, type SeenTag, type ShownReading } from './part-card';
import type { RefusedEdit } from './part-editor';

/** Connects the card to the record: what is chosen goes in, what was edited goes through the ledger. */
@Component({
  selector: 'eb-part-card-host',
  imports: [EvidenceDialog, Menu, PictureViewer, PartCard],
  template: `@if (carded.part(); as part) {
    <eb-part-card
      [part]="part"
      [study]="open.study()"
      [figures]="figures()"
      [isAssembly]="isAssembly()"
      [state]="state()"
      [checks]="checks()"
      [causes]="causes()"
      [cost]="cost()"
      [sets]="open.setsOf(part.id)"
      [editing]="carded.edited()?.id === part.id"
      [refusal]="refusal() ?? gone()"
      [readings]="readings()"
      [pictures]="pictures()"
      [pictureFaults]="pictureFaults()"
      [questions]="open.questionsOf().get(part.id) ?? []"
      [others]="others()"
      [mayEdit]="service.can()('part.edit')"
      [mayRecord]="service.can()('part.add')"
      [mayAsk]="service.can()('question.add')"
      (sayEvidence)="knowing.set($event)"
      (why)="whys.ask(part.id, $event)"
      (history)="showHistory(part)"
      (ask)="acts.ask()"
      (openCause)="showCause($event)"
      [seenTag]="seenTag()"
      (takeSeenTag)="takeSeenTag(part, $event)"
      (leaveSeenTag)="seenTag.set(null)"
      (addPictures)="addPictures(part, $event)"
      (openPicture)="viewing.set($event.id)"
      [saving]="saving()"
      [refusedEdit]="refusedEdit()"
      (edit)="edit($event ? part : null)"
      (saveEdit)="saveEdit(part, $event)"
      (ops)="send($event)"
      (remove)="remove()"
      (more)="menu.toggle($event)"
      (recordInside)="commands.give('record-inside')"
      (closed)="selection.choose({ part: null })"
    />
    <p-menu #menu [model]="items()" [popup]="true" appendTo="body" />
    @defer (when knowing() !== ''; prefetch on idle) {
      <eb-evidence-dialog
        [visible]="knowing() !== ''"
        (visibleChange)="knowing.set('')"
        [part]="part"
        [field]="evidenceField()"
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
export class PartCardHost {
  protected readonly open = inject(OpenStudy);
  protected readonly selection = inject(Selection);
  protected readonly commands = inject(Commands);
  protected readonly service = inject(RecordService);
  protected readonly whys = inject(WhyService);
  protected readonly acts = inject(ShellActs);
  private readonly tree = inject(TreeActs);
  protected readonly items = computed(() => partItems(this.tree));
  protected readonly takes = inject(TakePicture);
  private readonly router = inject(Router);
  private readonly names = inject(Names);
  private readonly checking = inject(CheckingService);

  protected readonly carded = inject(CardedPart);
  /** said when the part that is being edited was taken off meanwhile */
  protected readonly gone = computed<Refusal | null>(() => {
    if (this.selection.part() !== null || this.carded.part() === null) return null;
    const message = 'Somebody has taken this part off meanwhile. Save keeps what you typed under “Not kept”, from where it can be put back';
    return { code: 'gone', message, issues: [] };
  });
  protected readonly saving = signal(false);
  protected readonly refusedEdit = signal<RefusedEdit | null>(null);
  /** edits of the open form that the server did not keep: they are given up once a later one is kept */
  private refusedBefore: OutboxEntry[] = [];
  protected readonly refusal = signal<Refusal | null>(null);
  private readonly place = computed(() => this.open.outline().placeOf.get(this.selection.part()?.id ?? '') ?? -1);
  protected readonly figures = computed(() => {
    const totals = totalsAt(this.open.rollUp().rolled, this.place());
    return totals ? studyShown(totals, this.open.study().fastenersIn) : null;
  });
  /** what does not add up about its mass */
  protected readonly state = computed(() => {
    const part = this.selection.part();
    return part ? partState(part, this.open.removed()) : null;
  });
  protected readonly checks = computed(() => massChecks(this.open.rollUp().rolled, this.place()).map((found) => found.message));
  protected readonly causes = computed(() => this.checking.causesOfPart().get(this.selection.part()?.id ?? '') ?? []);
  protected readonly isAssembly = computed(() => (this.open.outline().nodes[this.place()]?.children.length ?? 0) > 0);
  protected readonly cost = computed(() => {
    const part = this.selection.part();
    return part ? partCost(part, this.open.rollUp().meanPerVehicle[this.place()] ?? 1, basisOf(this.open.study())) : null;
  });

  /** the field whose knowledge is being edited */
  protected readonly knowing = signal('');
  protected readonly evidenceField = computed(() => (this.knowing() === '' ? 'quantity' : this.knowing()));
  protected readonly viewing = signal('');
  protected readonly pictureFaults = signal<readonly string[]>([]);
  /** a tag that was seen in the picture taken last */
  protected readonly seenTag = signal<SeenTag | null>(null);
  private readonly ownPictures = computed(() => this.open.picturesOf().get(this.selection.part()?.id ?? '') ?? []);
  protected readonly pictures = computed(() => this.ownPictures().map((picture) => ({ picture, url: this.takes.url(picture, true) })));
  protected readonly viewed = computed(() => this.ownPictures().find((p) => p.id === this.viewing()) ?? null);
  protected readonly readings = computed<readonly ShownReading[]>(() => {
    const part = this.selection.part();
    if (!part) return [];
    const own = new Set([part.id, ...this.open.setsOf(part.id).map((set) => set.row.id)]);
    return this.open
      .record()
      .readings.filter((r) => own.has(r.aboutId))
      .sort((a, b) => (a.takenAt < b.takenAt ? 1 : -1))
      .map((r) => ({
        id: r.id,
        text: [readingText(r), r.note].filter((text) => text !== '').join(', '),
        raw: r.raw,
        from: [`${r.instrument} ${r.serial}`.trim(), r.takenBy, whenText(r.takenAt)].filter((text) => text !== '').join(' · '),
      }));
  });
  protected readonly others = computed(() => {
    const here = this.acts.others().filter((h) => h.partId === this.selection.part()?.id);
    const names = [...new Set(here.map((h) => h.name))];
    return names.length === 0 ? '' : `${names.join(' and ')} ${names.length === 1 ? 'has' : 'have'} this part open too`;
  });

  constructor() {
    effect(() => void this.takes.recall(this.ownPictures()));
    effect(() => {
      this.selection.part();
      untracked(() => {
        this.pictureFaults.set([]);
        this.seenTag.set(null);
      });
    });
    effect(() => {
      const edited = this.carded.edited();
      if (edited === null || this.selection.partId() === edited.id) return;
      untracked(() => this.edit(null));
    });
    inject(DestroyRef).onDestroy(() => this.carded.edited.set(null));
    this.commands.on('edit-part', () => this.edit(this.selection.part()));
  }

  protected async send(ops: readonly Op[]): Promise<void> {
    this.refusal.set(null);
    const result = await this.service.send(ops);
    this.refusal.set(result.kept ? null : result.refusal);
  }

  /** Opens the form of a part, or closes it. */
  protected edit(part: Part | null): void {
    if (part !== null && this.carded.edited()?.id === part.id) return;
    this.refusedBefore = [];
    this.refusal.set(null);
    this.refusedEdit.set(null);
    this.carded.edited.set(part);
  }

  /** Records what the form says. It stays open with what was typed until the record has it, or the server is known to be away. */
  protected async saveEdit(part: Part, ops: readonly Op[]): Promise<void> {
    if (this.saving()) return;
    this.refusal.set(null);
    const tag = ops.flatMap((op) => (op.kind === 'part.edit' ? [op.fields.tag ?? ''] : []))[0] ?? '';
    const fault = tagTaken(this.open.record().parts, tag, part.id);
    if (fault !== null) {
      this.refusedEdit.set({ now: null, issues: [issue('tag-twice', fault, 'tag', part.id)] });
      return;
    }
    this.saving.set(true);
    const made = await this.service.send(ops);
    const became = made.kept ? await this.service.outcome(made.id) : null;
    this.saving.set(false);
    const refusal = made.kept ? (became?.kind === 'refused' ? became.refusal : null) : made.refusal;
    if (became?.kind === 'refused') this.refusedBefore.push(became.entry);
    if (refusal) {
      this.refuse(part, refusal);
      return;
    }
    for (const entry of this.refusedBefore) await this.service.drop(entry);
    if (this.carded.edited()?.id === part.id) this.edit(null);
  }

  private refuse(part: Part, refusal: Refusal): void {
    const conflict = refusal.conflicts?.find(({ id }) => id === part.id);
    const meanwhile = conflict?.current ? meanwhileFaults(conflict.cells, part.id, this.names.of()) : [];
    this.refusedEdit.set({ now: (conflict?.current ?? null) as Part | null, issues: [...meanwhile, ...refusal.issues] });
    const message =
      conflict?.current === null
        ? `${conflict.by ?? 'Somebody'} took this part off meanwhile. What you typed is kept under “Not kept”, from where it can be put back`
        : refusal.message;
    this.refusal.set({ ...refusal, message, issues: refusal.issues.filter(({ field }) => field === null) });
  }

  protected async addPictures(part: Part, files: readonly File[]): Promise<void> {
    const next = nextSequence(this.ownPictures());
    this.pictureFaults.set(await this.takes.take({ partId: part.id, rigId: null }, files, next));
    this.seenTag.set(null);
    const text = await tagInPictures(files);
    if (text !== null && this.selection.part()?.id === part.id) this.seenTag.set(this.judged(part, text));
  }

  /** What a tag seen in a picture of a part says of it: nothing where it is the part’s own. */
  private judged(part: Part, text: string): SeenTag | null {
    const place = { vehicleId: part.vehicleId, subsystemId: this.selection.subsystem()?.id ?? null, packageId: null };
    const judged = judgeTag(this.open.record(), text, place);
    if (judged.kind === 'stop') return { message: `In the picture: ${judged.message}`, tag: '', partId: '' };
    if (judged.kind === 'opens')
      return judged.part.id === part.id
        ? null
        : { message: `The tag in the picture, ${judged.tag}, is on “${judged.part.name}”`, tag: '', partId: judged.part.id };
    if (part.tag !== '')
      return {
        message: `The tag in the picture is ${judged.tag}; this part has ${part.tag}. One of the two is wrong`,
        tag: '',
        partId: '',
      };
    return { message: `The picture shows the tag ${judged.tag}, which is on no part yet`, tag: judged.tag, partId: '' };
  }

  protected takeSeenTag(part: Part, seen: SeenTag): void {
    this.seenTag.set(null);
    if (seen.partId !== '') this.selection.choosePart(seen.partId);
    const op = seen.tag === '' ? null : editOp('part', part, { tag: seen.tag });
    if (op) void this.send([op]);
  }

  protected async sendPicture(ops: readonly Op[]): Promise<void> {
    this.viewing.set('');
    const result = await this.service.send(ops);
    this.pictureFaults.set(result.kept ? [] : [result.refusal.message]);
  }

  protected showHistory(part: Part): void {
    void this.router.navigate(['/studies', this.service.studyId, 'history'], {
      queryParams: { about: part.id },
      queryParamsHandling: 'merge',
    });
  }

  protected showCause(key: string): void {
    void this.router.navigate(['/studies', this.service.studyId, 'reconcile', 'open'], {
      queryParams: { cause: key },
      queryParamsHandling: 'merge',
    });
  }

  /** Asks whether the part of the card is deleted, and that one alone. */
  protected remove(): void {
    this.tree.marked.set(new Set());
    this.tree.ask('delete');
  }
}
