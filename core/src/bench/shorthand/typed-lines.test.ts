import { randomFrom, writtenLine } from '../../../testing/line-writers';
import { OUTCOMES, outcomeOf, tally, type Outcome } from '../../../testing/meaning';
import { TYPED_LINES } from '../../../testing/typed-lines';

describe('lines as engineers type them', () => {
  const outcomes = TYPED_LINES.map(([line, meant]): readonly [string, Outcome] => [line, outcomeOf(line, meant)]);
  const of = (outcome: Outcome): readonly string[] => outcomes.filter(([, o]) => o === outcome).map(([line]) => line);
  it('are each there once', () => expect(new Set(TYPED_LINES.map(([line]) => line)).size).toBe(TYPED_LINES.length));
  it('are never kept as something else than was meant', () => expect(of('silently wrong')).toEqual([]));
  it('are asked about only with the right answer among the choices', () => expect(of('asked badly')).toEqual([]));
  it('are understood at once, most of them', () => {
    const counts = tally(outcomes.map(([, o]) => o));
    process.stdout.write(`lines as typed: ${OUTCOMES.map((o) => `${o} ${counts[o]}`).join(', ')}\n`);
    expect(counts.right / outcomes.length).toBeGreaterThan(0.7);
  });
});

describe('20 000 lines from writers who do not know how they are read', () => {
  const random = randomFrom(20_261_127);
  const lines = Array.from({ length: 20_000 }, () => writtenLine(random));
  const outcomes = lines.map(({ line, meant, kind }) => ({ line, kind, outcome: outcomeOf(line, meant) }));
  const share = (outcome: Outcome): number => outcomes.filter((o) => o.outcome === outcome).length / outcomes.length;
  const some = (outcome: Outcome): readonly string[] => outcomes.filter((o) => o.outcome === outcome).map((o) => o.line);
  it('print how each kind of line fares', () => {
    for (const kind of ['part', 'part with a figure that is no code', 'fasteners', 'joints'] as const) {
      const counts = tally(outcomes.filter((o) => o.kind === kind).map((o) => o.outcome));
      process.stdout.write(`${kind}: ${OUTCOMES.map((o) => `${o} ${counts[o]}`).join(', ')}\n`);
    }
    expect(share('right')).toBeGreaterThan(0.6);
  });
  it('are silently kept as something else less than once in 200', () => {
    if (share('silently wrong') >= 0.005) throw new Error(some('silently wrong').slice(0, 40).join('\n'));
  });
  it('are asked with no right answer less than once in 100', () => {
    if (share('asked badly') >= 0.01) throw new Error(some('asked badly').slice(0, 40).join('\n'));
  });
});
