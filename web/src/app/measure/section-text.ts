import { ABSENT, threeDigits, type Material, readAs, unitWord, lengthFixed } from '@each-bolt/core/shared';
import {
  dimensionFault,
  endsOf,
  outlineFault,
  sectionFigures,
  sectionOf,
  withoutRepeats,
  type SectionFigures,
  type SectionShape,
} from '@each-bolt/core/measure';
import type { SectionFields } from '@each-bolt/core/record';

/** A section to be worked out, as it goes to the worker. */
export interface SectionAsked extends Pick<SectionFields, 'kind' | 'dimensions' | 'loops'> {
  readonly materialId: string | null;
}
/** Its figures, or what is wrong with it. */
export interface SectionTold {
  readonly figures: SectionFigures | null;
  readonly fault: string;
}

/** What keeps a section from being one, in words; empty when nothing does. */
export const sectionFault = ({ kind, dimensions, loops }: Pick<SectionFields, 'kind' | 'dimensions' | 'loops'>): string =>
  (kind === 'outline' ? outlineFault(withoutRepeats(loops)) : dimensionFault(kind, dimensions)) ?? '';

/** Figures of a recorded section, or what is wrong with it. */
export const figuresOf = (section: Pick<SectionFields, 'kind' | 'dimensions' | 'loops'>, material: Material | null): SectionTold => {
  const shape = section.kind;
  if (shape !== 'outline') {
    const fault = dimensionFault(shape, section.dimensions);
    return fault === null
      ? { figures: sectionFigures(sectionOf(shape, section.dimensions), material), fault: '' }
      : { figures: null, fault };
  }
  try {
    return { figures: sectionFigures({ loops: section.loops, torsion: { kind: 'outline' } }, material), fault: '' };
  } catch (fault) {
    return { figures: null, fault: (fault as Error).message };
  }
};

interface SectionRow {
  readonly word: string;
  readonly unit: string;
  readonly of: (f: SectionFigures) => string;
  /** the figure itself, for ratios */
  readonly value: (f: SectionFigures) => number | null;
}

const row = (word: string, unit: string, per: number, value: (f: SectionFigures) => number | null): SectionRow => ({
  word,
  get unit() {
    return unitWord(unit);
  },
  value,
  of: (f) => {
    const v = value(f);
    return v === null ? ABSENT : threeDigits(readAs({ per, unit, digits: 0 }, v));
  },
});

/** A distance that may be 0 or below; no ratio is made of it. */
const place = (word: string, value: (f: SectionFigures) => number): SectionRow => ({
  word,
  get unit() {
    return unitWord('mm');
  },
  of: (f) => lengthFixed(value(f), 2),
  value: () => null,
});

/** What is told of a section, in the units people use. */
export const SECTION_ROWS: readonly SectionRow[] = [
  row('Area', 'mm²', 1e-6, (f) => f.areaM2),
  row('Mass per length', 'kg/m', 1, (f) => f.massKgPerM),
  row('Width', 'mm', 1e-3, (f) => f.widthM),
  row('Height', 'mm', 1e-3, (f) => f.heightM),
  row('Second moment, bending up and down', 'cm⁴', 1e-8, (f) => f.ixM4),
  row('Second moment, sideways', 'cm⁴', 1e-8, (f) => f.iyM4),
  row('Section modulus, up and down', 'cm³', 1e-6, (f) => f.wxM3),
  row('Section modulus, sideways', 'cm³', 1e-6, (f) => f.wyM3),
  row('Plastic modulus, up and down', 'cm³', 1e-6, (f) => f.zxM3),
  row('Torsion constant', 'cm⁴', 1e-8, (f) => f.jM4),
  row('Warping constant', 'cm⁶', 1e-12, (f) => f.warpingM6),
  place('Shear centre from the centroid, to the right', (f) => f.shearCentre[0] - f.centroid[0]),
  place('Shear centre from the centroid, up', (f) => f.shearCentre[1] - f.centroid[1]),
  row('Bending stiffness E I', 'kN m²', 1e3, (f) => f.bendingNm2),
  row('Twisting stiffness G J', 'kN m²', 1e3, (f) => f.twistingNm2),
  row('Bending stiffness per kilogram', 'kN m³/kg', 1e3, (f) => f.bendingPerKg),
  row('Twisting stiffness per kilogram', 'kN m³/kg', 1e3, (f) => f.twistingPerKg),
];

export const ratioText = (a: number | null, b: number | null): string =>
  a === null || b === null || b === 0 ? ABSENT : `${threeDigits(a / b)} ×`;

type Loops = readonly (readonly (readonly [number, number])[])[];

/** A picture of so many pixels, and how many of them a metre has. */
export interface Room {
  readonly width: number;
  readonly height: number;
  readonly perM: number;
}

const middleAndSize = (loops: Loops): { readonly middle: readonly [number, number]; readonly size: readonly [number, number] } => {
  const points = loops.flat();
  const [minX, maxX] = endsOf(points.map((p) => p[0]));
  const [minY, maxY] = endsOf(points.map((p) => p[1]));
  return { middle: [(minX + maxX) / 2, (minY + maxY) / 2], size: [maxX - minX, maxY - minY] };
};

const EDGE_PX = 6;

/** The scale at which all of several outlines fit, each in the middle. */
export const roomFor = (outlines: readonly Loops[], width: number, height: number): Room => {
  const scales = outlines
    .filter((loops) => loops.length > 0)
    .map((loops) => {
      const [x, y] = middleAndSize(loops).size;
      return Math.min((width - 2 * EDGE_PX) / (x || 1), (height - 2 * EDGE_PX) / (y || 1));
    });
  return { width, height, perM: scales.length === 0 ? 1 : Math.min(...scales) };
};

/** Path of an outline in the middle of its room, y upwards. */
export const outlinePath = (loops: Loops, { width, height, perM }: Room): string => {
  if (loops.length === 0) return '';
  const [x0, y0] = middleAndSize(loops).middle;
  const place = ([x, y]: readonly [number, number]): string =>
    `${fixedPx(width / 2 + (x - x0) * perM)} ${fixedPx(height / 2 - (y - y0) * perM)}`;
  return loops.map((loop) => `M${loop.map(place).join('L')}Z`).join('');
};
const fixedPx = (px: number): string => px.toFixed(2);

/** Loops of a recorded section, also of a shape; empty when its dimensions make none. */
export const loopsOf = (section: Pick<SectionFields, 'kind' | 'dimensions' | 'loops'>): SectionFields['loops'] => {
  if (section.kind === 'outline') return section.loops;
  const shape: SectionShape = section.kind;
  return dimensionFault(shape, section.dimensions) === null ? sectionOf(shape, section.dimensions).loops : [];
};

/** A section with all heights, or all walls, multiplied: what another one would do. Thickness of an outline is not known. */
export const varied = (
  section: Pick<SectionFields, 'kind' | 'dimensions' | 'loops'>,
  { height, thickness }: { readonly height: number; readonly thickness: number },
): Pick<SectionFields, 'kind' | 'dimensions' | 'loops'> => {
  const by: Readonly<Record<string, number>> = {
    height,
    thickness,
    plateThickness: thickness,
    ...(section.kind === 'round tube' ? { diameter: height } : {}),
  };
  return {
    kind: section.kind,
    dimensions: Object.fromEntries(Object.entries(section.dimensions).map(([name, value]) => [name, value * (by[name] ?? 1)])),
    loops: section.loops.map((loop) => loop.map(([x, y]) => [x, y * height] as const)),
  };
};
