import { fixed } from '../../shared';
import type { Connection, FastenerSet, Part, Session, Step, StudyRecord } from '../../record';
import { HAND_WORDS, nameWithout, SIDE_WORDS } from '../names-alike';
import { canBeMeasured } from '../part-state';
import { fastenerLine } from '../shorthand/from-row';

/** Real losses first, then what the record lacks; in this order they are told. */
const CHECKS = ['opened-empty', 'fewer-fasteners', 'one-hand', 'no-cable', 'no-part', 'no-tool', 'carried-tool', 'no-mass'] as const;
type LossCheck = (typeof CHECKS)[number];

/** Something that a session probably lost. */
export interface Loss {
  readonly check: LossCheck;
  /** the part, connection or step it is about */
  readonly aboutId: string;
  readonly message: string;
  /** what to do about it */
  readonly act: string;
}

interface Bench {
  readonly inside: ReadonlyMap<string, readonly Part[]>;
  readonly fasteners: ReadonlyMap<string, readonly FastenerSet[]>;
  readonly connections: ReadonlyMap<string, readonly Connection[]>;
}

const grouped = <T>(rows: readonly T[], keyOf: (row: T) => string | null): ReadonlyMap<string, readonly T[]> => {
  const groups = new Map<string, T[]>();
  for (const row of rows) {
    const key = keyOf(row);
    if (key === null) continue;
    const group = groups.get(key);
    if (group) group.push(row);
    else groups.set(key, [row]);
  }
  return groups;
};

const opened = (part: Part, { inside }: Bench): readonly Loss[] =>
  part.opened === 'opened' && (inside.get(part.id)?.length ?? 0) === 0
    ? [
        {
          check: 'opened-empty',
          aboutId: part.id,
          message: `“${part.name}” was opened, and nothing is recorded inside it`,
          act: 'Record what is inside, or say that it was left closed and why',
        },
      ]
    : [];

const HAS_SIDE = new RegExp(SIDE_WORDS.source, 'i');

const other = (part: Part, siblings: readonly Part[]): Part | undefined =>
  siblings.find((p) => p.id !== part.id && nameWithout(p.name, HAND_WORDS) === nameWithout(part.name, HAND_WORDS) && p.hand !== part.hand);

const oneHand = (part: Part, siblings: readonly Part[]): readonly Loss[] => {
  if (part.hand !== 'left' && part.hand !== 'right') return [];
  if (other(part, siblings)) return [];
  const missing = part.hand === 'left' ? 'right' : 'left';
  return [
    {
      check: 'one-hand',
      aboutId: part.id,
      message: `“${part.name}” is the ${part.hand} one; the ${missing} one is not recorded`,
      act: `Record the ${missing} one, or say that there is none`,
    },
  ];
};

const fastenersOn = (part: Part, { fasteners }: Bench): number => (fasteners.get(part.id) ?? []).reduce((sum, set) => sum + set.count, 0);

/** A neighbour that is alike but for its side, with more fasteners: some were probably lost. */
const fewer = (part: Part, siblings: readonly Part[], bench: Bench): readonly Loss[] => {
  const own = fastenersOn(part, bench);
  const alike = siblings.filter(
    (p) =>
      p.id !== part.id &&
      HAS_SIDE.test(`${part.name} ${p.name}`) &&
      nameWithout(p.name, SIDE_WORDS) === nameWithout(part.name, SIDE_WORDS) &&
      p.name.toLowerCase() !== part.name.toLowerCase(),
  );
  const more = alike.map((p) => ({ part: p, n: fastenersOn(p, bench) })).find(({ n }) => n > own);
  if (!more) return [];
  const sets = (bench.fasteners.get(more.part.id) ?? []).map(fastenerLine).join('; ');
  return [
    {
      check: 'fewer-fasteners',
      aboutId: part.id,
      message: `“${part.name}” has ${own} fasteners, its neighbour “${more.part.name}” ${more.n} (${sets})`,
      act: 'Count again, or say that the two differ',
    },
  ];
};

const noMass = (part: Part, { inside }: Bench): readonly Loss[] =>
  part.massEachKg === null && canBeMeasured(part) && (inside.get(part.id)?.length ?? 0) === 0
    ? [
        {
          check: 'no-mass',
          aboutId: part.id,
          message: `“${part.name}” has no mass`,
          act: 'Weigh it now, while it is on the bench',
        },
      ]
    : [];

const noCable = (connection: Connection, part: Part, siblings: readonly Part[], bench: Bench): readonly Loss[] => {
  if (connection.kind !== 'connector') return [];
  const cabled = [part, ...siblings].some(
    (p) => (bench.connections.get(p.id) ?? []).some((c) => c.kind === 'cable') || /\b(?:cable|harness|loom|wiring)\b/i.test(p.name),
  );
  return cabled
    ? []
    : [
        {
          check: 'no-cable',
          aboutId: connection.id,
          message: `A connector of “${part.name}” is recorded without its cable`,
          act: 'Record the cable with length and cross-section, or say where it is recorded',
        },
      ];
};

const stepLosses = (step: Step, number: number): readonly Loss[] => [
  ...(step.tool === '' && step.bit === ''
    ? [
        {
          check: 'no-tool' as const,
          aboutId: step.id,
          message: `Removal ${number} names no tool`,
          act: 'Type it with “>”, for instance “> ratchet SW10”, or “> by hand”',
        },
      ]
    : []),
  ...(step.carried.includes('tool') || step.carried.includes('bit')
    ? [
        {
          check: 'carried-tool' as const,
          aboutId: step.id,
          message: `The tool of removal ${number}, ${[step.tool, step.bit].join(' ').trim()}, was carried over and never said`,
          act: 'Say that it holds, or type the right one',
        },
      ]
    : []),
  ...(step.parts.length === 0
    ? [
        {
          check: 'no-part' as const,
          aboutId: step.id,
          message: `Removal ${number} names no part that came off`,
          act: 'Record the part, or delete the removal',
        },
      ]
    : []),
];

/**
 * What a session probably lost: looked for among the steps of the session, their parts, and what is inside these.
 * What was waived with a reason is left out.
 */
export const sessionLosses = (
  record: Pick<StudyRecord, 'parts' | 'fastenerSets' | 'connections' | 'steps'>,
  session: Session,
): readonly Loss[] => {
  const bench: Bench = {
    inside: grouped(record.parts, (p) => p.parentId),
    fasteners: grouped(record.fastenerSets, (s) => s.partId),
    connections: grouped(record.connections, (c) => c.partId),
  };
  const byId = new Map(record.parts.map((p) => [p.id, p]));
  const beside = grouped(record.parts, (p) => `${p.vehicleId} ${p.parentId ?? p.subsystemId ?? ''}`);
  const siblingsOf = (p: Part): readonly Part[] => beside.get(`${p.vehicleId} ${p.parentId ?? p.subsystemId ?? ''}`) ?? [];
  const order = [...record.steps]
    .filter((s) => s.vehicleId === session.vehicleId)
    .sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  const own = order.filter((s) => s.sessionId === session.id);
  const wanted = new Set<string>();
  const waiting = own.flatMap((s) => s.parts);
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (wanted.has(id)) continue;
    wanted.add(id);
    waiting.push(...(bench.inside.get(id) ?? []).map((p) => p.id));
  }
  const waived = new Set(session.waived.map((w) => `${w.check} ${w.aboutId}`));
  const parts = [...wanted].flatMap((id) => byId.get(id) ?? []).sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  const losses = [
    ...own.flatMap((step) => stepLosses(step, order.indexOf(step) + 1)),
    ...parts.flatMap((part) => {
      const siblings = siblingsOf(part);
      return [
        ...opened(part, bench),
        ...oneHand(part, siblings),
        ...fewer(part, siblings, bench),
        ...noMass(part, bench),
        ...(bench.connections.get(part.id) ?? []).flatMap((c) => noCable(c, part, siblings, bench)),
      ];
    }),
  ].filter((loss) => !waived.has(`${loss.check} ${loss.aboutId}`));
  return CHECKS.flatMap((check) => losses.filter((loss) => loss.check === check));
};

/** What one and the same gap is called on many. */
const TOGETHER: Partial<Record<LossCheck, (count: string) => Pick<Loss, 'message' | 'act'>>> = {
  'no-tool': (count) => ({ message: `${count} removals name no tool`, act: 'Set it for all of them, or show them one by one' }),
  'carried-tool': (count) => ({
    message: `On ${count} removals the tool was carried over and never said`,
    act: 'Say that it holds for all of them, or show them one by one',
  }),
  'no-mass': (count) => ({ message: `${count} parts have no mass`, act: 'Weigh them now, while they are on the bench' }),
};

/** The same gap on several records, told once. */
export interface LossGroup extends Pick<Loss, 'check' | 'message' | 'act'> {
  readonly losses: readonly [Loss, ...Loss[]];
}

/** Losses as they are told: real ones each by itself, the same gap on many as one line. */
export const lossGroups = (losses: readonly Loss[]): readonly LossGroup[] =>
  CHECKS.flatMap((check): readonly LossGroup[] => {
    const own = losses.filter((loss) => loss.check === check);
    const [first, ...others] = own;
    const together = TOGETHER[check];
    if (first && others.length > 0 && together) return [{ check, ...together(fixed(own.length, 0)), losses: [first, ...others] }];
    return own.map((loss) => ({ check, message: loss.message, act: loss.act, losses: [loss] }));
  });
