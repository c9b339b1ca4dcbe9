import { Injectable, computed, inject, signal } from '@angular/core';
import { Router } from '@angular/router';
import { unitsShown } from '@each-bolt/core/shared';
import type { Op } from '@each-bolt/core/record';
import { judgeTag } from '@each-bolt/core/bench';
import { firstValueFrom } from 'rxjs';
import type { OutboxEntry } from '../record/stored';
import type { Mended } from '../record/not-kept';
import { OpenStudy } from '../record/open-study';
import type { About } from '../record/question-dialog';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi } from '../record/record-api';
import { RecordService } from '../record/record-service';
import { Selection } from '../record/selection';
import { Session } from '../record/session';
import { Commands } from './commands';

/** What the frame does with what was refused, with questions, and with a session that ended. */
@Injectable({ providedIn: 'root' })
export class ShellActs {
  private readonly service = inject(RecordService);
  private readonly api = inject(RecordApi);
  private readonly open = inject(OpenStudy);
  private readonly selection = inject(Selection);
  private readonly session = inject(Session);
  private readonly commands = inject(Commands);
  private readonly router = inject(Router);

  readonly showingNotKept = signal(false);
  readonly asking = signal(false);
  readonly said = signal('');

  /** What a new question is about: the chosen part, else in the plan the chosen package, else the vehicle, else the study. */
  readonly about = computed<About>(() => {
    const [part, vehicle, study] = [this.selection.part(), this.selection.vehicle(), this.open.study()];
    if (part) return { kind: 'part', id: part.id, field: null, text: part.name };
    const pack = this.selection.pack();
    if (pack) return { kind: 'package', id: pack.id, field: null, text: pack.name };
    return vehicle
      ? { kind: 'vehicle', id: vehicle.id, field: null, text: vehicle.name }
      : { kind: 'study', id: study.id, field: null, text: study.title };
  });
  /** the people of the study */
  readonly members = computed(() => {
    const members = new Set(this.open.record().members.map((m) => m.personId));
    return this.service.people().filter((p) => members.has(p.id));
  });
  /** the others who have the study open, and where */
  readonly others = computed(() => {
    const names = this.open.partById();
    return this.service
      .here()
      .filter((h) => h.connection !== this.service.connection)
      .map((h) => ({ ...h, part: names.get(h.partId ?? '')?.name ?? '' }));
  });

  /** Reads figures in the other units from now on; the page is read again when the account has kept it. */
  async otherUnits(): Promise<void> {
    const refusal = await this.session.chooseUnits(unitsShown() === 'metric' ? 'inch-pound' : 'metric');
    if (refusal) this.said.set(`Units stay as they are, for they are kept with your account. ${refusal.message}`);
  }

  ask(): void {
    if (this.service.can()('question.add')) this.asking.set(true);
    else this.said.set('Your role does not ask questions; ask a lead of the study');
  }

  async attach(op: Op): Promise<void> {
    const result = await this.service.send([op]);
    this.said.set(result.kept ? 'Attached; it stays on the list until it is answered' : result.refusal.message);
  }

  async mend({ entry, ops }: Mended): Promise<void> {
    if (ops.length > 0) {
      const result = await this.service.send(ops, { typed: entry.typed, undoes: entry.change.undoes });
      if (!result.kept) {
        this.said.set([result.refusal.message, ...result.refusal.issues.map((i) => i.message)].join('. '));
        return;
      }
    }
    await this.service.drop(entry);
    if (this.service.refused().length === 0) this.showingNotKept.set(false);
  }

  async lineBack(entry: OutboxEntry): Promise<void> {
    this.showingNotKept.set(false);
    await this.service.drop(entry);
    this.commands.give('put-line-back', entry.typed);
  }

  /** Puts a record back that somebody took off, with all that went with it, and then one’s own values. */
  async putBack({ entry, rowId }: { readonly entry: OutboxEntry; readonly rowId: string }): Promise<void> {
    try {
      const changes = await firstValueFrom(this.api.history(entry.studyId, [rowId], null));
      const removal = changes.find((c) => c.ops.some((op) => op.id === rowId && op.kind.endsWith('.remove')));
      if (!removal) return;
      // of a large removal the history tells a part
      const { inverse } = await firstValueFrom(this.api.change(entry.studyId, removal.id));
      await this.mend({ entry, ops: [...inverse, ...entry.change.ops] });
    } catch (refusal) {
      this.said.set((refusal as Refusal).message);
    }
  }

  /** A label was read while no field was being typed into: its part is opened, or it is told what the tag is. */
  scanned(text: string): void {
    const judged = judgeTag(this.open.record(), text, {
      vehicleId: this.selection.vehicle()?.id ?? '',
      subsystemId: this.selection.subsystem()?.id ?? null,
      packageId: null,
    });
    if (judged.kind === 'opens') {
      this.selection.choosePart(judged.part.id);
      this.said.set(`${judged.tag} is on “${judged.part.name}”`);
    } else if (judged.kind === 'free') this.said.set(`${judged.tag} is on no part yet`);
    else this.said.set(judged.likely === null ? judged.message : `${judged.message}. Probably meant: ${judged.likely}`);
  }

  signIn(): void {
    this.session.ended();
    void this.router.navigate(['/sign-in'], { queryParams: { to: this.router.url } });
  }
}
