/** What a gauge R&R study measures, as people read it: the unit, and SI units in one of it. */
export const GAUGE_UNITS = {
  length: { unit: 'mm', per: 1e-3 },
  mass: { unit: 'g', per: 1e-3 },
} as const;

type Quantity = keyof typeof GAUGE_UNITS;

const short = (value: number): string => String(Number(value.toPrecision(10)));

/** A reading as it is typed, without its unit: 0.0018 m is 1.8. */
export const gaugeReadingText = (quantity: Quantity, si: number | null): string =>
  si === null ? '' : short(si / GAUGE_UNITS[quantity].per);

/** A reading that was typed, in SI; null for nothing, undefined for what is no number. A comma may stand for the point. */
export const readGaugeReading = (quantity: Quantity, text: string): number | null | undefined => {
  const plain = text.trim().replace(',', '.');
  if (plain === '') return null;
  const value = Number(plain);
  return Number.isFinite(value) ? Number((value * GAUGE_UNITS[quantity].per).toPrecision(12)) : undefined;
};

/** A standard deviation, and a sum of squares, in the unit people read. */
export const gaugeShown = (quantity: Quantity, si: number): number => si / GAUGE_UNITS[quantity].per;
/** A variance in SI, as shown: in the square of the unit its quantity is shown in. */
export const gaugeSquareShown = (quantity: Quantity, si: number): number => si / GAUGE_UNITS[quantity].per ** 2;
