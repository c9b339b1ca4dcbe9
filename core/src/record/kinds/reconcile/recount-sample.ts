import { anyReference, choice, fraction, group, instant, list, text, whole } from '../field';
import { RECORDED, kind } from '../kind';

/** How the sets of a sample were drawn. */
export const SAMPLED_BY = ['at random', 'by risk'] as const;

const DRAWN = group('Set drawn', {
  kind: choice('Kind of set', ['fasteners', 'joints']),
  setId: anyReference('Set', 'kind', 'stays'),
});

/** Counts drawn to be counted once more by somebody else, with the assurance that is wanted. What is drawn stays drawn. */
export const RECOUNT_SAMPLE = kind({
  list: 'recountSamples',
  table: 'recount_sample',
  words: ['recount sample', 'recount samples'],
  name: { fields: ['sampledBy'] },
  may: RECORDED,
  fields: {
    sampledBy: choice('Drawn', SAMPLED_BY),
    /** so sure … */
    assuranceFraction: fraction('Assurance'),
    /** … that fewer than this share of counts are wrong */
    wrongFraction: fraction('Share wrong'),
    /** wrong ones the sample may show and still say so */
    allowed: whole('Allowed wrong', 0, 20),
    seed: whole('Seed', 0, 2_000_000_000),
    /** counts there were to draw from */
    outOf: whole('Out of', 0, 10_000_000),
    sets: list('Sets drawn', DRAWN, 5000),
    drawnAt: instant('Drawn'),
    drawnBy: text('Drawn by', 200),
  },
});
