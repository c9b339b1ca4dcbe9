import { createReadStream } from 'node:fs';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Readable } from 'node:stream';

/** A file that was written for those who are reading it. */
interface Spooled {
  readonly path: Promise<string>;
  readers: number;
}

/**
 * Archives on their way out: each is written whole at the pace of the database, and read at the pace of whoever asked. Those who ask
 * for the same state of a study read the same file; the last one to leave takes it away.
 */
export class Spool {
  private readonly files = new Map<string, Spooled>();

  /**
   * @param key tells one content from another
   * @param write writes the content into a file
   * @param read takes what is in the file; once it is done the file may be gone
   */
  async through(key: string, write: (path: string) => Promise<void>, read: (content: Readable) => Promise<void>): Promise<void> {
    const file = this.files.get(key) ?? { path: this.written(write), readers: 0 };
    this.files.set(key, file);
    file.readers += 1;
    try {
      await read(createReadStream(await file.path));
    } finally {
      file.readers -= 1;
      if (file.readers === 0) {
        this.files.delete(key);
        await file.path.then((path) => rm(join(path, '..'), { recursive: true, force: true })).catch(() => undefined);
      }
    }
  }

  private async written(write: (path: string) => Promise<void>): Promise<string> {
    const dir = await mkdtemp(join(tmpdir(), 'archive-'));
    const path = join(dir, 'study.zip');
    try {
      await write(path);
    } catch (error) {
      await rm(dir, { recursive: true, force: true });
      throw error;
    }
    return path;
  }
}
