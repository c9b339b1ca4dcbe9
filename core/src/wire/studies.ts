import { ENTITIES, LIST_OF, ROLES, VERBS, type KeptChange, type Op, type Role, type Study, type StudyRecord } from '../record';
import { isUuid, shape, uuid } from '../shared';
import { answer, figure, listOf, orNull, outline, wordOf, words, yesNo } from './answer';

/** A study as the list shows it to one who is of it. */
export interface StudyLine {
  readonly id: string;
  readonly title: string;
  readonly revision: number;
  readonly state: Study['state'];
  readonly vehicles: readonly string[];
  readonly parts: number;
  readonly openQuestions: number;
  /** ISO 8601, UTC */
  readonly changedAt: string | null;
  /** the role of the person who asks */
  readonly role: Role;
}

export const STUDY_LINE = answer<StudyLine>({
  id: words(),
  title: words(),
  revision: figure(),
  state: wordOf(['open', 'archived']),
  vehicles: listOf(words()),
  parts: figure(),
  openQuestions: figure(),
  changedAt: orNull(words()),
  role: wordOf(ROLES),
});

const KNOWN_KINDS: ReadonlySet<string> = new Set(ENTITIES.flatMap((entity) => VERBS.map((verb) => `${entity}.${verb}`)));

type Tree = Readonly<Record<string, unknown>>;
const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);

/** The record of a study: its rows were checked when they were written, and are by the tens of thousands. */
export const RECORD = outline<StudyRecord>(
  (value) =>
    isTree(value) &&
    Number.isInteger(value.revision) &&
    isTree(value.study) &&
    Object.values(LIST_OF).every((list) => Array.isArray(value[list])),
  'record of a study',
);

/** A change as a history tells it: of a very large one some of its ops, and how many there are. */
export interface ToldChange extends KeptChange {
  readonly opCount: number;
}

/** A change as those who follow hear of it. */
export type HeardChange = Omit<KeptChange, 'inverse'>;

/** Ops of kinds that are known here: of a newer server's page there may be others, which nothing here could carry out. */
const isOps = (value: unknown): boolean =>
  Array.isArray(value) && value.every((op) => isTree(op) && typeof op.kind === 'string' && KNOWN_KINDS.has(op.kind) && isUuid(op.id));
const ops = (): ReturnType<typeof outline<readonly Op[]>> => outline<readonly Op[]>(isOps, 'ops');

const HEARD = {
  id: words(),
  revision: figure(),
  madeAt: words(),
  madeBy: words(),
  personId: orNull(words()),
  device: words(),
  undoes: orNull(words()),
  ops: ops(),
} as const;

export const HEARD_CHANGE = answer<HeardChange>(HEARD);
export const KEPT_CHANGE = answer<KeptChange>({ ...HEARD, inverse: ops() });
export const TOLD_CHANGE = answer<ToldChange>({ ...HEARD, inverse: ops(), opCount: figure() });
export const KEPT = answer<{ readonly id: string; readonly revision: number }>({ id: words(), revision: figure() });

/** A person's own change as the undo stack needs it. */
export interface OwnChange {
  readonly id: string;
  readonly revision: number;
  readonly undoes: string | null;
}
export const OWN_CHANGE = answer<OwnChange>({ id: words(), revision: figure(), undoes: orNull(words()) });

/** What became of an archive: its study, as itself or, when it was here already, as a second one with ids of its own. */
export interface BroughtIn {
  readonly studyId: string;
  readonly title: string;
  readonly copied: boolean;
}
export const BROUGHT_IN = answer<BroughtIn>({ studyId: words(), title: words(), copied: yesNo() });

/** A file that is with the server. */
interface StoredAnswer {
  readonly sha256: string;
  readonly widthPx: number | null;
  readonly heightPx: number | null;
}
export const STORED = answer<StoredAnswer>({ sha256: words(), widthPx: orNull(figure()), heightPx: orNull(figure()) });

// —— who is here ——

/** Which part a page has open in its card. */
export const HERE_NOW = shape<{ connection: string; partId: string | null }>({
  connection: uuid('Connection'),
  partId: uuid('Part').nullable(),
});

/** Somebody who has a study open, on which device, with which part in the card. */
export interface Here {
  readonly connection: string;
  readonly personId: string;
  readonly name: string;
  readonly device: string;
  readonly partId: string | null;
}
export const HERE = answer<Here>({
  connection: words(),
  personId: words(),
  name: words(),
  device: words(),
  partId: orNull(words()),
});
