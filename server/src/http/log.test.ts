import { randomUUID } from 'node:crypto';
import { createServer } from 'node:http';
import { connect } from 'node:net';
import { Api, PASSWORD, beginStudy, listen, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { many } from '../db/rows';
import { CONNECTIONS } from './connections';
import { openLog } from './log';

it('the log holds no record data, no password and no hash: not of what is kept, nor of what fails in the database', async () => {
  const lines: string[] = [];
  const log = openLog('debug', { write: (line) => void lines.push(line) });
  const { pool, drop } = await testDatabase();
  const { address, stop } = await listen(pool, undefined, undefined, log);
  const api = await new Api(address, pool, stop).as('Wenna Tarn', 'lead');
  const study = await beginStudy(api);
  const secret = 'secret bracket of the prototype';
  await api.change(study.studyId, [{ kind: 'part.add', id: randomUUID(), fields: study.part({ name: secret }) }]);
  await api.get(`/api/studies/${study.studyId}/files/${'ab'.repeat(32)}`);
  await api.get(`/api/studies/${study.studyId}/history?rows=${encodeURIComponent(secret)}`);
  await api.post('/api/sign-in', JSON.stringify({ login: 'nobody', password: secret }));
  // a rule that only the database knows quotes the row that breaks it
  await pool.query(`alter table part add constraint unheard_of check (name <> '${secret} too')`);
  const broken = await api.change<Problem>(study.studyId, [
    { kind: 'part.add', id: randomUUID(), fields: study.part({ name: `${secret} too` }) },
  ]);
  expect(broken.status).toBe(422);
  await stop();
  const hashes = (await many<{ hash: string }>(pool, 'select password_hash as hash from person')).map(({ hash }) => hash);
  await drop();
  const all = lines.join('');
  expect(all).toContain('unheard_of');
  expect(all).toContain('GET /api/studies/:id/files/:sha256');
  for (const hidden of [secret, encodeURIComponent(secret), PASSWORD, 'ab'.repeat(32), ...hashes, 'argon2id'])
    expect(all).not.toContain(hidden);
});

it('a connection on which nobody says anything, or only half, is cut off', async () => {
  expect(CONNECTIONS.headersTimeout).toBeLessThanOrEqual(30_000);
  // the usual proxies keep theirs for 60 to 75 s: common practice, no source
  expect(CONNECTIONS.keepAliveTimeout).toBeGreaterThan(75_000);
  const soon = { ...CONNECTIONS, headersTimeout: 200, connectionsCheckingInterval: 50 };
  const server = createServer(soon, (_request, response) => response.end());
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const { port } = server.address() as { readonly port: number };
  const closed = (said: string): Promise<void> =>
    new Promise((done) => {
      const socket = connect(port, '127.0.0.1', () => socket.write(said));
      socket.on('close', () => done()).resume();
    });
  await Promise.all([closed(''), closed('GET / HTTP/1.1\r\nHost:')]);
  await new Promise((done) => server.close(done));
});
