import { parseLine, settle, type Entry } from '../src/bench';

/** What the writer of a line means, in the units people use; what is not said is not there. */
export interface PartMeant {
  readonly name: string;
  readonly n?: number;
  /** lowest and highest count where it is a range; null for "at least" */
  readonly range?: readonly [number, number | null];
  /** mass each in g */
  readonly g?: number;
  /** how the mass is known, where it is not measured */
  readonly by?: string;
  /** standard uncertainty of the mass each in g, where one was said: half of what stands behind ± */
  readonly u?: number;
  readonly mat?: string;
  readonly grade?: string;
  readonly made?: string;
  readonly t?: number;
  readonly box?: readonly [number, number, number];
  /** run length and diameter in mm */
  readonly run?: number;
  readonly dia?: number;
  readonly hand?: string;
  readonly tag?: string;
  readonly off?: Readonly<Record<string, unknown>>;
}

export interface FastenersMeant {
  readonly n: number;
  readonly range?: readonly [number, number | null];
  readonly of?: string;
  /** thread, pitch, length in mm */
  readonly d?: number;
  readonly p?: number;
  readonly l?: number;
  readonly drive?: string;
  readonly grade?: string;
  readonly dir?: string;
  readonly tight?: number;
  readonly loose?: number;
  readonly access?: string;
  readonly tool?: string;
  readonly out?: boolean;
  readonly g?: number;
  readonly by?: string;
  readonly note?: string;
}

export type Meant =
  | ({ readonly kind: 'part' } & PartMeant)
  | ({ readonly kind: 'fasteners' } & FastenersMeant)
  | { readonly kind: 'joints'; readonly n: number; readonly of: string; readonly mm?: number; readonly note?: string }
  | {
      readonly kind: 'connection';
      readonly n: number;
      readonly of: string;
      readonly poles?: number;
      readonly mm?: number;
      readonly id?: number;
      readonly mm2?: number;
      readonly fluid?: string;
      readonly note?: string;
    }
  | { readonly kind: 'components'; readonly n: number; readonly of: string; readonly marked?: string; readonly note?: string }
  | { readonly kind: 'fluid'; readonly name: string; readonly g?: number; readonly ml?: number }
  | ({ readonly kind: 'step' } & Readonly<Record<string, unknown>>);

export const part = (name: string, more: Omit<PartMeant, 'name'> = {}): Meant => ({ kind: 'part', name, ...more });
export const set = (n: number, more: Omit<FastenersMeant, 'n'> = {}): Meant => ({ kind: 'fasteners', n, ...more });

const near = (a: number | null | undefined, b: number | undefined): boolean =>
  a === null || a === undefined ? b === undefined : b !== undefined && Math.abs(a - b) <= 1e-6 * Math.max(Math.abs(a), Math.abs(b));
const scaled = (si: number | null, by: number): number | null => (si === null ? null : si * by);
const sameRange = (
  said: { readonly low: number | null; readonly high: number | null } | undefined,
  range: readonly [number, number | null] | undefined,
): boolean =>
  range === undefined
    ? said === undefined || (said.low === null && said.high === null)
    : said !== undefined && said.low === range[0] && said.high === range[1];
const words = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[\s,;()"″]+/g, ' ')
    .trim();

/** Does an entry say what was meant, no less and no more? */
export const isMeant = (entry: Entry, meant: Meant): boolean => {
  if (entry.kind === 'step') {
    const { kind: _kind, ...fields } = entry;
    const { kind: meantKind, ...wanted } = meant;
    return meantKind === 'step' && JSON.stringify(Object.entries(fields).sort()) === JSON.stringify(Object.entries(wanted).sort());
  }
  if (entry.kind !== meant.kind) return false;
  if (entry.kind === 'part' && meant.kind === 'part') {
    const box = entry.envelopeM;
    return (
      words(entry.name) === words(meant.name) &&
      entry.quantity === (meant.n ?? 1) &&
      sameRange(entry.evidence.quantity, meant.range) &&
      near(scaled(entry.mass?.eachKg ?? null, 1000), meant.g) &&
      (entry.mass === null || entry.mass.mark === (meant.by ?? 'M')) &&
      (meant.u === undefined || near(scaled(entry.mass?.uKg ?? null, 1000), meant.u)) &&
      (entry.materialId ?? undefined) === meant.mat &&
      entry.materialDetail === (meant.grade ?? '') &&
      (entry.processId ?? undefined) === meant.made &&
      near(scaled(entry.wallThicknessM, 1000), meant.t) &&
      (box === null ? meant.box === undefined : box.every((m, i) => near(m * 1000, meant.box?.[i]))) &&
      near(scaled(entry.runLengthM, 1000), meant.run) &&
      near(scaled(entry.runDiameterM, 1000), meant.dia) &&
      entry.hand === (meant.hand ?? 'none') &&
      entry.tag === (meant.tag ?? '') &&
      (entry.removal === undefined
        ? meant.off === undefined
        : meant.off !== undefined && isMeant(entry.removal, { kind: 'step', ...meant.off }))
    );
  }
  if (entry.kind === 'fasteners' && meant.kind === 'fasteners')
    return (
      entry.count === meant.n &&
      sameRange(entry.evidence.count, meant.range) &&
      entry.fastenerKind === (meant.of ?? 'bolt') &&
      near(scaled(entry.threadM, 1000), meant.d) &&
      near(scaled(entry.pitchM, 1000), meant.p) &&
      near(scaled(entry.lengthM, 1000), meant.l) &&
      entry.drive === (meant.drive ?? '') &&
      entry.grade === (meant.grade ?? '') &&
      (entry.direction ?? undefined) === meant.dir &&
      near(entry.tighteningNm, meant.tight) &&
      near(entry.breakawayNm, meant.loose) &&
      (entry.access ?? undefined) === meant.access &&
      entry.tool === (meant.tool ?? '') &&
      (entry.removed ?? undefined) === meant.out &&
      near(scaled(entry.mass?.eachKg ?? null, 1000), meant.g) &&
      (entry.mass === null || entry.mass.mark === (meant.by ?? 'M')) &&
      words(entry.note) === words(meant.note ?? '')
    );
  if (entry.kind === 'joints' && meant.kind === 'joints')
    return (
      entry.count === meant.n &&
      entry.jointKind === meant.of &&
      near(scaled(entry.lengthEachM, 1000), meant.mm) &&
      words(entry.note) === words(meant.note ?? '')
    );
  if (entry.kind === 'connection' && meant.kind === 'connection')
    return (
      entry.count === meant.n &&
      entry.connectionKind === meant.of &&
      (entry.poles ?? undefined) === meant.poles &&
      near(scaled(entry.lengthEachM, 1000), meant.mm) &&
      near(scaled(entry.innerM, 1000), meant.id) &&
      near(scaled(entry.crossSectionM2, 1e6), meant.mm2) &&
      entry.fluid === (meant.fluid ?? '') &&
      words(entry.note) === words(meant.note ?? '')
    );
  if (entry.kind === 'components' && meant.kind === 'components')
    return (
      entry.count === meant.n &&
      entry.componentClass === meant.of &&
      entry.marking === (meant.marked ?? '') &&
      words(entry.note) === words(meant.note ?? '')
    );
  if (entry.kind === 'fluid' && meant.kind === 'fluid')
    return (
      words(entry.name) === words(meant.name) &&
      near(scaled(entry.mass?.eachKg ?? null, 1000), meant.g) &&
      near(scaled(entry.volumeM3, 1e6), meant.ml)
    );
  return false;
};

export const OUTCOMES = ['right', 'asked well', 'asked badly', 'silently wrong'] as const;
export type Outcome = (typeof OUTCOMES)[number];

/** Most questions a line is followed through, and most answers tried of each. */
const MOST_QUESTIONS = 5;
const MOST_CHOICES = 8;

const canBeSettled = (line: string, meant: Meant, depth: number): boolean => {
  const { entry, questions } = parseLine(line);
  if (entry) return isMeant(entry, meant);
  const [question] = questions;
  return (
    depth > 0 &&
    question !== undefined &&
    question.choices.slice(0, MOST_CHOICES).some((choice) => {
      const next = settle(line, question, choice.replacement);
      return next !== line && canBeSettled(next, meant, depth - 1);
    })
  );
};

/** What becomes of a line: kept as meant, asked with the right answers among the choices, asked without, or kept as something else. */
export const outcomeOf = (line: string, meant: Meant): Outcome => {
  const { entry } = parseLine(line);
  if (entry) return isMeant(entry, meant) ? 'right' : 'silently wrong';
  return canBeSettled(line, meant, MOST_QUESTIONS) ? 'asked well' : 'asked badly';
};

export const tally = (outcomes: readonly Outcome[]): Readonly<Record<Outcome, number>> =>
  Object.fromEntries(OUTCOMES.map((outcome) => [outcome, outcomes.filter((o) => o === outcome).length])) as Record<Outcome, number>;
