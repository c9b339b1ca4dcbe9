// Bundles the unit tests of one stage of core, each with the code it tests, so that they are loaded once for all changes.
import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { build } from 'esbuild';

const stage = process.env.MUTATION_STAGE ?? 'core/src';
await build({
  entryPoints: readdirSync(stage, { recursive: true })
    .filter((name) => name.endsWith('.test.ts'))
    .map((name) => join(stage, name)),
  // as deep as the tests themselves, which look for files beside them
  outbase: 'core/src',
  outdir: 'core/mutation',
  outExtension: { '.js': '.cjs' },
  bundle: true,
  platform: 'node',
  format: 'cjs',
  // the copy has no packages of its own yet when this runs
  nodePaths: [join(import.meta.dirname, '../node_modules')],
  logLevel: 'error',
});
