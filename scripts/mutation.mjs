// npm run mutation -- FOLDER: changes the code of a folder of core bit by bit and reports how many changes its tests notice.
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { availableParallelism, tmpdir } from 'node:os';
import { join, relative, sep } from 'node:path';
import { spawnSync } from 'node:child_process';
import { ROOT } from './build.mjs';
import { installPackages } from './install.mjs';

/** Of the changes to a stage of core its tests are to notice this many. */
const LEAST_PERCENT = 80;

const fail = (message) => {
  process.stderr.write(`${message}\n`);
  process.exit(2);
};

const folder = process.argv[2];
if (!folder) fail('Say which folder: npm run mutation -- core/src/plan');
const inside = relative(ROOT, join(ROOT, folder)).split(sep).join('/');
if (!/^core\/src\//.test(inside) || !existsSync(join(ROOT, inside))) fail(`${folder} is no folder or file of core/src`);
const isFile = inside.endsWith('.ts');
const isLarge = !isFile && readdirSync(join(ROOT, inside), { recursive: true }).length > 60;
if (isLarge) process.stdout.write('This is a large folder: it takes an hour or more.\n');

installPackages();
const work = mkdtempSync(join(tmpdir(), 'each-bolt-mutation-'));
const report = join(work, 'report.json');
const config = join(work, 'config.json');
writeFileSync(
  config,
  JSON.stringify({
    mutate: [isFile ? inside : `${inside}/**/*.ts`, '!**/*.test.ts', '!**/index.ts'],
    testRunner: 'jest',
    plugins: ['@stryker-mutator/jest-runner'],
    jest: { configFile: 'scripts/mutation.jest.mjs', enableFindRelatedTests: true },
    coverageAnalysis: 'perTest',
    // what a string says is not arithmetic
    mutator: { excludedMutations: ['StringLiteral'] },
    ignorePatterns: ['/e2e', '/bench', '/docs', '/web', '/server', '/demo', '/.ci', 'dist', 'build'],
    reporters: ['clear-text', 'json', 'progress-append-only'],
    clearTextReporter: { allowColor: false, reportTests: false, reportScoreTable: true },
    jsonReporter: { fileName: report },
    concurrency: availableParallelism(),
    timeoutMS: 20_000,
    tempDirName: join(work, 'copies'),
    disableTypeChecks: true,
    allowEmpty: false,
  }),
);
const ran = spawnSync(join(ROOT, 'node_modules/.bin/stryker'), ['run', config], { cwd: ROOT, stdio: 'inherit' });
if (!existsSync(report)) fail('The tests could not be run; see above');
const states = Object.values(JSON.parse(readFileSync(report, 'utf8')).files).flatMap(({ mutants }) => mutants.map(({ status }) => status));
rmSync(work, { recursive: true, force: true });
const count = (...of) => states.filter((status) => of.includes(status)).length;
const [killed, alive] = [count('Killed', 'Timeout'), count('Survived', 'NoCoverage')];
const percent = (100 * killed) / Math.max(1, killed + alive);
process.stdout.write(`\n${inside}: ${killed} of ${killed + alive} changes noticed, ${percent.toFixed(1)} %\n`);
process.exit(ran.status !== 0 || percent < LEAST_PERCENT ? 1 : 0);
