import { materialById, PROCESSES, type Material } from '../../shared';
import type { FastenerSet, Part } from '../../record';
import { GRADES, readDesignation, readMaterialMarking, WORKS_WITH } from '../../measure';
import { type Check, type Finding, type Suspect, NOTHING } from '../finding';
import type { Ground } from '../ground';
import { editOp, finding, nameOf, ofPart, toLookAt } from '../said';

const CASTS = new Set(['hpdc', 'gravity-casting', 'sand-casting']);
const SHAPES = new Set(['stamping', 'hot-stamping', 'roll-forming', 'extrusion', 'forging', 'tube-forming', 'wire-forming']);
const processName = (id: string): string => PROCESSES.find((process) => process.id === id)?.name ?? id;
const formOf = (material: Material): 'cast' | 'wrought' | null => GRADES.find((grade) => grade.materialId === material.id)?.form ?? null;

const otherMaterial = (part: Part, from: Material, to: Material, says: string, fit: number): Suspect => ({
  ...{ key: `${part.id} materialId ${to.id}`, rule: 'other material', says, short: `${to.name} instead`, fit },
  mend: { field: 'Material', from: from.name, to: to.name, ops: [editOp('part', part, 'materialId', to.id)] },
});

/** The material of its counterparts, where it is another one that the process works with. */
const counterpartMaterial = (ground: Ground, part: Part, from: Material, fits: (material: Material) => boolean): readonly Suspect[] => {
  const other = ground
    .alike(part)
    .map((one) => materialById.get(one.materialId ?? ''))
    .find((material) => material && material.id !== from.id && fits(material));
  return other ? [otherMaterial(part, from, other, `${part.name} is likely ${other.name}, as its counterpart is`, 0.8)] : [];
};

const processCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const material = materialById.get(part.materialId ?? '');
  const processId = part.processId ?? '';
  if (!material || processId === '') return NOTHING;
  const works = WORKS_WITH[processId];
  const form = formOf(material);
  const isCast = CASTS.has(processId);
  const clash = (form === 'wrought' && isCast) || (form === 'cast' && SHAPES.has(processId));
  // gaskets, pads and felts are cut in the same presses as sheet
  const isCut = (processId === 'stamping' || processId === 'thermoforming') && (material.family === 'rubber and foam' || material.family === 'plastic');
  const ofFamily = works !== undefined && !works.includes(material.family) && !isCut;
  const designation = part.materialDetail === '' ? null : readDesignation(part.materialDetail, isCast ? true : SHAPES.has(processId) ? false : null);
  if (!clash && !ofFamily && !designation?.fault) return NOTHING;
  const fits = (other: Material): boolean => {
    const its = formOf(other);
    return (works?.includes(other.family) ?? true) && !(its === 'wrought' && isCast) && !(its === 'cast' && SHAPES.has(processId));
  };
  const field = clash || ofFamily ? 'materialId' : 'materialDetail';
  const says = clash
    ? `${material.name} is ${form === 'wrought' ? 'a wrought alloy' : 'a casting alloy'}, and ${nameOf(ground, part)} is made by ${processName(processId)}`
    : ofFamily
      ? `${nameOf(ground, part)} of ${material.name} cannot be made by ${processName(processId)}`
      : `${nameOf(ground, part)}: ${designation!.fault!}`;
  const process: Suspect = toLookAt(`${part.id} processId`, 'other process', `${part.name} is not made by ${processName(processId)}`, 'made otherwise', 0.6); // prettier-ignore
  return [
    ofPart('alloy-and-process', part, field, {
      title: `Material for ${processName(processId)}`,
      says,
      suspects: [
        ...counterpartMaterial(ground, part, material, fits),
        toLookAt(`${part.id} materialId`, 'other material', `${part.name} is not ${clash || ofFamily ? material.name : part.materialDetail}`, 'another alloy', 0.7),
        process,
      ],
    }),
  ];
}; // prettier-ignore

/** The marking of a plastic inside other markings: between angle brackets, or a word that is one. */
const markingIn = (markings: string): ReturnType<typeof readMaterialMarking> => {
  const inside = />\s*([^<>]+?)\s*</.exec(markings)?.[1];
  if (inside !== undefined) return readMaterialMarking(inside);
  for (const word of markings.split(/[\s,;]+/)) {
    const read = word === '' ? null : readMaterialMarking(word);
    if (read?.materialId) return read;
  }
  return null;
};

const markingCheck = (ground: Ground, part: Part): readonly Finding[] => {
  const stated = materialById.get(part.materialId ?? '');
  if (!stated || part.markings === '') return NOTHING;
  const marking = markingIn(part.markings);
  const marked = materialById.get(marking?.materialId ?? '');
  if (!marking || !marked || marked.id === stated.id || (!stated.gradeKnown && stated.family === marked.family)) return NOTHING;
  return [
    ofPart('marking-and-material', part, 'materialId', {
      title: `Marking against material`,
      says: `${nameOf(ground, part)} is marked ${marking.words} and recorded as ${stated.name}`,
      suspects: [
        otherMaterial(part, stated, marked, `${part.name} is ${marked.name}, as it is marked`, 0.9),
        toLookAt(`${part.id} markings`, 'typed wrong', `The marking of ${part.name} was read wrong`, 'marking misread', 0.4),
      ],
    }),
  ];
};

/**
 * Potential in sea water against a saturated calomel electrode, V; the middle of the usual range.
 * @source galvanic series as in corrosion handbooks, from memory
 */
const POTENTIAL_V: Readonly<Record<string, number>> = {
  'magnesium and zinc': -1.03,
  az91d: -1.6,
  aluminium: -0.76,
  steel: -0.61,
  copper: -0.34,
  'x5crni18-10': -0.08,
};
/** So far apart, contact wants isolation where it gets wet. @source common rule of corrosion handbooks, 0.25 V, from memory */
const APART_V = 0.25;
const ISOLATED = /coat|plat(?:ed|ing)|zinc|galvani|anodi|isolat|insulat|paint|passivat|lacquer|sleeve|e-?coat|rubber|nylon|plastic/i;

const potentialOf = (material: Material): number | null => POTENTIAL_V[material.id] ?? POTENTIAL_V[material.family] ?? null;
const isIsolated = (...parts: readonly Part[]): boolean =>
  parts.some((part) => ISOLATED.test(`${part.processDetail} ${part.materialDetail} ${part.notes}`));
const isStainless = (set: FastenerSet): boolean => /^A[245](?:[-\s]?\d{2})?$/i.test(set.grade.trim());

const galvanic = (ground: Ground, part: Part): readonly Finding[] => {
  const own = materialById.get(part.materialId ?? '');
  const ownV = own ? potentialOf(own) : null;
  if (!own || ownV === null) return NOTHING;
  const parent = ground.parts.get(part.parentId ?? '');
  const around = parent ? materialById.get(parent.materialId ?? '') : undefined;
  const aroundV = around ? potentialOf(around) : null;
  const volts = (apartV: number): string => `${apartV.toFixed(2)} V`;
  const ofParent =
    parent && around && aroundV !== null && Math.abs(ownV - aroundV) >= APART_V && !isIsolated(part, parent)
      ? [
          ofPart('galvanic', part, 'processDetail', {
            title: `${own.name} on ${around.name}`,
            says: `${nameOf(ground, part)} of ${own.name} sits in ${parent.name} of ${around.name}, ${volts(Math.abs(ownV - aroundV))} apart, and nothing is recorded that parts them`,
            suspects: [toLookAt(`${part.id} isolation`, 'not said', `What isolates ${part.name} from ${parent.name} is not recorded`, 'isolation not recorded', 0.7)],
          }),
        ]
      : [];
  const ofSets = ground.fasteners.at(part.id).flatMap((set): readonly Finding[] => {
    const apartV = Math.abs(ownV - POTENTIAL_V['x5crni18-10']!);
    if (!isStainless(set) || apartV < APART_V || own.id === 'x5crni18-10' || isIsolated(part) || ISOLATED.test(set.note)) return NOTHING;
    return [
      finding('galvanic', { entity: 'fasteners', id: set.id, field: 'grade' }, {
        part,
        title: `Stainless ${set.kind}s on ${own.name}`,
        says: `${nameOf(ground, part)} of ${own.name} is held by stainless ${set.kind}s, ${volts(apartV)} apart, and nothing is recorded that parts them`,
        suspects: [toLookAt(`${set.id} isolation`, 'not said', `What isolates the ${set.kind}s of ${part.name} is not recorded`, 'isolation not recorded', 0.7)],
      }),
    ];
  });
  return [...ofParent, ...ofSets];
}; // prettier-ignore

/** Checks of materials. */
export const MATERIAL_CHECKS: readonly Check[] = [
  {
    ...{ id: 'alloy-and-process', name: 'Alloy and process', severity: 'wrong', blocks: 'cost', ofPart: processCheck },
    ...{ asks: 'Can the material be worked by the process?', needs: 'material and process' },
  },
  {
    ...{ id: 'marking-and-material', name: 'Marking against material', severity: 'wrong', blocks: 'cost', ofPart: markingCheck },
    ...{ asks: 'Is a part of what is marked on it?', needs: 'a material marking' },
  },
  {
    ...{ id: 'galvanic', name: 'Dissimilar metals in contact', severity: 'doubtful', blocks: 'report', ofPart: galvanic },
    ...{ asks: 'Are metals far apart in the galvanic series parted by something?', needs: 'materials of a part and of what it sits in, or stainless fasteners' },
  },
]; // prettier-ignore
