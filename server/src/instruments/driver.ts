import type { InstrumentNow, InstrumentReading } from '@each-bolt/core/bench';
import type { InstrumentCommand } from '@each-bolt/core/wire';
import type { InstrumentRow } from './queries';
import type { Reachable } from './reachable';
import { readReading } from './read-line';
import { LineFault, ScpiLine } from './scpi-line';

const RETRY_MS = [500, 1000, 2000, 5000] as const;
/** readings are passed on at most this often; the latest counts */
const PASS_MS = 100;
/** so many lines in a row that cannot be understood, and the instrument is let go */
const MOST_GARBAGE = 20;
const FILE_MS = 20_000;

const SAID: Readonly<Record<InstrumentCommand, string>> = {
  zero: 'ZERO',
  tare: 'TARE',
  'clear tare': 'TARE:CLE',
  trigger: '*TRG',
  'clear count': 'COUN:CLE',
};

const MAX_QUERY: Readonly<Partial<Record<InstrumentRow['kind'], string>>> = {
  scale: 'SENS:MASS:MAX?',
  'floor scale': 'SENS:MASS:MAX?',
  caliper: 'SENS:LENG:MAX?',
  'torque driver': 'SENS:TORQ:MAX?',
};

/**
 * One instrument: keeps a connection to its address, says who it is, and passes its readings on. It connects again by
 * itself; what it cannot understand is never taken for a reading.
 */
export class InstrumentDriver {
  private line: ScpiLine | null = null;
  private state: InstrumentNow;
  private failures = 0;
  private garbage = 0;
  private retry: NodeJS.Timeout | null = null;
  private passing: NodeJS.Timeout | null = null;
  private stopped = false;
  /** orders go one after the other, so that each error is that of its order */
  private orders: Promise<unknown> = Promise.resolve();

  constructor(
    private readonly row: InstrumentRow,
    private readonly changed: (now: InstrumentNow) => void,
    private readonly serialTaken: (serial: string) => string | null,
    private readonly reachable: Reachable,
  ) {
    this.state = {
      id: row.id,
      name: row.name,
      kind: row.kind,
      address: `${row.host}:${row.port}`,
      simulated: row.simulated,
      state: 'connecting',
      fault: '',
      maker: '',
      model: '',
      serial: '',
      most: null,
      last: null,
    };
  }

  now(): InstrumentNow {
    return this.state;
  }

  start(): void {
    void this.connect();
  }

  stop(): void {
    this.stopped = true;
    if (this.retry) clearTimeout(this.retry);
    if (this.passing) clearTimeout(this.passing);
    this.line?.close();
  }

  /** Tells the instrument to do something; gives its own words when it refuses. */
  command(command: InstrumentCommand): Promise<void> {
    return this.order(SAID[command]);
  }

  /** Puts something on or into a stand-in. */
  async place(message: string): Promise<void> {
    if (!this.row.simulated) throw new LineFault('only a stand-in can be given a demo part');
    await this.order(message);
  }

  /** The file the instrument made last. */
  async file(): Promise<Buffer> {
    const line = this.ready();
    if (this.state.last === null) throw new LineFault(`${this.row.name} has made nothing yet: trigger it first`);
    return line.queryBlock('DATA?', FILE_MS);
  }

  private ready(): ScpiLine {
    if (this.line === null || this.state.state !== 'ready')
      throw new LineFault(`${this.row.name} is not there: ${this.state.fault || 'no connection'}`);
    return this.line;
  }

  private order(message: string): Promise<void> {
    const next = this.orders.then(async () => {
      const line = this.ready();
      line.write('*CLS');
      line.write(message);
      const error = await line.query('SYST:ERR?');
      const [, number = '', words = ''] = /^([+-]?\d+),\s*"?([^"]*)"?$/.exec(error) ?? [];
      if (Number(number) !== 0) throw new LineFault(`${this.row.name} refused: ${refusalWords(Number(number), words)}`);
    });
    this.orders = next.catch(() => undefined);
    return next;
  }

  private async connect(): Promise<void> {
    if (this.stopped) return;
    try {
      // asked each time: a name may mean another address by now; a stand-in is at an address of this server’s own
      const address = this.row.simulated ? this.row.host : await this.reachable.addressOf(this.row.host);
      if (address === null)
        throw new LineFault(`it stands outside of the networks that instruments may stand in (${this.reachable.toString()})`);
      const line = await ScpiLine.open(
        address,
        this.row.port,
        (text) => this.hear(text),
        (why) => this.lost(why),
      );
      this.line = line;
      this.garbage = 0;
      const identity = (await line.query('*IDN?')).split(',').map((field) => field.trim());
      // what something else says that happens to stand there is shown to nobody
      if (identity.length !== 4 || !identity.every((field) => /^[\x20-\x7e]{1,60}$/.test(field)))
        throw new LineFault('it does not say who it is as an instrument does; check address and port');
      const [maker = '', model = '', serial = ''] = identity;
      const other = this.serialTaken(serial);
      if (other !== null) {
        line.close();
        this.line = null;
        this.set({
          state: 'refused',
          fault: `it has the same serial number as ${other} (${serial}): their readings could not be told apart. Change one of the two`,
          maker,
          model,
          serial,
          last: null,
        });
        this.again();
        return;
      }
      const query = MAX_QUERY[this.row.kind];
      const most = query === undefined ? null : Number(await line.query(query));
      line.write('INIT:CONT ON');
      this.failures = 0;
      this.set({ state: 'ready', fault: '', maker, model, serial, most: most !== null && Number.isFinite(most) ? most : null });
    } catch (error) {
      this.line?.close();
      this.lost((error as Error).message);
    }
  }

  private hear(text: string): void {
    const read = readReading(text);
    if (read === null) {
      this.garbage += 1;
      if (this.garbage >= MOST_GARBAGE) {
        this.line?.close();
        this.lost('it sends what cannot be understood');
      }
      return;
    }
    this.garbage = 0;
    if (this.state.state !== 'ready') return;
    const reading: InstrumentReading = { ...read, instrumentId: this.row.id, at: new Date().toISOString() };
    this.state = { ...this.state, last: reading };
    // however many come, only the latest of each tenth of a second is passed on
    this.passing ??= setTimeout(() => {
      this.passing = null;
      this.changed(this.state);
    }, PASS_MS);
  }

  private lost(why: string): void {
    this.line = null;
    if (this.stopped) return;
    this.set({ state: 'away', fault: why, last: null });
    this.again();
  }

  private again(): void {
    if (this.stopped || this.retry) return;
    this.retry = setTimeout(
      () => {
        this.retry = null;
        void this.connect();
      },
      RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)],
    );
  }

  private set(more: Partial<InstrumentNow>): void {
    this.state = { ...this.state, ...more };
    this.changed(this.state);
  }
}

/** The error numbers people meet, in words. */
const refusalWords = (number: number, words: string): string => {
  if (number === -221) return 'not now; it must stand still, and not be overloaded, or there is nothing to read';
  if (number === -222) return 'the value is beyond what it can do';
  if (number === -113) return 'it does not know this command';
  return words === '' ? `error ${number}` : `${words} (${number})`;
};
