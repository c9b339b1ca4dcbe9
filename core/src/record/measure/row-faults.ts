import { issue, type Issue } from '../../shared';
import type { Entity, Gauge, Pattern, RowOf, Section } from '../entities';

const sectionFaults = (section: Section): readonly Issue[] =>
  section.kind === 'outline'
    ? section.loops.length === 0
      ? [issue('no-outline', 'An outline needs one loop of three points at least', 'loops', section.id)]
      : section.loops.flatMap((loop) =>
          loop.length < 3 ? [issue('short-loop', 'A loop needs three points at least', 'loops', section.id)] : [],
        )
    : section.loops.length > 0
      ? [issue('two-shapes', 'A section is either a shape with dimensions or an outline', 'loops', section.id)]
      : [];

const patternFaults = (pattern: Pattern): readonly Issue[] =>
  pattern.points.length < 2 ? [issue('few-points', 'A pattern needs two points at least', 'points', pattern.id)] : [];

const gaugeFaults = (gauge: Gauge): readonly Issue[] => {
  const fits =
    gauge.readings.length === gauge.persons.length &&
    gauge.readings.every((byPart) => byPart.length === gauge.parts.length && byPart.every((trials) => trials.length === gauge.trials));
  return [
    ...(fits ? [] : [issue('readings-shape', 'There must be a place for each person, part and time', 'readings', gauge.id)]),
    ...(gauge.persons.length < 2 || gauge.parts.length < 2
      ? [issue('too-few', 'A gauge study needs two persons and two parts at least', 'persons', gauge.id)]
      : []),
  ];
};

const FAULTS: { readonly [E in Entity]?: (row: RowOf<E>) => readonly Issue[] } = {
  section: sectionFaults,
  pattern: patternFaults,
  gauge: gaugeFaults,
};

/** Rules of one record of measuring that need more than one of its fields. */
export const measureFaults = <E extends Entity>(entity: E, row: RowOf<E>): readonly Issue[] => FAULTS[entity]?.(row) ?? [];
