import { createServer, get, type IncomingMessage, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { Readable } from 'node:stream';
import express, { type RequestHandler } from 'express';
import { sendSteadily } from './send-steadily';

const PART = Buffer.alloc(256 * 1024, 7);
const PARTS = 200;

/** a slow machine may stand still for seconds; only who is to be cut off is watched closely */
const [SHORT_S, LONG_S] = [0.5, 60];

let overS = LONG_S;
let given = 0;
let hasEnded: Promise<void>;
let server: Server;
const parts = function* (): Generator<Buffer> {
  for (given = 0; given < PARTS; given++) yield PART;
};

beforeEach(async () => {
  overS = LONG_S;
  const app = express();
  let ended = (): void => undefined;
  hasEnded = new Promise((done) => (ended = done));
  const send: RequestHandler = async (_request, response) => {
    await sendSteadily(response, Readable.from(parts()), { leastBytesPerS: 1024, overS });
    ended();
  };
  app.get('/', send);
  server = createServer(app).listen(0, '127.0.0.1');
  await new Promise((ready) => server.once('listening', ready));
});
afterEach(() => new Promise((done) => server.close(done)));

const open = (): Promise<IncomingMessage> =>
  new Promise((done) => get({ host: '127.0.0.1', port: (server.address() as AddressInfo).port, agent: false }, done));

describe('a large answer', () => {
  it('arrives whole at whoever reads it', async () => {
    let bytes = 0;
    for await (const part of await open()) bytes += (part as Buffer).length;
    expect(bytes).toBe(PARTS * PART.length);
  });
  it('is not gathered for whoever does not read it, who is cut off', async () => {
    overS = SHORT_S;
    const response = await open();
    response.on('error', () => undefined).pause();
    await hasEnded;
    // what the sockets of both sides hold, and no more
    expect(given).toBeLessThan(PARTS);
    await new Promise((done) => response.on('close', done).resume());
    expect(response.complete).toBe(false);
  });
  it('ends with whoever goes away', async () => {
    const response = await open();
    response.on('error', () => undefined).destroy();
    await hasEnded;
    expect(given).toBeLessThan(PARTS);
  });
});
