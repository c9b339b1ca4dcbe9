import { fixed, LENGTH_UNITS, MASS_UNITS, toSi, type Unit } from '../shared';
import { evidence, fieldLabel, type Entity, type Evidence, type EvidenceOf, type Op } from '../record';
import type { Mend, Suspect } from './finding';

/** What a figure is thought to be from elsewhere: its middle, and how far it may be off as a factor (standard deviation of its logarithm). */
export interface Expected {
  readonly value: number;
  readonly lnU: number;
}

/** How well a value agrees with what is expected of it: 1 in the middle, falling as the normal density does. */
export const fitOf = (value: number, { value: expected, lnU }: Expected): number =>
  value > 0 && expected > 0 ? Math.exp(-0.5 * (Math.log(value / expected) / lnU) ** 2) : 0;

/** So many standard deviations apart, two figures contradict each other. */
export const CONTRADICTS_FROM = 4;

export const contradicts = (value: number, { value: expected, lnU }: Expected): boolean =>
  value > 0 && expected > 0 && Math.abs(Math.log(value / expected)) > CONTRADICTS_FROM * lnU;

/** A cause that explains less than this is not named. */
const LEAST_FIT = 0.03;

/** A unit that one figure may have been read in instead of the one it was typed with, and how often that happens. */
interface SlipUnit {
  readonly unit: Unit;
  readonly word: string;
}
const UNIT_WORDS: Readonly<Record<'mass' | 'length', Readonly<Record<string, SlipUnit>>>> = {
  mass: {
    g: { unit: MASS_UNITS.g, word: 'grams' },
    kg: { unit: MASS_UNITS.kg, word: 'kilograms' },
    oz: { unit: MASS_UNITS.oz, word: 'ounces' },
    lb: { unit: MASS_UNITS.lb, word: 'pounds' },
    mg: { unit: MASS_UNITS.mg, word: 'milligrams' },
  },
  length: {
    mm: { unit: LENGTH_UNITS.mm, word: 'millimetres' },
    cm: { unit: LENGTH_UNITS.cm, word: 'centimetres' },
    m: { unit: LENGTH_UNITS.m, word: 'metres' },
    in: { unit: LENGTH_UNITS.in, word: 'inches' },
    ft: { unit: LENGTH_UNITS.ft, word: 'feet' },
  },
};

/** The units a value may have been typed in: the one that was typed; else those people use for values of its size. */
const typedUnits = (of: 'mass' | 'length', si: number, typed: string | null): readonly [string, ...string[]] => {
  const word = /(?:^|[\d.\s])([a-z]+)\b/i.exec(typed?.replace(/^total\s*/i, '') ?? '')?.[1]?.toLowerCase() ?? '';
  if (Object.hasOwn(UNIT_WORDS[of], word)) return [word];
  return of === 'mass' ? (si < 1 ? ['g', 'kg'] : ['kg', 'g']) : ['mm'];
};

const numberText = (value: number): string =>
  fixed(value, value >= 100 ? 1 : 4)
    .replace(/(\.\d*?)0+$/, '$1')
    .replace(/\.$/, '');
const inUnits = (si: number, { unit }: SlipUnit): string => `${numberText((si * unit.over) / unit.times)} ${unit.symbol}`;

/** A figure of a row that may have slipped. */
export interface Slipping {
  readonly entity: Entity;
  readonly row: { readonly id: string; readonly evidence: EvidenceOf };
  /** fields that slip together: one, or the three sides of an envelope */
  readonly fields: readonly string[];
  readonly of: 'mass' | 'length';
  /** what it is of, in words */
  readonly name: string;
}

const valueOf = (row: object, field: string): number => Number((row as Readonly<Record<string, unknown>>)[field]);

const multiplied = (row: object, fields: readonly string[], factor: number): Record<string, number> =>
  Object.fromEntries(fields.map((field) => [field, Number((valueOf(row, field) * factor).toPrecision(12))]));

/** The edit that multiplies fields, and their uncertainty with them. */
const multiplyOp = ({ entity, row, fields }: Slipping, factor: number): Op => {
  const said: Record<string, Evidence> = {};
  const before: Record<string, Evidence> = {};
  for (const field of fields) {
    const own = row.evidence[field];
    if (own === undefined) continue;
    before[field] = own;
    said[field] = evidence(own.mark, { ...own, u: own.u === null ? null : own.u * factor, typed: null });
  }
  const was = Object.fromEntries(fields.map((field) => [field, valueOf(row, field)]));
  const withSaid = Object.keys(said).length > 0;
  return {
    kind: `${entity}.edit`,
    id: row.id,
    was: { ...was, ...(withSaid ? { evidence: before } : {}) },
    fields: { ...multiplied(row, fields, factor), ...(withSaid ? { evidence: said } : {}) },
  } as unknown as Op;
};

const shownAs = (slipping: Slipping, factor: number, unit: SlipUnit): string =>
  slipping.fields.map((field) => inUnits(valueOf(slipping.row, field) * factor, unit)).join(' × ');

const mendBy = (slipping: Slipping, factor: number, from: SlipUnit, to: string): Mend => ({
  field: slipping.fields.length > 1 ? 'Envelope' : fieldLabel(slipping.entity, slipping.fields[0]! as never),
  from: shownAs(slipping, 1, from),
  to,
  ops: [multiplyOp(slipping, factor)],
});

/** Digits as they were typed, once in each unit: “40.3 g → 40.3 oz = 1.1425 kg”. */
const toText = (slipping: Slipping, factor: number, typed: SlipUnit, other: SlipUnit): string => {
  const same = slipping.fields.map((field) => inUnits((valueOf(slipping.row, field) * typed.unit.over) / typed.unit.times * (other.unit.times / other.unit.over), other)).join(' × '); // prettier-ignore
  const plain =
    UNIT_WORDS[slipping.of][slipping.of === 'mass' ? (valueOf(slipping.row, slipping.fields[0]!) * factor < 1 ? 'g' : 'kg') : 'mm']!;
  const mended = shownAs(slipping, factor, plain);
  return same === mended ? mended : `${same} = ${mended}`;
};

/** One reading of the same digits. */
interface Reading {
  readonly key: string;
  readonly rule: 'unit' | 'decimal point' | 'weighed together';
  readonly factor: number;
  readonly says: string;
  readonly short: string;
  readonly to: (slipping: Slipping) => string;
}

/**
 * Other readings of the digits that were typed: every other unit of the quantity, a decimal point one or two places off, and a mass of
 * all taken for that of one.
 *
 * @param quantity how many there are of it, for “weighed together”
 */
const readings = (slipping: Slipping, quantity: number): readonly Reading[] => {
  const { of, row, fields, name } = slipping;
  const first = valueOf(row, fields[0]!);
  const units = UNIT_WORDS[of];
  const typed = typedUnits(of, first, row.evidence[fields[0]!]?.typed ?? null);
  const from = units[typed[0]]!;
  const what = fields.length > 1 ? 'Envelope' : fieldLabel(slipping.entity, fields[0]! as never).replace(/ each$/, '');
  const byUnit = typed.flatMap((word, at) =>
    Object.entries(units)
      .filter(([other]) => other !== word && (at === 0 || !typed.includes(other)))
      .map(([other, { unit, word: says }]): Reading => {
        const own = units[word]!;
        const factor = toSi(1, unit) / toSi(1, own.unit);
        return {
          ...{ key: other, rule: 'unit', factor, says: `${what} of ${name} looks like ${says}`, short: `${says} read as ${own.unit.symbol}` },
          to: (slipped) => toText(slipped, factor, own, units[other]!),
        };
      }),
  );
  const byPoint = [10, 0.1, 100, 0.01]
    .filter((factor) => byUnit.every((unit) => Math.abs(Math.log(unit.factor / factor)) > 0.01))
    .map((factor): Reading => ({
      ...{ key: `point ${factor}`, rule: 'decimal point', factor, says: `${what} of ${name}: the decimal point is ${factor === 10 || factor === 0.1 ? 'one place' : 'two places'} off` },
      ...{ short: 'decimal point slipped', to: (own) => shownAs(own, factor, from) },
    }));
  const together: readonly Reading[] =
    of === 'mass' && quantity > 1
      ? [
          {
            ...{ key: 'together', rule: 'weighed together', factor: 1 / quantity, says: `Mass of ${name} looks like that of all ${quantity} together` },
            ...{ short: `${quantity} weighed as one`, to: (own) => shownAs(own, 1 / quantity, from) },
          },
        ]
      : [];
  return [...byUnit, ...byPoint, ...together];
}; // prettier-ignore

/**
 * Readings of the same digits that agree with what is expected, as suspects.
 *
 * @param expects how well a value of the figure times the factor agrees; of several fields, times the factor each
 */
export const slipSuspects = (slipping: Slipping, quantity: number, expects: (factor: number) => number): readonly Suspect[] =>
  readings(slipping, quantity).flatMap(({ key, rule, factor, says, short, to }): readonly Suspect[] => {
    const fit = expects(factor);
    if (fit < LEAST_FIT) return [];
    const first = slipping.fields[0]!;
    const typed =
      UNIT_WORDS[slipping.of][typedUnits(slipping.of, valueOf(slipping.row, first), slipping.row.evidence[first]?.typed ?? null)[0]]!;
    return [
      {
        ...{ key: `${slipping.row.id} ${slipping.fields.join('+')} ${key}`, rule, says, short, fit },
        mend: mendBy(slipping, factor, typed, to(slipping)),
      },
    ];
  });

/** The same digits in every unit of the quantity, for whoever has to choose: [symbol, SI value]. */
export const sameDigits = (of: 'mass' | 'length', si: number, typed: string | null): readonly (readonly [unit: string, si: number])[] => {
  const from = UNIT_WORDS[of][typedUnits(of, si, typed)[0]]!;
  return Object.values(UNIT_WORDS[of]).map(({ unit }) => [unit.symbol, si * (toSi(1, unit) / toSi(1, from.unit))]);
};
