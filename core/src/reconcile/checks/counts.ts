import type { ShownUnit } from '../../shared';
import { countRange, type FastenerSet, type JointSet, type Part } from '../../record';
import { fastenerLine, HAND_WORDS, jointLine, nameWithout, SIDE_WORDS } from '../../bench';
import { type Check, type Finding, type Suspect, NOTHING } from '../finding';
import type { Ground } from '../ground';
import { editOp, finding, nameOf, ofPart, toLookAt, told } from '../said';

const PIECES: ShownUnit = { per: 1, unit: '', digits: 0 };
type Sets = readonly (FastenerSet | JointSet)[];

/** What is alike about two sets: kind, and thread where there is one. */
const sortOf = (set: FastenerSet | JointSet): string => ('threadM' in set ? `${set.kind} ${set.threadM ?? ''}` : set.kind);
const lineOf = (set: FastenerSet | JointSet): string => ('threadM' in set ? fastenerLine(set) : jointLine(set)).replace(/^\S+\s+/, '');

/** A count that may be several is no contradiction. */
const isSure = (set: { readonly count: number; readonly evidence: FastenerSet['evidence'] }): boolean => {
  const [low, high] = countRange(set.count, set.evidence.count);
  return low === high;
};

const isSureOf = ({ quantity, evidence }: Part): boolean => {
  const [low, high] = countRange(quantity, evidence.quantity);
  return low === high;
};

/** The only set of its sort on a part, or null. */
const onlyOf = (sets: Sets, sort: string): FastenerSet | JointSet | null => {
  const own = sets.filter((set) => sortOf(set) === sort);
  return own.length === 1 ? own[0]! : null;
};

interface Held {
  readonly ground: Ground;
  readonly part: Part;
  readonly other: Part;
  /** how likely it is that both have the same number */
  readonly fit: number;
  readonly check: string;
  readonly title: string;
  readonly with: string;
}

const setsOf = (ground: Ground, part: Part): Sets => [...ground.fasteners.at(part.id), ...ground.joints.at(part.id)];

const recounted = (set: FastenerSet | JointSet, part: Part, count: number, fit: number): Suspect => ({
  ...{ key: `${set.id} count`, rule: 'counted wrong', fit, short: `${count}, not ${set.count}` },
  says: `${part.name}: ${set.count} of ${lineOf(set)} counted, ${count} expected`,
  mend: {
    ...{ field: 'Count', from: String(set.count), to: String(count) },
    ops: [editOp('threadM' in set ? 'fasteners' : 'joints', set, 'count', count)],
  },
});

/** Sets of one sort that are counted differently on two parts which should be alike. */
const differing = ({ ground, part, other, fit, check, title, with: withWhat }: Held): readonly Finding[] => {
  const [own, its] = [setsOf(ground, part), setsOf(ground, other)];
  return own.flatMap((set): readonly Finding[] => {
    const same = onlyOf(its, sortOf(set));
    if (!same || onlyOf(own, sortOf(set)) === null || same.count === set.count || !isSure(set) || !isSure(same)) return NOTHING;
    const entity = 'threadM' in set ? 'fasteners' : 'joints';
    // fewer were found more often than more: what was lost is likelier than what was counted twice
    const [fewer, more] = set.count < same.count ? [set, same] : [same, set];
    const [fewerPart, morePart] = set.count < same.count ? [part, other] : [other, part];
    return [
      finding(
        check,
        { entity, id: set.id, field: 'count' },
        {
          part,
          title,
          says: `${nameOf(ground, part)} has ${set.count} of ${lineOf(set)}, ${withWhat} ${same.count}`,
          compared: { recorded: told(entity, set, 'count'), against: told(entity, same, 'count'), readIn: PIECES },
          suspects: [recounted(fewer, fewerPart, more.count, fit), recounted(more, morePart, fewer.count, fit * 0.4)],
        },
      ),
    ];
  });
};

const handsCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.hand !== 'right') return NOTHING;
  const other = ground.alike(part).find((one) => one.vehicleId === part.vehicleId && one.hand === 'left' && one.parentId === part.parentId);
  if (!other) return NOTHING;
  const quantity =
    other.quantity === part.quantity || !isSureOf(part) || !isSureOf(other)
      ? []
      : [
          ofPart('counts-of-hands', part, 'quantity', {
            title: 'Count, left against right',
            says: `${nameOf(ground, part)}: ${part.quantity} of the right, ${other.quantity} of the left`,
            compared: { recorded: told('part', part, 'quantity'), against: told('part', other, 'quantity'), readIn: PIECES },
            suspects: [part, other].map((one): Suspect => {
              const count = one === part ? other.quantity : part.quantity;
              return {
                ...{ key: `${one.id} quantity`, rule: 'counted wrong', says: `${one.name}: ${one.quantity} counted, ${count} expected`, short: `${count}, not ${one.quantity}` },
                ...{ fit: one.quantity < count ? 0.8 : 0.4, mend: { field: 'Quantity', from: String(one.quantity), to: String(count), ops: [editOp('part', one, 'quantity', count)] } },
              };
            }),
          }),
        ];
  return [
    ...quantity,
    ...differing({ ground, part, other, fit: 0.85, check: 'counts-of-hands', title: 'Count, left against right', with: 'the left one' }),
  ];
}; // prettier-ignore

const neighbourCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const name = part.name.toLowerCase();
  const common = nameWithout(part.name, SIDE_WORDS);
  if (common === name.replace(/[\s,]+/g, ' ').trim() || common === '') return NOTHING;
  const handless = nameWithout(part.name, HAND_WORDS);
  return ground
    .besideOf(part)
    .filter((other) => other.id < part.id && weighAlike(part, other) && nameWithout(other.name, SIDE_WORDS) === common && nameWithout(other.name, HAND_WORDS) !== handless)
    .slice(0, 3)
    .flatMap((other) => differing({ ground, part, other, fit: 0.6, check: 'counts-of-neighbours', title: `Count, against ${other.name}`, with: `its neighbour ${other.name}` }));
}; // prettier-ignore

/** Parts that differ by their place only weigh about the same. */
const weighAlike = (a: Part, b: Part): boolean =>
  a.massEachKg !== null && b.massEachKg !== null && Math.abs(Math.log(a.massEachKg / b.massEachKg)) < 0.05;

/** The vehicle a vehicle follows: named, or the one earlier model of the study where it is the subject. */
const earlierOf = ({ record }: Ground, vehicleId: string): string | null => {
  const own = record.vehicles.find((vehicle) => vehicle.id === vehicleId);
  if (!own) return null;
  if (own.predecessorId) return own.predecessorId;
  const earlier = record.vehicles.filter((vehicle) => vehicle.role === 'earlier');
  return own.role === 'subject' && earlier.length === 1 ? earlier[0]!.id : null;
};

/** Makers carry fasteners over: the very same set in another number is looked at, and is often so. */
const earlierCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const earlier = earlierOf(ground, part.vehicleId);
  if (earlier === null) return NOTHING;
  const other = ground.alike(part).find((one) => one.vehicleId === earlier && one.hand === part.hand);
  // a part that weighs the same is carried over; one that does not may be held by another number
  if (!other?.massEachKg || !part.massEachKg || Math.abs(Math.log(part.massEachKg / other.massEachKg)) > 0.01) return NOTHING;
  return differing({ ground, part, other, fit: 0.5, check: 'counts-and-earlier', title: `Count, against ${ground.vehicleName(earlier)}`, with: `the same part of ${ground.vehicleName(earlier)}` });
}; // prettier-ignore

const oneHandCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.hand !== 'left' && part.hand !== 'right') return NOTHING;
  const has = ground.besideOf(part).some((one) => one.id !== part.id && one.hand !== part.hand && nameWithout(one.name, HAND_WORDS) === nameWithout(part.name, HAND_WORDS)); // prettier-ignore
  if (has) return NOTHING;
  const missing = part.hand === 'left' ? 'right' : 'left';
  return [
    ofPart('one-hand', part, 'hand', {
      title: 'The other hand',
      says: `${nameOf(ground, part)} is the ${part.hand} one; the ${missing} one is not recorded`,
      suspects: [toLookAt(`${part.id} other hand`, 'not recorded', `The ${missing} hand of ${part.name} is not recorded`, `${missing} one lost`, 0.6)],
    }),
  ];
}; // prettier-ignore

const openedCheck = (ground: Ground, part: Part): readonly Finding[] =>
  part.opened === 'opened' && ground.inside.at(part.id).length === 0
    ? [
        ofPart('opened-empty', part, 'opened', {
          title: 'Inside of it',
          says: `${nameOf(ground, part)} was opened, and nothing is recorded inside it`,
          suspects: [toLookAt(`${part.id} inside`, 'not recorded', `What is inside ${part.name} is not recorded`, 'inside lost', 0.7)],
        }),
      ]
    : NOTHING;

const LEADS = /\b(?:cable|harness|loom|wiring)\b/i;

/** Connectors in a subsystem of a vehicle where no cable is recorded at all. */
const cableCheck = (ground: Ground): readonly Finding[] => {
  const placeOf = (part: Part): string => `${part.vehicleId} ${ground.subsystemOf(part) ?? ''}`;
  const connectors = ground.record.connections.filter((line) => line.kind === 'connector');
  if (connectors.length === 0) return NOTHING;
  const cabled = new Set<string>();
  for (const line of ground.record.connections) {
    const part = line.kind === 'cable' ? ground.parts.get(line.partId) : undefined;
    if (part) cabled.add(placeOf(part));
  }
  for (const part of ground.record.parts) if (LEADS.test(part.name)) cabled.add(placeOf(part));
  return connectors.flatMap((connector): readonly Finding[] => {
    const part = ground.parts.get(connector.partId);
    if (!part || cabled.has(placeOf(part))) return NOTHING;
    return [
      finding('no-cable', { entity: 'connection', id: connector.id, field: 'kind' }, {
        part,
        title: 'The cable of a connector',
        says: `A connector of ${nameOf(ground, part)} is recorded without its cable`,
        suspects: [toLookAt(`${connector.id} cable`, 'not recorded', `The cable to ${part.name} is not recorded`, 'cable lost', 0.5)],
      }),
    ];
  });
}; // prettier-ignore

/** A part recorded in two places: the same name, marking and mass to the last digit. */
const twiceCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.massEachKg === null || part.markings.trim() === '' || part.hand !== 'none') return NOTHING;
  const same = ground
    .sameMarking(part)
    .find((one) => one.id < part.id && one.vehicleId === part.vehicleId && one.massEachKg === part.massEachKg && one.name.toLowerCase() === part.name.toLowerCase() && one.parentId !== part.parentId); // prettier-ignore
  if (!same) return NOTHING;
  return [
    ofPart('in-two-places', part, 'parentId', {
      title: `The same part as in ${placeName(ground, same)}`,
      says: `${nameOf(ground, part)} is recorded in two places with the same marking and mass: in ${placeName(ground, same)} and in ${placeName(ground, part)}`,
      suspects: [
        {
          ...{ key: `${part.id} twice`, rule: 'twice', says: `${part.name} is recorded twice`, short: 'recorded twice', fit: 0.8 },
          mend: null,
        },
      ],
    }),
  ];
};

const placeName = (ground: Ground, part: Part): string =>
  ground.parts.get(part.parentId ?? '')?.name ?? ground.record.subsystems.find((one) => one.id === part.subsystemId)?.name ?? '';

/** Checks of counts. */
export const COUNT_CHECKS: readonly Check[] = [
  {
    ...{ id: 'counts-of-hands', name: 'Counts, left against right', severity: 'doubtful', blocks: 'cost', ofPart: handsCheck },
    ...{ asks: 'Is as much counted on the left as on the right?', needs: 'both hands in the same place' },
  },
  {
    ...{ id: 'counts-of-neighbours', name: 'Counts against neighbours', severity: 'doubtful', blocks: 'cost', ofPart: neighbourCheck },
    ...{
      asks: 'Is as much counted on parts that differ by their place only?',
      needs: 'parts called alike but for upper, lower, front, rear',
    },
  },
  {
    ...{
      id: 'counts-and-earlier',
      name: 'Counts against the earlier model',
      severity: 'doubtful',
      blocks: 'compare',
      ofPart: earlierCheck,
    },
    ...{ asks: 'Is a part that was carried over held by as many?', needs: 'the same part with the same mass on the vehicle it follows' },
  },
  {
    ...{ id: 'one-hand', name: 'The other hand', severity: 'missing', blocks: 'cost', ofPart: oneHandCheck },
    ...{ asks: 'Has every left part its right one?', needs: 'the hand of a part' },
  },
  {
    ...{ id: 'opened-empty', name: 'Opened and empty', severity: 'missing', blocks: 'cost', ofPart: openedCheck },
    ...{ asks: 'Is something recorded inside what was opened?', needs: 'that a part was opened' },
  },
  {
    ...{
      id: 'no-cable',
      name: 'Connectors without a cable',
      severity: 'missing',
      blocks: 'cost',
      reads: ['parts', 'connections'],
      ofRecord: cableCheck,
    },
    ...{ asks: 'Has every connector its cable?', needs: 'a connector' },
  },
  {
    ...{ id: 'in-two-places', name: 'Parts in two places', severity: 'wrong', blocks: 'cost', ofPart: twiceCheck },
    ...{ asks: 'Is a part recorded once?', needs: 'marking and mass of a part' },
  },
];
