import { counted, fixed, READ_IN } from '../../shared';
import type { Reading } from '../../record';
import { differences } from '../../bench';
import { instrumentCharts, doubtfulReadings } from '../control/instruments';
import type { Check, Finding } from '../finding';
import type { Ground } from '../ground';
import { finding, toLookAt, worked } from '../said';

/** "Bench scale 02 reads 0.40 % high": an instrument that is off, in words. */
const offText = (name: string, errorFraction: number): string => `${name} reads ${fixed(Math.abs(errorFraction) * 100, 2)} % ${errorFraction > 0 ? 'high' : 'low'}`; // prettier-ignore

const instruments = (ground: Ground): readonly Finding[] => {
  const charts = instrumentCharts(ground.record.checkReadings);
  const doubtful = doubtfulReadings(ground.record.readings, charts);
  return charts.flatMap((chart): readonly Finding[] => {
    const last = chart.off.at(-1);
    const resting = doubtful.filter((one) => one.chart === chart);
    if (!last || (last.to !== null && resting.length === 0)) return [];
    const name = `${chart.instrument} ${chart.serial}`;
    const says = offText(name, last.errorFraction);
    const seen = chart.points.find((point) => point.reading.takenAt === last.firstSeen)!.reading;
    return [
      finding('instrument-off', { entity: 'checkReading', id: seen.id, field: 'value' }, {
        title: `Check of ${name}`,
        says: `${says} since ${last.firstSeen.slice(0, 10)}: ${counted(resting.length, 'reading')} rest${resting.length === 1 ? 's' : ''} on it`,
        compared: { recorded: worked(last.errorFraction, chart.sFraction, 'M'), against: worked(0, chart.sFraction), readIn: { ...READ_IN['%'], digits: 2 } },
        suspects: [toLookAt(`instrument ${chart.serial}`, 'instrument', says, 'instrument off', 0.95)],
      }),
    ];
  }); // prettier-ignore
};

/** Two readings of one thing are apart when they differ by so many of their uncertainties, and by so large a share. Assumed. */
const [APART_U, APART_SHARE] = [4, 0.01];

const repeated = (ground: Ground): readonly Finding[] => {
  const groups = new Map<string, Reading[]>();
  for (const reading of ground.record.readings) {
    if (reading.value === null) continue;
    const key = `${reading.aboutId} ${reading.aboutField ?? ''} ${reading.quantity}`;
    const group = groups.get(key);
    if (group) group.push(reading);
    else groups.set(key, [reading]);
  }
  return [...groups.values()].flatMap((group): readonly Finding[] => {
    if (group.length < 2) return [];
    const [before, last] = group.sort((a, b) => (a.takenAt < b.takenAt ? -1 : 1)).slice(-2) as [Reading, Reading];
    const apart = Math.abs(last.value! - before.value!);
    const u = Math.hypot(last.u ?? 0, before.u ?? 0);
    if (apart <= APART_U * u || apart <= APART_SHARE * Math.abs(last.value!)) return [];
    const part = ground.parts.get(last.aboutId);
    return [
      finding('readings-apart', { entity: 'reading', id: last.id, field: 'value' }, {
        part,
        title: `Readings of ${part?.name ?? 'one thing'}`,
        says: `${part?.name ?? 'One thing'} was read as ${before.raw} and as ${last.raw}: read it once more`,
        suspects: [toLookAt(`${last.aboutId} readings`, 'typed wrong', `One of two readings of ${part?.name ?? 'one thing'} is wrong`, 'read once more', 0.7)],
      }),
    ];
  }); // prettier-ignore
};

const recounts = (ground: Ground): readonly Finding[] => {
  const open = ground.record.recounts.filter((recount) => recount.state === 'differs');
  if (open.length === 0) return [];
  const sets = [...ground.record.fastenerSets, ...ground.record.jointSets];
  return open.map((recount): Finding => {
    const part = ground.parts.get(recount.partId);
    const apart = differences(recount.counts, sets);
    const counts = apart.map(({ first, second }) => `${first} counted, ${second} recounted`).join('; ');
    const besides = recount.others.trim() === '' ? '' : ` Found besides: ${recount.others.trim()}.`;
    return finding('recount-differs', { entity: 'recount', id: recount.id, field: 'state' }, {
      part,
      title: `Blind recount of ${part?.name ?? 'a part'}`,
      says: `${part?.name ?? 'A part'}: ${counts === '' ? 'the recount found more than is recorded.' : `${counts}.`}${besides}`,
      suspects: apart.length > 0 ? apart.map(({ setId }) => toLookAt(`${setId} count`, 'counted wrong', `A count of ${part?.name ?? 'a part'} is wrong`, 'settle the recount', 0.8)) : [toLookAt(`${recount.partId} besides`, 'not recorded', `Something of ${part?.name ?? 'a part'} is not recorded`, 'not recorded', 0.8)],
    });
  }); // prettier-ignore
};

/** Checks of readings and recounts. */
export const READING_CHECKS: readonly Check[] = [
  {
    ...{ id: 'instrument-off', name: 'Instruments', severity: 'wrong', blocks: 'cost', reads: ['readings', 'checkReadings'], ofRecord: instruments },
    ...{ asks: 'Does every instrument read what its check weight is?', needs: 'check readings' },
  },
  {
    ...{ id: 'readings-apart', name: 'Repeated readings', severity: 'doubtful', blocks: 'cost', reads: ['readings'], ofRecord: repeated },
    ...{ asks: 'Do two readings of one thing agree?', needs: 'two readings with their uncertainty' },
  },
  {
    ...{ id: 'recount-differs', name: 'Blind recounts', severity: 'wrong', blocks: 'cost', ofRecord: recounts },
    ...{ asks: 'Did whoever counted once more find the same?', needs: 'blind recounts', reads: ['recounts', 'fastenerSets', 'jointSets'] },
  },
]; // prettier-ignore
