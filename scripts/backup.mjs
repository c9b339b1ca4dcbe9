// npm run backup [-- FILE]: everything in the database, people, studies, history and pictures, into one file with its sum.
import { createHash } from 'node:crypto';
import { createReadStream, createWriteStream, mkdirSync, mkdtempSync, readFileSync, renameSync, rmSync, statSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { ROOT } from './build.mjs';
import { MAGIC, holdState, nameOf, program, withDatabase } from './dump.mjs';

const stamp = () => new Date().toISOString().replace(/[-:]/g, '').slice(0, 15);

const sumOf = async (path) => {
  const hash = createHash('sha256');
  await pipeline(createReadStream(path), hash);
  return hash.digest('hex');
};

const backup = async () => {
  const [given] = process.argv.slice(2);
  const file = resolve(given ?? join(ROOT, '.data', 'backups', `each-bolt-${stamp()}.backup`));
  mkdirSync(dirname(file), { recursive: true });
  await withDatabase(async ({ url }) => {
    const dir = mkdtempSync(join(dirname(file), '.backup-'));
    try {
      const dump = join(dir, 'dump');
      // the dump and what is counted are of one state, whoever writes meanwhile
      const state = await holdState(url);
      try {
        await program('pg_dump', url, [
          ...['-d', nameOf(url), '-Fc', '--no-owner', '--no-privileges', `--snapshot=${state.snapshot}`],
          // who is here now and who is signed in is not worth keeping
          ...['--exclude-table-data=session', '--exclude-table-data=presence', '-f', dump],
        ]);
      } finally {
        await state.release();
      }
      const { version } = JSON.parse(readFileSync(join(ROOT, 'package.json'), 'utf8'));
      const head = {
        program: version,
        madeAt: new Date().toISOString(),
        bytes: statSync(dump).size,
        sha256: await sumOf(dump),
        counts: state.counts,
      };
      const whole = join(dir, 'whole');
      const out = createWriteStream(whole);
      out.write(`${MAGIC}${JSON.stringify(head)}\n`);
      await pipeline(createReadStream(dump), out);
      // under its name only once it is whole
      renameSync(whole, file);
      const { study, part, picture } = head.counts;
      console.log(`Backed up ${study} studies, ${part} parts and ${picture} pictures into ${file}`);
    } finally {
      rmSync(dir, { recursive: true, force: true });
    }
  });
};

backup().catch((error) => {
  console.error(`No backup was made: ${error.message}`);
  process.exit(1);
});
