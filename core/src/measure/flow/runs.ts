import type { Connection, ConnectionKind, Part, StudyRecord } from '../../record';
import { rollup, sum } from 'd3-array';
import { materialById } from '../../shared';
import { CONDUCTOR_METALS, conductorKg, lossAt, resistanceOhm, type ConductorMetal } from './conductors';
import { chainDropPa, operatingPoint, pipeDrop, type FluidData, type Pipe, type Pump } from './pipe';

/** What runs: hoses and pipes lead a fluid, cables a current. */
export const RUN_KINDS = ['hose', 'pipe', 'cable'] as const satisfies readonly ConnectionKind[];
export type RunKind = (typeof RUN_KINDS)[number];

/** Hoses, pipes or cables that are alike on one part. */
export interface Run {
  readonly connection: Connection;
  readonly part: Part;
  readonly kind: RunKind;
  /** on the vehicle: as often as the part they are on */
  readonly pieces: number;
  /** all pieces together; null where the length of one is not known */
  readonly lengthM: number | null;
  /** inside them, m³; null where a bore or a length is missing, and for cables */
  readonly fluidM3: number | null;
  /** metal of all cores, kg; null where it cannot be told, and for hoses and pipes */
  readonly metalKg: number | null;
}

/** How often a part is on its vehicle. */
export type TimesOf = (partId: string) => number;

/** How often each part is on its vehicle, and the subsystem it is under. */
export const placedParts = (
  parts: readonly Part[],
): ReadonlyMap<string, { readonly times: number; readonly subsystemId: string | null }> => {
  const byId = new Map(parts.map((part) => [part.id, part]));
  const placed = new Map<string, { readonly times: number; readonly subsystemId: string | null }>();
  const place = (part: Part): { readonly times: number; readonly subsystemId: string | null } => {
    const known = placed.get(part.id);
    if (known) return known;
    const parent = byId.get(part.parentId ?? '');
    const above = parent ? place(parent) : { times: 1, subsystemId: part.subsystemId };
    const here = { times: above.times * part.quantity, subsystemId: above.subsystemId };
    placed.set(part.id, here);
    return here;
  };
  for (const part of parts) place(part);
  return placed;
};

const isRun = (connection: Connection): connection is Connection & { readonly kind: RunKind } =>
  (RUN_KINDS as readonly ConnectionKind[]).includes(connection.kind);

const METAL_OF: Readonly<Record<string, string>> = { copper: 'cu', aluminium: 'al' };

/** The metal of a conductor as recorded; null where nobody said it, for nothing is taken to be copper. */
const metalOf = ({ materialId }: Connection): ConductorMetal | null => {
  const id = METAL_OF[materialById.get(materialId ?? '')?.family ?? ''];
  return CONDUCTOR_METALS.find((metal) => metal.id === id) ?? null;
};

/** The hoses, pipes and cables of some parts. */
export const runsOf = (
  record: Pick<StudyRecord, 'connections' | 'parts'>,
  isOfThem: (part: Part) => boolean,
  timesOf: TimesOf,
): readonly Run[] => {
  const parts = new Map(record.parts.filter(isOfThem).map((part) => [part.id, part]));
  return record.connections.filter(isRun).flatMap((connection): readonly Run[] => {
    const part = parts.get(connection.partId);
    if (!part) return [];
    const pieces = connection.count * timesOf(part.id);
    const { lengthEachM, innerM, crossSectionM2, kind } = connection;
    const lengthM = lengthEachM === null ? null : pieces * lengthEachM;
    const leads = kind !== 'cable';
    const metal = metalOf(connection);
    return [
      {
        ...{ connection, part, kind, pieces, lengthM },
        fluidM3: !leads || lengthM === null || innerM === null ? null : (Math.PI / 4) * innerM ** 2 * lengthM,
        metalKg:
          leads || metal === null || lengthM === null || crossSectionM2 === null
            ? null
            : conductorKg(metal, crossSectionM2, lengthM * (connection.poles ?? 1)),
      },
    ];
  });
};

export interface RunTotals {
  readonly kind: RunKind;
  readonly pieces: number;
  /** of those whose length is known */
  readonly lengthM: number;
  /** standard uncertainty of it, from those stated of the lengths; all pieces of one line share theirs */
  readonly lengthUM: number;
  readonly meanM: number | null;
  readonly withoutLength: number;
  readonly fluidM3: number;
  readonly withoutFluid: number;
  readonly metalKg: number;
  readonly withoutMetal: number;
}

/** Totals by kind; what is not known is left out of them and counted. */
export const runTotals = (runs: readonly Run[]): readonly RunTotals[] =>
  RUN_KINDS.map((kind) => {
    const own = runs.filter((run) => run.kind === kind);
    const totalOf = (of: (run: Run) => number | null): number => sum(own, (run) => of(run) ?? 0);
    const known = own.filter((run) => run.lengthM !== null);
    const [lengthM, knownPieces] = [totalOf((run) => run.lengthM), known.reduce((total, run) => total + run.pieces, 0)];
    const without = (of: (run: Run) => number | null): number =>
      own.filter((run) => of(run) === null).reduce((total, run) => total + run.pieces, 0);
    return {
      ...{
        kind,
        pieces: own.reduce((total, run) => total + run.pieces, 0),
        lengthM,
        lengthUM: Math.hypot(...own.map((run) => run.pieces * (run.connection.evidence.lengthEachM?.u ?? 0))),
        meanM: knownPieces === 0 ? null : lengthM / knownPieces,
      },
      ...{ withoutLength: without((run) => run.lengthM) },
      ...{ fluidM3: totalOf((run) => run.fluidM3), withoutFluid: kind === 'cable' ? 0 : without((run) => run.fluidM3) },
      ...{ metalKg: totalOf((run) => run.metalKg), withoutMetal: kind === 'cable' ? without((run) => run.metalKg) : 0 },
    };
  });

/** Roughness of the inside of a hose or drawn tube, m. Assumed: smooth. */
export const SMOOTH_M = 1.5e-6;
/** Loss of the two ends of a piece, clamped or coupled, on its own velocity. Assumed. */
export const ENDS = 0.8;

/** The fluids that lines lead, each once, the most frequent first; lines that nobody said it of count as the empty one. */
export const fluidsOf = (runs: readonly Run[]): readonly string[] => {
  const pieces = rollup(
    runs.filter(({ kind }) => kind !== 'cable'),
    (alike) => sum(alike, (run) => run.pieces),
    ({ connection }) => connection.fluid,
  );
  return [...pieces].sort(([, a], [, b]) => b - a).map(([fluid]) => fluid);
};

export interface LoopPoint {
  /** pieces in the loop, and those that cannot be in it for want of a bore or a length, by part */
  readonly pieces: number;
  readonly leftOut: readonly string[];
  readonly flowM3PerS: number;
  readonly dropPa: number;
  readonly pumpW: number;
  /** fastest piece and its velocity */
  readonly fastest: { readonly part: string; readonly velocityMPerS: number } | null;
}

/**
 * Hoses and pipes of one fluid as one loop behind each other: its drop at a flow, or with a pump the flow at which the two meet.
 * What lies between them (pump, core, plate) is not in it: the figure is that of the lines alone.
 *
 * @param asked a flow in m³/s, or a pump
 */
export const loopOf = (runs: readonly Run[], fluid: FluidData, asked: number | Pump): LoopPoint => {
  const lines = runs.filter(({ kind }) => kind !== 'cable');
  const whole = lines.filter(({ connection }) => connection.innerM !== null && connection.lengthEachM !== null);
  const pipes = whole.flatMap((run): readonly { readonly pipe: Pipe; readonly part: string }[] =>
    Array.from({ length: run.pieces }, () => ({
      part: run.part.name,
      pipe: { innerM: run.connection.innerM!, lengthM: run.connection.lengthEachM!, roughnessM: SMOOTH_M, minor: ENDS },
    })),
  );
  const drop = (flow: number): number =>
    chainDropPa(
      pipes.map(({ pipe }) => pipe),
      fluid,
      flow,
    );
  const flowM3PerS = typeof asked === 'number' ? asked : operatingPoint(asked, drop).flowM3PerS;
  const dropPa = drop(flowM3PerS);
  const speeds = pipes.map(({ pipe, part }) => ({ part, velocityMPerS: pipeDrop(pipe, fluid, flowM3PerS).velocityMPerS }));
  return {
    pieces: pipes.length,
    leftOut: lines.filter((run) => !whole.includes(run)).map(({ part }) => part.name),
    ...{ flowM3PerS, dropPa, pumpW: dropPa * flowM3PerS },
    fastest: speeds.length === 0 ? null : speeds.reduce((best, one) => (one.velocityMPerS > best.velocityMPerS ? one : best)),
  };
};

export interface CableFigures {
  readonly ohm: number;
  readonly dropV: number;
  readonly lossW: number;
}

/** One core of a line, one way, ohm; null where its metal, length or cross-section is not known. */
export const conductorOhm = (line: Connection, temperatureC: number): number | null => {
  const metal = metalOf(line);
  if (metal === null || line.lengthEachM === null || line.crossSectionM2 === null) return null;
  return resistanceOhm(metal, line.crossSectionM2, line.lengthEachM, temperatureC);
};

/** One core of a cable, one way, at a current and a temperature; null where its metal, length or cross-section is not known. */
export const cableFigures = ({ connection, kind }: Run, currentA: number, temperatureC: number): CableFigures | null => {
  const ohm = kind === 'cable' ? conductorOhm(connection, temperatureC) : null;
  return ohm === null ? null : { ohm, ...lossAt(ohm, currentA) };
};
