/** The clock of a step: how long was worked, and since when it runs. */
export interface WorkClock {
  /** time counted so far */
  readonly workedS: number;
  /** time that was not counted because nothing happened; it can be counted after all */
  readonly leftOutS: number;
  /** ms of the last sign of work */
  readonly lastMs: number;
  readonly startedMs: number;
}

/** A clock that starts now with no time worked, s; `nowMs` is in milliseconds since 1970. */
export const startClock = (nowMs: number): WorkClock => ({ workedS: 0, leftOutS: 0, lastMs: nowMs, startedMs: nowMs });

/**
 * The clock after a sign of work: a line typed, a key, a reading, a tag. The time since the last one counts, but no
 * more than `pauseAfterS` of it: then the clock stood.
 */
export const tickClock = (clock: WorkClock, nowMs: number, pauseAfterS: number): WorkClock => {
  const sinceS = Math.max(0, (nowMs - clock.lastMs) / 1000);
  const countedS = Math.min(sinceS, pauseAfterS);
  return {
    ...clock,
    workedS: clock.workedS + countedS,
    leftOutS: clock.leftOutS + (sinceS - countedS),
    lastMs: Math.max(clock.lastMs, nowMs),
  };
};

/** True while nothing has happened for so long that the clock stands. */
export const isPaused = (clock: WorkClock, nowMs: number, pauseAfterS: number): boolean => (nowMs - clock.lastMs) / 1000 >= pauseAfterS;

/** What the clock shows at a moment, without a sign of work. */
export const shownS = (clock: WorkClock, nowMs: number, pauseAfterS: number): number => tickClock(clock, nowMs, pauseAfterS).workedS;

/** The clock with the time that was left out counted after all. */
export const countLeftOut = (clock: WorkClock): WorkClock => ({ ...clock, workedS: clock.workedS + clock.leftOutS, leftOutS: 0 });
