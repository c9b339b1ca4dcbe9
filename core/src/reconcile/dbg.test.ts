import { planted } from '../../testing/planted-faults';
import { syntheticStudy } from '../../testing/synthetic-study';
import { reconcile } from './run';
it('x', () => {
  const out: string[] = [];
  for (const kind of ['pounds typed as kg', 'a part not recorded'])
    for (const [seed, size, at] of [[1, 60, 0], [2, 60, 1], [3, 250, 2]] as const) {
      const study = syntheticStudy(seed, size);
      for (let s = 1; s <= 6; s++) {
        const f = planted(study, kind, s * 31 + at)!;
        const { causes } = reconcile(f.record, '2026-06-01');
        if (causes.some((c) => f.cause.test(c.ranked[0]!.suspect.key))) continue;
        out.push(kind, ...causes.map((c) => `  ${c.says} ${c.findings.map((x) => x.check + ':' + x.says).join(' | ')}\n     ${c.ranked.slice(0, 4).map((r) => `${r.suspect.key} ${r.chanceFraction.toFixed(3)} ${r.suspect.fit.toFixed(2)}`).join('\n     ')}`));
      }
    }
  process.stdout.write(out.join('\n'));
});
