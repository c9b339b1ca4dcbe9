import { dayText } from '@each-bolt/core/shared';

/** "Wed 3 Jun 07:30": a local time of the plan as people read it. */
export const when = (local: string): string => `${dayText(local.slice(0, 10))} ${local.slice(11)}`;
