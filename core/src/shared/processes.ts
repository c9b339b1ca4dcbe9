import type { Sourced } from './materials';

/** A figure that grows with the mass of the part: base + perKg × mass. */
export interface ByMass {
  readonly base: number;
  readonly perKg: number;
}

export interface Process extends Sourced {
  readonly id: string;
  readonly name: string;
  /** share of the bought material that does not end in the part, 0…1 */
  readonly scrapFraction: number;
  readonly cycleS: ByMass;
  /** machine and operator, EUR per hour */
  readonly rateEurPerH: ByMass;
  readonly toolingEur: ByMass;
  /** parts one set of tools makes before it is replaced */
  readonly toolLifeParts: number;
  /** good parts per part made, 0…1 */
  readonly yieldFraction: number;
  readonly words: readonly string[];
}

const assumed = { source: 'assumed', year: 2026 } as const;
const byMass = (base: number, perKg: number): ByMass => ({ base, perKg });

/** Processes with their cost figures in EUR of 2026, all assumed: round figures of the right order, to be replaced by a team's own. */
export const PROCESSES: readonly Process[] = [
  {
    ...assumed,
    id: 'stamping',
    name: 'stamping',
    scrapFraction: 0.35,
    cycleS: byMass(4, 1.5),
    rateEurPerH: byMass(90, 25),
    toolingEur: byMass(60_000, 70_000),
    toolLifeParts: 1_500_000,
    yieldFraction: 0.985,
    words: ['stamp', 'stamped'],
  },
  {
    ...assumed,
    id: 'hot-stamping',
    name: 'hot stamping',
    scrapFraction: 0.4,
    cycleS: byMass(14, 2),
    rateEurPerH: byMass(320, 20),
    toolingEur: byMass(150_000, 60_000),
    toolLifeParts: 600_000,
    yieldFraction: 0.975,
    words: ['hotstamp', 'press-hardened'],
  },
  {
    ...assumed,
    id: 'roll-forming',
    name: 'roll forming',
    scrapFraction: 0.06,
    cycleS: byMass(5, 2),
    rateEurPerH: byMass(110, 5),
    toolingEur: byMass(90_000, 8_000),
    toolLifeParts: 3_000_000,
    yieldFraction: 0.985,
    words: ['rollform'],
  },
  {
    ...assumed,
    id: 'extrusion',
    name: 'extrusion',
    scrapFraction: 0.18,
    cycleS: byMass(6, 5),
    rateEurPerH: byMass(140, 4),
    toolingEur: byMass(6_000, 3_000),
    toolLifeParts: 250_000,
    yieldFraction: 0.97,
    words: ['ext', 'extruded'],
  },
  {
    ...assumed,
    id: 'hpdc',
    name: 'high-pressure die casting',
    scrapFraction: 0.1,
    cycleS: byMass(35, 9),
    rateEurPerH: byMass(95, 18),
    toolingEur: byMass(70_000, 45_000),
    toolLifeParts: 120_000,
    yieldFraction: 0.95,
    words: ['die-cast', 'diecast'],
  },
  {
    ...assumed,
    id: 'gravity-casting',
    name: 'gravity casting',
    scrapFraction: 0.12,
    cycleS: byMass(110, 25),
    rateEurPerH: byMass(75, 3),
    toolingEur: byMass(30_000, 9_000),
    toolLifeParts: 90_000,
    yieldFraction: 0.94,
    words: ['gdc'],
  },
  {
    ...assumed,
    id: 'sand-casting',
    name: 'sand casting',
    scrapFraction: 0.15,
    cycleS: byMass(60, 14),
    rateEurPerH: byMass(85, 2),
    toolingEur: byMass(18_000, 4_000),
    toolLifeParts: 200_000,
    yieldFraction: 0.93,
    words: ['sandcast'],
  },
  {
    ...assumed,
    id: 'forging',
    name: 'forging',
    scrapFraction: 0.25,
    cycleS: byMass(9, 5),
    rateEurPerH: byMass(160, 12),
    toolingEur: byMass(25_000, 12_000),
    toolLifeParts: 60_000,
    yieldFraction: 0.97,
    words: ['forge', 'forged'],
  },
  {
    ...assumed,
    id: 'injection-moulding',
    name: 'injection moulding',
    scrapFraction: 0.03,
    cycleS: byMass(20, 28),
    rateEurPerH: byMass(45, 14),
    toolingEur: byMass(24_000, 55_000),
    toolLifeParts: 800_000,
    yieldFraction: 0.98,
    words: ['inj'],
  },
  {
    ...assumed,
    id: 'profile-extrusion',
    name: 'profile extrusion (rubber, plastic)',
    scrapFraction: 0.08,
    cycleS: byMass(12, 18),
    rateEurPerH: byMass(95, 2),
    toolingEur: byMass(14_000, 4_000),
    toolLifeParts: 900_000,
    yieldFraction: 0.96,
    words: ['profext'],
  },
  {
    ...assumed,
    id: 'foaming',
    name: 'foaming',
    scrapFraction: 0.05,
    cycleS: byMass(70, 60),
    rateEurPerH: byMass(48, 4),
    toolingEur: byMass(9_000, 14_000),
    toolLifeParts: 300_000,
    yieldFraction: 0.96,
    words: ['foamed'],
  },
  {
    ...assumed,
    id: 'machining',
    name: 'machining',
    scrapFraction: 0.45,
    cycleS: byMass(40, 70),
    rateEurPerH: byMass(62, 3),
    toolingEur: byMass(4_000, 2_000),
    toolLifeParts: 200_000,
    yieldFraction: 0.985,
    words: ['mach', 'machined'],
  },
  {
    ...assumed,
    id: 'tube-forming',
    name: 'tube cutting and bending',
    scrapFraction: 0.08,
    cycleS: byMass(18, 6),
    rateEurPerH: byMass(68, 2),
    toolingEur: byMass(7_000, 2_500),
    toolLifeParts: 400_000,
    yieldFraction: 0.98,
    words: ['tubeform'],
  },
  {
    ...assumed,
    id: 'thermoforming',
    name: 'die cutting and thermoforming',
    scrapFraction: 0.22,
    cycleS: byMass(22, 10),
    rateEurPerH: byMass(58, 3),
    toolingEur: byMass(11_000, 6_000),
    toolLifeParts: 500_000,
    yieldFraction: 0.97,
    words: ['diecut', 'thermoform'],
  },
  {
    ...assumed,
    id: 'wire-forming',
    name: 'wire and spring forming',
    scrapFraction: 0.03,
    cycleS: byMass(3, 10),
    rateEurPerH: byMass(60, 2),
    toolingEur: byMass(3_500, 2_000),
    toolLifeParts: 2_000_000,
    yieldFraction: 0.985,
    words: ['wireform'],
  },
];

export const processById: ReadonlyMap<string, Process> = new Map(PROCESSES.map((p) => [p.id, p]));

/** A figure of a process at a mass of the part, kg: its base and what each kilogram adds. */
export const atMass = (figure: ByMass, massKg: number): number => figure.base + figure.perKg * massKg;
