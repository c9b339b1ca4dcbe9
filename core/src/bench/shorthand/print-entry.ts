import { millimetres } from '../../shared';
import type { Hand, KnowingEntity, EvidenceOf } from '../../record';
import type { BoardEntry, ComponentEntry, ConnectionEntry, Entry, FastenerEntry, FluidEntry, JointEntry, PartEntry } from './entry';
import { threadLine } from './thread-line';
import { JOINT_WORD } from './joint-words';
import { printStep } from './parse-step';
import { countText, markSuffix } from './how-known';
import { quote } from './reader';

const HAND_CODE: Readonly<Record<Hand, string>> = { none: '', left: 'lh', right: 'rh', mirrored: 'lh/rh' };

const joined = (texts: readonly string[]): string => texts.filter((text) => text !== '').join(' ');

const marked = (text: string, entity: KnowingEntity, field: string, evidence: EvidenceOf): string =>
  text === '' ? '' : text + markSuffix(entity, field, evidence[field]);

/** A length as it was typed, or in mm, with its mark. */
const lengthText = (lengthM: number | null, entity: KnowingEntity, field: string, evidence: EvidenceOf, before = ''): string => {
  const said = evidence[field];
  return lengthM === null ? '' : `${before}${said?.typed ?? `${millimetres(lengthM)} mm`}${markSuffix(entity, field, said)}`;
};

const printPart = (part: PartEntry, name: string): string => {
  const { evidence } = part;
  const count = countText('part', 'quantity', part.quantity, evidence);
  return joined([
    part.together ? '+' : '',
    count === '1' && part.hand !== 'mirrored' ? '' : `${count}x`,
    name,
    marked([part.materialId ?? '', part.materialDetail].filter((text) => text !== '').join('-'), 'part', 'materialId', evidence),
    marked(part.processId ?? '', 'part', 'processId', evidence),
    lengthText(part.wallThicknessM, 'part', 'wallThicknessM', evidence, 't'),
    part.envelopeM === null
      ? ''
      : (evidence.lengthM?.typed ?? part.envelopeM.map(millimetres).join('x')) + markSuffix('part', 'lengthM', evidence.lengthM),
    lengthText(part.runLengthM, 'part', 'runLengthM', evidence, 'run '),
    lengthText(part.runDiameterM, 'part', 'runDiameterM', evidence, 'run ø'),
    marked(HAND_CODE[part.hand], 'part', 'hand', evidence),
    part.mass?.typed ?? '',
    part.tag === '' ? '' : `#${part.tag}`,
  ]);
};

const torqueText = (torqueNm: number | null, word: string, field: string, evidence: EvidenceOf): string =>
  torqueNm === null
    ? ''
    : `${word} ${evidence[field]?.typed ?? `${Number(torqueNm.toPrecision(9))} Nm`}${markSuffix('fasteners', field, evidence[field])}`;

const printFasteners = (set: FastenerEntry, note: string): string => {
  const { evidence } = set;
  return joined([
    countText('fasteners', 'count', set.count, evidence),
    set.fastenerKind === 'bolt' && threadLine(set).startsWith('M') && !evidence.kind
      ? ''
      : marked(set.fastenerKind, 'fasteners', 'kind', evidence),
    marked(threadLine(set), 'fasteners', 'threadM', evidence),
    marked(set.drive, 'fasteners', 'drive', evidence),
    marked(set.grade, 'fasteners', 'grade', evidence),
    marked(set.direction ?? '', 'fasteners', 'direction', evidence),
    torqueText(set.tighteningNm, 'tightening', 'tighteningNm', evidence),
    torqueText(set.breakawayNm, 'breakaway', 'breakawayNm', evidence),
    marked(set.access ?? '', 'fasteners', 'access', evidence),
    set.tool === '' ? '' : marked(`tool ${quote(set.tool)}`, 'fasteners', 'tool', evidence),
    set.removed === null ? '' : marked(set.removed ? 'removed' : 'left in', 'fasteners', 'removed', evidence),
    set.mass?.typed ?? '',
    note,
  ]);
};

const printJoints = (set: JointEntry, note: string): string => {
  const { evidence } = set;
  return joined([
    countText('joints', 'count', set.count, evidence),
    JOINT_WORD[set.jointKind],
    lengthText(set.lengthEachM, 'joints', 'lengthEachM', evidence),
    note,
  ]);
};

const SHIELD_WORD = (shielded: boolean | null): string => (shielded === null ? '' : shielded ? 'shielded' : 'unshielded');

const printConnection = (set: ConnectionEntry, note: string): string => {
  const { evidence } = set;
  const section = set.crossSectionM2 === null ? '' : `${Number((set.crossSectionM2 * 1e6).toPrecision(9))} mm2`;
  return joined([
    countText('connection', 'count', set.count, evidence),
    set.connectionKind,
    set.poles === null ? '' : `${set.poles}p${markSuffix('connection', 'poles', evidence.poles)}`,
    marked(section, 'connection', 'crossSectionM2', evidence),
    marked(set.materialId ?? '', 'connection', 'materialId', evidence),
    marked(SHIELD_WORD(set.shielded), 'connection', 'shielded', evidence),
    lengthText(set.innerM, 'connection', 'innerM', evidence, 'id'),
    lengthText(set.lengthEachM, 'connection', 'lengthEachM', evidence),
    marked(set.fluid, 'connection', 'fluid', evidence),
    marked(set.lock ?? '', 'connection', 'lock', evidence),
    marked(set.release ?? '', 'connection', 'release', evidence),
    note,
  ]);
};

const printComponents = (set: ComponentEntry, note: string): string =>
  joined([
    countText('components', 'count', set.count, set.evidence),
    set.fitted ? '' : 'empty',
    set.componentClass,
    set.marking === '' ? '' : `marked ${quote(set.marking)}${markSuffix('components', 'marking', set.evidence.marking)}`,
    note,
  ]);

const printBoard = (board: BoardEntry, note: string): string => {
  const { evidence } = board;
  const size =
    board.lengthM === null || board.widthM === null
      ? ''
      : (evidence.lengthM?.typed ?? `${millimetres(board.lengthM)}x${millimetres(board.widthM)} mm`) +
        markSuffix('board', 'lengthM', evidence.lengthM);
  return joined([
    'board',
    size,
    board.sides === null ? '' : `${board.sides}-sided${markSuffix('board', 'sides', evidence.sides)}`,
    board.layers === null ? '' : `${board.layers}-layer${markSuffix('board', 'layers', evidence.layers)}`,
    note,
  ]);
};

const printFluid = (fluid: FluidEntry, name: string): string => {
  const { evidence } = fluid;
  const litres = fluid.volumeM3 === null ? '' : (evidence.volumeM3?.typed ?? `${Number((fluid.volumeM3 * 1000).toPrecision(9))} l`);
  return joined([
    'fluid',
    name,
    fluid.mass?.typed ?? '',
    marked(litres, 'fluid', 'volumeM3', evidence),
    // what goes without saying is said when its knowledge is
    fluid.drained && !evidence.drained ? '' : marked(fluid.drained ? 'drained' : 'left in', 'fluid', 'drained', evidence),
    fluid.note === '' ? '' : `(${fluid.note.replaceAll('"', '""')})`,
  ]);
};

const printRecord = (entry: Entry, words: string): string => {
  switch (entry.kind) {
    case 'part':
      return printPart(entry, words);
    case 'fasteners':
      return printFasteners(entry, words);
    case 'joints':
      return printJoints(entry, words);
    case 'connection':
      return printConnection(entry, words);
    case 'components':
      return printComponents(entry, words);
    case 'board':
      return printBoard(entry, words);
    case 'fluid':
      return printFluid(entry, words);
    case 'step':
      return printStep(entry);
  }
};

/** An entry as a line, with these words for its name or remark. */
export const printWith = (entry: Entry, words: string): string => {
  const own = printRecord(entry, words);
  return entry.kind === 'step' || entry.removal === undefined ? own : `${own} ${printStep(entry.removal)}`;
};

/** The words of a line that are no codes: the name of a part or fluid, the remark of a set. */
export const wordsOf = (entry: Entry): string => {
  if (entry.kind === 'step') return '';
  return entry.kind === 'part' || entry.kind === 'fluid' ? entry.name : entry.note;
};

/** A line that reads back as the entry, with its words in quotation marks. */
export const printQuoted = (entry: Entry): string => {
  const words = wordsOf(entry);
  return printWith(entry, words === '' ? '' : quote(words));
};
