import { randomUUID } from 'node:crypto';
import { Agent, request, type IncomingMessage } from 'node:http';
import type { Op } from '@each-bolt/core/record';
import type { Pool } from '../server/src/db/pool';
import { passwordHash } from '../server/src/people/password';
import type { Standing } from '@each-bolt/core/wire';
import { insertPerson, type Person } from '../server/src/people/queries';

export const PASSWORD = 'four plain words here';

export interface Heard {
  readonly status: number;
  readonly body: Buffer;
  readonly ms: number;
}

/** Somebody at a device of their own, with an address of their own behind the proxy that the server believes. */
export class Guest {
  private readonly cookies: Map<string, string>;
  private readonly agent = new Agent({ keepAlive: true, maxSockets: 1000 });

  constructor(
    readonly port: number,
    readonly person: Person | null,
    private readonly from: string,
    cookies: readonly (readonly [string, string])[] = [],
  ) {
    this.cookies = new Map(cookies);
  }

  /** The cookies of a session, for whoever goes on in it elsewhere. */
  held(): readonly (readonly [string, string])[] {
    return [...this.cookies];
  }

  private headers(more: Readonly<Record<string, string>>): Record<string, string> {
    return {
      Cookie: [...this.cookies].map(([name, value]) => `${name}=${value}`).join('; '),
      'X-XSRF-TOKEN': this.cookies.get('XSRF-TOKEN') ?? '',
      'X-Forwarded-For': this.from,
      ...more,
    };
  }

  /** Asks, and gives the answer as it begins to come. */
  ask(method: string, path: string, body: string | Buffer | null = null, type = 'application/json'): Promise<IncomingMessage> {
    return new Promise((done, fail) => {
      const headers = this.headers(body === null ? {} : { 'Content-Type': type, 'Content-Length': String(Buffer.byteLength(body)) });
      const sent = request({ host: '127.0.0.1', port: this.port, method, path, headers, agent: this.agent }, (response) => {
        for (const cookie of response.headers['set-cookie'] ?? []) {
          const [, name = '', value = ''] = /^([^=]+)=([^;]*)/.exec(cookie) ?? [];
          this.cookies.set(name, decodeURIComponent(value));
        }
        done(response);
      });
      sent.on('error', fail);
      sent.end(body ?? undefined);
    });
  }

  /** Asks and waits for the whole of the answer. */
  async hear(method: string, path: string, body: string | Buffer | null = null, type?: string): Promise<Heard> {
    const since = performance.now();
    const response = await this.ask(method, path, body, type);
    const parts: Buffer[] = [];
    for await (const part of response) parts.push(part as Buffer);
    return { status: response.statusCode ?? 0, body: Buffer.concat(parts), ms: performance.now() - since };
  }

  /** Asks, and lets the answer pass by. */
  async let(method: string, path: string, body: string | null = null): Promise<void> {
    const response = await this.ask(method, path, body);
    await new Promise((done, fail) => response.once('end', done).once('close', done).once('error', fail).resume());
  }

  async change(studyId: string, ops: readonly Op[], undoes: string | null = null): Promise<Heard & { readonly id: string }> {
    const id = randomUUID();
    return { ...(await this.hear('POST', `/api/studies/${studyId}/changes`, JSON.stringify({ id, ops, undoes }))), id };
  }

  leave(): void {
    this.agent.destroy();
  }
}

let guests = 0;
const address = (): string => {
  guests += 1;
  return `203.0.113.${guests % 250}`;
};

export const stranger = (port: number): Guest => new Guest(port, null, address());

/** A person with an account, signed in. */
export const guest = async (pool: Pool, port: number, standing: Standing = 'member'): Promise<Guest> => {
  const login = `p${randomUUID().slice(0, 8)}`;
  const person: Person = { id: randomUUID(), login, name: `Guest ${login}`, standing, demoPassword: false };
  await insertPerson(pool, { ...person, passwordHash: await passwordHash(PASSWORD) });
  const made = new Guest(port, person, address());
  const { status } = await made.hear('POST', '/api/sign-in', JSON.stringify({ login, password: PASSWORD }));
  if (status !== 200) throw new RangeError(`a guest was not signed in: ${status}`);
  return made;
};

/** The value below which this share of the values lies. */
export const percentile = (values: readonly number[], share: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? Number.NaN;
