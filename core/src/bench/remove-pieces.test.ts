import { BLANK, testId } from '../../testing/teardown';
import { blank, emptyRecord, type Piece, type Scan, type Section, type StudyRecord } from '../record';
import { STUDY } from '../../testing/teardown';
import { removePiecesOps } from './remove-pieces';

const piece = (n: number, parentId: string | null = null): Piece => ({ ...BLANK, id: testId(n), version: 1, parentId });
const scan = (n: number, pieceId: string): Scan => ({ id: testId(n), version: 1, pieceId, sequence: 0 }) as Scan;
const section = (n: number, pieceId: string, scanId: string | null): Section =>
  ({ id: testId(n), version: 1, pieceId, sequence: 0, scanId }) as Section;

describe('taking a piece off', () => {
  const record: StudyRecord = {
    ...emptyRecord(STUDY),
    pieces: [piece(10), piece(11)],
    fastenerSets: [{ id: testId(20), version: 1, ...blank('fasteners', { pieceId: testId(10) }) }],
    scans: [scan(30, testId(10)), scan(31, testId(11))],
    sections: [section(40, testId(10), testId(30)), section(41, testId(11), testId(30)), section(42, testId(11), testId(31))],
  };
  const ops = removePiecesOps(record, [testId(10)]);
  it('takes its sets, scans and sections with it', () =>
    expect(ops.filter((op) => op.kind.endsWith('.remove')).map((op) => [op.kind, op.id])).toEqual([
      ['section.remove', testId(40)],
      ['scan.remove', testId(30)],
      ['fasteners.remove', testId(20)],
      ['piece.remove', testId(10)],
    ]));
  it('leaves a section of another piece that was cut from its scan, without the scan', () =>
    expect(ops.filter((op) => op.kind === 'section.edit')).toEqual([
      { kind: 'section.edit', id: testId(41), was: { scanId: testId(30) }, fields: { scanId: null } },
    ]));
});
