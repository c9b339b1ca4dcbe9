import { sum } from 'd3-array';
import type { FastenerKind, FastenerSet, Passage } from '../../record';
import { routeOf, type PortsById } from './routes';
import type { Run, TimesOf } from './runs';

/** Fasteners that lead a line along something rather than hold it together. */
const GUIDES: ReadonlySet<FastenerKind> = new Set(['clip', 'push pin', 'cable tie']);

/** What lines need to be led and held, and how straight they go. Of one vehicle. */
export interface RunDetails {
  readonly pieces: number;
  /** fluid inside hoses and pipes whose bore and length are known, kg */
  readonly fluidKg: number;
  /** pipes of the length of hoses and pipes, 0…1; null without either */
  readonly rigidFraction: number | null;
  /** length of lines with both ends placed, over the straight lines between those ends; null where none has */
  readonly overStraight: number | null;
  readonly placedPieces: number;
  /** parts that lines meet at and that carry none themselves nor do anything to the fluid: tees, couplings */
  readonly fittings: number;
  /** clips, push pins and ties on the parts that have lines */
  readonly guides: number;
  /** all other fasteners on them */
  readonly fasteners: number;
  /** fasteners and guides for each piece; null without pieces */
  readonly holdersPerPiece: number | null;
  /** mass of the parts the lines are on, dry, kg; null where one has none */
  readonly dryKg: number | null;
  readonly withoutMass: number;
}

/**
 * @param massOf mass of all there are of a part where it hangs, with all inside, kg; null where it is not known
 * @param densityKgPerM3 of the fluid in the lines
 */
export const runDetails = (
  runs: readonly Run[],
  fastenerSets: readonly FastenerSet[],
  ports: PortsById,
  passages: readonly Passage[],
  timesOf: TimesOf,
  massOf: (partId: string) => number | null,
  densityKgPerM3: number,
): RunDetails => {
  const partIds = [...new Set(runs.map(({ part }) => part.id))];
  const on = new Set(partIds);
  const sets = fastenerSets.filter(({ partId }) => on.has(partId));
  const held = (isGuide: boolean): number =>
    sum(
      sets.filter(({ kind }) => GUIDES.has(kind) === isGuide),
      ({ count, partId }) => count * timesOf(partId),
    );
  const lengths = (kind: Run['kind']): number => sum(runs, (run) => (run.kind === kind ? (run.lengthM ?? 0) : 0));
  const [rigid, rubber] = [lengths('pipe'), lengths('hose')];
  const placed = runs.flatMap((run) => {
    const { straightM } = routeOf(run.connection, run.part.name, ports);
    const { lengthEachM } = run.connection;
    return straightM === null || lengthEachM === null ? [] : [{ run, straightM, lengthEachM }];
  });
  const straight = sum(placed, ({ run, straightM }) => run.pieces * straightM);
  const pieces = sum(runs, (run) => run.pieces);
  const quantityOf = new Map(runs.map(({ part }) => [part.id, part.quantity]));
  // the roll-up has all there are of a part inside what holds it, which may be there several times
  const masses = partIds.map((id) => ({ mass: massOf(id), times: timesOf(id) / (quantityOf.get(id) ?? 1) }));
  const reached = new Set(runs.flatMap(({ connection }) => [connection.fromPortId, connection.toPortId]));
  const acting = new Set(passages.map(({ partId }) => partId));
  const fittings = new Set([...ports.values()].filter(({ id }) => reached.has(id)).map(({ partId }) => partId));
  for (const id of [...on, ...acting]) fittings.delete(id);
  const [guides, fasteners] = [held(true), held(false)];
  return {
    pieces,
    fluidKg: densityKgPerM3 * sum(runs, (run) => run.fluidM3 ?? 0),
    rigidFraction: rigid + rubber === 0 ? null : rigid / (rigid + rubber),
    overStraight: straight === 0 ? null : sum(placed, ({ run, lengthEachM }) => run.pieces * lengthEachM) / straight,
    placedPieces: sum(placed, ({ run }) => run.pieces),
    fittings: sum([...fittings], (id) => timesOf(id)),
    ...{ guides, fasteners, holdersPerPiece: pieces === 0 ? null : (guides + fasteners) / pieces },
    dryKg: masses.length > 0 && masses.every(({ mass }) => mass !== null) ? sum(masses, ({ mass, times }) => mass! * times) : null,
    withoutMass: masses.filter(({ mass }) => mass === null).length,
  };
};
