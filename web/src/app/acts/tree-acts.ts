import { DOCUMENT, Injectable, computed, inject, linkedSignal, signal } from '@angular/core';
import { removalOps, type Part } from '@each-bolt/core/record';
import {
  assembleParts,
  copyParts,
  dissolvePart,
  giveParts,
  goesWith,
  mergeParts,
  mergeSubsystems,
  moveParts,
  moveSubsystem,
  removeSubsystem,
  splitPart,
  type Given,
  type Place,
  type TreeChange,
} from '@each-bolt/core/bench';
import { counted, type EvidenceMark } from '@each-bolt/core/shared';
import { OpenStudy } from '../record/open-study';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { ShellActs } from './shell-acts';

/** What is asked before an act on the tree is done. */
export type TreeAsk =
  'move' | 'copy' | 'assemble' | 'split' | 'give' | 'delete' | 'rename subsystem' | 'move subsystem' | 'merge subsystem';

const newId = (): string => crypto.randomUUID();

/** Moving and mending of the tree: parts chosen together, cut and put, and what is done with them, each as one change. */
@Injectable({ providedIn: 'root' })
export class TreeActs {
  private readonly open = inject(OpenStudy);
  private readonly service = inject(RecordService);
  private readonly selection = inject(Selection);
  private readonly shell = inject(ShellActs);

  private readonly studyId = computed(() => this.open.study().id);
  /** parts chosen together, beside the one whose card is open; choosing another one, or another place, begins anew */
  readonly marked = linkedSignal<string, ReadonlySet<string>>({
    source: () => [this.studyId(), this.selection.subsystemKey(), this.selection.partId()].join(' '),
    computation: () => new Set(),
  });
  /** parts that were cut, until they are put somewhere in the same study */
  readonly cut = linkedSignal<string, readonly string[]>({ source: this.studyId, computation: () => [] });
  readonly asking = signal<TreeAsk | null>(null);
  private readonly document = inject(DOCUMENT);
  /** what had the focus when it was asked */
  private askedFrom: Element | null = null;
  /** what was chosen when it was asked: what is chosen meanwhile, by a scanner or another page, is not meant */
  private readonly asked = signal<{ readonly ids: readonly string[]; readonly subsystemId: string }>({ ids: [], subsystemId: '' });
  readonly fault = signal('');
  readonly may = computed(() => this.service.can()('part.add'));

  /** the parts an act is about: those it was asked for; else those chosen together, else the one that is chosen */
  readonly parts = computed<readonly Part[]>(() => {
    const [marked, part] = [this.marked(), this.selection.part()];
    const ids = this.asking() !== null ? new Set(this.asked().ids) : marked;
    const all = this.open.record().parts.filter((one) => ids.has(one.id));
    return this.asking() !== null || all.length > 0 ? all : part ? [part] : [];
  });
  readonly subsystem = computed(() =>
    this.asking() === null ? this.selection.subsystem() : (this.open.subsystemById().get(this.asked().subsystemId) ?? null),
  );
  readonly ids = computed(() => this.parts().map((part) => part.id));
  readonly names = computed(() => {
    const [first, ...others] = this.parts();
    return first ? `${first.name}${others.length === 0 ? '' : ` and ${counted(others.length, 'more', 'more')}`}` : '';
  });
  readonly isAssembly = computed(() => {
    const [only, ...others] = this.ids();
    return only !== undefined && others.length === 0 && this.open.record().parts.some((part) => part.parentId === only);
  });
  /** what would go with the parts, in words */
  readonly goesWith = computed(() => goesWith(removalOps(this.open.record(), 'part', this.ids()), this.ids()));

  mark(id: string): void {
    this.marked.update((marked) => {
      const next = new Set(marked);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  ask(what: TreeAsk): void {
    if (this.asking() !== null) return;
    this.askedFrom = this.document.activeElement;
    this.fault.set('');
    this.asked.set({ ids: this.ids(), subsystemId: this.selection.subsystem()?.id ?? '' });
    if (!this.may()) this.shell.said.set('Your role does not change the tree; ask a recorder or a lead');
    else if (this.parts().length === 0 && !what.endsWith('subsystem')) this.shell.said.set('Choose a part first');
    else this.asking.set(what);
  }

  /** The focus goes back to where it was before something was asked, if that is still there. */
  focusBack(): void {
    if (this.askedFrom instanceof HTMLElement && this.askedFrom.isConnected) this.askedFrom.focus();
    this.askedFrom = null;
  }

  cutParts(): void {
    if (!this.may() || this.parts().length === 0) return;
    this.cut.set(this.ids());
    this.shell.said.set(`${this.names()} cut: choose where it goes, and put it there with Ctrl V`);
  }

  /** Puts what was cut into the chosen part, or under the chosen subsystem. */
  async put(): Promise<void> {
    const place = this.placeChosen();
    if (this.cut().length === 0 || place === null) return;
    if (await this.done(moveParts(this.open.record(), this.cut(), place))) this.cut.set([]);
  }

  move(place: Place, ids: readonly string[] = this.ids()): Promise<boolean> {
    return this.done(moveParts(this.open.record(), ids, place));
  }

  copy(place: Place): Promise<boolean> {
    return this.done(copyParts(this.open.record(), this.ids(), place, newId));
  }

  assemble(name: string): Promise<boolean> {
    return this.done(assembleParts(this.open.record(), this.ids(), name, newId));
  }

  split(count: number): Promise<boolean> {
    return this.done(splitPart(this.open.record(), this.ids()[0] ?? '', count, newId));
  }

  merge(): Promise<boolean> {
    return this.done(mergeParts(this.open.record(), this.ids()));
  }

  dissolve(): Promise<boolean> {
    return this.done(dissolvePart(this.open.record(), this.ids()[0] ?? ''));
  }

  give(given: Given, mark: EvidenceMark | null): Promise<boolean> {
    return this.done(giveParts(this.open.record(), this.ids(), given, mark));
  }

  async remove(): Promise<boolean> {
    const [record, ids] = [this.open.record(), this.ids()];
    if (ids.length === 0) return this.refuse('It is not there any more: somebody else has deleted it');
    const ops = removalOps(record, 'part', ids);
    const gone = new Set(ops.map((op) => op.id));
    const inside = this.selection.inside();
    const isDone = await this.done({ ok: true, says: `${this.names()} deleted`, ops });
    // what is recorded next goes where the deleted assembly was
    if (isDone) void this.selection.choose({ part: null, ...(inside && gone.has(inside.id) ? { inside: inside.parentId } : {}) });
    return isDone;
  }

  async renameSubsystem(name: string): Promise<boolean> {
    const subsystem = this.subsystem();
    if (!subsystem) return this.refuse('The subsystem is not there any more');
    return this.done({
      ok: true,
      says: `${subsystem.name} is ${name} now`,
      ops: [{ kind: 'subsystem.edit', id: subsystem.id, was: { name: subsystem.name }, fields: { name } }],
    });
  }

  moveSubsystem(parentId: string | null): Promise<boolean> {
    return this.done(moveSubsystem(this.open.record(), this.subsystem()?.id ?? '', parentId));
  }

  async mergeSubsystem(into: string): Promise<boolean> {
    const isDone = await this.done(mergeSubsystems(this.open.record(), this.subsystem()?.id ?? '', into));
    if (isDone) void this.selection.choose({ subsystem: into, inside: null, part: null });
    return isDone;
  }

  async removeSubsystem(): Promise<boolean> {
    const isDone = await this.done(removeSubsystem(this.open.record(), this.subsystem()?.id ?? ''));
    if (isDone) void this.selection.choose({ subsystem: null, inside: null, part: null });
    return isDone;
  }

  private placeChosen(): Place | null {
    const [part, vehicle, subsystem] = [this.selection.part(), this.selection.vehicle(), this.selection.subsystem()];
    if (part && !this.cut().includes(part.id)) return { kind: 'part', id: part.id };
    return vehicle && subsystem ? { kind: 'subsystem', vehicleId: vehicle.id, subsystemId: subsystem.id } : null;
  }

  /** Says what cannot be where it was asked for, or in the frame. */
  private refuse(message: string): false {
    if (this.asking() === null) this.shell.said.set(message);
    else this.fault.set(message);
    return false;
  }

  /** Sends a change as one. */
  private async done(change: TreeChange): Promise<boolean> {
    if (!change.ok) return this.refuse(change.issues.map((issue) => issue.message).join('. '));
    const result = await this.service.send(change.ops);
    if (!result.kept) return this.refuse([result.refusal.message, ...result.refusal.issues.map((issue) => issue.message)].join('. '));
    this.asking.set(null);
    this.marked.set(new Set());
    this.shell.said.set(`${change.says}. z takes it back`);
    return true;
  }
}
