import { READ_IN, fixed, threeDigits, withU } from '../../shared';
import { fieldInput, type BoardDuty } from '../../record';
import { carried, carriedDifference, type Carried, type Model } from '../systems/carried';
import type { FigureWord, FormulaLine } from '../systems/figure-rows';

export const BOARD_DUTY_FIGURES = [
  ...(['shuntA', 'thirdA', 'storeJ', 'dischargeS', 'viasKPerW', 'compoundKPerW', 'plateKPerW', 'coolantKPerW'] as const),
  ...(['pathKPerW', 'hottestC', 'headroomK'] as const),
];
export type BoardDutyFigure = (typeof BOARD_DUTY_FIGURES)[number];

/** Fields of each layer of the way of the heat; a layer none of whose fields is said is not there. */
export const HEAT_LAYERS = [
  { figure: 'viasKPerW', word: 'vias', fields: ['viaCount', 'viaOuterM', 'viaWallM', 'viaLengthM', 'viaWPerMK'] },
  { figure: 'compoundKPerW', word: 'compound', fields: ['compoundM', 'compoundM2', 'compoundWPerMK'] },
  { figure: 'plateKPerW', word: 'plate', fields: ['plateM', 'plateM2', 'plateWPerMK'] },
  { figure: 'coolantKPerW', word: 'plate to coolant', fields: ['plateM2', 'plateWPerM2K'] },
] as const satisfies readonly { figure: BoardDutyFigure; word: string; fields: readonly (keyof BoardDuty)[] }[];

const all = (duty: BoardDuty, fields: readonly (keyof BoardDuty)[]): boolean => fields.every((field) => duty[field] !== null);

/** Resistance of plated barrels side by side, K/W: t / (n k π/4 (D² − d²)); what fills them is left out. */
export const viasKPerW = (count: number, outerM: number, wallM: number, lengthM: number, wPerMK: number): number => {
  const copperM2 = (Math.PI / 4) * (outerM ** 2 - (outerM - 2 * wallM) ** 2);
  return lengthM / (count * wPerMK * copperM2);
};
/** Resistance of a layer that heat crosses straight, K/W: t / (k A). */
export const layerKPerW = (thickM: number, areaM2: number, wPerMK: number): number => thickM / (wPerMK * areaM2);
/** Energy of a charged capacitor, J. */
export const storedJ = (farad: number, volt: number): number => (farad * volt ** 2) / 2;
/** Time in which a capacitor comes down through a resistor, s: R C ln(U / U safe); 0 where it is there already. */
export const dischargeS = (farad: number, ohm: number, volt: number, safeVolt: number): number =>
  Math.max(0, ohm * farad * Math.log(volt / safeVolt));

const isSaid = (duty: BoardDuty, fields: readonly (keyof BoardDuty)[]): boolean => fields.some((field) => duty[field] !== null);
/** the area of the plate belongs to two layers: neither is there because of it alone */
const ownFields = ({ fields }: (typeof HEAT_LAYERS)[number]): readonly (keyof BoardDuty)[] => fields.filter((f) => f !== 'plateM2');

/** Layers of the way of the heat of which something is said. */
export const layersOf = (duty: BoardDuty): readonly (typeof HEAT_LAYERS)[number][] =>
  HEAT_LAYERS.filter((layer) => isSaid(duty, ownFields(layer)));

const layerValues = (duty: BoardDuty): Readonly<Record<(typeof HEAT_LAYERS)[number]['figure'], number | null>> => ({
  viasKPerW: all(duty, HEAT_LAYERS[0].fields)
    ? viasKPerW(duty.viaCount!, duty.viaOuterM!, duty.viaWallM!, duty.viaLengthM!, duty.viaWPerMK!)
    : null,
  compoundKPerW: all(duty, HEAT_LAYERS[1].fields) ? layerKPerW(duty.compoundM!, duty.compoundM2!, duty.compoundWPerMK!) : null,
  plateKPerW: all(duty, HEAT_LAYERS[2].fields) ? layerKPerW(duty.plateM!, duty.plateM2!, duty.plateWPerMK!) : null,
  coolantKPerW: all(duty, HEAT_LAYERS[3].fields) ? 1 / (duty.plateWPerM2K! * duty.plateM2!) : null,
});

const valuesOf = (duty: BoardDuty): Readonly<Record<BoardDutyFigure, number | null>> => {
  const layers = layerValues(duty);
  const said = layersOf(duty).map(({ figure }) => layers[figure]);
  const pathKPerW = said.length > 0 && said.every((r) => r !== null) ? said.reduce((sum, r) => sum + r, 0) : null;
  const hottestC = pathKPerW === null || duty.lossW === null || duty.sinkC === null ? null : duty.sinkC + duty.lossW * pathKPerW;
  return {
    shuntA: duty.shuntOhm === null || duty.shuntV === null ? null : duty.shuntV / duty.shuntOhm,
    // no current leaves a winding without a neutral: the three add up to nothing at every moment
    thirdA: duty.phaseOneA === null || duty.phaseTwoA === null ? null : -(duty.phaseOneA + duty.phaseTwoA),
    storeJ: duty.capacitanceF === null || duty.storeV === null ? null : storedJ(duty.capacitanceF, duty.storeV),
    dischargeS:
      duty.capacitanceF === null || duty.storeV === null || duty.bleedOhm === null || duty.safeV === null
        ? null
        : dischargeS(duty.capacitanceF, duty.bleedOhm, duty.storeV, duty.safeV),
    ...layers,
    ...{ pathKPerW, hottestC, headroomK: hottestC === null || duty.limitC === null ? null : duty.limitC - hottestC },
  };
};

const INPUTS = [
  ...(['shuntOhm', 'shuntV', 'phaseOneA', 'phaseTwoA', 'capacitanceF', 'storeV', 'bleedOhm', 'lossW', 'sinkC', 'viaOuterM'] as const),
  ...(['viaWallM', 'viaLengthM', 'viaWPerMK', 'compoundM', 'compoundM2', 'compoundWPerMK', 'plateM', 'plateM2', 'plateWPerMK'] as const),
  'plateWPerM2K' as const,
];
/** Fields whose uncertainty goes into what a board has to do. */
export const BOARD_DUTY_U_FIELDS: readonly (keyof BoardDuty)[] = INPUTS;
const MODEL: Model<BoardDuty, BoardDutyFigure> = { inputs: INPUTS, figures: BOARD_DUTY_FIGURES, valuesOf };

const unit = (word: string, per = 1) => ({ per, unit: word, digits: 2 });
export const BOARD_DUTY_WORDS: readonly FigureWord<BoardDutyFigure>[] = [
  { figure: 'shuntA', word: 'Current through the shunt', shown: unit('A') },
  { figure: 'thirdA', word: 'Current of phase 3', shown: unit('A') },
  { figure: 'storeJ', word: 'Energy in the store', shown: unit('J') },
  { figure: 'dischargeS', word: 'Time to come down', shown: unit('s') },
  { figure: 'viasKPerW', word: 'Vias', shown: unit('K/W') },
  { figure: 'compoundKPerW', word: 'Compound', shown: unit('K/W') },
  { figure: 'plateKPerW', word: 'Plate', shown: unit('K/W') },
  { figure: 'coolantKPerW', word: 'Plate to coolant', shown: unit('K/W') },
  { figure: 'pathKPerW', word: 'Way of the heat in all', shown: unit('K/W') },
  { figure: 'hottestC', word: 'Hottest', shown: unit('°C') },
  { figure: 'headroomK', word: 'Below what it may be', shown: unit('K') },
];

export interface BoardDutyReport extends Carried<BoardDutyFigure> {
  readonly lines: readonly FormulaLine[];
  /** labels of what is still to be said, by what was begun */
  readonly missing: readonly { readonly of: string; readonly labels: readonly string[] }[];
}

const GROUPS: readonly {
  readonly of: string;
  readonly fields: readonly (keyof BoardDuty)[];
  readonly own?: readonly (keyof BoardDuty)[];
}[] = [
  { of: 'the current through the shunt', fields: ['shuntOhm', 'shuntV'] },
  { of: 'the current of phase 3', fields: ['phaseOneA', 'phaseTwoA'] },
  { of: 'the energy in the store', fields: ['capacitanceF', 'storeV'] },
  { of: 'the time to come down', fields: ['capacitanceF', 'storeV', 'bleedOhm', 'safeV'], own: ['bleedOhm'] },
  ...HEAT_LAYERS.map((layer) => ({ of: `the resistance of ${layer.word}`, fields: layer.fields, own: ownFields(layer) })),
  { of: 'the temperature', fields: ['lossW', 'sinkC'] },
];

const label = (field: keyof BoardDuty): string => fieldInput(`boardDuty.${field}` as never).label;

const linesOf = (duty: BoardDuty, { values, us }: Carried<BoardDutyFigure>): readonly FormulaLine[] => {
  const line = (word: string, figure: BoardDutyFigure, unitOf: string, formula: () => string): readonly FormulaLine[] =>
    values[figure] === null
      ? []
      : [
          {
            word,
            text: `${us[figure] === 0 ? threeDigits(values[figure]) : withU(values[figure], us[figure], 4)} ${unitOf}`,
            formula: formula(),
          },
        ];
  const mm = (metres: number): string => fixed(metres * 1000, 3);
  const cm2 = (area: number): string => fixed(area * 1e4, 1);
  return [
    ...line(
      'Shunt',
      'shuntA',
      'A',
      () => `${fixed(duty.shuntV! / READ_IN.mV.per, 2)} mV / ${fixed(duty.shuntOhm! / READ_IN['mΩ'].per, 3)} mΩ`,
    ),
    ...line('Phase 3', 'thirdA', 'A', () => `−(${fixed(duty.phaseOneA!, 1)} A + ${fixed(duty.phaseTwoA!, 1)} A), no neutral`),
    ...line('Store', 'storeJ', 'J', () => `½ × ${fixed(duty.capacitanceF! / READ_IN['µF'].per, 1)} µF × (${fixed(duty.storeV!, 0)} V)²`),
    ...line(
      'Discharge',
      'dischargeS',
      's',
      () =>
        `${fixed(duty.bleedOhm! / READ_IN['kΩ'].per, 2)} kΩ × ${fixed(duty.capacitanceF! / READ_IN['µF'].per, 1)} µF × ln(${fixed(duty.storeV!, 0)} V / ${fixed(duty.safeV!, 0)} V)`,
    ),
    ...line(
      'Vias',
      'viasKPerW',
      'K/W',
      () =>
        `${mm(duty.viaLengthM!)} mm / (${duty.viaCount!} × ${fixed(duty.viaWPerMK!, 0)} W/(m K) × π/4 × (${mm(duty.viaOuterM!)}² − ${mm(duty.viaOuterM! - 2 * duty.viaWallM!)}²) mm²)`,
    ),
    ...line(
      'Compound',
      'compoundKPerW',
      'K/W',
      () => `${mm(duty.compoundM!)} mm / (${fixed(duty.compoundWPerMK!, 2)} W/(m K) × ${cm2(duty.compoundM2!)} cm²)`,
    ),
    ...line(
      'Plate',
      'plateKPerW',
      'K/W',
      () => `${mm(duty.plateM!)} mm / (${fixed(duty.plateWPerMK!, 0)} W/(m K) × ${cm2(duty.plateM2!)} cm²), without spreading`,
    ),
    ...line('Plate to coolant', 'coolantKPerW', 'K/W', () => `1 / (${fixed(duty.plateWPerM2K!, 0)} W/(m² K) × ${cm2(duty.plateM2!)} cm²)`),
    ...line(
      'Hottest',
      'hottestC',
      '°C',
      () =>
        `${fixed(duty.sinkC!, 1)} °C + ${fixed(duty.lossW!, 1)} W × ${threeDigits(values.pathKPerW!)} K/W (${layersOf(duty)
          .map(({ word }) => word)
          .join(' + ')})`,
    ),
  ];
};

/** All that a board duty comes to; what cannot be worked out is left out and what it needs is named. */
export const boardDutyReport = (duty: BoardDuty): BoardDutyReport => {
  const worked = carried(MODEL, duty);
  return {
    ...worked,
    lines: linesOf(duty, worked),
    missing: GROUPS.flatMap(({ of, fields, own = fields }) => {
      const absent = fields.filter((field) => duty[field] === null);
      return absent.length === 0 || !isSaid(duty, own) ? [] : [{ of, labels: absent.map(label) }];
    }),
  };
};

export const boardDutyDifference = (before: BoardDuty, now: BoardDuty): Carried<BoardDutyFigure> => carriedDifference(MODEL, before, now);
