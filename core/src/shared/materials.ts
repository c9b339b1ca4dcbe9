/** Where a catalogue figure comes from. "assumed" is this product's own round figure, to be replaced by a team's own. */
export interface Sourced {
  readonly source: string;
  readonly year: number;
}

export const MATERIAL_FAMILIES = [
  'steel',
  'aluminium',
  'magnesium and zinc',
  'copper',
  'plastic',
  'rubber and foam',
  'glass',
  'other',
] as const;
export type MaterialFamily = (typeof MATERIAL_FAMILIES)[number];

export interface Material extends Sourced {
  readonly id: string;
  readonly name: string;
  readonly family: MaterialFamily;
  readonly densityKgPerM3: number;
  /** modulus of elasticity at room temperature, Pa; null where a material has no single one */
  readonly youngPa: number | null;
  /** price of the stock, EUR per kg */
  readonly priceEurPerKg: number;
  /** false for the entries that stand for "the family is known, the grade is not" */
  readonly gradeKnown: boolean;
  /** other words understood for it in shorthand and files */
  readonly words: readonly string[];
}

const PRICE_YEAR = 2026;

/** Modulus by family, or by material where it differs, Pa. @source common handbook values, from memory */
const YOUNG_OF: Readonly<Record<string, number>> = {
  steel: 210e9,
  'gjs-500': 170e9,
  'x5crni18-10': 200e9,
  aluminium: 70e9,
  az91d: 45e9,
  'zamak-5': 96e9,
  copper: 120e9,
  glass: 70e9,
  pp: 1.4e9,
  'pp-td20': 2.5e9,
  'pp-gf30': 6.5e9,
  abs: 2.3e9,
  'pc-abs': 2.3e9,
  'pa6-gf30': 9e9,
  'pa66-gf30': 9.5e9,
  pa66: 3e9,
  pom: 2.8e9,
  'pbt-gf30': 9.5e9,
};

const material = (
  id: string,
  name: string,
  family: MaterialFamily,
  densityKgPerM3: number,
  priceEurPerKg: number,
  words: readonly string[] = [],
): Material => ({
  id,
  name,
  family,
  densityKgPerM3,
  youngPa: YOUNG_OF[id] ?? YOUNG_OF[family] ?? null,
  priceEurPerKg,
  words,
  gradeKnown: !id.endsWith('-unknown'),
  year: PRICE_YEAR,
  source: 'density and modulus: common handbook values, from memory; price: assumed',
});

/** Materials with density in kg/m³ and stock price in EUR/kg of 2026. Prices are assumed throughout. */
export const MATERIALS: readonly Material[] = [
  material('dc04', 'DC04', 'steel', 7850, 0.95),
  material('s420mc', 'S420MC', 'steel', 7850, 1.05),
  material('22mnb5', '22MnB5', 'steel', 7850, 1.35),
  material('dp600', 'DP600', 'steel', 7850, 1.15),
  material('c45', 'C45', 'steel', 7850, 1.1),
  material('x5crni18-10', 'X5CrNi18-10', 'steel', 7900, 3.6, ['1.4301']),
  material('gjs-500', 'GJS-500', 'steel', 7200, 1.3, ['gjs500']),
  material('steel-unknown', 'Steel, grade not known', 'steel', 7850, 1.05),
  material('aw-5754', 'EN AW-5754', 'aluminium', 2670, 3.6, ['5754']),
  material('aw-6060', 'EN AW-6060', 'aluminium', 2700, 3.5, ['6060']),
  material('aw-6082', 'EN AW-6082', 'aluminium', 2700, 3.7, ['6082']),
  material('alsi9cu3', 'AlSi9Cu3(Fe)', 'aluminium', 2750, 2.7, ['ac-46000']),
  material('alsi10mnmg', 'AlSi10MnMg', 'aluminium', 2650, 3.3, ['ac-43500']),
  material('aluminium-unknown', 'Aluminium, grade not known', 'aluminium', 2700, 3.3),
  material('az91d', 'AZ91D', 'magnesium and zinc', 1810, 4.4, ['az91']),
  material('zamak-5', 'Zamak 5', 'magnesium and zinc', 6700, 3.4, ['zamak5']),
  material('cu-etp', 'Cu-ETP', 'copper', 8930, 9.8),
  material('pp', 'PP', 'plastic', 905, 1.45),
  material('pp-td20', 'PP-TD20', 'plastic', 1040, 1.6),
  material('pp-gf30', 'PP-GF30', 'plastic', 1130, 2.1),
  material('abs', 'ABS', 'plastic', 1050, 2.2),
  material('pc-abs', 'PC/ABS', 'plastic', 1140, 3.1, ['pc/abs', 'pcabs']),
  material('pa6-gf30', 'PA6-GF30', 'plastic', 1360, 3.2),
  material('pa66-gf30', 'PA66-GF30', 'plastic', 1370, 3.7),
  material('pa66', 'PA66', 'plastic', 1140, 3.5),
  material('pom', 'POM', 'plastic', 1410, 2.6),
  material('pbt-gf30', 'PBT-GF30', 'plastic', 1530, 3.4),
  material('pet-felt', 'PET felt', 'plastic', 200, 2.4),
  material('plastic-unknown', 'Plastic, kind not known', 'plastic', 1150, 2.4),
  material('epdm', 'EPDM', 'rubber and foam', 1200, 2.9),
  material('epdm-sponge', 'EPDM sponge', 'rubber and foam', 600, 4.1, ['epdm-foam']),
  material('tpe', 'TPE', 'rubber and foam', 1100, 3.3, ['tpv']),
  material('pur-foam', 'PUR foam', 'rubber and foam', 60, 4.2, ['pur']),
  material('rubber-unknown', 'Rubber, kind not known', 'rubber and foam', 1200, 3),
  material('butyl', 'Butyl', 'rubber and foam', 1400, 2.6),
  material('soda-lime-glass', 'Soda-lime glass', 'glass', 2500, 1.2),
];

export const materialById: ReadonlyMap<string, Material> = new Map(MATERIALS.map((m) => [m.id, m]));
