/** Limits of one element, as mass fractions; from 0 where only a most is given. */
export interface Limit {
  readonly low: number;
  readonly high: number;
}

export interface Grade {
  /** designation as written */
  readonly name: string;
  readonly base: 'Al' | 'Mg' | 'Zn' | 'Fe' | 'Cu';
  readonly form: 'wrought' | 'cast';
  readonly limits: Readonly<Record<string, Limit>>;
  /** sums of elements with limits of their own */
  readonly sums: readonly { readonly of: readonly string[]; readonly limit: Limit }[];
  /** the catalogue's material of this grade, where it has one */
  readonly materialId: string | null;
  /** the same alloy in other systems of numbers */
  readonly alsoNamed: readonly string[];
}

/** Percent by mass: one number is the most, two are from and to. */
type Percent = number | readonly [number, number];

const limitOf = (percent: Percent): Limit =>
  typeof percent === 'number' ? { low: 0, high: percent / 100 } : { low: percent[0] / 100, high: percent[1] / 100 };

const grade = (
  name: string,
  base: Grade['base'],
  form: Grade['form'],
  percents: Readonly<Record<string, Percent>>,
  more: Partial<Pick<Grade, 'materialId' | 'alsoNamed' | 'sums'>> = {},
): Grade => ({
  ...{ name, base, form, sums: [], materialId: null, alsoNamed: [] },
  limits: Object.fromEntries(Object.entries(percents).map(([symbol, percent]) => [symbol, limitOf(percent)])),
  ...more,
});

/** What is not named in a standard may be there as a trace: at most so much (assumed; standards say 0.05 % each). */
export const TRACE: Limit = { low: 0, high: 0.0005 };

/**
 * Composition limits, percent by mass.
 *
 * @source EN 573-3, EN 1706, AA registration records, ASTM B94, EN 12844, EN 10130, EN 10149-2, EN 10346,
 *   EN 10083, EN 10088, EN 13599: from memory, not checked against the standards; replace before a verdict hangs on the
 *   last tenth
 */
export const GRADES: readonly Grade[] = [
  grade(
    'EN AW-1050A',
    'Al',
    'wrought',
    { Si: 0.25, Fe: 0.4, Cu: 0.05, Mn: 0.05, Mg: 0.05, Zn: 0.07, Ti: 0.05, Al: [99.5, 100] },
    { alsoNamed: ['EN AW-Al 99.5'] },
  ),
  grade(
    'EN AW-2024',
    'Al',
    'wrought',
    { Si: 0.5, Fe: 0.5, Cu: [3.8, 4.9], Mn: [0.3, 0.9], Mg: [1.2, 1.8], Cr: 0.1, Zn: 0.25, Ti: 0.15 },
    { alsoNamed: ['EN AW-AlCu4Mg1'] },
  ),
  grade('EN AW-3003', 'Al', 'wrought', { Si: 0.6, Fe: 0.7, Cu: [0.05, 0.2], Mn: [1, 1.5], Zn: 0.1 }, { alsoNamed: ['EN AW-AlMn1Cu'] }),
  grade('EN AW-4343', 'Al', 'wrought', { Si: [6.8, 8.2], Fe: 0.8, Cu: 0.25, Mn: 0.1, Zn: 0.2 }, { alsoNamed: ['EN AW-AlSi7.5'] }),
  grade(
    'EN AW-5083',
    'Al',
    'wrought',
    { Si: 0.4, Fe: 0.4, Cu: 0.1, Mn: [0.4, 1], Mg: [4, 4.9], Cr: [0.05, 0.25], Zn: 0.25, Ti: 0.15 },
    { alsoNamed: ['EN AW-AlMg4.5Mn0.7'] },
  ),
  grade(
    'EN AW-5182',
    'Al',
    'wrought',
    { Si: 0.2, Fe: 0.35, Cu: 0.15, Mn: [0.2, 0.5], Mg: [4, 5], Cr: 0.1, Zn: 0.25, Ti: 0.1 },
    { alsoNamed: ['EN AW-AlMg4.5Mn0.4'] },
  ),
  grade(
    'EN AW-5754',
    'Al',
    'wrought',
    { Si: 0.4, Fe: 0.4, Cu: 0.1, Mn: 0.5, Mg: [2.6, 3.6], Cr: 0.3, Zn: 0.2, Ti: 0.15 },
    { materialId: 'aw-5754', sums: [{ of: ['Mn', 'Cr'], limit: limitOf([0.1, 0.6]) }], alsoNamed: ['EN AW-AlMg3'] },
  ),
  grade(
    'EN AW-6016',
    'Al',
    'wrought',
    { Si: [1, 1.5], Fe: 0.5, Cu: 0.2, Mn: 0.2, Mg: [0.25, 0.6], Cr: 0.1, Zn: 0.2, Ti: 0.15 },
    { alsoNamed: ['EN AW-AlSi1.2Mg0.4'] },
  ),
  grade(
    'EN AW-6060',
    'Al',
    'wrought',
    { Si: [0.3, 0.6], Fe: [0.1, 0.3], Cu: 0.1, Mn: 0.1, Mg: [0.35, 0.6], Cr: 0.05, Zn: 0.15, Ti: 0.1 },
    { materialId: 'aw-6060', alsoNamed: ['EN AW-AlMgSi'] },
  ),
  grade(
    'EN AW-6061',
    'Al',
    'wrought',
    { Si: [0.4, 0.8], Fe: 0.7, Cu: [0.15, 0.4], Mn: 0.15, Mg: [0.8, 1.2], Cr: [0.04, 0.35], Zn: 0.25, Ti: 0.15 },
    { alsoNamed: ['EN AW-AlMg1SiCu'] },
  ),
  grade(
    'EN AW-6063',
    'Al',
    'wrought',
    { Si: [0.2, 0.6], Fe: 0.35, Cu: 0.1, Mn: 0.1, Mg: [0.45, 0.9], Cr: 0.1, Zn: 0.1, Ti: 0.1 },
    { alsoNamed: ['EN AW-AlMg0.7Si'] },
  ),
  grade(
    'EN AW-6082',
    'Al',
    'wrought',
    { Si: [0.7, 1.3], Fe: 0.5, Cu: 0.1, Mn: [0.4, 1], Mg: [0.6, 1.2], Cr: 0.25, Zn: 0.2, Ti: 0.1 },
    { materialId: 'aw-6082', alsoNamed: ['EN AW-AlSi1MgMn'] },
  ),
  grade(
    'EN AW-7020',
    'Al',
    'wrought',
    { Si: 0.35, Fe: 0.4, Cu: 0.2, Mn: [0.05, 0.5], Mg: [1, 1.4], Cr: [0.1, 0.35], Zn: [4, 5] },
    { alsoNamed: ['EN AW-AlZn4.5Mg1'] },
  ),
  grade(
    'EN AW-7075',
    'Al',
    'wrought',
    { Si: 0.4, Fe: 0.5, Cu: [1.2, 2], Mn: 0.3, Mg: [2.1, 2.9], Cr: [0.18, 0.28], Zn: [5.1, 6.1], Ti: 0.2 },
    { alsoNamed: ['EN AW-AlZn5.5MgCu'] },
  ),
  grade(
    'EN AC-42100',
    'Al',
    'cast',
    { Si: [6.5, 7.5], Fe: 0.19, Cu: 0.05, Mn: 0.1, Mg: [0.25, 0.45], Zn: 0.07, Ti: 0.25 },
    { alsoNamed: ['EN AC-AlSi7Mg0.3'] },
  ),
  grade('AA A356.0', 'Al', 'cast', { Si: [6.5, 7.5], Fe: 0.2, Cu: 0.2, Mn: 0.1, Mg: [0.25, 0.45], Zn: 0.1, Ti: 0.2 }),
  grade(
    'EN AC-46000',
    'Al',
    'cast',
    { Si: [8, 11], Fe: 1.3, Cu: [2, 4], Mn: 0.55, Mg: [0.05, 0.55], Cr: 0.15, Ni: 0.55, Zn: 1.2, Pb: 0.35, Sn: 0.15, Ti: 0.25 },
    { materialId: 'alsi9cu3', alsoNamed: ['EN AC-AlSi9Cu3(Fe)'] },
  ),
  grade('AA A380.0', 'Al', 'cast', { Si: [7.5, 9.5], Fe: 1.3, Cu: [3, 4], Mn: 0.5, Mg: 0.1, Ni: 0.5, Zn: 3, Sn: 0.35 }),
  grade(
    'EN AC-43500',
    'Al',
    'cast',
    { Si: [9, 11.5], Fe: 0.25, Cu: 0.05, Mn: [0.4, 0.8], Mg: [0.1, 0.6], Zn: 0.07, Ti: 0.2 },
    { materialId: 'alsi10mnmg', alsoNamed: ['EN AC-AlSi10MnMg'] },
  ),
  grade(
    'AZ91D',
    'Mg',
    'cast',
    { Al: [8.3, 9.7], Mn: [0.15, 0.5], Zn: [0.35, 1], Si: 0.1, Fe: 0.005, Cu: 0.03, Ni: 0.002 },
    { materialId: 'az91d', alsoNamed: ['EN MC-MgAl9Zn1(A)'] },
  ),
  grade(
    'AM60B',
    'Mg',
    'cast',
    { Al: [5.5, 6.5], Mn: [0.24, 0.6], Zn: 0.22, Si: 0.1, Fe: 0.005, Cu: 0.01, Ni: 0.002 },
    { alsoNamed: ['EN MC-MgAl6Mn'] },
  ),
  grade('Zamak 3', 'Zn', 'cast', { Al: [3.7, 4.3], Cu: 0.1, Mg: [0.025, 0.06] }, { alsoNamed: ['ZP3', 'ZnAl4'] }),
  grade(
    'Zamak 5',
    'Zn',
    'cast',
    { Al: [3.7, 4.3], Cu: [0.7, 1.2], Mg: [0.025, 0.06] },
    { materialId: 'zamak-5', alsoNamed: ['ZP5', 'ZnAl4Cu1'] },
  ),
  grade('Cu-ETP', 'Cu', 'wrought', { Cu: [99.9, 100] }, { materialId: 'cu-etp', alsoNamed: ['CW004A'] }),
  grade('CuZn37', 'Cu', 'wrought', { Cu: [62, 64], Zn: [35, 38], Pb: 0.1, Fe: 0.1, Sn: 0.1, Ni: 0.3 }, { alsoNamed: ['CW508L'] }),
  grade('DC04', 'Fe', 'wrought', { C: 0.08, P: 0.03, S: 0.03, Mn: 0.4 }, { materialId: 'dc04', alsoNamed: ['1.0338'] }),
  grade(
    'S420MC',
    'Fe',
    'wrought',
    { C: 0.12, Si: 0.5, Mn: 1.6, P: 0.025, S: 0.015, Nb: 0.09, V: 0.2, Ti: 0.15 },
    { materialId: 's420mc', sums: [{ of: ['Nb', 'V', 'Ti'], limit: limitOf(0.22) }], alsoNamed: ['1.0980'] },
  ),
  grade(
    'HCT600X',
    'Fe',
    'wrought',
    { C: 0.17, Si: 0.8, Mn: 2.2, P: 0.08, S: 0.015, Al: 2, Cr: 1, Mo: 1, Nb: 0.15, Ti: 0.15, V: 0.2, B: 0.005 },
    {
      materialId: 'dp600',
      sums: [
        { of: ['Cr', 'Mo'], limit: limitOf(1) },
        { of: ['Nb', 'Ti'], limit: limitOf(0.15) },
      ],
      alsoNamed: ['1.0941', 'DP600'],
    },
  ),
  grade(
    '22MnB5',
    'Fe',
    'wrought',
    { C: [0.2, 0.25], Si: 0.4, Mn: [1.1, 1.4], P: 0.025, S: 0.015, Cr: [0.15, 0.35], B: [0.0008, 0.005] },
    { materialId: '22mnb5', alsoNamed: ['1.5528'] },
  ),
  grade(
    'C45',
    'Fe',
    'wrought',
    { C: [0.42, 0.5], Si: 0.4, Mn: [0.5, 0.8], P: 0.045, S: 0.045, Cr: 0.4, Ni: 0.4, Mo: 0.1 },
    { materialId: 'c45', alsoNamed: ['1.0503'] },
  ),
  grade(
    'X5CrNi18-10',
    'Fe',
    'wrought',
    { C: 0.07, Si: 1, Mn: 2, P: 0.045, S: 0.03, Cr: [17.5, 19.5], Ni: [8, 10.5] },
    { materialId: 'x5crni18-10', alsoNamed: ['1.4301'] },
  ),
  grade(
    'X5CrNiMo17-12-2',
    'Fe',
    'wrought',
    { C: 0.07, Si: 1, Mn: 2, P: 0.045, S: 0.03, Cr: [16.5, 18.5], Mo: [2, 2.5], Ni: [10, 13] },
    { alsoNamed: ['1.4401'] },
  ),
];
