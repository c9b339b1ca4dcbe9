import { millimetres } from '../../shared';
import type { Hand, KnowingEntity, KnownOf } from '../../record';
import type { BoardEntry, ComponentEntry, ConnectionEntry, Entry, FastenerEntry, FluidEntry, JointEntry, PieceEntry } from './entry';
import { threadLine } from './thread-line';
import { JOINT_WORD } from './joint-words';
import { printStep } from './parse-step';
import { countText, markSuffix } from './how-known';
import { quote } from './reader';

const HAND_CODE: Readonly<Record<Hand, string>> = { none: '', left: 'lh', right: 'rh', mirrored: 'lh/rh' };

const joined = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(' ');

const marked = (text: string, entity: KnowingEntity, field: string, known: KnownOf): string =>
  text === '' ? '' : text + markSuffix(entity, field, known[field]);

/** A length as it was typed, or in mm, with its mark. */
const lengthText = (lengthM: number | null, entity: KnowingEntity, field: string, known: KnownOf, before = ''): string => {
  const said = known[field];
  return lengthM === null ? '' : `${before}${said?.typed ?? `${millimetres(lengthM)} mm`}${markSuffix(entity, field, said)}`;
};

const printPiece = (piece: PieceEntry, name: string): string => {
  const { known } = piece;
  const count = countText('piece', 'quantity', piece.quantity, known);
  return joined([
    piece.together ? '+' : '',
    count === '1' && piece.hand !== 'mirrored' ? '' : `${count}x`,
    name,
    marked([piece.materialId ?? '', piece.materialDetail].filter((part) => part !== '').join('-'), 'piece', 'materialId', known),
    marked(piece.processId ?? '', 'piece', 'processId', known),
    lengthText(piece.wallThicknessM, 'piece', 'wallThicknessM', known, 't'),
    piece.envelopeM === null
      ? ''
      : (known.lengthM?.typed ?? piece.envelopeM.map(millimetres).join('x')) + markSuffix('piece', 'lengthM', known.lengthM),
    lengthText(piece.runLengthM, 'piece', 'runLengthM', known, 'run '),
    lengthText(piece.runDiameterM, 'piece', 'runDiameterM', known, 'run ø'),
    marked(HAND_CODE[piece.hand], 'piece', 'hand', known),
    piece.mass?.typed ?? '',
    piece.tag === '' ? '' : `#${piece.tag}`,
  ]);
};

const torqueText = (torqueNm: number | null, word: string, field: string, known: KnownOf): string =>
  torqueNm === null
    ? ''
    : `${word} ${known[field]?.typed ?? `${Number(torqueNm.toPrecision(9))} Nm`}${markSuffix('fasteners', field, known[field])}`;

const printFasteners = (set: FastenerEntry, note: string): string => {
  const { known } = set;
  return joined([
    countText('fasteners', 'count', set.count, known),
    set.fastenerKind === 'bolt' && threadLine(set).startsWith('M') && !known.kind
      ? ''
      : marked(set.fastenerKind, 'fasteners', 'kind', known),
    marked(threadLine(set), 'fasteners', 'threadM', known),
    marked(set.drive, 'fasteners', 'drive', known),
    marked(set.grade, 'fasteners', 'grade', known),
    marked(set.direction ?? '', 'fasteners', 'direction', known),
    torqueText(set.tighteningNm, 'tightening', 'tighteningNm', known),
    torqueText(set.breakawayNm, 'breakaway', 'breakawayNm', known),
    marked(set.access ?? '', 'fasteners', 'access', known),
    set.tool === '' ? '' : marked(`tool ${quote(set.tool)}`, 'fasteners', 'tool', known),
    set.removed === null ? '' : marked(set.removed ? 'removed' : 'left in', 'fasteners', 'removed', known),
    set.mass?.typed ?? '',
    note,
  ]);
};

const printJoints = (set: JointEntry, note: string): string => {
  const { known } = set;
  return joined([
    countText('joints', 'count', set.count, known),
    JOINT_WORD[set.jointKind],
    lengthText(set.lengthEachM, 'joints', 'lengthEachM', known),
    note,
  ]);
};

const SHIELD_WORD = (shielded: boolean | null): string => (shielded === null ? '' : shielded ? 'shielded' : 'unshielded');

const printConnection = (set: ConnectionEntry, note: string): string => {
  const { known } = set;
  const section = set.crossSectionM2 === null ? '' : `${Number((set.crossSectionM2 * 1e6).toPrecision(9))} mm2`;
  return joined([
    countText('connection', 'count', set.count, known),
    set.connectionKind,
    set.poles === null ? '' : `${set.poles}p${markSuffix('connection', 'poles', known.poles)}`,
    marked(section, 'connection', 'crossSectionM2', known),
    marked(set.materialId ?? '', 'connection', 'materialId', known),
    marked(SHIELD_WORD(set.shielded), 'connection', 'shielded', known),
    lengthText(set.innerM, 'connection', 'innerM', known, 'id'),
    lengthText(set.lengthEachM, 'connection', 'lengthEachM', known),
    marked(set.fluid, 'connection', 'fluid', known),
    marked(set.lock ?? '', 'connection', 'lock', known),
    marked(set.release ?? '', 'connection', 'release', known),
    note,
  ]);
};

const printComponents = (set: ComponentEntry, note: string): string =>
  joined([
    countText('components', 'count', set.count, set.known),
    set.fitted ? '' : 'empty',
    set.componentClass,
    set.marking === '' ? '' : `marked ${quote(set.marking)}${markSuffix('components', 'marking', set.known.marking)}`,
    note,
  ]);

const printBoard = (board: BoardEntry, note: string): string => {
  const { known } = board;
  const size =
    board.lengthM === null || board.widthM === null
      ? ''
      : (known.lengthM?.typed ?? `${millimetres(board.lengthM)}x${millimetres(board.widthM)} mm`) +
        markSuffix('board', 'lengthM', known.lengthM);
  return joined([
    'board',
    size,
    board.sides === null ? '' : `${board.sides}-sided${markSuffix('board', 'sides', known.sides)}`,
    board.layers === null ? '' : `${board.layers}-layer${markSuffix('board', 'layers', known.layers)}`,
    note,
  ]);
};

const printFluid = (fluid: FluidEntry, name: string): string => {
  const { known } = fluid;
  const litres = fluid.volumeM3 === null ? '' : (known.volumeM3?.typed ?? `${Number((fluid.volumeM3 * 1000).toPrecision(9))} l`);
  return joined([
    'fluid',
    name,
    fluid.mass?.typed ?? '',
    marked(litres, 'fluid', 'volumeM3', known),
    // what goes without saying is said when its knowledge is
    fluid.drained && !known.drained ? '' : marked(fluid.drained ? 'drained' : 'left in', 'fluid', 'drained', known),
    fluid.note === '' ? '' : `(${fluid.note.replaceAll('"', '""')})`,
  ]);
};

const printRecord = (entry: Entry, words: string): string => {
  switch (entry.kind) {
    case 'piece':
      return printPiece(entry, words);
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

/** The words of a line that are no codes: the name of a piece or fluid, the remark of a set. */
export const wordsOf = (entry: Entry): string => {
  if (entry.kind === 'step') return '';
  return entry.kind === 'piece' || entry.kind === 'fluid' ? entry.name : entry.note;
};

/** A line that reads back as the entry, with its words in quotation marks. */
export const printQuoted = (entry: Entry): string => {
  const words = wordsOf(entry);
  return printWith(entry, words === '' ? '' : quote(words));
};
