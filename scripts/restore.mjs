// npm run restore -- FILE: puts a backup back in place of what is in the database, whole or not at all. What was there
// before is kept under another name.
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, existsSync, mkdtempSync, openSync, readSync, closeSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MAGIC, counts, nameOf, program, sql, withDatabase } from './dump.mjs';

const MOST_HEAD = 64 * 1024;

const readHead = (file) => {
  const descriptor = openSync(file, 'r');
  const start = Buffer.alloc(MOST_HEAD);
  const read = readSync(descriptor, start, 0, MOST_HEAD, 0);
  closeSync(descriptor);
  const end = start.subarray(0, read).indexOf('\n');
  const line = end < 0 ? '' : start.toString('utf8', 0, end);
  if (!line.startsWith(MAGIC)) throw new Error(`${file} is no backup of this program`);
  return { ...JSON.parse(line.slice(MAGIC.length)), from: end + 1 };
};

/** Copies the dump out of the backup; throws when it is not, to the byte, what was backed up. */
const soundDump = async (file, head, path) => {
  const hash = createHash('sha256');
  let bytes = 0;
  const summed = new Transform({
    transform: (chunk, _encoding, next) => {
      hash.update(chunk);
      bytes += chunk.length;
      next(null, chunk);
    },
  });
  await pipeline(createReadStream(file, { start: head.from }), summed, createWriteStream(path));
  if (bytes !== head.bytes || hash.digest('hex') !== head.sha256) throw new Error(`${file} is damaged: its sum does not agree`);
};

const restore = async () => {
  const [given] = process.argv.slice(2);
  if (!given) throw new Error('say which file: npm run restore -- FILE');
  const file = resolve(given);
  if (!existsSync(file)) throw new Error(`there is no file ${file}`);
  const head = readHead(file);
  await withDatabase(async ({ url }) => {
    const dir = mkdtempSync(join(tmpdir(), 'restore-'));
    const name = nameOf(url);
    const [fresh, before] = [`${name}_restoring`, `${name}_before_${Date.now()}`];
    try {
      const dump = join(dir, 'dump');
      await soundDump(file, head, dump);
      const others = sql(url, 'postgres', `select count(*) from pg_stat_activity where datname = '${name}'`);
      if (others !== '0') throw new Error('the program is running on this database; stop it first');
      sql(url, 'postgres', `drop database if exists "${fresh}"`);
      sql(url, 'postgres', `create database "${fresh}" template template0 encoding 'UTF8'`);
      program('pg_restore', url, ['-d', fresh, '--no-owner', '--no-privileges', '--exit-on-error', '--single-transaction', dump]);
      const found = counts(url, fresh);
      const wrong = Object.keys(head.counts).filter((table) => head.counts[table] !== found[table]);
      if (wrong.length > 0) throw new Error(`not every row came back (${wrong.join(', ')})`);
      // one transaction: there is never a moment without a database of the name
      sql(url, 'postgres', `alter database "${name}" rename to "${before}"; alter database "${fresh}" rename to "${name}"`);
      console.log(`Restored ${found.study} studies, ${found.part} parts and ${found.picture} pictures as of ${head.madeAt}.`);
      console.log(`What was there before is kept in the database ${before}; drop it when you are sure.`);
    } catch (error) {
      // a half restored database is of no use to anybody
      try {
        sql(url, 'postgres', `drop database if exists "${fresh}"`);
      } catch {
        // the first failure is the one to tell
      }
      throw error;
    } finally {
      rmSync(dir, { recursive: true, force: true });
    }
  });
};

restore().catch((error) => {
  console.error(`Nothing was changed: ${error.message}`);
  process.exit(1);
});
