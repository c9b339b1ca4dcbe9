import type { MeasureStep, TurnedBox } from '@each-bolt/core/measure';
import type { Loop, Place, Plane, WallAt } from '@each-bolt/core/measure';
import type { MeshFormat, ScanFigures } from '@each-bolt/core/record';

/** A mesh as it is drawn, in the unit of its file. */
export interface DrawnMesh {
  readonly positions: Float32Array;
  readonly triangles: Uint32Array;
}

export interface MeasuredFile extends DrawnMesh {
  readonly format: MeshFormat;
  readonly notes: readonly string[];
  /** in the unit of the file */
  readonly figures: ScanFigures;
  readonly minimum: TurnedBox;
  readonly trimmed: TurnedBox;
}

/** Registration and deviation of two scans. */
export interface Compared {
  /** how far each vertex lies off the surface of the second; above 0 outside it, in the unit of the first */
  readonly deviation: Float32Array;
  /** the first in small triangles, registered to the second */
  readonly registered: Float32Array;
  readonly triangles: Uint32Array;
  /** over the whole surface */
  readonly rms: number;
  readonly worst: number;
}

export type MeshAsked =
  | { readonly kind: 'measure'; readonly bytes: ArrayBuffer; readonly fileName: string; readonly shareFraction: number }
  | { readonly kind: 'slice'; readonly plane: Plane }
  | { readonly kind: 'wall'; readonly triangle: number; readonly from: Place }
  /** registers the mesh that is open to another, whose unit is `scale` of the own */
  | { readonly kind: 'register'; readonly bytes: ArrayBuffer; readonly fileName: string; readonly scale: number };

export type MeshAnswer =
  | { readonly kind: 'measured'; readonly file: MeasuredFile }
  | { readonly kind: 'sliced'; readonly loops: readonly Loop[]; readonly openLines: number; readonly right: Place; readonly up: Place }
  | { readonly kind: 'wall'; readonly wall: WallAt | null }
  | { readonly kind: 'compared'; readonly compared: Compared }
  | { readonly kind: 'fault'; readonly message: string };

export type MeshTold = { readonly kind: 'step'; readonly step: MeasureStep | 'reading' | 'registering' } | MeshAnswer;

/** What goes to the worker and comes back, by the number of the question: answers are never taken for those of another. */
export interface Numbered<T> {
  readonly number: number;
  readonly what: T;
}
