import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { Router, RouterLink } from '@angular/router';
import { counted } from '@each-bolt/core/shared';
import type { Op } from '@each-bolt/core/record';
import { Subject, catchError, firstValueFrom, map, of, startWith, switchMap } from 'rxjs';
import { RefusalNote } from '../shared/refusal-note';
import { RecordApi, type Refusal, type StudyLine } from './record-api';
import { NewStudy } from './new-study';

type Listed =
  | { readonly kind: 'reading' }
  | { readonly kind: 'failed'; readonly refusal: Refusal }
  | { readonly kind: 'ready'; readonly studies: readonly StudyLine[] };

/** All studies, and a new one. */
@Component({
  selector: 'eb-studies-page',
  imports: [NewStudy, RefusalNote, RouterLink],
  template: `<main>
    <header>
      <svg viewBox="0 0 32 32" width="38" height="38" aria-hidden="true">
        <path d="M16 2.5 27.7 9.25v13.5L16 29.5 4.3 22.75V9.25Z" fill="none" stroke="currentColor" stroke-width="2.6" />
        <circle cx="16" cy="16" r="5.6" fill="none" stroke="var(--dye)" stroke-width="3.4" />
      </svg>
      <div>
        <h1>EACH BOLT</h1>
        <p class="soft">Taken apart, counted, weighed, costed and compared</p>
      </div>
    </header>
    @let now = listed();
    @switch (now.kind) {
      @case ('reading') {
        <p role="status">Reading the studies …</p>
      }
      @case ('failed') {
        <eb-refusal [message]="now.refusal.message" action="Try again" (acted)="read()" />
      }
      @case ('ready') {
        <h2>Studies</h2>
        @for (study of now.studies; track study.id) {
          <a class="study" [routerLink]="['/studies', study.id, 'bench']">
            <b>{{ study.title }}</b>
            <span class="soft">{{ study.vehicles.join(' · ') || 'no vehicle yet' }}</span>
            <span class="figure">{{ lines(study) }}</span>
          </a>
        } @empty {
          <p class="soft">There is no study yet. Begin one below.</p>
        }
        @if (refusal(); as why) {
          <eb-refusal [message]="why.message" [issues]="why.issues" />
        }
        <eb-new-study (begun)="begin($event)" />
      }
    }
  </main>`,
  styles: `
    main {
      max-width: 720px;
      margin: 64px auto;
      padding: 0 24px;
      display: grid;
      gap: 12px;
    }
    header {
      display: flex;
      gap: 14px;
      align-items: center;
      margin-bottom: 20px;
    }
    h1 {
      letter-spacing: 0.06em;
    }
    .study {
      display: grid;
      grid-template-columns: 1fr auto;
      gap: 2px 16px;
      padding: 12px 16px;
      background: var(--sheet);
      border: 1px solid var(--line);
      border-left: 3px solid var(--dye);
      color: var(--ink);
      text-decoration: none;
    }
    .study:hover {
      border-color: var(--dye);
    }
    .study b {
      font: 600 16px/1.3 var(--label);
    }
    .study .soft {
      grid-row: 2;
    }
    .study .figure {
      grid-row: 1 / span 2;
      grid-column: 2;
      align-self: center;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StudiesPage {
  private readonly api = inject(RecordApi);
  private readonly router = inject(Router);
  private readonly asked$ = new Subject<void>();
  protected readonly refusal = signal<Refusal | null>(null);
  protected readonly listed = toSignal(
    this.asked$.pipe(
      startWith(undefined),
      switchMap(() =>
        this.api.studies().pipe(
          map((studies): Listed => ({ kind: 'ready', studies })),
          catchError((refusal: Refusal) => of<Listed>({ kind: 'failed', refusal })),
          startWith<Listed>({ kind: 'reading' }),
        ),
      ),
    ),
    { requireSync: true },
  );

  protected read(): void {
    this.asked$.next();
  }

  protected lines(study: StudyLine): string {
    return counted(study.pieces, 'line recorded', 'lines recorded');
  }

  protected async begin({ id, ops }: { readonly id: string; readonly ops: readonly Op[] }): Promise<void> {
    try {
      await firstValueFrom(this.api.keep(id, { id: crypto.randomUUID(), ops }));
    } catch (refusal) {
      this.refusal.set(refusal as Refusal);
      return;
    }
    await this.router.navigate(['/studies', id, 'bench']);
  }
}
