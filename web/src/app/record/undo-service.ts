import { Injectable, computed, effect, inject, signal } from '@angular/core';
import { cellOf, cellsOf, fieldsFrom, undoStacks, type CellConflict, type Conflict, type Op, type Undoable } from '@each-bolt/core/record';
import { firstValueFrom } from 'rxjs';
import { Session } from './session';
import { LocalStore } from './local-store';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi } from './record-api';
import { RecordService } from './record-service';

/** An undo that meets what has been changed since: it is asked what to do. */
export interface AskedUndo {
  readonly undoes: string;
  readonly ops: readonly Op[];
  readonly conflicts: readonly Conflict[];
}

const NO_NETWORK = 'That was done on another device and cannot be undone without the server; try again when it answers';

/** Undo and redo of one's own acts, as far back as they go, the same after a reload and on every device. */
@Injectable({ providedIn: 'root' })
export class UndoService {
  private readonly service = inject(RecordService);
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly session = inject(Session);
  private readonly own = signal<readonly Undoable[]>([]);
  private readonly stacks = computed(() => undoStacks(this.own()));
  /** what was done while the list was being read */
  private since: Undoable[] = [];
  /** acts wait for one another, so that two quick presses undo two things */
  private last: Promise<void> = Promise.resolve();

  readonly canUndo = computed(() => this.stacks().undo.length > 0);
  readonly canRedo = computed(() => this.stacks().redo.length > 0);
  readonly asked = signal<AskedUndo | null>(null);
  /** what was last undone or why not, in words */
  readonly said = signal('');

  constructor() {
    this.service.made.subscribe((change) => this.append(change));
    this.service.heard.subscribe(({ change }) => {
      if (change.personId === this.session.person?.id) this.append(change);
    });
    effect(() => {
      const refused = new Set(this.service.refused().map((entry) => entry.change.id));
      if (refused.size > 0) this.own.update((own) => own.filter(({ id }) => !refused.has(id)));
    });
  }

  /** Begins with a study that is being opened; acts wait until it is known what was done before. */
  begin(studyId: string, opening: Promise<void>): void {
    this.own.set([]);
    this.last = opening.then(() => this.read(studyId));
  }

  /** Reads what was done before: on this device, and on others when the server answers. */
  private async read(studyId: string): Promise<void> {
    const person = this.session.person;
    if (!person) return;
    this.since = [];
    const local = await this.store.own(studyId);
    this.own.set([...local, ...this.since.filter(({ id }) => !local.some((own) => own.id === id))]);
    try {
      const kept = await firstValueFrom(this.api.mine(studyId));
      const waiting = new Set(this.service.waiting().map((change) => change.id));
      this.own.set(ownActs(kept, local, this.since, waiting));
    } catch {
      // without the server, what this device knows of has to do
    }
  }

  undo(): Promise<void> {
    return this.inTurn(() => this.takeBack(this.stacks().undo.at(-1), 'Undone'));
  }

  redo(): Promise<void> {
    return this.inTurn(() => this.takeBack(this.stacks().redo.at(-1), 'Done again'));
  }

  private inTurn(act: () => Promise<void>): Promise<void> {
    this.last = this.last.then(act);
    return this.last;
  }

  /** Goes on with an undo that was asked about: over what others changed, or only where nobody did. */
  async answer(how: 'over' | 'rest' | 'leave'): Promise<void> {
    const asked = this.asked();
    this.asked.set(null);
    if (!asked || how === 'leave') return;
    const ops = asked.ops.flatMap((op) => this.settled(op, asked.conflicts, how));
    if (ops.length === 0) this.said.set('Nothing of it was left to undo');
    else await this.send(ops, asked.undoes, 'Undone');
  }

  private append({ id, undoes }: Undoable): void {
    this.since.push({ id, undoes });
    this.own.update((own) => (own.some((o) => o.id === id) ? own : [...own, { id, undoes }]));
  }

  private async takeBack(id: string | undefined, said: string): Promise<void> {
    if (id === undefined) return;
    try {
      const ops = await this.inverseOf(id);
      if (ops.some((op) => op.kind === 'study.remove')) {
        this.said.set('A study is not taken back; it can be archived on the page of studies');
        return;
      }
      const conflicts = this.service.effectOf(ops)?.conflicts ?? [];
      if (conflicts.length > 0) this.asked.set({ undoes: id, ops, conflicts });
      else await this.send(ops, id, said);
    } catch (refusal) {
      this.said.set((refusal as Refusal).code === 'no-answer' ? NO_NETWORK : (refusal as Refusal).message);
    }
  }

  private async send(ops: readonly Op[], undoes: string, said: string): Promise<void> {
    const result = await this.service.send(ops, { undoes });
    this.said.set(result.kept ? said : [result.refusal.message, ...result.refusal.issues.map((i) => i.message)].join('. '));
  }

  private async inverseOf(id: string): Promise<readonly Op[]> {
    const person = this.session.person;
    const local = person ? await this.store.own(this.service.studyId) : [];
    const known = local.find((own) => own.id === id);
    return known ? known.inverse : (await firstValueFrom(this.api.change(this.service.studyId, id))).inverse;
  }

  private settled(op: Op, conflicts: readonly Conflict[], how: 'over' | 'rest'): readonly Op[] {
    const conflict = conflicts.find((c) => c.id === op.id);
    if (!conflict) return [op];
    return how === 'over' ? over(op, conflict) : rest(op, conflict.cells);
  }
}

/**
 * One's own acts, oldest first: what the server has kept, what this device still waits to send, and what was done while the
 * two were being asked.
 *
 * @param local as this device had them before the server was asked
 * @param since acts since then, whether they wait or not
 */
export const ownActs = (
  kept: readonly Undoable[],
  local: readonly Undoable[],
  since: readonly Undoable[],
  waiting: ReadonlySet<string>,
): readonly Undoable[] => {
  const still = local.filter(({ id }) => waiting.has(id));
  const told = new Set([...kept, ...still].map(({ id }) => id));
  return [...kept, ...still.filter(({ id }) => !kept.some((k) => k.id === id)), ...since.filter(({ id }) => !told.has(id))];
};

/** The op as it stands over the current values. */
export const over = (op: Op, { current }: Conflict): readonly Op[] => {
  if (!('was' in op) || current === null) return [];
  const { id: _id, version: _version, ...row } = current;
  if (!('fields' in op)) return [{ ...op, was: row } as Op];
  return [{ ...op, was: fieldsFrom(cellsIn(op.fields, current)) }];
};

const cellsIn = (fields: object, current: object): readonly (readonly [string, unknown])[] =>
  [...cellsOf(fields).keys()].map((cell) => [cell, cellOf(current, cell)] as const);

/** The op without the cells that clash; nothing when it takes a whole row off. */
export const rest = (op: Op, cells: readonly CellConflict[]): readonly Op[] => {
  if (!('was' in op) || !('fields' in op)) return [];
  const clashing = new Set(cells.map((c) => c.cell));
  const left = (fields: object): readonly (readonly [string, unknown])[] => [...cellsOf(fields)].filter(([cell]) => !clashing.has(cell));
  const fields = left(op.fields);
  return fields.length === 0 ? [] : [{ ...op, was: fieldsFrom(left(op.was)), fields: fieldsFrom(fields) }];
};
