import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';

const OWNER = join(__dirname, 'owner.mjs');
/** A process that takes the folder, says so, and stays. */
const holder = (dir: string, address: string): ChildProcess =>
  spawn('node', [
    '--input-type=module',
    '-e',
    `import { own } from '${OWNER}';
     const { tell } = await own('${dir}');
     tell('${address}');
     process.stdout.write('has it');
     setInterval(() => undefined, 1000);`,
  ]);
const hasIt = (child: ChildProcess): Promise<void> => new Promise((done) => child.stdout?.once('data', () => done()));
const gone = (child: ChildProcess): Promise<void> => new Promise((done) => child.once('exit', () => done()));
const tried = (dir: string): { readonly status: number | null; readonly said: string } => {
  const { status, stdout, stderr } = spawnSync(
    'node',
    [
      '--input-type=module',
      '-e',
      `import { own } from '${OWNER}';
       try { const { release } = await own('${dir}'); release(); console.log('took it'); } catch (error) { console.log(error.message); process.exit(1); }`,
    ],
    { encoding: 'utf8' },
  );
  return { status, said: stdout + stderr };
};

describe('the folder of the data', () => {
  let dir: string;
  beforeEach(() => (dir = mkdtempSync(join(tmpdir(), 'owner-'))));
  afterEach(() => rmSync(dir, { recursive: true }));

  it('belongs to one program at a time: a second is refused with the address of the first', async () => {
    const first = holder(dir, 'http://127.0.0.1:4600');
    await hasIt(first);
    expect(tried(dir)).toMatchObject({
      status: 1,
      said: expect.stringMatching(
        /in use by a program that runs already \(process \d+\)\. It is ready at http:\/\/127\.0\.0\.1:4600/,
      ) as string,
    });
    first.kill('SIGKILL');
    await gone(first);
    // one that was killed holds nothing back
    expect(tried(dir)).toMatchObject({ status: 0, said: expect.stringContaining('took it') as string });
    expect(existsSync(join(dir, 'owner.json'))).toBe(false);
  });
  it('goes to one of three that begin at the same moment', async () => {
    const three = ['a', 'b', 'c'].map((name) => holder(dir, name));
    const ends = three.map(async (child) => {
      const won = await Promise.race([hasIt(child).then(() => true), gone(child).then(() => false)]);
      return won;
    });
    expect((await Promise.all(ends)).filter((won) => won)).toHaveLength(1);
    for (const child of three) child.kill('SIGKILL');
  });
  it('is not held by the number of a process that is another by now, nor by a word that was not written to its end', () => {
    writeFileSync(join(dir, 'owner.json'), JSON.stringify({ pid: 1, began: '17', address: 'http://127.0.0.1:4600' }));
    expect(tried(dir).status).toBe(0);
    writeFileSync(join(dir, 'owner.json'), '{"pid": 1');
    expect(tried(dir).status).toBe(0);
  });
});
