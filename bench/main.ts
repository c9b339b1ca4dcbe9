import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { isMainThread } from 'node:worker_threads';
import type { Result } from './harness';
import { crowdBench } from './crowd.bench';
import { hammerHere } from './hammer';
import { ledgerBench } from './ledger.bench';
import { meshBench } from './mesh.bench';
import { reconcileBench } from './reconcile.bench';
import { rollUpBench } from './roll-up.bench';
import { scheduleBench } from './schedule.bench';
import { studyBench } from './study.bench';
import { systemsBench } from './systems.bench';

const BENCHES: Readonly<Record<string, () => readonly Result[] | Promise<readonly Result[]>>> = {
  // first: the most memory is told of the whole process, and is to be that of meshes alone
  mesh: meshBench,
  'roll-up': rollUpBench,
  ledger: ledgerBench,
  study: studyBench,
  crowd: crowdBench,
  schedule: scheduleBench,
  systems: systemsBench,
  reconcile: reconcileBench,
};

const printed = (value: number): string => String(Number(value.toPrecision(3)));

const main = async (): Promise<void> => {
  const [only] = process.argv.slice(2);
  const names = only === undefined ? Object.keys(BENCHES) : [only];
  const results: Result[] = [];
  for (const name of names) {
    const bench = BENCHES[name];
    if (!bench) throw new RangeError(`There is no benchmark “${name}”; there are: ${Object.keys(BENCHES).join(', ')}`);
    results.push(...(await bench()));
  }
  const width = Math.max(...results.map((r) => r.name.length));
  for (const r of results) {
    process.stdout.write(
      `${r.name.padEnd(width)}  ${printed(r.value).padStart(8)} ${r.unit.padEnd(3)} budget ${String(r.budget).padStart(5)}  ${r.ok ? 'ok' : 'OVER'}\n`,
    );
  }
  // the file holds one run of all of them
  if (only === undefined) writeFileSync(join(process.cwd(), 'bench', 'results.json'), `${JSON.stringify(results, null, 2)}\n`);
  if (results.some((r) => !r.ok)) process.exitCode = 1;
};

if (isMainThread)
  main().catch((error: unknown) => {
    process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`);
    process.exit(1);
  });
else hammerHere();
