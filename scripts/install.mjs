// Installs the packages from the lock file when they are missing or older than it.
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

const ROOT = fileURLToPath(new URL('..', import.meta.url));

export const installPackages = () => {
  const digest = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  const stamp = join(ROOT, 'node_modules', '.each-bolt-lock');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) return;
  console.log('Installing packages from the lock file …');
  const done = spawnSync('npm', ['ci', '--ignore-scripts', '--no-audit', '--no-fund'], {
    cwd: ROOT,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) throw new Error('npm ci failed; see its message above');
  writeFileSync(stamp, digest);
};
