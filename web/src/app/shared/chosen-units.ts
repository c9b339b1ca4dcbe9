import { UNIT_SYSTEMS, showUnits, unitsShown, type UnitSystem } from '@each-bolt/core/shared';

const KEY = 'each-bolt-units';

/** Units of whoever was here last, so that nothing is shown in others first; imported before anything that shows a figure. */
const kept = localStorage.getItem(KEY);
showUnits(UNIT_SYSTEMS.find((system) => system === kept) ?? 'metric');

/** Keeps the units of the account on this device. True when others are shown: then the page must be read again, since every figure on it changes. */
export const keepUnits = (units: UnitSystem): boolean => {
  if (units === unitsShown()) return false;
  localStorage.setItem(KEY, units);
  return true;
};
