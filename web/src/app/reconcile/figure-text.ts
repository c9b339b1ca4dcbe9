import { ABSENT, asShown, chanceText, fixed, signed, type ShownUnit, withU } from '@each-bolt/core/shared';
import type { Cause, Compared, Told } from '@each-bolt/core/reconcile';

/** The unit a figure is read in, with the digits its check asks for at least: a pound has none by itself. */
const shownIn = (readIn: ShownUnit): ShownUnit => {
  const shown = asShown(readIn);
  return { ...shown, digits: Math.max(shown.digits, readIn.digits) };
};

/** A figure of a finding as it is read, without its unit. */
export const figureText = ({ value, u }: Told, readIn: ShownUnit): string => {
  const { per, digits } = shownIn(readIn);
  const shown = value / per;
  return u > 0 ? withU(shown, u / per, digits) : fixed(shown, Number.isInteger(Number(shown.toPrecision(9))) ? 0 : digits);
};

/** By how much a figure is off, with its sign, without its unit. */
export const offText = ({ recorded, against, readIn }: Compared): string => {
  const { per, digits } = shownIn(readIn);
  const off = (recorded.value - against.value) / per;
  return signed(off, digits);
};

export const unitText = (compared: Compared | null): string => (compared === null ? '' : asShown(compared.readIn).unit);

/** The chance of a cause; nothing where no cause is likelier than that it is so. */
export const causeChance = ({ ranked, chanceFraction }: Cause): string => (ranked.length < 2 ? ABSENT : chanceText(chanceFraction));
