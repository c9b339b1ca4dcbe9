/** Formats of scan files, and units they may be in; the files themselves do not say their unit. */
export const MESH_FORMATS = ['STL', 'PLY', 'OBJ'] as const;
export type MeshFormat = (typeof MESH_FORMATS)[number];
export const SCAN_UNITS = ['mm', 'cm', 'in', 'm'] as const;
export type ScanUnit = (typeof SCAN_UNITS)[number];

export type Triple = readonly [number, number, number];

/** What was measured from a scan, SI. */
export interface ScanFigures {
  readonly triangles: number;
  /** enclosed volume, holes closed flat; null where nothing is enclosed */
  readonly volumeM3: number | null;
  /** standard uncertainty of the volume: of the mesh itself and of its holes */
  readonly volumeUM3: number | null;
  readonly areaM2: number;
  readonly centroidM: Triple;
  readonly openEdges: number;
  readonly nonManifoldEdges: number;
  readonly turnedEdges: number;
  readonly holes: number;
  /** sides of the upright box */
  readonly sidesM: Triple;
  /** sides of the smallest box in any orientation, the longest first */
  readonly smallestM: Triple;
  readonly hullVolumeM3: number;
  /** sides of the box without slivers, the share it was to hold and what it holds */
  readonly trimmedM: Triple;
  readonly shareFraction: number;
  readonly heldFraction: number;
  readonly heldOf: 'volume' | 'surface';
}

/** A scan of a piece. Its file is kept once, under its content hash. */
export interface ScanFields {
  readonly pieceId: string;
  readonly sequence: number;
  /** SHA-256 of the file, hexadecimal */
  readonly sha256: string;
  readonly fileName: string;
  readonly format: MeshFormat;
  readonly bytes: number;
  readonly unit: ScanUnit;
  /** what the unit was chosen by */
  readonly unitBy: string;
  readonly figures: ScanFigures;
  /** by how much the scanner may lay the surface too far out or in, standard uncertainty, m; null: not said */
  readonly offsetM: number | null;
  readonly instrument: string;
  readonly serial: string;
  readonly takenAt: string;
  readonly takenBy: string;
  readonly note: string;
}

/** How the material and process of a piece were found out: what was seen and read, and what was decided from it. */
export interface IdentificationFields {
  readonly pieceId: string;
  readonly sequence: number;
  /** cues seen */
  readonly cues: readonly string[];
  /** the reading of element fractions it rests on */
  readonly readingId: string | null;
  /** designation or moulded mark as read off the piece */
  readonly marking: string;
  readonly materialId: string | null;
  /** exact grade decided on, in words */
  readonly grade: string;
  readonly processId: string | null;
  readonly reason: string;
  readonly decidedAt: string;
  readonly decidedBy: string;
}

export const SECTION_KINDS = ['rectangle', 'round tube', 'rectangular tube', 'channel', 'hat', 'closed hat', 'outline'] as const;
export type SectionKind = (typeof SECTION_KINDS)[number];

/** A section of a piece: a shape of the library with its dimensions, or an outline. */
export interface SectionFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly name: string;
  readonly kind: SectionKind;
  /** m, by name of the dimension; empty for an outline */
  readonly dimensions: Readonly<Record<string, number>>;
  /** [loop][point] x, y in m, of an outline; empty for a shape */
  readonly loops: readonly (readonly (readonly [number, number])[])[];
  /** the scan it was cut from */
  readonly scanId: string | null;
  readonly materialId: string | null;
  readonly note: string;
}

export const PATTERN_SOURCES = ['scan', 'caliper', 'drawing', 'other'] as const;

/** Places of holes or mounting points of a piece. */
export interface PatternFields {
  readonly pieceId: string;
  readonly sequence: number;
  readonly name: string;
  /** [point] x, y, z in m */
  readonly points: readonly Triple[];
  readonly source: (typeof PATTERN_SOURCES)[number];
  readonly note: string;
}

/** A crossed study of a measurement: every person measures every part the same number of times. */
export interface GaugeFields {
  readonly sequence: number;
  readonly name: string;
  readonly quantity: 'length' | 'mass';
  readonly persons: readonly string[];
  readonly parts: readonly string[];
  readonly trials: number;
  /** [person][part][trial], SI; null is still to be read */
  readonly readings: readonly (readonly (readonly (number | null)[])[])[];
  readonly instrument: string;
  readonly note: string;
}
