import { ChangeDetectionStrategy, Component, HostListener, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { counted } from '@each-bolt/core/shared';
import { editOp, templateOps, type Op } from '@each-bolt/core/record';
import { Subject, catchError, firstValueFrom, from, map, startWith, switchMap } from 'rxjs';
import { Session } from './session';
import { LetterKeys } from '../shared/letter-keys';
import { Brand } from '../shared/brand';
import { RefusalNote } from '../shared/refusal-note';
import { LocalStore } from './local-store';
import type { OutboxEntry } from './stored';
import { NewStudy } from './new-study';
import { Outbox } from './outbox';
import type { Person, Refusal, StudyLine } from '@each-bolt/core/wire';
import { ButtonDirective } from 'primeng/button';
import { FileButton } from '../shared/file-button';
import { RecordApi, isPassing } from './record-api';
import { whenText } from './when';

type Listed =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly studies: readonly StudyLine[]; readonly offline: boolean };

/** The studies one is of: open one, begin one, copy one as a template, archive one, take one along. */
@Component({
  selector: 'eb-studies-page',
  imports: [Brand, NewStudy, RefusalNote, RouterLink, ButtonDirective, FileButton],
  template: `<main>
    <header>
      <eb-brand />
      <p class="me">
        <span>{{ session.person?.name }}</span>
        <a routerLink="/people">{{ isLead() ? 'Accounts' : 'Your account' }}</a>
        <button pButton severity="secondary" type="button" (click)="signOut()">Sign out</button>
      </p>
    </header>
    @let now = listed();
    @switch (now.kind) {
      @case ('reading') {
        <p role="status">Reading the studies …</p>
      }
      @case ('failed') {
        <eb-refusal [message]="now.refusal.message" action="Try again" (acted)="asked$.next()" />
      }
      @case ('ready') {
        <div class="bar">
          <h1>Studies</h1>
          @if (now.offline) {
            <span class="soft" role="status">No connection: these are kept on this device</span>
          } @else if (isLead()) {
            <div class="acts">
              <eb-file-button label="Open a study file" accept=".zip,application/zip" (picked)="bring($event)"
                ><i class="pi pi-file-import" aria-hidden="true"></i> Open a study file</eb-file-button
              >
              <button pButton type="button" title="Begin a new study (b)" (click)="start()">Begin a new study</button>
            </div>
          }
        </div>
        @if (busy() !== '') {
          <p role="status">{{ busy() }}</p>
        }
        @if (refusal(); as why) {
          <eb-refusal [message]="why.message" [issues]="why.issues" />
        }
        @if (beginning() && session.person; as me) {
          <eb-new-study [me]="me" [people]="people()" (begun)="begin($event)" (cancelled)="beginning.set(false)" />
        }
        <ul>
          @for (study of now.studies; track study.id) {
            <li [class.archived]="study.state === 'archived'">
              <a [routerLink]="['/studies', study.id, 'bench']">
                <b>{{ study.title }}</b>
                <span class="soft">{{ study.vehicles.join(' · ') || 'no vehicle yet' }}</span>
              </a>
              <span class="figure lines">{{ lines(study) }}</span>
              <span class="soft small">{{ detail(study) }}</span>
              <div class="acts">
                @if (!now.offline) {
                  @if (isLead()) {
                    <button pButton severity="secondary" type="button" (click)="copy(study)">Copy as template</button>
                  }
                  <a pButton severity="secondary" [href]="'/api/studies/' + study.id + '/archive'" download>Download as file</a>
                  @if (study.role === 'lead') {
                    <button pButton severity="secondary" type="button" (click)="setState(study)">
                      {{ study.state === 'open' ? 'Move to archive' : 'Reopen' }}
                    </button>
                  }
                }
              </div>
              @if (unsentOf(study.id); as words) {
                <span class="unsent" role="status">{{ words }}</span>
              }
            </li>
          } @empty {
            <li class="none">
              <p>
                You are not a member of any study yet.
                {{ isLead() ? 'Begin one, or bring one in from an archive.' : 'A lead adds you on the People page of a study.' }}
              </p>
            </li>
          }
        </ul>
        @for (entry of stray(); track entry.seq) {
          <eb-refusal
            [message]="strayWords(entry)"
            [action]="givingUp() === entry.seq ? 'Press again to discard it' : 'Discard'"
            (acted)="giveUp(entry)"
          />
        }
      }
    }
  </main>`,
  styles: `
    main {
      max-width: 900px;
      margin: 48px auto;
      padding: 0 24px 48px;
      display: grid;
      gap: 12px;
    }
    header,
    .bar {
      display: flex;
      justify-content: space-between;
      align-items: center;
      gap: 16px;
    }
    header {
      margin-bottom: 20px;
    }
    .me {
      display: flex;
      gap: 14px;
      align-items: center;
      font-weight: 500;
    }
    .me a {
      color: var(--dye);
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
      display: grid;
      gap: 10px;
    }
    li {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 4px 16px;
      padding: 12px 16px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-left: 3px solid var(--dye);
    }
    li.archived {
      border-left-color: var(--line);
    }
    li.none {
      border-left-color: var(--line);
    }
    li > a:first-child {
      display: grid;
      color: var(--ink);
      text-decoration: none;
    }
    li b {
      font: 600 16px/1.4 var(--label);
    }
    li > a:hover b {
      color: var(--dye);
    }
    .lines {
      align-self: center;
      justify-self: end;
    }
    .small {
      font-size: 13px;
      align-self: center;
    }
    .unsent {
      grid-column: 1 / -1;
      color: var(--amber);
      font-weight: 500;
    }
    .acts {
      display: flex;
      gap: 6px;
      flex-wrap: wrap;
      justify-content: flex-end;
    }
    .acts a {
      text-decoration: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudiesPage {
  private readonly api = inject(RecordApi);
  private readonly store = inject(LocalStore);
  private readonly router = inject(Router);
  protected readonly session = inject(Session);
  protected readonly outbox = inject(Outbox);
  protected readonly asked$ = new Subject<void>();
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly beginning = signal(false);
  protected readonly busy = signal('');
  protected readonly givingUp = signal(-1);
  protected readonly people = signal<readonly Person[]>([]);
  protected readonly isLead = computed(() => {
    const state = this.session.state();
    return state.kind === 'in' && state.person.standing === 'lead';
  });
  protected readonly listed = toSignal(
    this.asked$.pipe(
      startWith(undefined),
      switchMap(() =>
        this.api.studies().pipe(
          map((studies): Listed => ({ kind: 'ready', studies, offline: false })),
          catchError((refusal: Refusal) => from(this.fromDevice(refusal))),
          startWith<Listed>({ kind: 'reading' }),
        ),
      ),
    ),
    { requireSync: true },
  );

  /** what was not kept and belongs to a study that is not in the list: nowhere else is it seen */
  protected readonly stray = computed(() => {
    const listed = this.listed();
    if (listed.kind !== 'ready' || listed.offline) return [];
    const ids = new Set(listed.studies.map((study) => study.id));
    return this.outbox.refused().filter(({ studyId }) => !ids.has(studyId));
  });

  private readonly letters = inject(LetterKeys);

  @HostListener('document:keydown', ['$event'])
  protected onKey(event: KeyboardEvent): void {
    const typing = event.target instanceof HTMLElement && ['INPUT', 'TEXTAREA', 'SELECT'].includes(event.target.tagName);
    if (event.key !== 'b' || !this.letters.on() || typing || event.ctrlKey || event.metaKey || event.altKey || !this.isLead()) return;
    event.preventDefault();
    void this.start();
  }

  /** Without a connection, what this device keeps. */
  private async fromDevice(refusal: Refusal): Promise<Listed> {
    if (refusal.code === 'signed-out') {
      this.session.ended();
      await this.router.navigate(['/sign-in']);
      return { kind: 'reading' };
    }
    const kept = isPassing(refusal) ? await this.store.studies() : [];
    if (kept.length === 0) return { kind: 'failed', refusal };
    const studies = kept.map(({ studyId, record, role }): StudyLine => ({
      id: studyId,
      title: record.study.title,
      revision: record.revision,
      state: record.study.state,
      vehicles: record.vehicles.map((v) => v.name),
      parts: record.parts.length,
      openQuestions: record.questions.filter((q) => q.state === 'open').length,
      changedAt: null,
      role,
    }));
    return { kind: 'ready', studies, offline: true };
  }

  /** What this device still has of a study that the server has not. */
  protected unsentOf(studyId: string): string {
    const of = (entries: readonly OutboxEntry[]): number => entries.filter((entry) => entry.studyId === studyId).length;
    const [waiting, refused] = [of(this.outbox.waiting()), of(this.outbox.refused())];
    return [
      waiting > 0 ? `${counted(waiting, 'change')} of this device ${waiting === 1 ? 'waits' : 'wait'} to be sent` : '',
      refused > 0 ? `${counted(refused, 'change')} not kept: open the study to see why` : '',
    ]
      .filter((text) => text !== '')
      .join(' · ');
  }

  protected strayWords(entry: OutboxEntry): string {
    const what = entry.typed === '' ? counted(entry.change.ops.length, 'entry', 'entries') : `“${entry.typed}”`;
    return `Recorded here ${whenText(entry.madeAt)} in a study that is not open to you any more, and not kept: ${what}. ${entry.refusal?.message ?? ''}`;
  }

  /** Asks once more before anything is lost. */
  protected giveUp(entry: OutboxEntry): void {
    if (this.givingUp() === entry.seq) void this.outbox.drop(entry);
    else this.givingUp.set(entry.seq);
  }

  protected lines(study: StudyLine): string {
    return counted(study.parts, 'line recorded', 'lines recorded');
  }

  protected detail(study: StudyLine): string {
    return [
      study.state === 'archived' ? 'archived' : '',
      `you are its ${study.role}`,
      study.openQuestions > 0 ? counted(study.openQuestions, 'open question') : '',
      study.changedAt === null ? '' : `changed ${whenText(study.changedAt)}`,
    ]
      .filter((text) => text !== '')
      .join(' · ');
  }

  protected async start(): Promise<void> {
    await this.tried(async () => this.people.set(await firstValueFrom(this.api.people())));
    this.beginning.set(true);
  }

  protected async begin({ id, ops }: { readonly id: string; readonly ops: readonly Op[] }): Promise<void> {
    if (await this.keep(id, ops)) await this.router.navigate(['/studies', id, 'bench']);
  }

  protected async copy(study: StudyLine): Promise<void> {
    await this.tried(async () => {
      const { record } = await firstValueFrom(this.api.study(study.id));
      const id = crypto.randomUUID();
      const ops = templateOps(record, id, `${study.title}, copy`, this.session.person?.id ?? '', () => crypto.randomUUID());
      if (await this.keep(id, ops)) this.asked$.next();
    });
  }

  protected async setState(study: StudyLine): Promise<void> {
    await this.tried(async () => {
      const { record } = await firstValueFrom(this.api.study(study.id));
      const op = editOp('study', record.study, { state: record.study.state === 'open' ? 'archived' : 'open' });
      if (op && (await this.keep(study.id, [op]))) this.asked$.next();
    });
  }

  protected async bring([file]: readonly File[]): Promise<void> {
    if (!file) return;
    this.busy.set(`Bringing in ${file.name} …`);
    await this.tried(async () => {
      const { copied, title } = await firstValueFrom(this.api.bringArchive(file));
      this.busy.set(
        copied ? `“${title}” was here already; it was brought in beside the first as a study of its own` : `“${title}” is brought in`,
      );
      this.asked$.next();
    });
  }

  protected async signOut(): Promise<void> {
    const refusal = await this.session.signOut();
    this.refusal.set(refusal);
    if (refusal === null) await this.router.navigate(['/sign-in']);
  }

  private async keep(id: string, ops: readonly Op[]): Promise<boolean> {
    return this.tried(() => firstValueFrom(this.api.keep(id, { id: crypto.randomUUID(), ops, undoes: null })));
  }

  private async tried(act: () => Promise<unknown>): Promise<boolean> {
    try {
      await act();
      this.refusal.set(null);
      return true;
    } catch (refusal) {
      this.refusal.set(refusal as Refusal);
      this.busy.set('');
      return false;
    }
  }
}
