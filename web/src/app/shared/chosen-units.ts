import { UNIT_SYSTEMS, showUnits, unitsShown, type UnitSystem } from '@each-bolt/core/shared';

const KEY = 'each-bolt-units';

/** Units as chosen on this device; imported before anything that shows a figure. */
const kept = localStorage.getItem(KEY);
showUnits(UNIT_SYSTEMS.find((system) => system === kept) ?? 'metric');

/** Shows figures in the other units from now on: the page is read again, since every figure on it changes. */
export const switchUnits = (window: Window): void => {
  const other: UnitSystem = unitsShown() === 'metric' ? 'inch-pound' : 'metric';
  window.localStorage.setItem(KEY, other);
  window.location.reload();
};
