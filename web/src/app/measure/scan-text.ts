import { ABSENT, READ_IN, counted, fixed, readAs, threeDigits, lengthFixed, withU, unitWord } from '@each-bolt/core/shared';
import { boxVolumeM3 } from '@each-bolt/core/bench';
import { filledFraction, type Loop } from '@each-bolt/core/measure';
import type { ScanFigures, Triple } from '@each-bolt/core/record';

/** A volume in m³ as people read it: cm³ for a part, litres from one litre on. */
export const volumeWords = (m3: number, uM3: number | null = null): string => {
  const shown = m3 < 1e-3 ? READ_IN['cm³'] : READ_IN.l;
  const value = readAs(shown, m3);
  return `${uM3 === null ? threeDigits(value) : withU(value, readAs(shown, uM3))} ${unitWord(shown.unit)}`;
};
const areaWords = (m2: number): string =>
  m2 < 0.1 ? `${threeDigits(readAs(READ_IN['cm²'], m2))} ${unitWord('cm²')}` : `${threeDigits(m2)} m²`;

/** "120.0 × 45.0 × 12.0": the sides of a box in mm, where the unit stands above. */
export const sidesNumerals = (sides: Triple): string => sides.map((side) => lengthFixed(side, side < 0.01 ? 2 : 1)).join(' × ');
const sidesWords = (sides: Triple): string => `${sidesNumerals(sides)} ${unitWord('mm')}`;
export const percentWords = (fraction: number): string => `${fixed(fraction * 100, 1)} %`;

const filledWords = (fraction: number | null): string => (fraction === null ? '' : `filled to ${percentWords(fraction)}`);

interface FigureRow {
  readonly word: string;
  readonly value: string;
  readonly note: string;
}

/** The figures of a scan, line by line, with what each means. */
export const scanRows = (f: ScanFigures): readonly FigureRow[] => {
  const fill = (sides: Triple): string => filledWords(filledFraction(f.volumeM3, boxVolumeM3(sides)));
  return [
    {
      word: 'Volume',
      value: f.volumeM3 === null ? ABSENT : volumeWords(f.volumeM3, f.volumeUM3),
      note: f.volumeM3 === null ? 'the scan encloses nothing' : closedNote(f),
    },
    { word: 'Surface', value: areaWords(f.areaM2), note: `${f.triangles.toLocaleString('en-GB')} triangles` },
    { word: 'Upright box', value: sidesWords(f.sidesM), note: fill(f.sidesM) },
    { word: 'Minimum bounding box', value: sidesWords(f.minimumM), note: fill(f.minimumM) },
    {
      word: 'Trimmed bounding box',
      value: sidesWords(f.trimmedM),
      note: `holds ${percentWords(f.heldFraction)} of the ${f.heldOf}, ${percentWords(f.shareFraction)} asked; sides to one in 96`,
    },
    {
      word: 'Convex hull',
      value: volumeWords(f.hullVolumeM3),
      note: filledWords(filledFraction(f.volumeM3, f.hullVolumeM3)),
    },
    {
      word: 'Centroid',
      value: `${f.centroidM.map((x) => lengthFixed(x, 1)).join(', ')} ${unitWord('mm')}`,
      note: 'from the origin of the file',
    },
  ];
};

/** What is said of the edges: whether the volume may be believed. */
export const closedNote = (f: ScanFigures): string => {
  if (f.openEdges === 0 && f.nonManifoldEdges === 0 && f.turnedEdges === 0) return 'watertight';
  return [
    f.openEdges > 0
      ? `${counted(f.openEdges, 'open edge')} in ${counted(f.holes, 'hole')}, closed flat: the ± holds what that may be off`
      : '',
    f.nonManifoldEdges > 0 ? `${counted(f.nonManifoldEdges, 'edge')} of three triangles and more` : '',
    f.turnedEdges > 0 ? `${counted(f.turnedEdges, 'edge')} with a triangle turned inside out` : '',
  ]
    .filter((text) => text !== '')
    .join('; ');
};

/** Ends of the lines of a cut in space, [segment × 6]. */
export const cutLines = (
  loops: readonly Loop[],
  {
    normal,
    offset,
    right,
    up,
  }: { readonly normal: readonly number[]; readonly offset: number; readonly right: readonly number[]; readonly up: readonly number[] },
): Float32Array => {
  const ends: number[] = [];
  const place = ([u, v]: readonly [number, number]): readonly number[] =>
    [0, 1, 2].map((i) => normal[i]! * offset + right[i]! * u + up[i]! * v);
  for (const loop of loops) for (const [i, point] of loop.entries()) ends.push(...place(point), ...place(loop[(i + 1) % loop.length]!));
  return Float32Array.from(ends);
};

/** Colours of deviations, [vertex × 3]: blue inside, grey on the surface, orange outside, full at `most`. */
export const deviationColours = (deviation: Float32Array, most: number): Float32Array => {
  const colours = new Float32Array(3 * deviation.length);
  deviation.forEach((far, i) => {
    const k = Math.max(-1, Math.min(1, far / most));
    const to = k < 0 ? INSIDE : OUTSIDE;
    for (let c = 0; c < 3; c++) colours[3 * i + c] = NEUTRAL[c]! + Math.abs(k) * (to[c]! - NEUTRAL[c]!);
  });
  return colours;
};
// told apart also by those who do not see red and green, and named in the legend
const INSIDE = [0.13, 0.27, 0.78] as const;
const OUTSIDE = [0.85, 0.42, 0.05] as const;
const NEUTRAL = [0.72, 0.73, 0.72] as const;
