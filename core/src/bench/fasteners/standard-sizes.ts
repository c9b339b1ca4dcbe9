/** Sizes of standard fasteners in mm by nominal diameter; all from memory of the standards named, checked by the masses in the tests. */
export interface HeadAcrossFlats {
  readonly acrossFlatsMm: number;
  readonly heightMm: number;
}

/** @source ISO 4032, hexagon nuts style 1 */
export const HEX_NUT: Readonly<Record<string, HeadAcrossFlats>> = {
  '3': { acrossFlatsMm: 5.5, heightMm: 2.4 },
  '4': { acrossFlatsMm: 7, heightMm: 3.2 },
  '5': { acrossFlatsMm: 8, heightMm: 4.7 },
  '6': { acrossFlatsMm: 10, heightMm: 5.2 },
  '8': { acrossFlatsMm: 13, heightMm: 6.8 },
  '10': { acrossFlatsMm: 16, heightMm: 8.4 },
  '12': { acrossFlatsMm: 18, heightMm: 10.8 },
  '16': { acrossFlatsMm: 24, heightMm: 14.8 },
};

/** @source ISO 4017, hexagon head screws */
export const HEX_HEAD: Readonly<Record<string, HeadAcrossFlats>> = {
  '4': { acrossFlatsMm: 7, heightMm: 2.8 },
  '5': { acrossFlatsMm: 8, heightMm: 3.5 },
  '6': { acrossFlatsMm: 10, heightMm: 4 },
  '8': { acrossFlatsMm: 13, heightMm: 5.3 },
  '10': { acrossFlatsMm: 16, heightMm: 6.4 },
  '12': { acrossFlatsMm: 18, heightMm: 7.5 },
  '16': { acrossFlatsMm: 24, heightMm: 10 },
};

export interface SocketHead {
  readonly diameterMm: number;
  readonly heightMm: number;
  readonly keyMm: number;
  readonly keyDepthMm: number;
}

/** @source ISO 4762, socket cap screws */
export const SOCKET_HEAD: Readonly<Record<string, SocketHead>> = {
  '3': { diameterMm: 5.5, heightMm: 3, keyMm: 2.5, keyDepthMm: 1.3 },
  '4': { diameterMm: 7, heightMm: 4, keyMm: 3, keyDepthMm: 2 },
  '5': { diameterMm: 8.5, heightMm: 5, keyMm: 4, keyDepthMm: 2.5 },
  '6': { diameterMm: 10, heightMm: 6, keyMm: 5, keyDepthMm: 3 },
  '8': { diameterMm: 13, heightMm: 8, keyMm: 6, keyDepthMm: 4 },
  '10': { diameterMm: 16, heightMm: 10, keyMm: 8, keyDepthMm: 5 },
  '12': { diameterMm: 18, heightMm: 12, keyMm: 10, keyDepthMm: 6 },
  '16': { diameterMm: 24, heightMm: 16, keyMm: 14, keyDepthMm: 8 },
};

export interface Washer {
  readonly innerMm: number;
  readonly outerMm: number;
  readonly thicknessMm: number;
}

/** @source ISO 7089, plain washers */
export const PLAIN_WASHER: Readonly<Record<string, Washer>> = {
  '3': { innerMm: 3.2, outerMm: 7, thicknessMm: 0.5 },
  '4': { innerMm: 4.3, outerMm: 9, thicknessMm: 0.8 },
  '5': { innerMm: 5.3, outerMm: 10, thicknessMm: 1 },
  '6': { innerMm: 6.4, outerMm: 12, thicknessMm: 1.6 },
  '8': { innerMm: 8.4, outerMm: 16, thicknessMm: 1.6 },
  '10': { innerMm: 10.5, outerMm: 20, thicknessMm: 2 },
  '12': { innerMm: 13, outerMm: 24, thicknessMm: 2.5 },
  '16': { innerMm: 17, outerMm: 30, thicknessMm: 3 },
  '20': { innerMm: 21, outerMm: 37, thicknessMm: 3 },
};
