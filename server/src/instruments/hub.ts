import type { InstrumentNow } from '@each-bolt/core/bench';
import type { Logger } from 'pino';
import type { Pool } from '../db/pool';
import { InstrumentDriver } from './driver';
import type { Reachable } from './reachable';
import { allInstruments, type InstrumentRow } from './queries';

/** What a bench is told: all there are, or what became of one. */
type InstrumentNews = { readonly all: readonly InstrumentNow[] } | { readonly one: InstrumentNow };
type Listener = (news: InstrumentNews) => void;

/** All instruments of the organisation, connected for as long as the server runs. */
export class InstrumentHub {
  private readonly drivers = new Map<string, InstrumentDriver>();
  private readonly listeners = new Set<Listener>();
  private reloading: Promise<void> = Promise.resolve();

  constructor(
    private readonly pool: Pool,
    private readonly log: Logger,
    readonly reachable: Reachable,
  ) {}

  /** Connects to what the settings name; what is no more among them is let go. */
  reload(): Promise<void> {
    // one after the other, so that an older list never comes over a later one
    const next = this.reloading.then(() => this.readAll());
    this.reloading = next.catch(() => undefined);
    return next;
  }

  all(): readonly InstrumentNow[] {
    return [...this.drivers.values()].map((driver) => driver.now());
  }

  driver(id: string): InstrumentDriver | null {
    return this.drivers.get(id) ?? null;
  }

  follow(listener: Listener): () => void {
    this.listeners.add(listener);
    listener({ all: this.all() });
    return () => this.listeners.delete(listener);
  }

  stop(): void {
    for (const driver of this.drivers.values()) driver.stop();
    this.drivers.clear();
  }

  private async readAll(): Promise<void> {
    const rows = await allInstruments(this.pool);
    const wanted = new Map(rows.map((row) => [row.id, row]));
    for (const [id, driver] of this.drivers)
      if (!wanted.has(id)) {
        driver.stop();
        this.drivers.delete(id);
      }
    for (const row of rows) if (!this.drivers.has(row.id)) this.add(row);
    this.tell();
  }

  private add(row: InstrumentRow): void {
    const driver = new InstrumentDriver(
      row,
      (now) => {
        if (now.state !== 'ready' && now.fault !== '') this.log.info({ instrument: now.name, fault: now.fault }, 'instrument is away');
        for (const listener of this.listeners) listener({ one: now });
      },
      (serial) => this.all().find((other) => other.id !== row.id && other.state === 'ready' && other.serial === serial)?.name ?? null,
      this.reachable,
    );
    this.drivers.set(row.id, driver);
    driver.start();
  }

  private tell(): void {
    for (const listener of this.listeners) listener({ all: this.all() });
  }
}
