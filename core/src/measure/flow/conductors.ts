/** A conductor metal at 20 °C. */
export interface ConductorMetal {
  readonly id: string;
  readonly word: string;
  /** resistivity at 20 °C, ohm m */
  readonly ohmM: number;
  /** change of resistance per kelvin, of that at 20 °C */
  readonly perK: number;
  readonly densityKgPerM3: number;
  /** in the catalogue of materials: what its price is that of */
  readonly materialId: string;
}

/**
 * @source International Annealed Copper Standard: 58 S m/mm² at 20 °C, 8890 kg/m³; aluminium for conductors 28.264 nΩ m and
 * 2703 kg/m³, IEC 60889; temperature coefficients 0.00393 and 0.00403 per kelvin, usual values from memory
 */
export const CONDUCTOR_METALS: readonly ConductorMetal[] = [
  { id: 'cu', word: 'copper', ohmM: 1 / 58e6, perK: 0.00393, densityKgPerM3: 8890, materialId: 'cu-etp' },
  { id: 'al', word: 'aluminium', ohmM: 28.264e-9, perK: 0.00403, densityKgPerM3: 2703, materialId: 'aluminium-unknown' },
];

const known = (areaM2: number, lengthM: number): void => {
  if (!(areaM2 > 0)) throw new RangeError('A conductor needs its cross-section');
  if (!(lengthM >= 0)) throw new RangeError('A conductor needs its length');
};

/**
 * Resistance of a conductor of solid cross-section; a strand of the same nominal size may have some 5 to 16 % more, for its wires
 * are longer and its metal is less than nominal.
 *
 * @returns ohm
 * @throws RangeError without a cross-section or a length
 */
export const resistanceOhm = (metal: ConductorMetal, areaM2: number, lengthM: number, temperatureC: number): number => {
  known(areaM2, lengthM);
  return ((metal.ohmM * lengthM) / areaM2) * (1 + metal.perK * (temperatureC - 20));
};

/** Mass of the metal of a conductor, kg. */
export const conductorKg = (metal: ConductorMetal, areaM2: number, lengthM: number): number => {
  known(areaM2, lengthM);
  return metal.densityKgPerM3 * areaM2 * lengthM;
};

/** Loss and voltage drop of a resistance at a current: W and V. */
export const lossAt = (ohm: number, currentA: number): { readonly lossW: number; readonly dropV: number } => ({
  lossW: ohm * currentA ** 2,
  dropV: ohm * currentA,
});

/**
 * Another metal at the same resistance: how much more cross-section it takes, what that weighs and what its metal costs, of the first.
 *
 * @param perKg prices of the two metals per kg, in one currency and of one year
 * @example
 * // aluminium for copper: 1.64 times the area, half the mass
 * Math.round(100 * sameResistance(CONDUCTOR_METALS[0], CONDUCTOR_METALS[1], [1, 1]).area) // => 164
 */
export const sameResistance = (
  now: ConductorMetal,
  instead: ConductorMetal,
  [priceNow, priceInstead]: readonly [number, number],
): { readonly area: number; readonly mass: number; readonly cost: number } => {
  const area = instead.ohmM / now.ohmM;
  const mass = (area * instead.densityKgPerM3) / now.densityKgPerM3;
  return { area, mass, cost: (mass * priceInstead) / priceNow };
};
