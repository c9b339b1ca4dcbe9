const KEY = 'device';

const SYSTEMS: readonly (readonly [RegExp, string])[] = [
  [/Android/, 'Android'],
  [/iPad|iPhone/, 'iOS'],
  [/Windows/, 'Windows'],
  [/Mac OS/, 'macOS'],
  [/CrOS/, 'ChromeOS'],
  [/Linux/, 'Linux'],
];

/** What a device is called until somebody names it: its system. */
const guessed = (): string => `${SYSTEMS.find(([pattern]) => pattern.test(navigator.userAgent))?.[1] ?? 'unknown'} browser`;

/** The name of this device, as the history and the others see it. HTTP headers hold only plain letters. */
export const deviceName = (): string => (localStorage.getItem(KEY) ?? guessed()).replace(/[^\x20-\x7e]/g, '?');

export const nameDevice = (name: string): void => {
  if (name.trim() === '') localStorage.removeItem(KEY);
  else localStorage.setItem(KEY, name.trim().slice(0, 60));
};
