/// <reference lib="webworker" />
import { planSchedule } from '@each-bolt/core/plan';
import type { ScheduleAsked, ScheduleTold } from './schedule-told';

addEventListener('message', ({ data }: MessageEvent<ScheduleAsked>) => {
  const tell = (told: ScheduleTold): void => postMessage(told);
  let last = 0;
  const result = planSchedule(data.plan, {
    ...data.options,
    progress: (doneFraction) => {
      if (doneFraction - last < 0.02) return;
      last = doneFraction;
      tell({ kind: 'progress', doneFraction });
    },
  });
  tell({ kind: 'result', result });
});
