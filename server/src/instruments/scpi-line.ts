import { connect, type Socket } from 'node:net';

const CONNECT_MS = 3000;
const REPLY_MS = 2000;
/** a line longer than this is no answer of an instrument */
const MOST_LINE = 4096;
/** a file longer than this is refused */
const MOST_BLOCK = 64 * 1024 * 1024;

export class LineFault extends Error {}

interface Waiting {
  readonly done: (reply: Buffer) => void;
  readonly fail: (error: Error) => void;
  readonly timer: NodeJS.Timeout;
}

/**
 * One connection to an instrument: messages go out line by line, answers come back in order, and what it tells unasked
 * (`READ …`) is passed on. Garbage never grows beyond a line; a definite-length block is read as such.
 */
export class ScpiLine {
  private rest: Buffer = Buffer.alloc(0);
  private readonly waiting: Waiting[] = [];
  private ended = false;

  private constructor(
    private readonly socket: Socket,
    private readonly told: (line: string) => void,
    private readonly lost: (why: string) => void,
  ) {
    socket.setNoDelay(true);
    socket.setTimeout(0);
    socket.on('data', (chunk: Buffer) => this.take(chunk));
    socket.on('error', (error) => this.end(error.message));
    socket.on('close', () => this.end('it closed the connection'));
  }

  static open(host: string, port: number, told: (line: string) => void, lost: (why: string) => void): Promise<ScpiLine> {
    return new Promise((done, fail) => {
      const socket = connect({ host, port });
      socket.setTimeout(CONNECT_MS, () => socket.destroy(new LineFault('it does not answer')));
      socket.once('error', fail);
      socket.once('connect', () => {
        socket.off('error', fail);
        done(new ScpiLine(socket, told, lost));
      });
    });
  }

  /** Sends a message that asks nothing. */
  write(message: string): void {
    if (!this.ended) this.socket.write(`${message}\n`);
  }

  /** Sends a query and gives its answer. */
  async query(message: string, withinMs = REPLY_MS): Promise<string> {
    return (await this.ask(message, withinMs)).toString('latin1').trim();
  }

  /** Sends a query that is answered by a block of bytes. */
  async queryBlock(message: string, withinMs: number): Promise<Buffer> {
    const reply = await this.ask(message, withinMs);
    if (reply[0] !== 0x23) throw new LineFault('it gave no file');
    const digits = Number(String.fromCharCode(reply[1] ?? 0));
    return reply.subarray(2 + digits);
  }

  close(): void {
    this.end('');
    this.socket.destroy();
  }

  private ask(message: string, withinMs: number): Promise<Buffer> {
    if (this.ended) return Promise.reject(new LineFault('the connection is gone'));
    return new Promise((done, fail) => {
      const timer = setTimeout(() => {
        this.waiting.splice(
          this.waiting.findIndex((w) => w.timer === timer),
          1,
        );
        fail(new LineFault(`it did not answer ${message} within ${withinMs / 1000} s`));
      }, withinMs);
      this.waiting.push({ done, fail, timer });
      this.socket.write(`${message}\n`);
    });
  }

  private take(chunk: Buffer): void {
    this.rest = this.rest.length === 0 ? chunk : Buffer.concat([this.rest, chunk]);
    for (let part = this.next(); part !== null; part = this.next()) this.pass(part);
  }

  /** The next whole line or block, taken off what has come; null while none is whole. */
  private next(): Buffer | null {
    const block = this.blockLength();
    if (block === 'wait') return null;
    if (block !== null) {
      if (this.rest.length < block + 1) return null;
      const part = this.rest.subarray(0, block);
      this.rest = this.rest.subarray(block + 1);
      return part;
    }
    const end = this.rest.indexOf(0x0a);
    if (end < 0) {
      if (this.rest.length > MOST_LINE) this.rest = Buffer.alloc(0);
      return null;
    }
    const part = this.rest.subarray(0, end);
    this.rest = this.rest.subarray(end + 1);
    return part;
  }

  private blockLength(): number | 'wait' | null {
    if (this.rest[0] !== 0x23 || this.waiting.length === 0) return null;
    const digits = Number(String.fromCharCode(this.rest[1] ?? 0));
    if (this.rest.length < 2) return 'wait';
    if (!(digits >= 1 && digits <= 9)) return null;
    if (this.rest.length < 2 + digits) return 'wait';
    const length = Number(this.rest.subarray(2, 2 + digits).toString('latin1'));
    if (!(length >= 0 && length <= MOST_BLOCK)) return null;
    return 2 + digits + length;
  }

  private pass(part: Buffer): void {
    if (part.length > 0 && part[0] !== 0x23) {
      const line = part.toString('latin1').trim();
      if (line.startsWith('READ ') || this.waiting.length === 0) {
        if (line !== '') this.told(line);
        return;
      }
    }
    const asked = this.waiting.shift();
    if (!asked) return;
    clearTimeout(asked.timer);
    asked.done(part);
  }

  private end(why: string): void {
    if (this.ended) return;
    this.ended = true;
    for (const { fail, timer } of this.waiting.splice(0)) {
      clearTimeout(timer);
      fail(new LineFault('the connection was lost'));
    }
    if (why !== '') this.lost(why);
  }
}
