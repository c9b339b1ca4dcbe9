import type { SectionKind } from '../../record';
import type { Loop, Point } from './loop-figures';
import { loopArea } from './loop-figures';

/** Shapes of the library, with the dimensions each needs, in m. */
export const SECTION_SHAPES = {
  rectangle: ['width', 'height'],
  'round tube': ['diameter', 'thickness'],
  'rectangular tube': ['width', 'height', 'thickness', 'outerRadius', 'innerRadius'],
  channel: ['width', 'height', 'thickness'],
  hat: ['crown', 'height', 'flange', 'thickness'],
  'closed hat': ['crown', 'height', 'flange', 'thickness', 'plateThickness'],
} as const satisfies Readonly<Record<Exclude<SectionKind, 'outline'>, readonly string[]>>;
export type SectionShape = Exclude<SectionKind, 'outline'>;
type DimensionOf<S extends SectionShape> = (typeof SECTION_SHAPES)[S][number];
export type Dimension = DimensionOf<SectionShape>;
export type Dimensions = Readonly<Partial<Record<Dimension, number>>>;

export const DIMENSION_WORD: Readonly<Record<Dimension, string>> = {
  width: 'Width',
  height: 'Height',
  diameter: 'Outer diameter',
  thickness: 'Wall thickness',
  outerRadius: 'Outer corner radius',
  innerRadius: 'Inner corner radius',
  crown: 'Width of the crown',
  flange: 'Width of a flange',
  plateThickness: 'Thickness of the closing plate',
};

/** Dimensions that may be zero. */
const MAY_BE_ZERO: readonly Dimension[] = ['outerRadius', 'innerRadius'];

/** How a section resists twisting, told by its walls. */
export type Torsion =
  | { readonly kind: 'rectangle'; readonly longM: number; readonly shortM: number }
  | { readonly kind: 'round tube'; readonly outerM: number; readonly innerM: number }
  | {
      readonly kind: 'rectangular tube';
      readonly widthM: number;
      readonly heightM: number;
      readonly thicknessM: number;
      readonly outerRadiusM: number;
      readonly innerRadiusM: number;
    }
  /** thin walls that enclose nothing: [length, thickness] of each */
  | { readonly kind: 'open'; readonly walls: readonly (readonly [number, number])[] }
  /** one cell of thin walls, with what stands out from it */
  | {
      readonly kind: 'cell';
      readonly enclosedM2: number;
      readonly around: readonly (readonly [number, number])[];
      readonly walls: readonly (readonly [number, number])[];
    }
  /** of any outline: worked out from areas and edges */
  | { readonly kind: 'outline' };

export interface Section {
  readonly loops: readonly Loop[];
  readonly torsion: Torsion;
}

const DIRECTIONS = 128;
const box = (left: number, bottom: number, right: number, top: number): Loop => [
  [left, bottom],
  [right, bottom],
  [right, top],
  [left, top],
];
const hole = (loop: Loop): Loop => [...loop].reverse();

const circle = (radius: number, sides = DIRECTIONS * 4): Loop => {
  // the polygon has the area of the circle
  const r = radius * Math.sqrt((2 * Math.PI) / (sides * Math.sin((2 * Math.PI) / sides)));
  return Array.from({ length: sides }, (_, i): Point => [r * Math.cos((2 * Math.PI * i) / sides), r * Math.sin((2 * Math.PI * i) / sides)]);
};

/** A rectangle about the origin with round corners. */
const rounded = (width: number, height: number, radius: number): Loop => {
  const [x, y] = [width / 2 - radius, height / 2 - radius];
  if (radius === 0) return box(-width / 2, -height / 2, width / 2, height / 2);
  const steps = DIRECTIONS / 4;
  const corner = (cx: number, cy: number, from: number): Point[] =>
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const angle = from + (i / steps) * (Math.PI / 2);
      return [cx + radius * Math.cos(angle), cy + radius * Math.sin(angle)];
    });
  return [...corner(x, y, 0), ...corner(-x, y, Math.PI / 2), ...corner(-x, -y, Math.PI), ...corner(x, -y, (3 * Math.PI) / 2)];
};

/** Sharp-cornered thin walls drawn as one outline, from its points. */
const outline = (points: readonly Point[]): Loop => (loopArea(points) >= 0 ? points : hole(points));

/** What is wrong with dimensions, in words, or null. */
export const dimensionFault = (shape: SectionShape, d: Dimensions): string | null => {
  for (const name of SECTION_SHAPES[shape]) {
    const value = d[name];
    if (value === undefined || !Number.isFinite(value)) return `${DIMENSION_WORD[name]} is missing`;
    if (!(value > 0 || (value === 0 && MAY_BE_ZERO.includes(name)))) return `${DIMENSION_WORD[name]} must be above 0`;
    if (value > 10) return `${DIMENSION_WORD[name]} may be at most 10 m: was it typed in millimetres?`;
  }
  const { width = 0, height = 0, diameter = 0, thickness = 0, crown = 0, outerRadius = 0, innerRadius = 0 } = d;
  switch (shape) {
    case 'rectangle':
      return null;
    case 'round tube':
      return 2 * thickness < diameter ? null : 'The wall is thicker than half the diameter';
    case 'rectangular tube':
      if (!(2 * thickness < Math.min(width, height))) return 'The wall is thicker than half the tube';
      if (2 * outerRadius > Math.min(width, height)) return 'The outer corner radius is larger than half the tube';
      return 2 * innerRadius > Math.min(width, height) - 2 * thickness
        ? 'The inner corner radius is larger than half the room inside'
        : null;
    case 'channel':
      return thickness < width && 2 * thickness < height ? null : 'The wall is too thick for the channel';
    case 'hat':
    case 'closed hat':
      return 2 * thickness < crown && thickness < height ? null : 'The wall is too thick for the hat';
  }
};

type Lengths = Readonly<Record<Dimension, number>>;

const rectangle = (d: Lengths): Section => ({
  loops: [box(-d.width / 2, 0, d.width / 2, d.height)],
  torsion: { kind: 'rectangle', longM: Math.max(d.width, d.height), shortM: Math.min(d.width, d.height) },
});

const roundTube = ({ diameter, thickness: t }: Lengths): Section => ({
  loops: [circle(diameter / 2), hole(circle(diameter / 2 - t))],
  torsion: { kind: 'round tube', outerM: diameter / 2, innerM: diameter / 2 - t },
});

const rectangularTube = (d: Lengths): Section => {
  const t = d.thickness;
  return {
    loops: [rounded(d.width, d.height, d.outerRadius), hole(rounded(d.width - 2 * t, d.height - 2 * t, d.innerRadius))],
    torsion: {
      ...{ kind: 'rectangular tube', widthM: d.width, heightM: d.height, thicknessM: t },
      ...{ outerRadiusM: d.outerRadius, innerRadiusM: d.innerRadius },
    },
  };
};

const channel = ({ width: w, height: h, thickness: t }: Lengths): Section => {
  const points: Point[] = [
    [0, 0],
    [w, 0],
    [w, t],
    [t, t],
    [t, h - t],
    [w, h - t],
    [w, h],
    [0, h],
  ];
  const walls = [
    [w, t],
    [w, t],
    [h - 2 * t, t],
  ] as const;
  return { loops: [outline(points)], torsion: { kind: 'open', walls } };
};

const hat = (d: Lengths): Section => {
  const [c, h, f, t] = [d.crown / 2, d.height, d.flange, d.thickness];
  const right: Point[] = [
    [c - t, 0],
    [c + f, 0],
    [c + f, t],
    [c, t],
    [c, h],
  ];
  const left = right.map(([x, y]): Point => [-x, y]).reverse();
  const walls = [
    [d.crown, t],
    [h - 2 * t, t],
    [h - 2 * t, t],
    [f + t, t],
    [f + t, t],
  ] as const;
  return {
    loops: [outline([[-(c - t), 0], [-(c - t), h - t], [c - t, h - t], ...right, ...left.slice(0, -1)])],
    torsion: { kind: 'open', walls },
  };
};

/** Hat and plate as one: outside all round, and the cell inside. */
const closedHat = (d: Lengths): Section => {
  const [c, h, f, t, s] = [d.crown / 2, d.height, d.flange, d.thickness, d.plateThickness];
  const outside = outline([
    [-(c + f), -s],
    [c + f, -s],
    [c + f, t],
    [c, t],
    [c, h],
    [-c, h],
    [-c, t],
    [-(c + f), t],
  ]);
  const [midWidth, midHeight] = [d.crown - t, h - t / 2 + s / 2];
  return {
    loops: [outside, hole(box(-(c - t), 0, c - t, h - t))],
    torsion: {
      kind: 'cell',
      enclosedM2: midWidth * midHeight,
      around: [
        [midWidth, t],
        [midHeight, t],
        [midHeight, t],
        [midWidth, s],
      ],
      walls: [
        [f, t],
        [f, t],
        [f, s],
        [f, s],
      ],
    },
  };
};

const SECTIONS: Readonly<Record<SectionShape, (lengths: Lengths) => Section>> = {
  rectangle,
  'round tube': roundTube,
  'rectangular tube': rectangularTube,
  channel,
  hat,
  'closed hat': closedHat,
};

/** Loops and walls of a shape of the library. @throws RangeError with what `dimensionFault` says */
export const sectionOf = (shape: SectionShape, dimensions: Dimensions): Section => {
  const fault = dimensionFault(shape, dimensions);
  if (fault !== null) throw new RangeError(fault);
  return SECTIONS[shape](dimensions as Lengths);
};
