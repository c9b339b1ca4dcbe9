import { fixed, massText, materialById, READ_IN, threeDigits, type ShownUnit } from '../../shared';
import { massSaid, type FastenerSet, type Part } from '../../record';
import {
  boxVolumeM3,
  canBeMeasured,
  envelopeOf,
  fastenerMass,
  heavierThanSolid,
  standardFastenerMass,
  unlikelyFastenerMass,
} from '../../bench';
import { density, materialsByDensity } from '../../measure';
import { bends } from '../bends';
import { type Check, type Finding, type Suspect, NOTHING } from '../finding';
import type { Ground } from '../ground';
import { contradicts, fitOf, slipSuspects, type Expected, type Slipping } from '../slips';
import { editOp, finding, nameOf, ofPart, toLookAt, told, worked } from '../said';

const KG: ShownUnit = { ...READ_IN.kg, digits: 4 };
const G_PER_CM3: ShownUnit = { per: 1000, unit: 'g/cm³', digits: 2 };

const massOf = (part: Part): Slipping => ({ entity: 'part', row: part, fields: ['massEachKg'], of: 'mass', name: part.name });
const massOfSet = (set: FastenerSet, of: Part): Slipping => ({
  entity: 'fasteners',
  row: set,
  fields: ['massEachKg'],
  of: 'mass',
  name: `a ${set.kind} of ${of.name}`,
});

/** Relative standard uncertainty of a mass, at least so much. */
const relativeU = (part: Part, least: number): number => Math.max(least, (massSaid(part)?.u ?? 0) / (part.massEachKg ?? 1));

/** A bead of adhesive is about so large in section and so heavy; assumed, ± 50 % (standard uncertainty). */
const BEAD_KG_PER_M = 24e-6 * 1200;
const BEAD_U = 0.5;

/** A part inside an assembly whose own mass enters the sum of it, and how many of it there are. */
interface Entering {
  readonly part: Part;
  readonly times: number;
}

/** At most so many parts of an assembly are looked at for the cause of its residual. */
const MOST_INSIDE = 400;

/** Parts whose own mass enters the sum of an assembly, from the top. */
const entering = (ground: Ground, whole: Part): readonly Entering[] => {
  const found: Entering[] = [];
  const waiting: Entering[] = ground.inside.at(whole.id).map((part) => ({ part, times: part.quantity }));
  while (waiting.length > 0 && found.length < MOST_INSIDE) {
    const next = waiting.pop()!;
    found.push(next);
    for (const part of ground.inside.at(next.part.id)) waiting.push({ part, times: next.times * part.quantity });
  }
  return found;
};

/** What an assembly weighs that no part of it does: adhesive by its length, fluids left inside. kg and standard uncertainty. */
const allowances = (
  ground: Ground,
  whole: Part,
  inside: readonly Entering[],
): { readonly kg: number; readonly uKg: number; readonly says: string } => {
  const all = [{ part: whole, times: 1 }, ...inside];
  const beadsM = all.reduce(
    (sum, { part, times }) =>
      sum +
      ground.joints
        .at(part.id)
        .reduce((own, set) => own + (set.kind === 'adhesive bead' ? set.count * times * (set.lengthEachM ?? 0) : 0), 0),
    0,
  );
  const ids = new Set(all.map(({ part }) => part.id));
  const fluidKg = ground.record.fluids.reduce(
    (sum, fluid) => sum + (ids.has(fluid.partId) && !fluid.drained ? (fluid.massEachKg ?? 0) : 0),
    0,
  );
  const adhesiveKg = beadsM * BEAD_KG_PER_M;
  const says = [
    ...(adhesiveKg > 0 ? [`${massText(adhesiveKg, 4)} of adhesive`] : []),
    ...(fluidKg > 0 ? [`${massText(fluidKg, 3)} of fluid left inside`] : []),
  ].join(' and ');
  return { kg: adhesiveKg + fluidKg, uKg: adhesiveKg * BEAD_U, says };
};

/** Of many closures some are 2 u apart by chance; from so many standard uncertainties on one is looked at. */
const DOUBTED_FROM = 3;

/** A cause inside an assembly of many parts explains its residual at least so well. Assumed. */
const LEAST_SHARE = 0.06;

/** Counts that may be off by one or two. */
const OFF_BY = [1, -1, 2, -2];

/** How well an amount takes away a residual. */
const takesAway =
  (residualKg: number, uKg: number) =>
  (kg: number): number =>
    Math.exp(-0.5 * ((residualKg - kg) / uKg) ** 2);

const insideSuspects = (ground: Ground, { part, times }: Entering, closes: (kg: number) => number): readonly Suspect[] => {
  const massKg = part.massEachKg;
  const ofMass =
    massKg === null || !(massKg > 0) ? [] : slipSuspects(massOf(part), part.quantity, (factor) => closes(times * massKg * (factor - 1)));
  const perOne = massKg === null ? 0 : (times / part.quantity) * massKg;
  const ofCount = OFF_BY.flatMap((by): readonly Suspect[] => {
    const count = part.quantity + by;
    const fit = perOne > 0 && count > 0 ? closes(perOne * by) : 0;
    if (fit < 0.1) return [];
    return [
      {
        ...{ key: `${part.id} quantity ${by}`, rule: 'counted wrong', says: `${part.name}: ${part.quantity} counted, ${count} would close it`, short: `${count}, not ${part.quantity}`, fit },
        mend: { field: 'Quantity', from: String(part.quantity), to: String(count), ops: [editOp('part', part, 'quantity', count)] },
      },
    ];
  }); // prettier-ignore
  const ofSets = ground.fasteners.at(part.id).flatMap((set) => {
    const each = fastenerMass(set);
    if (each === null || set.massEachKg === null) return [];
    return slipSuspects(massOfSet(set, part), set.count, (factor) => closes(times * set.count * each.kg * (factor - 1)));
  });
  return [...ofMass, ...ofCount, ...ofSets];
};

const closureCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.massEachKg === null || ground.inside.at(part.id).length === 0) return NOTHING;
  const closure = ground.closure(part);
  if (!closure || closure.state === 'closed' || (closure.state === 'short' && !closure.sum.isComplete)) return NOTHING;
  const inside = entering(ground, part);
  const allowed = allowances(ground, part, inside);
  const residualKg = closure.residualKg - allowed.kg;
  const uKg = Math.hypot(closure.residualUKg, allowed.uKg);
  // a scale and a hand that lays parts on it are never better than a thousandth
  const leastKg = Math.max(DOUBTED_FROM * uKg, 0.001 * closure.whole.massKg, 0.0005);
  if (Math.abs(residualKg) <= leastKg) return NOTHING;
  // each of many parts may close it by chance: the more there are, the less it says that one does
  const share = Math.min(1, Math.max(LEAST_SHARE, 2 / inside.length));
  const fits = takesAway(residualKg, Math.hypot(uKg, 0.005 * residualKg, 0.0005));
  const suspects = inside.flatMap((one) => insideSuspects(ground, one, fits)).map((suspect) => ({ ...suspect, fit: suspect.fit * share }));
  const sum: Expected = { value: closure.sum.massKg + allowed.kg, lnU: Math.max(0.01, uKg / closure.whole.massKg) };
  const ofWhole = sum.value > 0 ? slipSuspects(massOf(part), part.quantity, (factor) => fitOf(closure.whole.massKg * factor, sum)) : [];
  const lost = residualKg > 0 ? [toLookAt(`${part.id} lost inside`, 'not recorded', `${massText(residualKg, 3)} inside ${part.name} is not recorded`, 'part not recorded', 0.5)] : []; // prettier-ignore
  const more = residualKg < 0 ? [toLookAt(`${part.id} weighed without`, 'not recorded', `${part.name} was weighed without something that is recorded inside it`, 'weighed without a part', 0.4)] : []; // prettier-ignore
  const besides = allowed.says === '' ? '' : `, with ${allowed.says} allowed for`;
  return [
    ofPart('mass-closure', part, 'massEachKg', {
      title: `Closure, ${part.name}`,
      says:
        residualKg > 0
          ? `${massText(residualKg, 3)} of ${part.name} is not accounted for by what is inside it${besides}`
          : `What is inside ${part.name} weighs ${massText(-residualKg, 3)} more than the whole${besides}`,
      compared: {
        recorded: worked(closure.sum.massKg + allowed.kg, Math.sqrt(closure.sum.massVar + allowed.uKg ** 2)),
        against: told('part', part, 'massEachKg'),
        readIn: KG,
      },
      suspects: [...suspects, ...ofWhole, ...lost, ...more],
    }),
  ];
};

/** A density of the catalogue stands for a material that varies by so much; a family by so much more. Assumed. */
const GRADE_LN_U = 0.015;
const FAMILY_LN_U: Readonly<Record<string, number>> = { steel: 0.02, aluminium: 0.03, glass: 0.03 };
const OTHER_FAMILY_LN_U = 0.2;
/** Factors a scan taken in a wrong unit leaves in its volume. */
const SCAN_SLIPS: readonly (readonly [word: string, factor: number])[] = [
  ['inches', 25.4 ** 3],
  ['centimetres', 1000],
  ['metres', 1e9],
  ['millimetres', 1e-9],
];

const densityCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const material = materialById.get(part.materialId ?? '');
  const scan = ground.scans.at(part.id).find((one) => one.figures.volumeM3 !== null);
  if (!material || !scan || !part.massEachKg) return NOTHING;
  const volumeM3 = scan.figures.volumeM3!;
  const read = density({ massKg: part.massEachKg, uKg: massSaid(part)?.u ?? 0 }, { volumeM3, uM3: scan.figures.volumeUM3 ?? 0 });
  const materialU = material.gradeKnown ? GRADE_LN_U : (FAMILY_LN_U[material.family] ?? OTHER_FAMILY_LN_U);
  const expected: Expected = {
    value: material.densityKgPerM3,
    lnU: Math.max(0.01, Math.hypot(read.uKgPerM3 / read.densityKgPerM3, materialU)),
  };
  if (!contradicts(read.densityKgPerM3, expected)) return NOTHING;
  const ratio = read.densityKgPerM3 / material.densityKgPerM3;
  const loose = { ...expected, lnU: Math.max(0.04, expected.lnU) };
  const ofMass = slipSuspects(massOf(part), part.quantity, (factor) => fitOf(read.densityKgPerM3 * factor, loose));
  const ofScan = SCAN_SLIPS.flatMap(([word, factor]): readonly Suspect[] => {
    const fit = fitOf(read.densityKgPerM3 / factor, loose);
    return fit < 0.03 ? [] : [toLookAt(`${scan.id} unit ${word}`, 'unit', `The scan of ${part.name} is in ${word}, not in ${scan.unit}`, `scan in ${word}`, fit)]; // prettier-ignore
  });
  const near = materialsByDensity(read).find((m) => m.material.id !== material.id && m.apart < 2);
  const other: readonly Suspect[] = near
    ? [
        {
          ...{ key: `${part.id} materialId ${near.material.id}`, rule: 'other material', fit: 0.6 },
          ...{
            says: `${part.name} has the density of ${near.material.name}, not of ${material.name}`,
            short: `${near.material.name} instead`,
          },
          mend: {
            field: 'Material',
            from: material.name,
            to: near.material.name,
            ops: [editOp('part', part, 'materialId', near.material.id)],
          },
        },
      ]
    : [];
  const hollow = ratio < 1 && ratio > 0.02 ? [toLookAt(`${part.id} hollow`, 'hollow', `${part.name} is hollow: the scan sees its outside as full`, 'hollow', ratio > 0.15 ? 0.4 : 0.1)] : []; // prettier-ignore
  const insert = ratio > 1 && ratio < 3 ? [toLookAt(`${part.id} insert`, 'weighed together', `${part.name} was weighed with an insert or a fastener of something heavier`, 'weighed with more', 0.3)] : []; // prettier-ignore
  const tag = [toLookAt(`${part.id} wrong tag`, 'wrong tag', `Mass and scan of ${part.name} are of two parts`, 'wrong tag', 0.2)];
  return [
    ofPart('density', part, 'massEachKg', {
      title: `Density by scan, ${material.name}`,
      says: `Mass over scanned volume of ${nameOf(ground, part)} is ${threeDigits(read.densityKgPerM3 / 1000)} g/cm³; ${material.name} has ${threeDigits(material.densityKgPerM3 / 1000)}`,
      compared: {
        recorded: worked(read.densityKgPerM3, read.uKgPerM3, massSaid(part)?.mark ?? null),
        against: worked(material.densityKgPerM3, materialU * material.densityKgPerM3, 'T'),
        readIn: G_PER_CM3,
      },
      suspects: [...ofMass, ...ofScan, ...other, ...hollow, ...insert, ...tag],
    }),
  ];
};

/** How well a part of this mass goes into its box: fully from this share of solid to solid, and less beyond. Assumed. */
const LEAST_FILL = 0.004;
const fillFit = (fill: number): number =>
  fill > 1.1 ? fitOf(fill, { value: 1, lnU: 0.15 }) : fill < LEAST_FILL ? fitOf(fill, { value: LEAST_FILL, lnU: 0.6 }) : 1;

/** So many times solid a part of plastic or rubber with an insert of steel may be. Assumed. */
const WITH_INSERT = 3;
/** Foams of one name differ in density by so much. Assumed. */
const OF_FOAM = 12;
const METALS: readonly string[] = ['steel', 'aluminium', 'magnesium and zinc', 'copper'];
const isMetal = (part: Part): boolean => METALS.includes(materialById.get(part.materialId ?? '')?.family ?? '');

/** Foams and felts are named by their solid as often as by what they weigh. */
const isLight = (part: Part): boolean => (materialById.get(part.materialId ?? '')?.densityKgPerM3 ?? 0) < 700;

const solidCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const envelope = envelopeOf(part);
  const material = materialById.get(part.materialId ?? '');
  if (!envelope || !material || !part.massEachKg || ground.inside.at(part.id).length > 0) return NOTHING;
  const solidKg = boxVolumeM3(envelope) * material.densityKgPerM3;
  const fill = part.massEachKg / solidKg;
  // a plastic or rubber part may have an insert of metal in it
  const tooHeavy = heavierThanSolid(part) !== '' && fill > (isMetal(part) ? 1 : isLight(part) ? OF_FOAM : WITH_INSERT);
  const tooLight = fill < LEAST_FILL / 8 && !isLight(part) && !bends(part);
  if (!tooHeavy && !tooLight) return NOTHING;
  const ofMass = slipSuspects(massOf(part), part.quantity, (factor) => 0.8 * fillFit(fill * factor));
  const sides: Slipping = { entity: 'part', row: part, fields: ['lengthM', 'widthM', 'heightM'], of: 'length', name: part.name };
  const ofBox = slipSuspects(sides, 1, (factor) => 0.8 * fillFit(fill / factor ** 3));
  return [
    ofPart('heavier-than-solid', part, 'massEachKg', {
      title: tooHeavy ? `Mass in its envelope, ${material.name}` : `Mass of its envelope, ${material.name}`,
      says: tooHeavy
        ? `${nameOf(ground, part)} is heavier than its envelope filled with ${material.name}: ${threeDigits(fill)} times`
        : `${nameOf(ground, part)} weighs ${threeDigits(fill * 100)} % of its envelope filled with ${material.name}: hardly anything would be there`,
      compared: { recorded: told('part', part, 'massEachKg'), against: worked(solidKg, 0), readIn: KG },
      suspects: [...ofMass, ...ofBox],
    }),
  ];
};

/** Made of many sheets, or of fins. */
const MANY_SHEETS = /\b(?:core|radiator|exchanger|cooler|evaporator|condenser|stack|fins?|lamination)\b/i;
const SHEET = new Set(['stamping', 'hot-stamping', 'roll-forming']);
/** The developed area of a sheet part against the faces of its box: from this share of the largest face to this multiple of three faces. Assumed. */
const [LEAST_FACE, MOST_FACES] = [0.15, 1.6];

const sheetCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const material = materialById.get(part.materialId ?? '');
  const { wallThicknessM: thickM, massEachKg: massKg } = part;
  if (
    !SHEET.has(part.processId ?? '') ||
    MANY_SHEETS.test(part.name) ||
    !material ||
    !thickM ||
    !massKg ||
    ground.inside.at(part.id).length > 0
  )
    return NOTHING;
  const areaM2 = massKg / (thickM * material.densityKgPerM3);
  const scanned = ground.scans.at(part.id)[0]?.figures.areaM2 ?? null;
  const envelope = envelopeOf(part);
  if (scanned === null && !envelope) return NOTHING;
  const [a, b, c] = [...(envelope ?? [0, 0, 0])].sort((x, y) => y - x) as [number, number, number];
  const [low, high] =
    scanned === null ? [LEAST_FACE * a * b, MOST_FACES * (a * b + a * c + b * c)] : [scanned / 2 / 1.15, (scanned / 2) * 1.1];
  const fitArea = (area: number): number =>
    area < low ? fitOf(area, { value: low, lnU: 0.15 }) : area > high ? fitOf(area, { value: high, lnU: 0.15 }) : 1;
  if (areaM2 > low / 1.5 && areaM2 < high * 1.5) return NOTHING;
  const thick: Slipping = { entity: 'part', row: part, fields: ['wallThicknessM'], of: 'length', name: part.name };
  const sides: Slipping = { ...thick, fields: ['lengthM', 'widthM', 'heightM'] };
  const middle = Math.sqrt(low * high);
  return [
    ofPart('sheet-mass', part, 'massEachKg', {
      title: `Thickness × area × density, ${material.name}`,
      says: `${nameOf(ground, part)}: its mass and thickness make ${fixed(areaM2 * 1e4, 0)} cm² of sheet, ${scanned === null ? 'its envelope' : 'its scan'} ${fixed(low * 1e4, 0)} to ${fixed(high * 1e4, 0)}`,
      compared: {
        recorded: told('part', part, 'massEachKg'),
        against: worked(middle * thickM * material.densityKgPerM3, ((high - low) / 4) * thickM * material.densityKgPerM3),
        readIn: KG,
      },
      suspects: [
        ...slipSuspects(massOf(part), part.quantity, (factor) => 0.8 * fitArea(areaM2 * factor)),
        ...slipSuspects(thick, 1, (factor) => 0.8 * fitArea(areaM2 / factor)),
        ...(envelope && scanned === null ? slipSuspects(sides, 1, (factor) => 0.8 * fitArea(areaM2 / factor ** 2)) : []),
      ],
    }),
  ];
};

/** Two hands of one part weigh the same within so much. Assumed. */
const HANDS_LN_U = 0.03;
/** The same part of two vehicles differs as a factor by so much. Assumed, from parts of one name in the demo. */
const COUNTERPART_LN_U = 0.5;

const isOtherHand = (a: Part, b: Part): boolean =>
  a.vehicleId === b.vehicleId && ((a.hand === 'left' && b.hand === 'right') || (a.hand === 'right' && b.hand === 'left'));

const handsCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.hand !== 'right' || !part.massEachKg) return NOTHING;
  const other = ground.alike(part).find((one) => isOtherHand(one, part) && one.parentId === part.parentId);
  if (!other?.massEachKg) return NOTHING;
  const lnU = Math.hypot(HANDS_LN_U, relativeU(part, 0), relativeU(other, 0));
  const expected: Expected = { value: other.massEachKg, lnU };
  if (!contradicts(part.massEachKg, expected)) return NOTHING;
  const [own, its] = [part.massEachKg, other.massEachKg];
  return [
    ofPart('mass-of-hands', part, 'massEachKg', {
      title: `Mass, left against right`,
      says: `${nameOf(ground, part)} weighs ${threeDigits(own / its)} times what the other hand weighs`,
      compared: { recorded: told('part', part, 'massEachKg'), against: told('part', other, 'massEachKg'), readIn: KG },
      suspects: [
        ...slipSuspects(massOf(part), part.quantity, (factor) => fitOf(own * factor, expected)),
        ...slipSuspects(massOf(other), other.quantity, (factor) => fitOf(own, { value: its * factor, lnU })),
      ],
    }),
  ];
};

const counterpartCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const massKg = part.massEachKg;
  if (!massKg) return NOTHING;
  const others = ground.alike(part).filter((one) => one.vehicleId !== part.vehicleId && one.massEachKg !== null && one.massEachKg > 0);
  if (others.length === 0) return NOTHING;
  const lns = others.map((one) => Math.log(one.massEachKg!)).sort((a, b) => a - b);
  const expected: Expected = { value: Math.exp(lns[Math.floor((lns.length - 1) / 2)]!), lnU: COUNTERPART_LN_U };
  if (!contradicts(massKg, expected)) return NOTHING;
  const first = others[0]!;
  // of two that contradict each other, the second of the record tells it
  if (others.length === 1 && part.id < first.id) return NOTHING;
  const ofOther =
    others.length > 1
      ? []
      : slipSuspects(massOf(first), first.quantity, (factor) => fitOf(massKg, { ...expected, value: expected.value * factor }));
  return [
    ofPart('mass-of-counterparts', part, 'massEachKg', {
      title: `Mass, against ${others.length === 1 ? ground.vehicleName(first.vehicleId) : `${others.length} counterparts`}`,
      says: `${nameOf(ground, part)} weighs ${threeDigits(massKg / expected.value)} times what the part of the same name does`,
      compared: { recorded: told('part', part, 'massEachKg'), against: worked(expected.value, expected.lnU * expected.value), readIn: KG },
      suspects: [...slipSuspects(massOf(part), part.quantity, (factor) => fitOf(massKg * factor, expected)), ...ofOther],
    }),
  ];
};

const fastenerCheck = (ground: Ground, part: Part): readonly Finding[] =>
  ground.fasteners.at(part.id).flatMap((set): readonly Finding[] => {
    const standard = standardFastenerMass(set);
    const massKg = set.massEachKg;
    if (!standard || !massKg || unlikelyFastenerMass(set, massKg) === '') return NOTHING;
    const expected: Expected = { value: standard.kg, lnU: Math.max(0.12, standard.uKg / standard.kg) };
    return [
      finding('fastener-mass', { entity: 'fasteners', id: set.id, field: 'massEachKg' }, {
        part,
        title: `Mass of a ${set.kind}, by its standard size`,
        says: `A ${set.kind} of ${nameOf(ground, part)} weighs ${threeDigits(massKg / standard.kg)} times what its standard size does`,
        compared: { recorded: told('fasteners', set, 'massEachKg'), against: worked(standard.kg, standard.uKg, standard.mark), readIn: { ...READ_IN.g, digits: 2 } },
        suspects: slipSuspects(massOfSet(set, part), set.count, (factor) => fitOf(massKg * factor, expected)),
      }),
    ];
  }); // prettier-ignore

const massMissing = (ground: Ground, part: Part): readonly Finding[] =>
  part.massEachKg === null && canBeMeasured(part) && ground.inside.at(part.id).length === 0
    ? [
        ofPart('no-mass', part, 'massEachKg', {
          title: `Mass of ${part.name}`,
          says: `${nameOf(ground, part)} has no mass`,
          suspects: [
            toLookAt(
              `${part.vehicleId} masses`,
              'not recorded',
              `Parts of ${ground.vehicleName(part.vehicleId)} are not weighed`,
              'not weighed',
              0.9,
            ),
          ],
        }),
      ]
    : NOTHING;

/** Checks of masses. */
export const MASS_CHECKS: readonly Check[] = [
  {
    ...{ id: 'mass-closure', name: 'Mass closure', severity: 'wrong', blocks: 'cost', ofPart: closureCheck },
    ...{ asks: 'Does a weighed assembly weigh what its parts do?', needs: 'a weighing of the whole, and the masses of all inside' },
  },
  {
    ...{ id: 'density', name: 'Density against material', severity: 'wrong', blocks: 'cost', ofPart: densityCheck },
    ...{ asks: 'Do mass and scan make the density of the material?', needs: 'mass, material and a closed scan' },
  },
  {
    ...{ id: 'heavier-than-solid', name: 'Mass in its envelope', severity: 'wrong', blocks: 'cost', ofPart: solidCheck },
    ...{ asks: 'Is a part lighter than its box filled solid, and heavier than air?', needs: 'mass, envelope and material' },
  },
  {
    ...{ id: 'sheet-mass', name: 'Thickness × area × density', severity: 'doubtful', blocks: 'cost', ofPart: sheetCheck },
    ...{
      asks: 'Do mass and thickness of a sheet part make an area it can have?',
      needs: 'mass, material, thickness, and envelope or scan',
    },
  },
  {
    ...{ id: 'mass-of-hands', name: 'Mass, left against right', severity: 'doubtful', blocks: 'compare', ofPart: handsCheck },
    ...{ asks: 'Do both hands of a part weigh the same?', needs: 'both hands in the same place, with masses' },
  },
  {
    ...{ id: 'mass-of-counterparts', name: 'Mass against the same part of other vehicles', severity: 'doubtful', blocks: 'compare' },
    ...{
      asks: 'Is a part of the order of its counterparts?',
      needs: 'a part of the same name and place on another vehicle',
      ofPart: counterpartCheck,
    },
  },
  {
    ...{ id: 'fastener-mass', name: 'Mass of fasteners', severity: 'doubtful', blocks: 'cost', ofPart: fastenerCheck },
    ...{ asks: 'Does a fastener weigh what its standard size does?', needs: 'mass, thread and length of a standard fastener' },
  },
  {
    ...{ id: 'no-mass', name: 'Parts without a mass', severity: 'missing', blocks: 'cost', ofPart: massMissing },
    ...{ asks: 'Has every part that can be weighed a mass?', needs: 'nothing' },
  },
];
