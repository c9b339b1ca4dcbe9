// Builds the server (esbuild) and the web client (Angular) when their sources are newer than what is built.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';

export const ROOT = fileURLToPath(new URL('..', import.meta.url));

const filesBelow = (path) => {
  if (!existsSync(path)) return [];
  if (statSync(path).isFile()) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((entry) => !['node_modules', 'dist'].includes(entry.name))
    .sort((a, b) => (a.name < b.name ? -1 : 1))
    .flatMap((entry) => filesBelow(join(path, entry.name)));
};

const digestOf = (paths) => {
  const hash = createHash('sha256');
  for (const path of paths) for (const file of filesBelow(join(ROOT, path))) hash.update(file).update(readFileSync(file));
  return hash.digest('hex');
};

const run = (command, args) => {
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    // chunks of the web client are joined where they are always needed together: fewer requests on a first visit
    env: { ...process.env, NG_CLI_ANALYTICS: 'false', NG_BUILD_OPTIMIZE_CHUNKS: '1' },
  });
  if (done.status !== 0) throw new Error(`${command} ${args.join(' ')} failed`);
};

/** Lists the files that an opened study needs at once, main first: the shell and the bench with all they import. */
const listAhead = (dir) => {
  const stats = join(dir, '..', 'stats.json');
  const { outputs } = JSON.parse(readFileSync(stats, 'utf8'));
  const ahead = new Set();
  const take = (file) => {
    if (ahead.has(file)) return;
    ahead.add(file);
    for (const { kind, path } of outputs[file].imports) if (kind === 'import-statement') take(path);
  };
  for (const source of ['main', 'app/shell/shell-page', 'app/bench/bench-frame', 'app/bench/bench-page'])
    take(Object.keys(outputs).find((file) => file.endsWith('.js') && `web/src/${source}.ts` in outputs[file].inputs));
  writeFileSync(join(dir, 'ahead.json'), JSON.stringify([...ahead]));
  rmSync(stats);
};

/** Packs what the server sends to every visitor, once: brotli and gzip beside each file. */
const pack = (dir) => {
  for (const file of filesBelow(dir)) {
    if (!/\.(js|css|svg)$/.test(file)) continue;
    const bytes = readFileSync(file);
    writeFileSync(`${file}.br`, brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }));
    writeFileSync(`${file}.gz`, gzipSync(bytes, { level: 9 }));
  }
};

const PARTS = [
  {
    name: 'server',
    sources: ['core/src', 'core/package.json', 'server/src', 'server/package.json', 'package-lock.json'],
    built: 'server/dist/main.js',
    build: () =>
      run(join(ROOT, 'node_modules/.bin/esbuild'), [
        'main=server/src/main.ts',
        'aside=server/src/tasks/worker.ts',
        'stand-in=server/src/instruments/stand-ins/main.ts',
        '--bundle',
        '--platform=node',
        '--format=esm',
        '--target=node20',
        '--sourcemap',
        '--outdir=server/dist',
        '--log-level=warning',
        '--external:express',
        '--external:pg',
        '--external:pg-copy-streams',
        '--external:pino',
        '--external:helmet',
        '--external:compression',
        '--external:express-static-gzip',
        '--external:express-session',
        '--external:connect-pg-simple',
        '--external:express-rate-limit',
        '--external:@node-rs/argon2',
        '--external:sharp',
        '--external:bwip-js',
        '--external:pdf-lib',
        '--external:yauzl',
        '--external:yazl',
        "--banner:js=import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
      ]),
  },
  {
    name: 'web client',
    sources: ['core/src', 'core/package.json', 'web', 'angular.json', 'tsconfig.base.json', 'package-lock.json', 'scripts/build.mjs'],
    built: 'web/dist/browser/index.html',
    build: () => {
      run(join(ROOT, 'node_modules/.bin/ng'), ['build', '--progress=false', '--stats-json']);
      listAhead(join(ROOT, 'web/dist/browser'));
      pack(join(ROOT, 'web/dist/browser'));
    },
  },
];

/** Builds what is stale: all of it, or the parts that are named. */
export const build = (names = PARTS.map(({ name }) => name)) => {
  for (const part of PARTS.filter(({ name }) => names.includes(name))) {
    const stamp = join(ROOT, '.data', 'built', `${part.name.replace(' ', '-')}.sha256`);
    const digest = digestOf(part.sources);
    if (existsSync(join(ROOT, part.built)) && existsSync(stamp) && readFileSync(stamp, 'utf8') === digest) continue;
    console.log(`Building the ${part.name} …`);
    part.build();
    mkdirSync(join(ROOT, '.data', 'built'), { recursive: true });
    writeFileSync(stamp, digest);
  }
};

if (process.argv[1] === fileURLToPath(import.meta.url)) build();
