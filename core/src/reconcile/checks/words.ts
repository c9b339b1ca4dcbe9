import { fixed } from '../../shared';
import { fieldLabel, type Entity, type Part } from '../../record';
import type { Check, Finding, Suspect } from '../finding';
import type { Ground } from '../ground';
import { editOp, finding, toLookAt } from '../said';

/** A figure in words that was converted or worded wrongly, and the words that are right. */
interface Slip {
  readonly says: string;
  readonly short: string;
  readonly wrong: string;
  readonly right: string;
}

const NUMBER = String.raw`[-−+]?\d+(?:\.\d+)?`;
const numberOf = (text: string): number => Number(text.replace('−', '-'));
const OF_DIFFERENCE =
  /\b(?:cooler|hotter|warmer|colder|spread|difference|rise|rises|rose|drop|drops|dropped|apart|lower by|higher by|more than|less than|between)\b/i;

/** A difference of temperatures converted as if it were a temperature. @source 1 °F of difference is 5/9 K; t/°C = (t/°F − 32)/1.8 */
const differences = (text: string): readonly Slip[] => {
  const found: Slip[] = [];
  const pairs = [
    [
      new RegExp(String.raw`(${NUMBER})\s*°?\s*F\b[^.;]{0,12}?(${NUMBER})\s*°?\s*C\b`, 'g'),
      (f: number) => (f - 32) / 1.8,
      (f: number) => f / 1.8,
      'C',
    ],
    [
      new RegExp(String.raw`(${NUMBER})\s*°?\s*C\b[^.;]{0,12}?(${NUMBER})\s*°?\s*F\b`, 'g'),
      (c: number) => c * 1.8 + 32,
      (c: number) => c * 1.8,
      'F',
    ],
  ] as const;
  for (const sentence of text.split(/(?<=[.;!?])\s+/)) {
    if (!OF_DIFFERENCE.test(sentence)) continue;
    for (const [pattern, asTemperature, asDifference, unit] of pairs)
      for (const [whole, first, second] of sentence.matchAll(pattern)) {
        const [a, b] = [numberOf(first!), numberOf(second!)];
        const right = asDifference(a);
        if (Math.abs(b - asTemperature(a)) > 0.6 || Math.abs(b - right) < 0.6) continue;
        const word = unit === 'C' ? 'K' : '°F';
        found.push({
          says: `${first!} ${unit === 'C' ? '°F' : '°C'} apart is ${fixed(right, 1)} ${word}, not ${second!} °${unit}: a difference was converted as a temperature`,
          short: 'difference as temperature',
          wrong: whole,
          right: whole.replace(new RegExp(String.raw`${second!.replace(/[-+.]/g, '\\$&')}\s*°?\s*${unit}$`), `${fixed(right, 1)} ${word}`),
        });
      }
  }
  return found;
};

/** Energy told in kilowatts. */
const energies = (text: string): readonly Slip[] => {
  const found: Slip[] = [];
  for (const sentence of text.split(/(?<=[.;!?])\s+/)) {
    if (/\b(?:power|charg\w*|motor|peak|heater|output|draws?)\b/i.test(sentence)) continue;
    if (!/\b(?:energy|capacity|battery|pack|holds?|stores?)\b/i.test(sentence)) continue;
    for (const [whole, value] of sentence.matchAll(new RegExp(String.raw`(${NUMBER})\s*kW\b(?!\s*[h·/])`, 'g')))
      found.push({
        says: `${value!} kW is a power, and an energy is spoken of: kWh is meant`,
        short: 'kW for kWh',
        wrong: whole,
        right: `${value!} kWh`,
      });
  }
  return found;
};

/** “2.3 times as heavy, 230 % heavier”: a ratio in percent called a difference. */
const ratios = (text: string): readonly Slip[] => {
  const found: Slip[] = [];
  const pattern = new RegExp(String.raw`(${NUMBER})\s*(?:×|times)[^.;]{0,40}?(${NUMBER})\s*%\s*(heavier|more|longer|dearer|larger|faster|higher)\b`, 'gi'); // prettier-ignore
  for (const [whole, times, percent, word] of text.matchAll(pattern)) {
    const [t, p] = [numberOf(times!), numberOf(percent!)];
    if (t <= 1 || Math.abs(p - 100 * t) > 6 || Math.abs(p - 100 * (t - 1)) <= 6) continue;
    const right = fixed(100 * (t - 1), 0);
    found.push({
      ...{ says: `${times!} times is ${right} % ${word!}, not ${percent!} % ${word!}`, short: 'ratio called a difference', wrong: whole },
      right: whole.replace(new RegExp(String.raw`${percent!}\s*%`), `${right} %`),
    });
  }
  return found;
};

/** What is wrong about the figures in a text. */
export const slipsInWords = (text: string): readonly Slip[] =>
  /\d/.test(text) ? [...differences(text), ...energies(text), ...ratios(text)] : [];

interface Written {
  readonly id: string;
  readonly vehicleId?: string | null;
}
const textOf = (row: Written, field: string): string => String((row as unknown as Readonly<Record<string, unknown>>)[field]);

const inFields = (ground: Ground, entity: Entity, row: Written, fields: readonly string[]): readonly Finding[] =>
  fields.flatMap((field) =>
    slipsInWords(textOf(row, field)).map((slip): Finding => {
      const text = textOf(row, field);
      const suspect: Suspect = {
        ...{ key: `${row.id} ${field} ${slip.wrong}`, rule: 'unit', says: slip.says, short: slip.short, fit: 0.9 },
        mend: { field: fieldLabel(entity, field as never), from: `“${slip.wrong}”`, to: `“${slip.right}”`, ops: [editOp(entity, row, field, text.replace(slip.wrong, slip.right))] },
      };
      return finding('figures-in-words', { entity, id: row.id, field }, {
        ...{ beside: slip.wrong, title: `“${slip.wrong}”`, says: slip.says, suspects: [suspect] },
        part: entity === 'part' ? ground.parts.get(row.id) : undefined,
      }, row.vehicleId ?? null);
    }),
  ); // prettier-ignore

const inParts = (ground: Ground, part: Part): readonly Finding[] =>
  part.notes === '' && part.function === '' && part.processDetail === ''
    ? []
    : inFields(ground, 'part', part, ['notes', 'function', 'processDetail']);

/** Texts of the record that speak of figures, but for those of parts. */
const inTexts = (ground: Ground): readonly Finding[] => [
  ...ground.record.claims.flatMap((row) => inFields(ground, 'claim', row, ['statement', 'test', 'outcome'])),
  ...ground.record.questions.flatMap((row) => inFields(ground, 'question', row, ['text', 'answer'])),
  ...ground.record.vehicles.flatMap((row) => inFields(ground, 'vehicle', row, ['notes', 'changes', 'wear'])),
]; // prettier-ignore

const DECIDED = new Set(['borne out', 'partly borne out', 'refuted']);

const claims = (ground: Ground): readonly Finding[] =>
  ground.record.claims.flatMap((claim): readonly Finding[] => {
    if (!DECIDED.has(claim.state) || (claim.outcome.trim() !== '' && claim.test.trim() !== '')) return [];
    const lacks = claim.outcome.trim() === '' ? 'what the test showed' : 'how it was tested';
    return [
      finding('claims-without-evidence', { entity: 'claim', id: claim.id, field: claim.outcome.trim() === '' ? 'outcome' : 'test' }, {
        title: `Claim, ${claim.state}`,
        says: `“${claim.statement}” is said to be ${claim.state}, and ${lacks} is not recorded`,
        suspects: [toLookAt(`${claim.id} outcome`, 'not said', `A claim is told as a fact without evidence: “${claim.statement}”`, 'evidence not said', 0.8)],
      }, claim.vehicleId),
    ];
  }); // prettier-ignore

const overdue = (ground: Ground): readonly Finding[] =>
  ground.record.questions.flatMap((question): readonly Finding[] => {
    if (question.state !== 'open' || question.dueOn === null || question.dueOn >= ground.today) return [];
    const what = question.kind === 'promise' ? `Promised to ${question.owedTo}` : 'Question';
    return [
      finding('overdue', { entity: 'question', id: question.id, field: 'dueOn' }, {
        title: `${what}, due ${question.dueOn}`,
        says: `${question.kind === 'promise' ? `A figure promised to ${question.owedTo}` : 'A question'} is overdue since ${question.dueOn}: “${question.text}”`,
        suspects: [toLookAt(`${question.id} due`, 'not said', `Overdue since ${question.dueOn}: “${question.text}”`, 'not answered', 0.9)],
        part: question.aboutKind === 'part' ? ground.parts.get(question.aboutId) : undefined,
      }),
    ];
  }); // prettier-ignore

/** Checks of what is written in words. */
export const WORD_CHECKS: readonly Check[] = [
  {
    ...{ id: 'figures-in-words', name: 'Figures in words', severity: 'wrong', blocks: 'report', ofPart: inParts, ofRecord: inTexts },
    ...{ asks: 'Is a difference converted as a difference, an energy told in kWh, a ratio called a ratio?', needs: 'claims, questions, notes' },
    reads: ['claims', 'questions', 'vehicles'],
  },
  {
    ...{ id: 'claims-without-evidence', name: 'Claims told as facts', severity: 'missing', blocks: 'report', reads: ['claims'], ofRecord: claims },
    ...{ asks: 'Does a claim that was decided say by what?', needs: 'claims' },
  },
  {
    ...{ id: 'overdue', name: 'Promises and questions overdue', severity: 'missing', blocks: 'report', reads: ['questions', 'parts'], ofRecord: overdue },
    ...{ asks: 'Was everything answered by the day it was due?', needs: 'questions with a day' },
  },
]; // prettier-ignore
