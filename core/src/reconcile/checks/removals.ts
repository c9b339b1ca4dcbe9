import type { Step } from '../../record';
import type { Check, Finding, Suspect } from '../finding';
import type { Ground } from '../ground';
import { editOp, finding, toLookAt } from '../said';

interface Ordered {
  /** steps of one vehicle in the order they were done */
  readonly steps: readonly Step[];
  readonly numberOf: ReadonlyMap<string, number>;
}

const ordered = ({ record }: Ground): readonly Ordered[] => {
  const byVehicle = new Map<string, Step[]>();
  for (const step of record.steps) byVehicle.set(step.vehicleId, [...(byVehicle.get(step.vehicleId) ?? []), step]);
  return [...byVehicle.values()].map((own) => {
    const steps = own.sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));
    return { steps, numberOf: new Map(steps.map((step, at) => [step.id, at + 1])) };
  });
};

/** Whether a number is another one with a digit typed too many, or two exchanged. */
const isMistyped = (typed: number, meant: number): boolean => {
  const [a, b] = [Array.from(String(typed)), Array.from(String(meant))];
  if (a.length === b.length + 1) return a.some((_, at) => a.toSpliced(at, 1).join('') === b.join(''));
  return a.length === b.length && typed !== meant && a.sort().join('') === b.sort().join('');
};

const about = (step: Step, field: string) => ({ entity: 'step', id: step.id, field }) as const;
const partOf = (ground: Ground, step: Step) => ground.parts.get(step.parts[0] ?? '');
const say = (ground: Ground, check: string, step: Step, field: string, beside: string, said: { title: string; says: string; suspects: readonly Suspect[] }): Finding =>
  finding(check, about(step, field), { ...said, beside, part: partOf(ground, step) }, step.vehicleId); // prettier-ignore

const later = (ground: Ground, { steps, numberOf }: Ordered): readonly Finding[] =>
  steps.flatMap((step, at) =>
    step.after.flatMap((id): readonly Finding[] => {
      const blocker = numberOf.get(id);
      if (blocker === undefined || blocker <= at + 1) return [];
      const meant = steps.slice(0, at).filter((one) => isMistyped(blocker, numberOf.get(one.id)!) && !step.after.includes(one.id));
      const mistyped = meant.map((one): Suspect => {
        const number = numberOf.get(one.id)!;
        return {
          ...{ key: `${step.id} after ${id} ${number}`, rule: 'typed wrong', says: `Removal ${at + 1} is blocked by ${number}, not by ${blocker}`, short: `${number} typed as ${blocker}`, fit: 0.8 },
          mend: { field: 'Had to come off first', from: String(blocker), to: String(number), ops: [editOp('step', step, 'after', step.after.map((own) => (own === id ? one.id : own)))] },
        };
      });
      return [
        say(ground, 'blocked-later', step, 'after', id, {
          title: `Removal ${at + 1}, blocked by ${blocker}`,
          says: `Removal ${at + 1} of ${ground.vehicleName(step.vehicleId)} is said to be blocked by removal ${blocker}, which came off after it`,
          suspects: [
            ...mistyped,
            {
              ...{ key: `${step.id} after ${id}`, rule: 'typed wrong', says: `Removal ${blocker} does not block removal ${at + 1}: it came off after it`, short: 'no blocker', fit: 0.5 },
              mend: { field: 'Had to come off first', from: String(blocker), to: '–', ops: [editOp('step', step, 'after', step.after.filter((own) => own !== id))] },
            },
          ],
        }),
      ];
    }),
  ); // prettier-ignore

const twiceOff = (ground: Ground, { steps, numberOf }: Ordered): readonly Finding[] => {
  const first = new Map<string, Step>();
  return steps.flatMap((step) =>
    step.parts.flatMap((id): readonly Finding[] => {
      const before = first.get(id);
      if (!before) {
        first.set(id, step);
        return [];
      }
      const part = ground.parts.get(id);
      return [
        finding('off-twice', about(step, 'parts'), {
          ...{ part, beside: id, title: `Removals ${numberOf.get(before.id)!} and ${numberOf.get(step.id)!}` },
          says: `${part?.name ?? 'A part'} came off in removal ${numberOf.get(before.id)!} and again in removal ${numberOf.get(step.id)!}`,
          suspects: [
            {
              ...{ key: `${step.id} parts ${id}`, rule: 'twice', says: `Removal ${numberOf.get(step.id)!} names ${part?.name ?? 'a part'} that was off already`, short: 'named twice', fit: 0.7 },
              mend: { field: 'Comes off', from: part?.name ?? '', to: '–', ops: [editOp('step', step, 'parts', step.parts.filter((own) => own !== id))] },
            },
          ],
        }, step.vehicleId),
      ];
    }),
  ); // prettier-ignore
};

const lacking = (ground: Ground, { steps }: Ordered): readonly Finding[] =>
  steps.flatMap((step, at) => {
    const of = `removal ${at + 1} of ${ground.vehicleName(step.vehicleId)}`;
    const lacks = (field: string, what: string): Finding =>
      say(ground, 'removal-incomplete', step, field, '', {
        title: `Removal ${at + 1}, ${what}`,
        says: `The ${what} of ${of} is not recorded`,
        suspects: [
          toLookAt(
            `${step.vehicleId} ${field}`,
            'not recorded',
            `Removals of ${ground.vehicleName(step.vehicleId)} name no ${what}`,
            `no ${what}`,
            0.7,
          ),
        ],
      });
    return [
      ...(step.parts.length === 0 ? [lacks('parts', 'part')] : []),
      ...(step.tool === '' && step.bit === '' ? [lacks('tool', 'tool')] : []),
    ];
  });

const each = (check: (ground: Ground, own: Ordered) => readonly Finding[]) => (ground: Ground): readonly Finding[] =>
  ordered(ground).flatMap((own) => check(ground, own)); // prettier-ignore

/** Checks of removals. */
export const REMOVAL_CHECKS: readonly Check[] = [
  {
    ...{ id: 'blocked-later', name: 'Blockers that come later', severity: 'wrong', blocks: 'assembly', reads: ['steps', 'vehicles'] },
    ...{ asks: 'Did what blocks a removal come off before it?', needs: 'removals with their blockers', ofRecord: each(later) },
  },
  {
    ...{ id: 'off-twice', name: 'Parts that come off twice', severity: 'wrong', blocks: 'assembly', reads: ['steps', 'vehicles'] },
    ...{ asks: 'Does a part come off once?', needs: 'removals', ofRecord: each(twiceOff) },
  },
  {
    ...{ id: 'removal-incomplete', name: 'Removals without part or tool', severity: 'missing', blocks: 'assembly', reads: ['steps', 'vehicles'] },
    ...{ asks: 'Does every removal say what came off, and with what?', needs: 'removals', ofRecord: each(lacking) },
  },
]; // prettier-ignore
