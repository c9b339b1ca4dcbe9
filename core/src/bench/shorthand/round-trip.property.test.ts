import fc from 'fast-check';
import { MATERIALS, PROCESSES } from '../../shared';
import { JOINT_KINDS } from '../../record';
import { parseLine, settle } from './parse-line';
import { printLine } from './print-line';

const FRAGMENTS = [
  '2x',
  '3',
  '12',
  'M6x16',
  'M8x1x30',
  'T30',
  '8.8',
  '-z',
  '+y',
  'bracket',
  'guide,',
  'pa66-gf30',
  'dc04',
  'inj',
  'stamp',
  'aluminium',
  'cast',
  'foam',
  '41',
  '41 g',
  '1,840 kg',
  '~1.2 kg',
  '1.2 kg ?',
  '±2 g',
  'total 492 g',
  't0.8',
  't',
  '620x410x35',
  '620x410',
  'run 1.4 m',
  'run',
  '1.4 m',
  '34 spot',
  '2-3x',
  '~6x',
  '20+x',
  '4?x',
  '6@Px',
  '12-14 M6x16',
  't~1.2',
  't1.2 ±0.1 mm',
  't0.12 cm @P',
  '~620x410x35',
  'run ~1.4 m ?',
  'bead ~1.4 m',
  'bead total 1.4 m @T',
  'dc04?',
  'inj@T',
  '41 g @R',
  'T30@P',
  '@P',
  '@',
  'spot',
  'bead',
  'bead 1.4 m',
  'hem',
  'clip',
  '9 clip',
  'nut',
  'lh',
  'rh',
  '#DR2-7',
  '#',
  '?',
  '~',
  '"',
  '"dc04"',
  '""',
  ',',
  '×',
  '0 g',
  '0x',
  'M',
  'M7.3',
  '2 connector',
  'connector 12p',
  'latch',
  'lever',
  'firm',
  '1 cable',
  '2.5 mm2',
  '3 core',
  'shielded',
  '2 hose',
  'hose id8',
  'id~8 mm ±0.5 mm',
  'total 2.4 m ?',
  'coolant',
  'quick coupling',
  'board',
  'board 240x195',
  '2-sided@P',
  '6-layer',
  '24 capacitors',
  '3 empty diodes',
  'marked',
  'marked "EB 7"',
  'marked V40?',
  'fluid',
  'fluid coolant',
  '1.6 l',
  '350 ml ?',
  'left in',
  '(dark)',
  '+ ',
  '>',
  '> ratchet',
  'blind',
  'self',
  'one-way',
  '2p',
  'after 3, 4',
  'free',
];
const material = fc.constantFrom(...MATERIALS.flatMap((m) => [m.id, ...m.words]));
const process = fc.constantFrom(...PROCESSES.flatMap((p) => [p.id, ...p.words]));
const line = fc
  .array(fc.oneof({ weight: 6, arbitrary: fc.constantFrom(...FRAGMENTS) }, material, process, fc.string({ maxLength: 8 })), {
    maxLength: 9,
  })
  .map((parts) => parts.join(' '));

describe('shorthand, whatever is typed', () => {
  it('never throws, and never both asks and answers', () => {
    fc.assert(
      fc.property(
        fc.oneof(line, fc.string({ unit: 'binary', maxLength: 300 }), fc.string({ unit: 'grapheme', maxLength: 200 })),
        (text) => {
          const { entry, questions } = parseLine(text);
          expect(entry !== null && questions.length > 0).toBe(false);
        },
      ),
      { numRuns: 4000 },
    );
  });
  it('reads back from its own printing as the same entry', () => {
    let kept = 0;
    fc.assert(
      fc.property(line, (text) => {
        const { entry } = parseLine(text);
        if (entry === null) return;
        kept += 1;
        expect(parseLine(printLine(entry)).entry).toEqual(entry);
      }),
      // what stands after what goes without saying must not be forgotten
      { numRuns: 6000, examples: [['fluid coolant left in ?'], ['fluid coolant drained ?']] },
    );
    expect(kept).toBeGreaterThan(200);
  });
  it('reads back any name, remark and figure', () => {
    const words = fc.array(
      fc.oneof(
        fc.constantFrom('bracket', 'dc04', 'M6x16', '41 g', 'inj,', '?', 'bead 1.4 m', '12'),
        fc.string({ minLength: 1, maxLength: 6 }).filter((s) => /\S/.test(s)),
      ),
      { minLength: 1, maxLength: 4 },
    );
    const name = words
      .map((w) => w.join(' ').replace(/\s+/g, ' ').trim().replace(/,+$/, '').trim())
      .filter((n) => n !== '' && !n.includes('\u007f'));
    fc.assert(
      fc.property(name, fc.integer({ min: 1, max: 999 }), fc.integer({ min: 1, max: 9_999_999 }), (text, quantity, tenths) => {
        const line = `${quantity}x "${text.replaceAll('"', '""')}" dc04 ${tenths / 10} g t${tenths / 1e4}`;
        const { entry } = parseLine(line);
        if (entry === null) return;
        expect(entry).toMatchObject({ kind: 'part', quantity });
        expect(parseLine(printLine(entry)).entry).toEqual(entry);
      }),
    );
  });
  it('settles: every choice offered takes its question away or leaves another one, and never throws', () => {
    fc.assert(
      fc.property(line, fc.nat(), (text, pick) => {
        let now = text;
        for (let i = 0; i < 12; i++) {
          const [question] = parseLine(now).questions;
          const choice = question?.choices[pick % Math.max(1, question.choices.length)];
          if (!question || !choice) return;
          const next = settle(now, question, choice.replacement);
          expect(next).not.toBe(now);
          now = next;
        }
      }),
    );
  });
  it.each(JOINT_KINDS)('prints and reads a %s', (jointKind) => {
    const entry = { kind: 'joints', count: 3, jointKind, lengthEachM: null, note: '', evidence: {} } as const;
    expect(parseLine(printLine(entry)).entry).toEqual(entry);
  });
});
