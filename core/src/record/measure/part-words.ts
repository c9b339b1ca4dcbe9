import { fixed, millimetres } from '../../shared';
import type { ElementFraction } from '../kinds/bench/reading';
import type { ScanFigures } from '../kinds/measure/scan';

const CM3 = 1e6;

const figuresText = ({ volumeM3, smallestM, openEdges }: ScanFigures): string =>
  [
    volumeM3 === null ? 'encloses nothing' : `volume ${Number((volumeM3 * CM3).toPrecision(4))} cm³`,
    `smallest box ${smallestM.map((side) => Number(millimetres(side).toFixed(1))).join(' × ')} mm`,
    openEdges === 0 ? 'watertight' : `${openEdges} open edges`,
  ].join(', ');

const readingsText = (readings: readonly (readonly (readonly (number | null)[])[])[]): string => {
  const all = readings.flat(2);
  return `${fixed(all.filter((x) => x !== null).length, 0)} of ${fixed(all.length, 0)} taken`;
};

/** What was measured, as people read it; null for any other field. */
export const measuredText = (field: string, value: object): string | null => {
  switch (field) {
    case 'figures':
      return figuresText(value as ScanFigures);
    case 'dimensions':
      return (
        Object.entries(value as Readonly<Record<string, number>>)
          .map(([name, m]) => `${name.replace(/[A-Z]/g, (capital) => ` ${capital.toLowerCase()}`)} ${millimetres(m)} mm`)
          .join(', ') || 'none'
      );
    case 'cues':
      return (value as readonly string[]).map((cue) => cue.replace(/-/g, ' ')).join(', ') || 'none';
    case 'readings':
      return readingsText(value as Parameters<typeof readingsText>[0]);
    case 'elements':
      return Object.entries(value as Readonly<Record<string, ElementFraction>>)
        .sort(([, a], [, b]) => b.fraction - a.fraction)
        .map(([symbol, { fraction }]) => `${symbol} ${Number((fraction * 100).toPrecision(3))} %`)
        .join(', ');
    default:
      return null;
  }
};
