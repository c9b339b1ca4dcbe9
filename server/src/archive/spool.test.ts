import { existsSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import { text } from 'node:stream/consumers';
import { Spool } from './spool';

describe('an archive on its way out', () => {
  it('is written once for all who ask for the same state at once, and taken away by the last of them', async () => {
    const spool = new Spool();
    const paths: string[] = [];
    const write = async (path: string): Promise<void> => {
      paths.push(path);
      await writeFile(path, `the study, ${paths.length}`);
    };
    let readOn = (): void => undefined;
    const slow = new Promise<void>((done) => (readOn = done));
    const read: string[] = [];
    const first = spool.through('a 1', write, async (content) => {
      await slow;
      read.push(await text(content));
    });
    await spool.through('a 1', write, async (content) => void read.push(await text(content)));
    await spool.through('a 2', write, async (content) => void read.push(await text(content)));
    expect([read, paths.map(existsSync)]).toEqual([
      ['the study, 1', 'the study, 2'],
      [true, false],
    ]);
    readOn();
    await first;
    expect([read.length, read[2], existsSync(paths[0]!)]).toEqual([3, 'the study, 1', false]);
    // whoever comes later reads it anew
    await spool.through('a 1', write, async (content) => expect(await text(content)).toBe('the study, 3'));
  });
  it('that cannot be written is told to everybody who waits for it, and leaves nothing', async () => {
    const spool = new Spool();
    let path = '';
    const write = (to: string): Promise<void> => {
      path = to;
      return Promise.reject(new Error('the disk is full'));
    };
    const all = await Promise.allSettled([1, 2].map(() => spool.through('a 1', write, () => Promise.resolve())));
    expect(all.map(({ status }) => status)).toEqual(['rejected', 'rejected']);
    expect(existsSync(path)).toBe(false);
    await spool.through(
      'a 1',
      (to) => writeFile(to, 'better'),
      async (content) => expect(await text(content)).toBe('better'),
    );
  });
});
