import { Problem } from './problem';

/** What the server does for a person beside what it does for everybody: it reads much, or it has a thread at work. */
export type Lane = 'read' | 'aside';

/** Work of the last while, in milliseconds, that anybody may have as it comes. */
const FREE_MS = 3000;
/** So much of a millisecond of it is forgotten in each millisecond. */
const FORGOTTEN = 0.25;
/** Whoever has had more pauses as long as the last work took, at most so long. */
const MOST_PAUSE_MS = 2000;
const MOST_WAITING = 60;
/** Who has asked for anything within so long counts as there. */
const THERE_MS = 3000;

interface Waiting {
  readonly lane: Lane;
  readonly begin: () => void;
}

interface Account {
  readonly who: string;
  readonly running: Set<Lane>;
  waiting: readonly Waiting[];
  spentMs: number;
  at: number;
  restUntil: number;
}

interface Seen {
  readonly who: string;
  readonly at: number;
}

/**
 * Whose turn it is for what takes the server long. One person has one reading and one thread at a time, and while others are there
 * whoever asks for much without end has one of both, with pauses: they wait for themselves, not others for them.
 */
export class Turns {
  private readonly accounts = new Map<string, Account>();
  /** who asked for anything last, and the last one before that was somebody else */
  private seen: readonly Seen[] = [];

  /** Notes that a person has asked for something, whatever it is. */
  see(who: string): void {
    this.seen = [{ who, at: performance.now() }, ...this.seen.filter((one) => one.who !== who)].slice(0, 2);
  }

  /** Waits until a person may have work done, and gives what says that it is done. @throws Problem when far too much waits */
  async take(who: string, lane: Lane): Promise<() => void> {
    const account = this.accountOf(who);
    if (account.waiting.length >= MOST_WAITING)
      throw new Problem('too-many', 'You ask for more than can be answered at once; wait for what you asked for');
    await new Promise<void>((begin) => {
      account.waiting = [...account.waiting, { lane, begin }];
      this.begin(account);
    });
    const since = performance.now();
    let isOver = false;
    return () => {
      if (isOver) return;
      isOver = true;
      this.end(account, lane, performance.now() - since);
    };
  }

  /** Does work in its turn. */
  async of<T>(who: string, lane: Lane, act: () => Promise<T>): Promise<T> {
    const done = await this.take(who, lane);
    try {
      return await act();
    } finally {
      done();
    }
  }

  private accountOf(who: string): Account {
    const account = this.accounts.get(who) ?? { who, running: new Set(), waiting: [], spentMs: 0, at: performance.now(), restUntil: 0 };
    this.accounts.set(who, account);
    return account;
  }

  private spent(account: Account): number {
    const now = performance.now();
    account.spentMs = Math.max(0, account.spentMs - FORGOTTEN * (now - account.at));
    account.at = now;
    return account.spentMs;
  }

  private areOthersThere({ who }: Account): boolean {
    return this.seen.some((one) => one.who !== who && performance.now() - one.at < THERE_MS);
  }

  private begin(account: Account): void {
    const givesWay = this.spent(account) > FREE_MS && this.areOthersThere(account);
    const rest = account.restUntil - performance.now();
    if (rest > 0 && givesWay) {
      setTimeout(() => this.begin(account), rest).unref();
      return;
    }
    const next = account.waiting.find(({ lane }) => !account.running.has(lane) && (!givesWay || account.running.size === 0));
    if (!next) return;
    account.waiting = account.waiting.filter((one) => one !== next);
    account.running.add(next.lane);
    next.begin();
    this.begin(account);
  }

  private end(account: Account, lane: Lane, tookMs: number): void {
    account.running.delete(lane);
    account.spentMs = this.spent(account) + tookMs;
    account.restUntil = performance.now() + Math.min(tookMs, MOST_PAUSE_MS);
    this.begin(account);
  }
}
