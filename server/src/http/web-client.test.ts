import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import express from 'express';
import { webClient } from './web-client';

describe('the web client’s files', () => {
  let dir: string;
  let server: Server;
  const get = (path: string): Promise<Response> => fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`);
  beforeAll(async () => {
    dir = await mkdtemp(join(tmpdir(), 'web-'));
    await writeFile(join(dir, 'index.html'), '<title>Each Bolt</title>');
    await writeFile(join(dir, 'main-A2GZMH4A.js'), '1');
    await writeFile(join(dir, 'icon.svg'), '<svg/>');
    server = express().use(webClient(dir)).listen(0, '127.0.0.1');
    await new Promise((ready) => server.once('listening', ready));
  });
  afterAll(async () => {
    await new Promise((done) => server.close(done));
    await rm(dir, { recursive: true });
  });

  it('give the page at every address of the client, always fresh', async () => {
    for (const path of ['/', '/studies/x/bench?part=y']) {
      const answer = await get(path);
      expect([answer.status, answer.headers.get('cache-control'), await answer.text()]).toEqual([
        200,
        'no-cache',
        '<title>Each Bolt</title>',
      ]);
    }
  });
  it('are kept for good when their name changes with their content, and asked for again otherwise', async () => {
    expect((await get('/main-A2GZMH4A.js')).headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    expect((await get('/icon.svg')).headers.get('cache-control')).toBe('no-cache');
  });
  it('do not reach outside their folder', async () => {
    expect(await (await get('/..%2f..%2fetc%2fpasswd')).text()).not.toContain('root:');
  });
});
