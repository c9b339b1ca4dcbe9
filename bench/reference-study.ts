import { MATERIALS, PROCESSES } from '@each-bolt/core/shared';
import { blank, USUAL_STUDY, emptyRecord, type FastenerSet, type JointSet, type Piece, type StudyRecord } from '@each-bolt/core/record';

const KINDS = ['study', 'vehicle', 'subsystem', 'piece', 'fasteners', 'joints'] as const;

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

/** A study of one vehicle with so many pieces: 20 subsystems, assemblies of nine pieces each, every third piece with fasteners. */
export const referenceStudy = (pieces: number): StudyRecord => {
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
  const all: Piece[] = Array.from({ length: pieces }, (_, n) => {
    const isAssembly = n % (PER_ASSEMBLY + 1) === 0;
    const parentId = isAssembly ? null : id('piece', n - (n % (PER_ASSEMBLY + 1)));
    const mass = isAssembly ? null : 0.005 + next() * 2;
    const template = blank('piece', {
      vehicleId: vehicle.id,
      parentId,
      subsystemId: parentId === null ? id('subsystem', Math.floor(next() * SUBSYSTEMS)) : null,
    });
    return {
      ...template,
      id: id('piece', n),
      version: 1,
      sequence: n,
      name: `Piece ${n}`,
      quantity: 1 + (n % 3),
      materialId: MATERIALS[n % MATERIALS.length]?.id ?? null,
      processId: PROCESSES[n % PROCESSES.length]?.id ?? null,
      massEachKg: mass,
      massUKg: mass === null ? null : 0.0003,
      massEvidence: mass === null ? null : n % 11 === 0 ? 'I' : 'M',
    };
  });
  const every = (step: number): readonly Piece[] => all.filter((_, n) => n % step === 1);
  const fastenerSets: FastenerSet[] = every(3).map((piece, n) => ({
    ...blank('fasteners', { pieceId: piece.id }),
    id: id('fasteners', n),
    version: 1,
    count: 1 + (n % 8),
    threadM: 0.006,
    lengthM: 0.016,
    drive: 'T30',
  }));
  const jointSets: JointSet[] = every(5).map((piece, n) => ({
    ...blank('joints', { pieceId: piece.id }),
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
    assembliesAs: 'pieces' as const,
    ...USUAL_STUDY,
  };
  return {
    ...emptyRecord(study),
    revision: 1,
    vehicles: [vehicle],
    subsystems,
    pieces: all,
    fastenerSets,
    jointSets,
  };
};
