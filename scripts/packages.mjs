// Installs what the project needs from Debian's packages when it is missing, or says the exact command.
import { spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';

const POSTGRES_ROOT = '/usr/lib/postgresql';
export const CHROMIUM = '/usr/bin/chromium';

/** Folder of the newest PostgreSQL programs, or null. */
export const postgresPrograms = () => {
  if (!existsSync(POSTGRES_ROOT)) return null;
  const versions = readdirSync(POSTGRES_ROOT)
    .filter((name) => existsSync(join(POSTGRES_ROOT, name, 'bin', 'initdb')))
    .sort((a, b) => Number(b) - Number(a));
  return versions.length > 0 ? join(POSTGRES_ROOT, versions[0], 'bin') : null;
};

const mayInstall = () => process.getuid?.() === 0;

const apt = (args) =>
  spawnSync('apt-get', args, {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  }).status === 0;

const install = (debianPackage, what) => {
  if (!mayInstall()) {
    throw new Error(`${what} is missing. Install it with:  sudo apt-get update && sudo apt-get install -y ${debianPackage}`);
  }
  console.log(`Installing ${what} from Debian's packages …`);
  apt(['update', '-qq']);
  if (!apt(['install', '-y', '-qq', '--no-install-recommends', debianPackage])) {
    throw new Error(`apt-get could not install ${debianPackage}; see its message above`);
  }
};

/** Programs of PostgreSQL, installed when missing. */
export const needPostgres = () => {
  if (!postgresPrograms()) install('postgresql', 'PostgreSQL');
  const programs = postgresPrograms();
  if (!programs) throw new Error(`PostgreSQL was installed but its programs are not below ${POSTGRES_ROOT}`);
  return programs;
};

/** Chromium, installed when missing. */
export const needChromium = () => {
  if (!existsSync(CHROMIUM)) install('chromium', 'Chromium');
  return CHROMIUM;
};
