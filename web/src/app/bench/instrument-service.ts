import { Injectable, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import type { InstrumentNow } from '@each-bolt/core/bench';
import type { InstrumentCommand, NewInstrument } from '@each-bolt/core/wire';
import {
  concatMap,
  distinctUntilChanged,
  type Observable,
  filter,
  firstValueFrom,
  map,
  of,
  repeat,
  scan,
  shareReplay,
  switchMap,
  timeout,
} from 'rxjs';
import { Session } from '../record/session';
import type { Refusal } from '@each-bolt/core/wire';
import { RecordApi } from '../record/record-api';

const MADE_WITHIN_MS = 20_000;

interface Heard {
  readonly all: readonly InstrumentNow[];
  readonly lost: boolean;
}

type News = { readonly all: readonly InstrumentNow[] } | { readonly one: InstrumentNow } | { readonly lost: string };

/** A stream that was refused for good is opened again after this. */
const AGAIN_MS = 4000;

const heardAfter = ({ all }: Heard, news: News): Heard => {
  if ('lost' in news) return { all: all.map((i) => ({ ...i, state: 'away' as const, fault: news.lost, last: null })), lost: true };
  if ('all' in news) return { all: news.all, lost: false };
  return { all: all.map((i) => (i.id === news.one.id ? news.one : i)), lost: false };
};

/** The instruments of the organisation as the server tells of them, and what they are told. */
@Injectable({ providedIn: 'root' })
export class InstrumentService {
  private readonly api = inject(RecordApi);
  private readonly session = inject(Session);
  /** how far the clock of the server, which dates the readings, lies behind that of this device: the least that was seen, its way included */
  private behindMs = Infinity;

  private readonly stream$ = this.api.stream('GET /api/instruments/events').pipe(
    concatMap((event): readonly News[] => {
      switch (event.kind) {
        case 'all':
          return [{ all: event.told }];
        case 'one': {
          const one = event.told;
          if (one.last) this.behindMs = Math.min(this.behindMs, Date.now() - Date.parse(one.last.at));
          return [{ one }];
        }
        case 'lost':
          // the clock of either may be set meanwhile
          this.behindMs = Infinity;
          return [{ lost: 'no connection to the server' }];
        case 'open':
          return [];
      }
    }),
  );
  private readonly told$ = this.session.changes.pipe(
    map(({ kind }) => kind !== 'out'),
    distinctUntilChanged(),
    switchMap((isIn) => (isIn ? this.stream$.pipe(repeat({ delay: AGAIN_MS })) : of({ lost: 'not signed in' }))),
    scan(heardAfter, { all: [], lost: true }),
    shareReplay({ bufferSize: 1, refCount: true }),
  );

  private readonly heard = toSignal(this.told$, { initialValue: { all: [], lost: true } });
  readonly all = computed(() => this.heard().all);
  readonly isAway = computed(() => this.heard().lost);

  /** Now by the clock that dates the readings. */
  now(): string {
    return new Date(Date.now() - (Number.isFinite(this.behindMs) ? this.behindMs : 0)).toISOString();
  }

  command(id: string, command: InstrumentCommand): Promise<Refusal | null> {
    return this.ask(this.api.instrumentCommand(id, command));
  }

  /** Puts a demo part on or into a stand-in. */
  place(id: string, numbers: readonly number[], symbols: readonly string[] = []): Promise<Refusal | null> {
    return this.ask(this.api.placeOnInstrument(id, { numbers, symbols }));
  }

  add(instrument: NewInstrument): Promise<Refusal | null> {
    return this.ask(this.api.addInstrument(instrument));
  }

  remove(id: string): Promise<Refusal | null> {
    return this.ask(this.api.removeInstrument(id));
  }

  /** The file an instrument made last: a picture, a scan. */
  async file(id: string): Promise<Blob | Refusal> {
    try {
      return await firstValueFrom(this.api.instrumentFile(id));
    } catch (refusal) {
      return refusal as Refusal;
    }
  }

  /** The file an instrument makes after it was triggered, once it tells of it. */
  async made(id: string, seqBefore: number): Promise<Blob | Refusal> {
    try {
      await firstValueFrom(
        this.told$.pipe(
          filter(({ all }) => (all.find((i) => i.id === id)?.last?.seq ?? -1) > seqBefore),
          timeout(MADE_WITHIN_MS),
        ),
      );
    } catch {
      return {
        code: 'no-file',
        message: 'The instrument was triggered and made nothing. Look whether it is ready, and try again',
        issues: [],
      };
    }
    return this.file(id);
  }

  private async ask(request: Observable<object>): Promise<Refusal | null> {
    try {
      await firstValueFrom(request);
      return null;
    } catch (refusal) {
      return refusal as Refusal;
    }
  }
}
