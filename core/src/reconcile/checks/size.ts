import { fixed, lengthText, READ_IN, threeDigits } from '../../shared';
import type { Connection, FastenerSet, Part, Triple } from '../../record';
import { envelopeOf } from '../../bench';
import { routeOf, type PortsById } from '../../measure';
import { bends } from '../bends';
import { type Check, type Finding, type Suspect, NOTHING } from '../finding';
import type { Ground } from '../ground';
import { fitOf, slipSuspects, type Slipping } from '../slips';
import { finding, nameOf, ofPart, toLookAt, told, worked } from '../said';

const SIDES = ['lengthM', 'widthM', 'heightM'] as const;
type Side = (typeof SIDES)[number];
const SIDE_WORD: Readonly<Record<Side, string>> = { lengthM: 'Length', widthM: 'Width', heightM: 'Height' };

const boxOf = (part: Part): Slipping => ({ entity: 'part', row: part, fields: SIDES, of: 'length', name: part.name });
const sideOf = (part: Part, side: Side): Slipping => ({ ...boxOf(part), fields: [side] });

const sorted = (sides: Triple): Triple => [...sides].sort((a, b) => b - a) as unknown as Triple;
const diagonal = ([a, b, c]: Triple): number => Math.hypot(a, b, c);
const times = (sides: Triple, factor: number): Triple => [sides[0] * factor, sides[1] * factor, sides[2] * factor];
const withSide = (sides: Triple, at: number, factor: number): Triple =>
  sides.map((side, i) => (i === at ? side * factor : side)) as unknown as Triple;

/** Sizes are read to so much; assumed. */
const READ_M = 0.004;
const ROOM = 1.08;

/** How well a box goes into another: fully, or less by how much it stands out. What is a thousandth of it is no part of it any more. */
const goesInto = (inner: Triple, outer: Triple): number => {
  const [own, around] = [sorted(inner), sorted(outer)];
  if (own[0] < 0.004 * around[0]) return 0.02;
  const out = Math.max(own[0] / (diagonal(around) * ROOM + READ_M), own[1] / (Math.hypot(around[0], around[1]) * ROOM + READ_M), own[2] / (around[1] * ROOM + READ_M));
  return out <= 1 ? 1 : fitOf(out, { value: 1, lnU: 0.1 });
}; // prettier-ignore

/** Readings of an envelope that agree with what is expected of all three sides: all in another unit, or one side slipped. */
const boxSuspects = (part: Part, sides: Triple, fits: (sides: Triple) => number): readonly Suspect[] => [
  ...slipSuspects(boxOf(part), 1, (factor) => fits(times(sides, factor))),
  ...SIDES.flatMap((side, at) => slipSuspects(sideOf(part, side), 1, (factor) => fits(withSide(sides, at, factor)))),
];

const insideCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const parent = ground.parts.get(part.parentId ?? '');
  const [own, around] = [envelopeOf(part), parent ? envelopeOf(parent) : null];
  if (!own || !around || !parent || bends(part)) return NOTHING;
  if (goesInto(own, around) > 0.2) return NOTHING;
  return [
    ofPart('envelope-in-parent', part, 'lengthM', {
      title: `Envelope inside ${parent.name}`,
      says: `${nameOf(ground, part)} does not fit into ${parent.name}: its longest side is ${lengthText(Math.max(...own))}, the diagonal of the whole ${lengthText(Math.round(diagonal(around) * 1000) / 1000)}`,
      compared: { recorded: worked(Math.max(...own), 0, 'M'), against: worked(diagonal(around), 0, 'M'), readIn: READ_IN.mm },
      suspects: [
        ...boxSuspects(part, own, (sides) => 0.7 * goesInto(sides, around)),
        ...boxSuspects(parent, around, (sides) => 0.6 * goesInto(own, sides)),
        toLookAt(`${part.id} elsewhere`, 'wrong tag', `${part.name} is not inside ${parent.name}: it was put there by a wrong tag or line`, 'belongs elsewhere', 0.3),
      ],
    }),
  ];
}; // prettier-ignore

/** How alike two boxes are, side by side from the longest. */
const boxesAlike =
  (lnU: number) =>
  (a: Triple, b: Triple): number =>
    sorted(a).reduce((fit, side, i) => {
      const other = sorted(b)[i]!;
      return Math.abs(side - other) < READ_M ? fit : fit * fitOf(side, { value: other, lnU });
    }, 1);

/** A hand on a calliper and a box around a scan agree to so much, as a factor; two hands of a part do; counterparts do. Assumed. */
const [SCAN_LN_U, HANDS_LN_U, COUNTERPART_LN_U] = [0.06, 0.03, 0.4];
/** What agrees this badly contradicts: exp(−½ · 4²) */
const LEAST_AGREE = Math.exp(-8);

const boxAgainst = (
  ground: Ground,
  part: Part,
  other: { readonly sides: Triple; readonly lnU: number; readonly part: Part | null },
  said: { readonly check: string; readonly title: string; readonly says: string; readonly more?: readonly Suspect[] },
): readonly Finding[] => {
  const own = envelopeOf(part);
  const alike = boxesAlike(other.lnU);
  if (!own || alike(own, other.sides) >= LEAST_AGREE) return NOTHING;
  const { part: its } = other;
  // the sides that are apart most are the ones shown
  const [a, b] = [sorted(own), sorted(other.sides)];
  const worst = [0, 1, 2].sort((i, j) => Math.abs(Math.log(a[j]! / b[j]!)) - Math.abs(Math.log(a[i]! / b[i]!)))[0]!;
  return [
    ofPart(said.check, part, 'lengthM', {
      title: said.title,
      says: `${nameOf(ground, part)} is ${threeDigits(a[worst]! / b[worst]!)} times as large as ${said.says}`,
      compared: { recorded: worked(a[worst]!, 0, 'M'), against: worked(b[worst]!, 0, 'M'), readIn: READ_IN.mm },
      suspects: [
        ...boxSuspects(part, own, (sides) => alike(sides, other.sides)),
        ...(its ? boxSuspects(its, other.sides, (sides) => alike(own, sides)) : []),
        ...(said.more ?? []),
      ],
    }),
  ];
};

const SCAN_UNIT_FACTORS: readonly (readonly [string, number])[] = [
  ['inches', 25.4],
  ['centimetres', 10],
  ['metres', 1000],
  ['millimetres', 0.001],
];

const scanBoxCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const scan = ground.scans.at(part.id)[0];
  const own = envelopeOf(part);
  if (!scan || !own) return NOTHING;
  const sides = scan.figures.minimumM;
  if (!sides.every((side) => side > 0)) return NOTHING;
  const alike = boxesAlike(SCAN_LN_U);
  const more = SCAN_UNIT_FACTORS.flatMap(([word, factor]) => {
    const fit = alike(own, times(sides, factor));
    return fit < 0.03 ? [] : [toLookAt(`${scan.id} unit ${word}`, 'unit', `The scan of ${part.name} is in ${word}, not in ${scan.unit}`, `scan in ${word}`, fit)]; // prettier-ignore
  });
  return boxAgainst(ground, part, { sides, lnU: SCAN_LN_U, part: null }, { check: 'envelope-and-scan', title: 'Envelope against the box of its scan', says: 'its scan', more }); // prettier-ignore
};

const counterpartBox = (ground: Ground, part: Part): readonly Finding[] => {
  if (bends(part)) return NOTHING;
  const others = ground.alike(part).filter((one) => envelopeOf(one) !== null);
  const hand = others.find((one) => one.vehicleId === part.vehicleId && one.parentId === part.parentId && one.hand !== part.hand);
  if (hand && part.hand === 'right')
    return boxAgainst(ground, part, { sides: envelopeOf(hand)!, lnU: HANDS_LN_U, part: hand }, { check: 'envelope-of-hands', title: 'Envelope, left against right', says: 'the other hand' }); // prettier-ignore
  const other = others.find((one) => one.vehicleId !== part.vehicleId);
  if (!other || (part.id < other.id && others.length === 1)) return NOTHING;
  const lonely = others.filter((one) => one.vehicleId !== part.vehicleId).length === 1;
  const far = others.filter((one) => one.vehicleId !== part.vehicleId).every((one) => boxesAlike(COUNTERPART_LN_U)(envelopeOf(part) ?? [1, 1, 1], envelopeOf(one)!) < LEAST_AGREE);
  if (!far) return NOTHING;
  return boxAgainst(ground, part, { sides: envelopeOf(other)!, lnU: COUNTERPART_LN_U, part: lonely ? other : null }, { check: 'envelope-of-counterparts', title: `Envelope, against ${ground.vehicleName(other.vehicleId)}`, says: 'the part of the same name there' }); // prettier-ignore
}; // prettier-ignore

/** Length of a bolt over its thread: shorter than a nut is high, or longer than a through bolt of a whole pack. Assumed. */
const [SHORTEST, LONGEST] = [0.5, 45];
const THREADED = new Set(['bolt', 'screw', 'stud']);
/** threads of vehicles, m; assumed */
const [THINNEST_M, THICKEST_M] = [0.0015, 0.036];

const lengthFit = (set: FastenerSet, lengthM: number, threadM: number): number => {
  const ratio = lengthM / threadM;
  const ofThread = threadM < THINNEST_M ? fitOf(threadM, { value: THINNEST_M, lnU: 0.2 }) : threadM > THICKEST_M ? fitOf(threadM, { value: THICKEST_M, lnU: 0.2 }) : 1;
  return ofThread * (ratio < SHORTEST ? fitOf(ratio, { value: SHORTEST, lnU: 0.3 }) : ratio > LONGEST ? fitOf(ratio, { value: LONGEST, lnU: 0.3 }) : 1);
}; // prettier-ignore

const fastenerSize = (ground: Ground, part: Part): readonly Finding[] =>
  ground.fasteners.at(part.id).flatMap((set): readonly Finding[] => {
    const { threadM, lengthM } = set;
    if (!threadM || !lengthM || !THREADED.has(set.kind) || lengthFit(set, lengthM, threadM) > 0.5) return NOTHING;
    const of = (field: string): Slipping => ({ entity: 'fasteners', row: set, fields: [field], of: 'length', name: `a ${set.kind} of ${part.name}` }); // prettier-ignore
    // the usual ratio decides between readings that are both possible
    const usual = (length: number, thread: number): number => lengthFit(set, length, thread) * fitOf(length / thread, { value: 3, lnU: 1 });
    return [
      finding('fastener-size', { entity: 'fasteners', id: set.id, field: 'lengthM' }, {
        part,
        title: `Length of a ${set.kind} over its thread`,
        says: `A ${set.kind} of ${nameOf(ground, part)} is ${lengthText(lengthM)} long with a thread of ${lengthText(threadM)}`,
        compared: { recorded: told('fasteners', set, 'lengthM'), against: worked(3 * threadM, 2 * threadM), readIn: READ_IN['mm to 2'] },
        suspects: [
          ...slipSuspects(of('lengthM'), 1, (factor) => usual(lengthM * factor, threadM)),
          ...slipSuspects(of('threadM'), 1, (factor) => usual(lengthM, threadM * factor)),
        ],
      }),
    ];
  }); // prettier-ignore

/** Lines are seldom longer than so many times the way between their ends. Assumed. */
const [DETOUR, SLACK_M] = [6, 0.6];

const lineFit = (lengthM: number, straightM: number): number =>
  lengthM < straightM - 0.01
    ? fitOf(lengthM, { value: Math.max(straightM, 0.01), lnU: 0.05 })
    : lengthM > DETOUR * straightM + SLACK_M
      ? fitOf(lengthM, { value: DETOUR * straightM + SLACK_M, lnU: 0.2 })
      : fitOf(lengthM, { value: 1.4 * straightM + 0.05, lnU: 0.8 });

const lineCheck = (ground: Ground, part: Part, line: Connection, ports: PortsById): readonly Finding[] => {
  const { straightM } = routeOf(line, part.name, ports);
  const lengthM = line.lengthEachM;
  if (straightM === null || !lengthM) return NOTHING;
  const isShort = lengthM < straightM - 0.01;
  if (!isShort && lengthM <= DETOUR * straightM + SLACK_M) return NOTHING;
  const slipping: Slipping = { entity: 'connection', row: line, fields: ['lengthEachM'], of: 'length', name: `the ${line.kind} of ${part.name}` }; // prettier-ignore
  return [
    finding('run-and-ends', { entity: 'connection', id: line.id, field: 'lengthEachM' }, {
      part,
      title: `Length of a ${line.kind}, against its ends`,
      says: `The ${line.kind} of ${nameOf(ground, part)} is ${fixed(lengthM, 3)} m long, and its ends are ${fixed(straightM, 3)} m apart`,
      compared: { recorded: told('connection', line, 'lengthEachM'), against: worked(straightM, 0), readIn: READ_IN.m },
      suspects: [
        ...slipSuspects(slipping, 1, (factor) => lineFit(lengthM * factor, straightM)),
        toLookAt(`${line.id} ends`, 'typed wrong', `The place of an end of the ${line.kind} of ${part.name} is wrong`, 'place of an end', 0.4),
      ],
    }),
  ];
}; // prettier-ignore

const runCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const lines = ground.connections.at(part.id).filter((line) => line.kind !== 'connector' && line.fromPortId !== null && line.toPortId !== null);
  const own = envelopeOf(part);
  const longest = own ? Math.max(...own) : null;
  const alone =
    part.runLengthM !== null && longest !== null && part.runLengthM < longest * 0.9
      ? [
          ofPart('run-and-ends', part, 'runLengthM', {
            title: 'Run length, against its envelope',
            says: `${nameOf(ground, part)} is said to run ${fixed(part.runLengthM, 3)} m, and its envelope is ${fixed(longest, 3)} m long`,
            compared: { recorded: told('part', part, 'runLengthM'), against: worked(longest, 0, 'M'), readIn: READ_IN.m },
            suspects: [
              ...slipSuspects({ ...boxOf(part), fields: ['runLengthM'] }, 1, (factor) => lineFit(part.runLengthM! * factor, longest)),
              ...slipSuspects(boxOf(part), 1, (factor) => 0.8 * lineFit(part.runLengthM!, longest * factor)),
            ],
          }),
        ]
      : [];
  if (lines.length === 0) return alone;
  const ports = ground.ports();
  return [...alone, ...lines.flatMap((line) => lineCheck(ground, part, line, ports))];
}; // prettier-ignore

/** A twisted envelope: two sides typed alike to the last digit, on a part whose other hand has them different. */
const repeatedSides = (part: Part, other: Part): Side | null => {
  for (const [a, b] of [['lengthM', 'widthM'], ['widthM', 'heightM']] as const)
    if (part[a] !== null && part[a] === part[b] && other[a] !== other[b]) return b;
  return null;
}; // prettier-ignore

const repeatedCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (bends(part)) return NOTHING;
  const other = ground.alike(part).find((one) => envelopeOf(one) !== null && envelopeOf(part) !== null);
  const side = other ? repeatedSides(part, other) : null;
  if (!other || side === null || repeatedSides(other, part) !== null) return NOTHING;
  const first = side === 'widthM' ? part.lengthM! : part.widthM!;
  // a round size is often square
  if (Math.abs(first * 200 - Math.round(first * 200)) < 1e-6) return NOTHING;
  return [
    ofPart('repeated-figures', part, side, {
      title: `${SIDE_WORD[side]}, typed twice`,
      says: `${nameOf(ground, part)} has the same figure, ${lengthText(first)}, for two sides, and its counterpart two different ones`,
      compared: { recorded: told('part', part, side), against: worked(other[side]!, 0, 'M'), readIn: READ_IN['mm to 2'] },
      suspects: [toLookAt(`${part.id} ${side} twice`, 'typed wrong', `${SIDE_WORD[side]} of ${part.name} was typed twice`, 'same figure twice', 0.8)],
    }),
  ];
}; // prettier-ignore

/** Checks of sizes. */
export const SIZE_CHECKS: readonly Check[] = [
  {
    ...{ id: 'envelope-in-parent', name: 'Envelope against what it is inside of', severity: 'wrong', blocks: 'compare', ofPart: insideCheck },
    ...{ asks: 'Does a part fit into what it is inside of?', needs: 'envelopes of both' },
  },
  {
    ...{ id: 'envelope-and-scan', name: 'Envelope against scan', severity: 'wrong', blocks: 'compare', ofPart: scanBoxCheck },
    ...{ asks: 'Is the envelope that of the scan?', needs: 'envelope and scan' },
  },
  {
    ...{ id: 'envelope-of-counterparts', name: 'Envelope against counterparts', severity: 'doubtful', blocks: 'compare', ofPart: counterpartBox },
    ...{ asks: 'Is a part as large as its other hand, and of the order of its counterparts?', needs: 'the same part elsewhere, with envelopes' },
  },
  {
    ...{ id: 'fastener-size', name: 'Length of fasteners', severity: 'doubtful', blocks: 'cost', ofPart: fastenerSize },
    ...{ asks: 'Does the length of a fastener go with its thread?', needs: 'thread and length' },
  },
  {
    ...{ id: 'run-and-ends', name: 'Length of runs against their ends', severity: 'doubtful', blocks: 'compare', ofPart: runCheck },
    ...{ asks: 'Is a line as long as the way it leads?', needs: 'length, and the places of its ends' },
  },
  {
    ...{ id: 'repeated-figures', name: 'Repeated figures', severity: 'doubtful', blocks: 'compare', ofPart: repeatedCheck },
    ...{ asks: 'Was one figure typed twice?', needs: 'the same part elsewhere, with envelopes' },
  },
]; // prettier-ignore
