import { once } from 'node:events';
import type { AddressInfo } from 'node:net';
import { connect } from 'node:net';
import express, { type Response } from 'express';
import { isGone, whenOver } from './when-over';

/** A server whose first answer waits until it is let go, and what came to an end. */
const scene = async () => {
  const app = express();
  const [over, held]: [string[], Response[]] = [[], []];
  app.get('/:name', (request, response) => {
    whenOver(response, () => over.push(request.params.name));
    held.push(response);
  });
  const server = app.listen(0, '127.0.0.1');
  await once(server, 'listening');
  const line = connect((server.address() as AddressInfo).port, '127.0.0.1');
  /** waits for it, and tells by the assertion after it when it never comes */
  const until = async (is: () => boolean): Promise<void> => {
    for (let i = 0; i < 400 && !is(); i++) await new Promise((done) => setTimeout(done, 5));
  };
  const ask = (name: string): void => void line.write(`GET /${name} HTTP/1.1\r\nHost: here\r\n\r\n`);
  return { over, held, line, until, ask, end: () => server.close() };
};

describe('an answer is over', () => {
  it('when it has been taken', async () => {
    const { over, held, line, until, ask, end } = await scene();
    ask('first');
    await until(() => held.length === 1);
    expect(over).toEqual([]);
    held[0]!.end('taken');
    await until(() => over.length === 1);
    line.destroy();
    end();
    expect(over).toEqual(['first']);
  });
  it('when whoever asked has gone, also for one behind another on the same connection, and once', async () => {
    const { over, held, line, until, ask, end } = await scene();
    ask('first');
    ask('second');
    await until(() => held.length === 2);
    line.destroy();
    await until(() => held.every(isGone) && over.length === 2);
    await new Promise((done) => setTimeout(done, 20));
    end();
    expect([...over].sort()).toEqual(['first', 'second']);
  });
  it('at once for whoever has gone before', async () => {
    const { held, line, until, ask, end } = await scene();
    ask('first');
    await until(() => held.length === 1);
    line.destroy();
    await until(() => isGone(held[0]!));
    let times = 0;
    whenOver(held[0]!, () => times++);
    end();
    expect(times).toBe(1);
  });
});
