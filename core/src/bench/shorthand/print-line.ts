import { millimetres } from '../../shared';
import type { Hand } from '../../record';
import type { Entry, FastenerEntry, JointEntry, PieceEntry } from './entry';
import { parseLine } from './parse-line';
import { threadText } from './parse-fasteners';
import { JOINT_WORD, jointLengthText } from './parse-joints';
import { quote } from './reader';

const HAND_CODE: Readonly<Record<Hand, string>> = { none: '', left: 'lh', right: 'rh', mirrored: 'lh/rh' };

const joined = (parts: readonly string[]): string => parts.filter((part) => part !== '').join(' ');

const printPiece = (piece: PieceEntry, name: string): string =>
  joined([
    piece.quantity === 1 ? '' : `${piece.quantity}x`,
    name,
    piece.materialId ?? '',
    piece.processId ?? '',
    piece.wallThicknessM === null ? '' : `t${millimetres(piece.wallThicknessM)}`,
    piece.envelopeM === null ? '' : piece.envelopeM.map(millimetres).join('x'),
    piece.runLengthM === null ? '' : `run ${millimetres(piece.runLengthM)} mm`,
    HAND_CODE[piece.hand],
    piece.mass?.typed ?? '',
    piece.tag === '' ? '' : `#${piece.tag}`,
  ]);

const printFasteners = (set: FastenerEntry, note: string): string =>
  joined([
    String(set.count),
    set.fastenerKind === 'bolt' && set.threadM !== null ? '' : set.fastenerKind,
    threadText(set),
    set.drive,
    set.grade,
    set.direction ?? '',
    set.mass?.typed ?? '',
    note,
  ]);

const printJoints = (set: JointEntry, note: string): string =>
  joined([String(set.count), JOINT_WORD[set.jointKind], set.lengthEachM === null ? '' : jointLengthText(set.lengthEachM), note]);

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
