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
  const get = (path: string, headers: Readonly<Record<string, string>> = {}): Promise<Response> =>
    fetch(`http://127.0.0.1:${(server.address() as AddressInfo).port}${path}`, { headers });
  beforeAll(async () => {
    dir = await mkdtemp(join(tmpdir(), 'web-'));
    await writeFile(join(dir, 'index.html'), '<title>Each Bolt</title>');
    await writeFile(join(dir, 'main-A2GZMH4A.js'), '1');
    await writeFile(join(dir, 'icon.svg'), '<svg/>');
    await writeFile(join(dir, 'ahead.json'), '["main-A2GZMH4A.js","chunk-b_3dEf-4.js"]');
    server = express()
      .use(
        webClient(dir, (request, _response, next) => {
          if (request.headers.cookie === 'no database') {
            next(new Error('the database is away'));
            return;
          }
          const personId = request.headers.cookie === 'signed in' ? 'wenna' : undefined;
          Object.assign(request, { session: { personId } });
          next();
        }),
      )
      .listen(0, '127.0.0.1');
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
    await writeFile(join(dir, 'chunk-b_3dEf-4.js'), '1');
    expect((await get('/chunk-b_3dEf-4.js')).headers.get('cache-control')).toBe('public, max-age=31536000, immutable');
    expect((await get('/icon.svg')).headers.get('cache-control')).toBe('no-cache');
  });
  it('let the browser ask for the study of the address, and the files of its first view, while it still reads the page', async () => {
    const links = async (path: string, cookie = 'signed in'): Promise<string[]> =>
      (await get(path, { cookie })).headers.get('link')!.split(', ');
    const study = '11111111-1111-4111-8111-111111111111';
    expect(await links(`/studies/${study}/bench`)).toEqual([
      '</main-A2GZMH4A.js>; rel=modulepreload',
      `</api/studies/${study}>; rel=preload; as=fetch; crossorigin`,
      '</api/me>; rel=preload; as=fetch; crossorigin',
      '</chunk-b_3dEf-4.js>; rel=modulepreload',
    ]);
    // the refusal would be kept until after the sign-in
    expect(await links(`/studies/${study}/bench`, '')).toEqual(['</api/me>; rel=preload; as=fetch; crossorigin']);
    expect(await links('/')).toEqual(['</api/me>; rel=preload; as=fetch; crossorigin']);
    // an address is not a header: nothing of it gets in but the number of a study
    expect(await links('/studies/x>; rel=preload,%0a/bench')).toHaveLength(1);
  });
  it('are served without a database too: the page has its own copy of the studies', async () => {
    const answer = await get('/studies/11111111-1111-4111-8111-111111111111/bench', { cookie: 'no database' });
    expect([answer.status, answer.headers.get('link')]).toEqual([200, '</api/me>; rel=preload; as=fetch; crossorigin']);
  });
  it('do not reach outside their folder', async () => {
    expect(await (await get('/..%2f..%2fetc%2fpasswd')).text()).not.toContain('root:');
  });
});
