/** So many of these resources at the same time; they may be taken from any of them. */
export interface Need {
  readonly options: readonly number[];
  readonly amount: number;
}

/** A job of whole slots that is done in one go. */
export interface LevelJob {
  readonly slots: number;
  readonly after: readonly number[];
  /** no two of them may be filled from the same resource */
  readonly needs: readonly Need[];
  /** it cannot start earlier than this */
  readonly release: number;
  /** it starts exactly then */
  readonly fixed: number | null;
}

interface LevelResource {
  readonly capacity: number;
  /** [from, to) slots when it is not there, ascending */
  readonly off: readonly (readonly [number, number])[];
}

/** Jobs that share what there is of people, places and rigs. */
export interface LevelProblem {
  readonly jobs: readonly LevelJob[];
  readonly resources: readonly LevelResource[];
}

/** What was taken of a resource by a job. */
export interface Taken {
  readonly resource: number;
  readonly amount: number;
}

export interface Levelled {
  /** [job] slots */
  readonly start: readonly number[];
  /** [job] */
  readonly taken: readonly (readonly Taken[])[];
  readonly finish: number;
}
