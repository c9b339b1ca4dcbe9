import { READ_IN, asShown, fixed, inUnit, type Issue } from '../../shared';
import type { Part, RunCase, StudyRecord } from '../../record';
import { sum } from 'd3-array';
import { circuitOf, type Circuit } from './circuit';
import type { FluidData } from './pipe';
import { changedRuns, type Changed } from './run-case';
import { runsOf, type Run, type TimesOf } from './runs';

/** Lines of a vehicle as recorded and as they would be, in figures. */
export interface RunCaseReport {
  readonly rows: readonly { readonly word: string; readonly recorded: string; readonly would: string; readonly change: string }[];
  readonly changed: Changed;
  readonly issues: readonly Issue[];
  readonly sentence: string;
}

interface Sums {
  readonly pieces: number;
  readonly lengthM: number;
  readonly cableM: number;
  readonly fluidM3: number;
  readonly metalKg: number;
  readonly circuit: Circuit;
}

const sumsOf = (record: Pick<StudyRecord, 'ports' | 'passages' | 'parts'>, runs: readonly Run[], fluid: string, data: FluidData): Sums => ({
  pieces: sum(runs, (run) => run.pieces),
  lengthM: sum(runs, (run) => (run.kind === 'cable' ? 0 : (run.lengthM ?? 0))),
  cableM: sum(runs, (run) => (run.kind === 'cable' ? (run.lengthM ?? 0) : 0)),
  fluidM3: sum(runs, (run) => run.fluidM3 ?? 0),
  metalKg: sum(runs, (run) => run.metalKg ?? 0),
  circuit: circuitOf(
    record,
    runs.filter(({ kind, connection }) => kind !== 'cable' && connection.fluid === fluid),
    data,
  ),
});

const pumped = ({ links }: Circuit): number => sum(links, (link) => (link.does === 'pumps' ? link.flowM3PerS : 0));

const row = (
  word: string,
  [recorded, would]: readonly [number, number],
  shown: { readonly per: number; readonly unit: string; readonly digits: number },
): RunCaseReport['rows'][number] => {
  const { per, unit, digits } = asShown(shown);
  const by = (would - recorded) / per;
  const none = Math.abs(by) < 10 ** -digits / 2;
  return {
    word: unit === '' ? word : `${word}, ${unit}`,
    recorded: fixed(recorded / per, digits),
    would: fixed(would / per, digits),
    change: none
      ? '0'
      : `${by > 0 ? '+' : ''}${fixed(by, digits)}${recorded === 0 ? '' : ` (${by > 0 ? '+' : ''}${fixed((100 * (would - recorded)) / recorded, 0)} %)`}`,
  };
};

/**
 * A what-if of lines against what is recorded. What both share is the same line in both: only what changes, changes a figure.
 *
 * @param isOfThem which parts are looked at
 * @param fluid what the circuit leads
 */
export const runCaseReport = (
  record: StudyRecord,
  theCase: RunCase,
  isOfThem: (part: Part) => boolean,
  timesOf: TimesOf,
  fluid: string,
  data: FluidData,
): RunCaseReport => {
  const changed = changedRuns(record, theCase);
  const now = sumsOf(record, runsOf(record, isOfThem, timesOf), fluid, data);
  const would = sumsOf(
    { ...record, ports: changed.ports },
    runsOf({ parts: record.parts, connections: changed.connections }, isOfThem, timesOf),
    fluid,
    data,
  );
  const [flowNow, flowWould] = [pumped(now.circuit), pumped(would.circuit)];
  const rows = [
    row('Lines, pieces', [now.pieces, would.pieces], { per: 1, unit: '', digits: 0 }),
    row('Hoses and pipes', [now.lengthM, would.lengthM], READ_IN.m),
    ...(now.cableM === 0 && would.cableM === 0 ? [] : [row('Cables', [now.cableM, would.cableM], READ_IN.m)]),
    row('Fluid inside', [now.fluidM3, would.fluidM3], READ_IN.l),
    ...(now.metalKg === 0 && would.metalKg === 0 ? [] : [row('Metal of cables', [now.metalKg, would.metalKg], READ_IN.g)]),
    ...(flowNow === 0 && flowWould === 0
      ? []
      : [
          row('Flow through the pumps', [flowNow, flowWould], READ_IN['l/min']),
          row('Power to the fluid', [now.circuit.pumpW, would.circuit.pumpW], { per: 1, unit: 'W', digits: 2 }),
        ]),
  ];
  const byM = would.lengthM + would.cableM - now.lengthM - now.cableM;
  return {
    ...{ rows, changed, issues: would.circuit.issues },
    sentence:
      changed.told.length === 0
        ? ''
        : `${changed.told.join('; ')}: ${Math.abs(byM) < 5e-4 ? 'as much line as before' : `${inUnit(READ_IN.m, Math.abs(byM))} ${byM < 0 ? 'less' : 'more'} line`}`,
  };
};
