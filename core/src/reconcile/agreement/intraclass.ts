import { mean, sum } from 'd3-array';

/** Intraclass correlations of one table, single readings and means of all. */
export interface Intraclass {
  /** each subject read by others: one-way */
  readonly oneWay: number;
  /** all subjects read by the same observers, who stand for others: agreement */
  readonly agreement: number;
  /** the same observers only: consistency */
  readonly consistency: number;
  readonly oneWayOfMean: number;
  readonly agreementOfMean: number;
  readonly consistencyOfMean: number;
}

/**
 * How much of the scatter between readings is between subjects: 1 when observers agree, near 0 when they do not.
 *
 * @param table [subject][observer], no reading missing; at least two of each
 * @returns null where there is no scatter at all
 * @throws RangeError for a table that is too small or has gaps
 * @source Shrout and Fleiss 1979, ICC(1,1), (2,1), (3,1) and (1,k), (2,k), (3,k)
 */
export const intraclass = (table: readonly (readonly number[])[]): Intraclass | null => {
  const n = table.length;
  const k = table[0]?.length ?? 0;
  if (n < 2 || k < 2 || table.some((row) => row.length !== k))
    throw new RangeError('at least two subjects, each read by the same observers');
  const all = mean(table.flat())!;
  const ofSubject = table.map((row) => mean(row)!);
  const ofObserver = table[0]!.map((_, j) => mean(table, (row) => row[j]!)!);
  const betweenSubjects = (k * sum(ofSubject, (m) => (m - all) ** 2)) / (n - 1);
  const within = sum(table, (row, i) => sum(row, (x) => (x - ofSubject[i]!) ** 2)) / (n * (k - 1));
  const betweenObservers = (n * sum(ofObserver, (m) => (m - all) ** 2)) / (k - 1);
  const error = sum(table, (row, i) => sum(row, (x, j) => (x - ofSubject[i]! - ofObserver[j]! + all) ** 2)) / ((n - 1) * (k - 1));
  if (betweenSubjects === 0 && within === 0) return null;
  return {
    oneWay: (betweenSubjects - within) / (betweenSubjects + (k - 1) * within),
    agreement: (betweenSubjects - error) / (betweenSubjects + (k - 1) * error + (k * (betweenObservers - error)) / n),
    consistency: (betweenSubjects - error) / (betweenSubjects + (k - 1) * error),
    oneWayOfMean: (betweenSubjects - within) / betweenSubjects,
    agreementOfMean: (betweenSubjects - error) / (betweenSubjects + (betweenObservers - error) / n),
    consistencyOfMean: (betweenSubjects - error) / betweenSubjects,
  };
};
