import type { Connection, FastenerSet, Piece, Session, Step, StudyRecord } from '../../record';
import { fastenerLine } from '../shorthand/from-row';

export const LOSS_CHECKS = ['opened-empty', 'fewer-fasteners', 'one-hand', 'no-mass', 'no-cable', 'no-tool', 'no-piece'] as const;
export type LossCheck = (typeof LOSS_CHECKS)[number];

/** Something that a session probably lost. */
export interface Loss {
  readonly check: LossCheck;
  /** the piece, connection or step it is about */
  readonly aboutId: string;
  readonly message: string;
  /** what to do about it */
  readonly act: string;
}

interface Bench {
  readonly inside: ReadonlyMap<string, readonly Piece[]>;
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

const opened = (piece: Piece, { inside }: Bench): readonly Loss[] =>
  piece.opened === 'opened' && (inside.get(piece.id)?.length ?? 0) === 0
    ? [
        {
          check: 'opened-empty',
          aboutId: piece.id,
          message: `“${piece.name}” was opened, and nothing is recorded inside it`,
          act: 'Record what is inside, or say that it was left closed and why',
        },
      ]
    : [];

/** Names without the words that tell a side: what two sides have in common. */
const SIDE = /\b(?:left|right|lh|rh|l\.?h\.?|r\.?h\.?|inner|outer|front|rear|upper|lower)\b/gi;
const HAS_SIDE = new RegExp(SIDE.source, 'i');
const HAND = /\b(?:left|right|lh|rh)\b/gi;
const common = (name: string, words: RegExp): string =>
  name
    .toLowerCase()
    .replace(words, '')
    .replace(/[\s,]+/g, ' ')
    .trim();

const other = (piece: Piece, siblings: readonly Piece[]): Piece | undefined =>
  siblings.find((p) => p.id !== piece.id && common(p.name, HAND) === common(piece.name, HAND) && p.hand !== piece.hand);

const oneHand = (piece: Piece, siblings: readonly Piece[]): readonly Loss[] => {
  if (piece.hand !== 'left' && piece.hand !== 'right') return [];
  if (other(piece, siblings)) return [];
  const missing = piece.hand === 'left' ? 'right' : 'left';
  return [
    {
      check: 'one-hand',
      aboutId: piece.id,
      message: `“${piece.name}” is the ${piece.hand} one; the ${missing} one is not recorded`,
      act: `Record the ${missing} one, or say that there is none`,
    },
  ];
};

const fastenersOn = (piece: Piece, { fasteners }: Bench): number =>
  (fasteners.get(piece.id) ?? []).reduce((sum, set) => sum + set.count, 0);

/** A neighbour that is alike but for its side, with more fasteners: some were probably lost. */
const fewer = (piece: Piece, siblings: readonly Piece[], bench: Bench): readonly Loss[] => {
  const own = fastenersOn(piece, bench);
  const alike = siblings.filter(
    (p) =>
      p.id !== piece.id &&
      HAS_SIDE.test(`${piece.name} ${p.name}`) &&
      common(p.name, SIDE) === common(piece.name, SIDE) &&
      p.name.toLowerCase() !== piece.name.toLowerCase(),
  );
  const more = alike.map((p) => ({ piece: p, n: fastenersOn(p, bench) })).find(({ n }) => n > own);
  if (!more) return [];
  const sets = (bench.fasteners.get(more.piece.id) ?? []).map(fastenerLine).join('; ');
  return [
    {
      check: 'fewer-fasteners',
      aboutId: piece.id,
      message: `“${piece.name}” has ${own} fasteners, its neighbour “${more.piece.name}” ${more.n} (${sets})`,
      act: 'Count again, or say that the two differ',
    },
  ];
};

const noMass = (piece: Piece, { inside }: Bench): readonly Loss[] =>
  piece.massEachKg === null && (inside.get(piece.id)?.length ?? 0) === 0
    ? [
        {
          check: 'no-mass',
          aboutId: piece.id,
          message: `“${piece.name}” has no mass`,
          act: 'Weigh it now, while it is on the bench',
        },
      ]
    : [];

const noCable = (connection: Connection, piece: Piece, siblings: readonly Piece[], bench: Bench): readonly Loss[] => {
  if (connection.kind !== 'connector') return [];
  const cabled = [piece, ...siblings].some(
    (p) => (bench.connections.get(p.id) ?? []).some((c) => c.kind === 'cable') || /\b(?:cable|harness|loom|wiring)\b/i.test(p.name),
  );
  return cabled
    ? []
    : [
        {
          check: 'no-cable',
          aboutId: connection.id,
          message: `A connector of “${piece.name}” is recorded without its cable`,
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
          message: `Step ${number} names no tool`,
          act: 'Type it with “>”, for instance “> ratchet SW10”, or “> by hand”',
        },
      ]
    : []),
  ...(step.pieces.length === 0
    ? [
        {
          check: 'no-piece' as const,
          aboutId: step.id,
          message: `Step ${number} names no piece that came off`,
          act: 'Record the piece, or take the step off',
        },
      ]
    : []),
];

/**
 * What a session probably lost: looked for among the steps of the session, their pieces, and what is inside these.
 * What was waived with a reason is left out.
 */
export const sessionLosses = (
  record: Pick<StudyRecord, 'pieces' | 'fastenerSets' | 'connections' | 'steps'>,
  session: Session,
): readonly Loss[] => {
  const bench: Bench = {
    inside: grouped(record.pieces, (p) => p.parentId),
    fasteners: grouped(record.fastenerSets, (s) => s.pieceId),
    connections: grouped(record.connections, (c) => c.pieceId),
  };
  const byId = new Map(record.pieces.map((p) => [p.id, p]));
  const beside = grouped(record.pieces, (p) => `${p.vehicleId} ${p.parentId ?? p.subsystemId ?? ''}`);
  const siblingsOf = (p: Piece): readonly Piece[] => beside.get(`${p.vehicleId} ${p.parentId ?? p.subsystemId ?? ''}`) ?? [];
  const order = [...record.steps]
    .filter((s) => s.vehicleId === session.vehicleId)
    .sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  const own = order.filter((s) => s.sessionId === session.id);
  const wanted = new Set<string>();
  const waiting = own.flatMap((s) => s.pieces);
  for (let id = waiting.pop(); id !== undefined; id = waiting.pop()) {
    if (wanted.has(id)) continue;
    wanted.add(id);
    waiting.push(...(bench.inside.get(id) ?? []).map((p) => p.id));
  }
  const waived = new Set(session.waived.map((w) => `${w.check} ${w.aboutId}`));
  const pieces = [...wanted].flatMap((id) => byId.get(id) ?? []).sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
  return [
    ...own.flatMap((step) => stepLosses(step, order.indexOf(step) + 1)),
    ...pieces.flatMap((piece) => {
      const siblings = siblingsOf(piece);
      return [
        ...opened(piece, bench),
        ...oneHand(piece, siblings),
        ...fewer(piece, siblings, bench),
        ...noMass(piece, bench),
        ...(bench.connections.get(piece.id) ?? []).flatMap((c) => noCable(c, piece, siblings, bench)),
      ];
    }),
  ].filter((loss) => !waived.has(`${loss.check} ${loss.aboutId}`));
};
