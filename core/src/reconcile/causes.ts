import { PRIOR, ranked, type Ranked } from './chances';
import { BLOCKED, type Blocked, type Check, type Finding, type Mend, type Severity } from './finding';

/** Findings that one cause explains. */
export interface Cause {
  /** the same cause has the same key after every run */
  readonly key: string;
  /** the cause in words, the finding itself where none is likelier than that it is so */
  readonly says: string;
  readonly chanceFraction: number;
  /** what else was considered, the likeliest first */
  readonly ranked: readonly Ranked[];
  readonly findings: readonly [Finding, ...Finding[]];
  readonly mend: Mend | null;
  readonly severity: Severity;
  readonly blocks: Blocked;
  readonly partId: string | null;
  readonly vehicleIds: readonly string[];
}

const GRAVE: readonly Severity[] = ['wrong', 'doubtful', 'missing'];

const least = <T>(order: readonly T[], of: readonly T[]): T => order.find((one) => of.includes(one)) ?? order[0]!;

/** The part a mend or the first finding is about. */
const partOf = (findings: readonly Finding[], mend: Mend | null): string | null => {
  const edited = mend?.ops[0];
  const own = findings.find((finding) => finding.about.id === edited?.id);
  return (own ?? findings[0])?.partId ?? null;
};

const causeOf = (findings: readonly [Finding, ...Finding[]], leading: string | null, checks: ReadonlyMap<string, Check>): Cause => {
  const order = ranked(findings);
  const first = order.find(({ suspect }) => suspect.key === leading) ?? order[0]!;
  const isSo = first.suspect.rule === 'as it is' || leading === null;
  const of = findings.flatMap(({ check }) => checks.get(check) ?? []);
  const mend = isSo ? null : first.suspect.mend;
  return {
    key: isSo ? findings[0].key : first.suspect.key,
    says: isSo ? findings[0].says : first.suspect.says,
    chanceFraction: first.chanceFraction,
    ranked: order,
    findings,
    mend,
    severity: least(
      GRAVE,
      of.map(({ severity }) => severity),
    ),
    blocks: least(
      BLOCKED,
      of.map(({ blocks }) => blocks),
    ),
    partId: partOf(findings, mend),
    vehicleIds: [...new Set(findings.flatMap(({ vehicleId }) => vehicleId ?? []))],
  };
};

/** How much more a cause explains than the same findings would by themselves. */
const worthOf = (fits: ReadonlyMap<string, number>, prior: number): number => {
  let worth = Math.log(prior);
  for (const fit of fits.values()) worth += Math.log(fit / 0.02);
  return worth;
};

/**
 * Findings joined by what would explain them: the cause that explains most, with its findings, then the one that explains most of
 * what is left, until every finding has its line. A finding that nothing explains stands by itself.
 *
 * @returns what blocks the nearest stage first, and in it the likeliest
 */
export const causesOf = (findings: readonly Finding[], checks: ReadonlyMap<string, Check>): readonly Cause[] => {
  const left = new Map(findings.map((finding) => [finding.key, finding]));
  const fitsOf = new Map<string, Map<string, number>>();
  const priorOf = new Map<string, number>();
  for (const { key, suspects } of findings)
    for (const suspect of suspects) {
      const fits = fitsOf.get(suspect.key) ?? new Map<string, number>();
      fits.set(key, Math.max(suspect.fit, fits.get(key) ?? 0));
      fitsOf.set(suspect.key, fits);
      priorOf.set(suspect.key, PRIOR[suspect.rule]);
    }
  const order = [...fitsOf]
    .map(([key, fits]) => ({ key, fits, worth: worthOf(fits, priorOf.get(key)!) }))
    .sort((a, b) => b.worth - a.worth || (a.key < b.key ? -1 : 1));
  const causes: Cause[] = [];
  // what stands first may have lost findings to another: it is weighed again before it is taken
  const waiting = [...order];
  while (waiting.length > 0) {
    const next = waiting.shift()!;
    const fits = new Map([...next.fits].filter(([key]) => left.has(key)));
    if (fits.size === 0) continue;
    if (fits.size < next.fits.size) {
      const worth = worthOf(fits, priorOf.get(next.key)!);
      const at = waiting.findIndex((other) => other.worth < worth);
      const again = { key: next.key, fits, worth };
      if (at < 0) waiting.push(again);
      else waiting.splice(at, 0, again);
      continue;
    }
    const own = findings.filter(({ key }) => fits.has(key) && left.has(key)) as [Finding, ...Finding[]];
    for (const { key } of own) left.delete(key);
    causes.push(causeOf(own, next.key, checks));
  }
  for (const finding of left.values()) causes.push(causeOf([finding], null, checks));
  return causes.sort(
    (a, b) =>
      BLOCKED.indexOf(a.blocks) - BLOCKED.indexOf(b.blocks) ||
      GRAVE.indexOf(a.severity) - GRAVE.indexOf(b.severity) ||
      b.chanceFraction - a.chanceFraction ||
      (a.key < b.key ? -1 : 1),
  );
};
