/** What a charged link capacitor holds and how it empties through a resistance. */
interface LinkCapacitor {
  readonly capacitanceF: number;
  readonly voltageV: number;
  readonly resistanceOhm: number;
  /** voltage that is taken as safe to touch here; local codes decide */
  readonly safeV: number;
}

interface CapacitorResult {
  readonly energyJ: number;
  readonly timeConstantS: number;
  /** until the voltage has fallen to the safe one; 0 when it is there already */
  readonly timeToSafeS: number;
  readonly energyAtSafeJ: number;
}

/**
 * Energy in a capacitor, and the time until it has emptied to a safe voltage through a resistance.
 *
 *   E = ½ C U²      τ = R C      t = τ ln(U / Uₛ)
 *
 * @throws RangeError unless all are above zero
 * @source closed form of the discharge of a capacitor through a resistance
 * @example
 * capacitorDischarge({ capacitanceF: 500e-6, voltageV: 400, resistanceOhm: 100_000, safeV: 60 }).energyJ; // => 40
 */
export const capacitorDischarge = ({ capacitanceF, voltageV, resistanceOhm, safeV }: LinkCapacitor): CapacitorResult => {
  if (!(capacitanceF > 0 && voltageV > 0 && resistanceOhm > 0 && safeV > 0))
    throw new RangeError('capacitance, voltages and resistance must be above 0');
  const timeConstantS = resistanceOhm * capacitanceF;
  return {
    energyJ: 0.5 * capacitanceF * voltageV ** 2,
    timeConstantS,
    timeToSafeS: Math.max(0, timeConstantS * Math.log(voltageV / safeV)),
    energyAtSafeJ: 0.5 * capacitanceF * Math.min(voltageV, safeV) ** 2,
  };
};
