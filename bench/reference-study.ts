import { MATERIALS, PROCESSES } from '@each-bolt/core/shared';
import {
  blank,
  evidence,
  USUAL_STUDY,
  emptyRecord,
  type FastenerSet,
  type JointSet,
  type Part,
  type StudyRecord,
} from '@each-bolt/core/record';

const KINDS = ['study', 'vehicle', 'subsystem', 'part', 'fasteners', 'joints'] as const;

/** A UUID that says what it is of and the how many-eth. */
export const id = (kind: (typeof KINDS)[number], n: number): string =>
  `0000000${KINDS.indexOf(kind)}-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** Repeatable numbers in 0…1. @source Park and Miller, minimal standard generator */
const random = (seed: number): (() => number) => {
  let state = seed;
  return () => (state = (state * 16_807) % 2_147_483_647) / 2_147_483_647;
};

const SUBSYSTEMS = 20;
const PER_ASSEMBLY = 9;

/** A study as a program gets it: over the wire, so each row is what the reader of JSON makes of it. */
const overTheWire = (record: StudyRecord): StudyRecord => JSON.parse(JSON.stringify(record)) as StudyRecord;

/** A study of one vehicle with so many parts: 20 subsystems, assemblies of nine parts each, every third part with fasteners. */
export const referenceStudy = (parts: number): StudyRecord => {
  const next = random(4600);
  const vehicle = {
    id: id('vehicle', 0),
    version: 1,
    ...blank('vehicle', { name: 'Reference', role: 'subject', sequence: 0 }),
    modelYear: 2026,
  };
  const subsystems = Array.from({ length: SUBSYSTEMS }, (_, n) => ({
    id: id('subsystem', n),
    version: 1,
    parentId: null,
    sequence: n,
    name: `Subsystem ${n}`,
  }));
  const all: Part[] = Array.from({ length: parts }, (_, n): Part => {
    const isAssembly = n % (PER_ASSEMBLY + 1) === 0;
    const parentId = isAssembly ? null : id('part', n - (n % (PER_ASSEMBLY + 1)));
    const mass = isAssembly ? null : 0.005 + next() * 2;
    const template = blank('part', {
      vehicleId: vehicle.id,
      parentId,
      subsystemId: parentId === null ? id('subsystem', Math.floor(next() * SUBSYSTEMS)) : null,
    });
    return {
      ...template,
      id: id('part', n),
      version: 1,
      sequence: n,
      name: `Part ${n}`,
      quantity: 1 + (n % 3),
      materialId: MATERIALS[n % MATERIALS.length]?.id ?? null,
      processId: PROCESSES[n % PROCESSES.length]?.id ?? null,
      massEachKg: mass,
      evidence: mass === null ? {} : { massEachKg: evidence(n % 11 === 0 ? 'I' : 'M', { u: 0.0003 }) },
    };
  });
  const every = (step: number): readonly Part[] => all.filter((_, n) => n % step === 1);
  const fastenerSets: FastenerSet[] = every(3).map((part, n) => ({
    ...blank('fasteners', { partId: part.id }),
    id: id('fasteners', n),
    version: 1,
    count: 1 + (n % 8),
    threadM: 0.006,
    lengthM: 0.016,
    drive: 'T30',
  }));
  const jointSets: JointSet[] = every(5).map((part, n) => ({
    ...blank('joints', { partId: part.id }),
    id: id('joints', n),
    version: 1,
    count: 1 + (n % 20),
  }));
  const study = {
    id: id('study', 0),
    version: 1,
    title: 'Reference',
    questions: '',
    lead: '',
    currency: 'EUR',
    priceYear: 2026,
    volumePerYear: 60_000,
    productionYears: 7,
    region: 'Central Europe',
    fastenersIn: true,
    assembliesAs: 'parts' as const,
    ...USUAL_STUDY,
  };
  return overTheWire({
    ...emptyRecord(study),
    revision: 1,
    vehicles: [vehicle],
    subsystems,
    parts: all,
    fastenerSets,
    jointSets,
  });
};
