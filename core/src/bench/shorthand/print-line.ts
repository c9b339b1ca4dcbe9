import { millimetres } from '../../shared';
import type { Hand, KnowingEntity, KnownOf } from '../../record';
import type { Entry, FastenerEntry, JointEntry, PieceEntry } from './entry';
import { parseLine } from './parse-line';
import { threadText } from './parse-fasteners';
import { JOINT_WORD } from './parse-joints';
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
    count === '1' ? '' : `${count}x`,
    name,
    marked(piece.materialId ?? '', 'piece', 'materialId', known),
    marked(piece.processId ?? '', 'piece', 'processId', known),
    lengthText(piece.wallThicknessM, 'piece', 'wallThicknessM', known, 't'),
    piece.envelopeM === null
      ? ''
      : (known.lengthM?.typed ?? piece.envelopeM.map(millimetres).join('x')) + markSuffix('piece', 'lengthM', known.lengthM),
    lengthText(piece.runLengthM, 'piece', 'runLengthM', known, 'run '),
    marked(HAND_CODE[piece.hand], 'piece', 'hand', known),
    piece.mass?.typed ?? '',
    piece.tag === '' ? '' : `#${piece.tag}`,
  ]);
};

const printFasteners = (set: FastenerEntry, note: string): string => {
  const { known } = set;
  return joined([
    countText('fasteners', 'count', set.count, known),
    set.fastenerKind === 'bolt' && set.threadM !== null && !known.kind ? '' : marked(set.fastenerKind, 'fasteners', 'kind', known),
    marked(threadText(set), 'fasteners', 'threadM', known),
    marked(set.drive, 'fasteners', 'drive', known),
    marked(set.grade, 'fasteners', 'grade', known),
    marked(set.direction ?? '', 'fasteners', 'direction', known),
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

const printWith = (entry: Entry, words: string): string => {
  switch (entry.kind) {
    case 'piece':
      return printPiece(entry, words);
    case 'fasteners':
      return printFasteners(entry, words);
    case 'joints':
      return printJoints(entry, words);
  }
};

/** The shortest plain line that reads back as the entry; words that would be read as codes are put in quotation marks. */
export const printLine = (entry: Entry): string => {
  const words = entry.kind === 'piece' ? entry.name : entry.note;
  const plain = printWith(entry, words);
  if (words === '') return plain;
  const back = parseLine(plain).entry;
  return back !== null && JSON.stringify(back) === JSON.stringify(entry) ? plain : printWith(entry, quote(words));
};
