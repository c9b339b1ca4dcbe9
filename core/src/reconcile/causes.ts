import { BY_CHANCE, PRIOR, ranked, type Ranked } from './chances';
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
  for (const fit of fits.values()) worth += Math.log(fit / BY_CHANCE);
  return worth;
};

/** Findings that no possible cause joins with others: each group is weighed by itself. */
const groupsOf = (findings: readonly Finding[]): readonly (readonly Finding[])[] => {
  const parent = findings.map((_, at) => at);
  const root = (at: number): number => {
    let up = at;
    while (parent[up] !== up) up = parent[up] = parent[parent[up]!]!;
    return up;
  };
  const first = new Map<string, number>();
  for (const [at, { suspects }] of findings.entries())
    for (const { key } of suspects) {
      const known = first.get(key);
      if (known === undefined) first.set(key, at);
      else parent[root(at)] = root(known);
    }
  const groups = new Map<number, Finding[]>();
  for (const [at, finding] of findings.entries()) {
    const group = groups.get(root(at));
    if (group) group.push(finding);
    else groups.set(root(at), [finding]);
  }
  return [...groups.values()];
};

/** Causes of findings that hang together: the one that explains most, then the one that explains most of what is left. */
const causesWithin = (findings: readonly Finding[], checks: ReadonlyMap<string, Check>): readonly Cause[] => {
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
  const waiting = [...fitsOf]
    .map(([key, fits]) => ({ key, fits, worth: worthOf(fits, priorOf.get(key)!) }))
    .sort((a, b) => a.worth - b.worth || (a.key < b.key ? 1 : -1));
  const causes: Cause[] = [];
  // the last stands first; it may have lost findings to another, and is weighed again before it is taken
  for (let next = waiting.pop(); next && left.size > 0; next = waiting.pop()) {
    const fits = new Map([...next.fits].filter(([key]) => left.has(key)));
    if (fits.size === 0) continue;
    if (fits.size < next.fits.size) {
      const again = { key: next.key, fits, worth: worthOf(fits, priorOf.get(next.key)!) };
      const at = waiting.findLastIndex((other) => other.worth < again.worth);
      waiting.splice(at + 1, 0, again);
      continue;
    }
    const own = findings.filter(({ key }) => fits.has(key)) as [Finding, ...Finding[]];
    for (const { key } of own) left.delete(key);
    causes.push(causeOf(own, next.key, checks));
  }
  for (const finding of left.values()) causes.push(causeOf([finding], null, checks));
  return causes;
};

/** Groups that were weighed before, by their first finding: most of them are what they were after an edit. */
export type WeighedGroups = Map<string, { readonly findings: readonly Finding[]; readonly causes: readonly Cause[] }>;

/**
 * Findings joined by what would explain them: the cause that explains most, with its findings, then the one that explains most of
 * what is left, until every finding has its line. A finding that nothing explains stands by itself.
 *
 * @param weighed groups of the run before, kept up to date here; what has not changed is not weighed again
 * @returns what blocks the nearest stage first, and in it the likeliest
 */
export const causesOf = (
  findings: readonly Finding[],
  checks: ReadonlyMap<string, Check>,
  weighed: WeighedGroups = new Map(),
): readonly Cause[] => {
  const before = new Map(weighed);
  weighed.clear();
  const causes = groupsOf(findings).flatMap((group) => {
    const { key } = group[0]!;
    const known = before.get(key);
    const isSame = known?.findings.length === group.length && group.every((finding, at) => finding === known.findings[at]);
    const own = isSame ? known : { findings: group, causes: causesWithin(group, checks) };
    weighed.set(key, own);
    return own.causes;
  });
  return causes.sort(
    (a, b) =>
      BLOCKED.indexOf(a.blocks) - BLOCKED.indexOf(b.blocks) ||
      GRAVE.indexOf(a.severity) - GRAVE.indexOf(b.severity) ||
      b.chanceFraction - a.chanceFraction ||
      (a.key < b.key ? -1 : 1),
  );
};
