// npm run mutation -- FOLDER [--all]: changes the code of a folder of core bit by bit and reports how many changes its tests notice.
// A large folder is sampled by statements, evenly and the same way each time; --all changes them all, which takes hours.
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
const sources = (isFile ? [inside] : readdirSync(join(ROOT, inside), { recursive: true }).map((name) => `${inside}/${name}`)).filter(
  (name) => name.endsWith('.ts') && !name.endsWith('.test.ts') && !name.endsWith('index.ts'),
);
const lines = sources.reduce((sum, name) => sum + readFileSync(join(ROOT, name), 'utf8').split('\n').length, 0);
/** Lines whose statements are all changed in a quarter of an hour or so. */
const LINES_WHOLE = 600;
const share = process.argv.includes('--all') ? 1 : Math.min(1, LINES_WHOLE / Math.max(1, lines));
if (share < 1)
  process.stdout.write(`${lines} lines: about ${Math.round(100 * share)} % of the statements are changed; --all changes every one.\n`);

installPackages();
const work = mkdtempSync(join(tmpdir(), 'each-bolt-mutation-'));
const report = join(work, 'report.json');
const config = join(work, 'config.json');
writeFileSync(
  config,
  JSON.stringify({
    mutate: [isFile ? inside : `${inside}/**/*.ts`, '!**/*.test.ts', '!**/index.ts'],
    testRunner: 'mocha',
    buildCommand: `node ${join(ROOT, 'scripts/mutation.build.mjs')}`,
    plugins: ['@stryker-mutator/mocha-runner', join(ROOT, 'scripts/mutation.sample.mjs')],
    ignorers: share < 1 ? ['sample'] : [],
    mochaOptions: {
      'no-config': true,
      'no-package': true,
      'no-opts': true,
      require: ['./scripts/mutation.globals.cjs'],
      spec: ['core/mutation/**/*.cjs'],
    },
    coverageAnalysis: 'perTest',
    // what runs while files are loaded would run every test for each change; what tests run as well is held against those alone
    ignoreStatic: true,
    // what a string says is not arithmetic
    mutator: { excludedMutations: ['StringLiteral'] },
    ignorePatterns: ['/e2e', '/bench', '/docs', '/web', '/server', '/demo', '/.ci', 'dist', 'build', '/core/mutation'],
    reporters: ['clear-text', 'json', 'progress-append-only'],
    clearTextReporter: { allowColor: false, reportTests: false, reportScoreTable: true },
    jsonReporter: { fileName: report },
    concurrency: availableParallelism(),
    timeoutFactor: 1.5,
    dryRunTimeoutMinutes: 30,
    timeoutMS: 10_000,
    tempDirName: join(work, 'copies'),
    disableTypeChecks: true,
    allowEmpty: false,
  }),
);
// the tests of the stage the folder is of: what is noticed only by another stage is not tested where it stands
const stage = inside.split('/').slice(0, 3).join('/');
const ran = spawnSync(join(ROOT, 'node_modules/.bin/stryker'), ['run', config], {
  cwd: ROOT,
  stdio: 'inherit',
  env: { ...process.env, MUTATION_STAGE: stage, MUTATION_SHARE: String(share) },
});
if (!existsSync(report)) fail('The tests could not be run; see above');
const states = Object.values(JSON.parse(readFileSync(report, 'utf8')).files).flatMap(({ mutants }) => mutants.map(({ status }) => status));
rmSync(work, { recursive: true, force: true });
const count = (...of) => states.filter((status) => of.includes(status)).length;
const [killed, alive] = [count('Killed', 'Timeout'), count('Survived', 'NoCoverage')];
const percent = (100 * killed) / Math.max(1, killed + alive);
// the spread of a share counted on a sample, twice its standard deviation
const spread = share < 1 ? ` ± ${(200 * Math.sqrt(((percent / 100) * (1 - percent / 100)) / Math.max(1, killed + alive))).toFixed(1)}` : '';
process.stdout.write(`\n${inside}: ${killed} of ${killed + alive} changes noticed, ${percent.toFixed(1)}${spread} %\n`);
process.exit(ran.status !== 0 || percent < LEAST_PERCENT ? 1 : 0);
