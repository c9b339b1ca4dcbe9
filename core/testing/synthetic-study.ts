import { randomLcg } from 'd3-random';
import {
  blank,
  emptyRecord,
  evidence,
  type CheckReading,
  type Connection,
  type FastenerSet,
  type Part,
  type Port,
  type Reading,
  type Scan,
  type Step,
  type StudyRecord,
  type TagSheet,
  type Vehicle,
} from '../src/record';
import { standardFastenerMass, tagText } from '../src/bench';
import { materialById } from '../src/shared';
import { STUDY, testId } from './teardown';

/** How a kind of part is made and how large it comes out. */
interface Made {
  readonly name: string;
  readonly materialId: string;
  readonly processId: string;
  /** share of its box, or its sheet thickness, m */
  readonly fill: readonly [number, number] | null;
  readonly marking: string;
}

const MADE: readonly Made[] = [
  { name: 'bracket', materialId: 's420mc', processId: 'stamping', fill: null, marking: '' },
  { name: 'plate', materialId: 'dc04', processId: 'stamping', fill: null, marking: '' },
  { name: 'housing', materialId: 'alsi9cu3', processId: 'hpdc', fill: [0.1, 0.3], marking: '' },
  { name: 'profile', materialId: 'aw-6060', processId: 'extrusion', fill: [0.1, 0.35], marking: '' },
  { name: 'cap', materialId: 'pa66-gf30', processId: 'injection-moulding', fill: [0.06, 0.25], marking: '>PA66-GF30<' },
  { name: 'shroud', materialId: 'pp-td20', processId: 'injection-moulding', fill: [0.05, 0.2], marking: '>PP-TD20<' },
  { name: 'lever', materialId: 'c45', processId: 'forging', fill: [0.2, 0.5], marking: '' },
];

const THREADS = [
  [0.006, 0.02],
  [0.008, 0.025],
  [0.01, 0.035],
] as const;

const PER_ASSEMBLY = 8;
const PER_SUBSYSTEM = 6;
const SCALE = 'BS-02';

const mm = (metres: number): number => Math.round(metres * 10_000) / 10_000;
const typedMass = (kg: number): string => (kg < 1 ? `${Number((kg * 1000).toPrecision(5))} g` : `${Number(kg.toPrecision(6))} kg`);
const weighed = (kg: number) =>
  evidence('M', { u: Math.max(0.0001, kg * 0.0005), typed: typedMass(kg), instrument: `Bench scale ${SCALE}` });

interface Growing {
  readonly parts: Part[];
  readonly fastenerSets: FastenerSet[];
  readonly scans: Scan[];
  readonly steps: Step[];
  readonly readings: Reading[];
  readonly ports: Port[];
  readonly connections: Connection[];
  readonly sheets: TagSheet[];
}

/**
 * A clean study of about so many parts on two vehicles, in which everything agrees: masses with boxes, scans, sheet thickness and the
 * weighings of assemblies, hands with each other, fasteners with standard sizes, lines with their ends, tags with their sheets, removals
 * with their blockers.
 *
 * @param size parts in all
 */
export const syntheticStudy = (seed: number, size: number): StudyRecord => {
  const random = randomLcg(seed);
  const between = (low: number, high: number): number => low + (high - low) * random();
  const normal = (): number => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random());
  let n = 10_000;
  const next = (): { readonly id: string; readonly version: number } => ({ id: testId(n++), version: 1 });
  const vehicle = (at: number, name: string, role: Vehicle['role']): Vehicle => ({
    ...next(),
    ...blank('vehicle', { name, role, sequence: at }),
    ...{ modelYear: 2026 - at, builtOn: at === 0 ? '2026-02-10' : '2025-11-20', batteryJ: 60 * 3.6e6, rangeM: 300_000, consumptionJPerM: 20 * 36, voltageV: 400 },
  }); // prettier-ignore
  const vehicles = [vehicle(0, 'Near van', 'subject'), vehicle(1, 'Far van', 'competitor')];
  const perVehicle = size / vehicles.length;
  const assemblies = Math.max(1, Math.round(perVehicle / (PER_ASSEMBLY + 1)));
  const subsystems = Array.from({ length: Math.ceil(assemblies / PER_SUBSYSTEM) }, (_, at) => ({
    ...next(),
    ...{ parentId: null, sequence: at, name: `subsystem ${at + 1}` },
  }));
  const grown: Growing = { parts: [], fastenerSets: [], scans: [], steps: [], readings: [], ports: [], connections: [], sheets: [] };

  // what each part is, once for both vehicles: they differ by some percent
  const designs = Array.from({ length: assemblies }, () =>
    Array.from({ length: PER_ASSEMBLY }, (_, k) => {
      const made = MADE[Math.floor(random() * MADE.length)]!;
      const a = between(0.06, 0.4);
      const b = a * between(0.3, 0.8);
      const c = Math.max(0.012, b * between(0.15, 0.5));
      const thicknessM = Math.round(between(0.0008, 0.004) * 1e4) / 1e4;
      const share = made.fill ? between(...made.fill) : (between(0.7, 1.2) * thicknessM) / c;
      return { made, sides: [a, b, c] as const, thicknessM: made.fill ? null : thicknessM, share, pair: k < 2 && a < 0.3, quantity: random() < 0.15 ? 2 : 1 };
    }),
  ); // prettier-ignore

  for (const [v, van] of vehicles.entries()) {
    let step: Step | null = null;
    designs.forEach((design, at) => {
      const subsystem = subsystems[Math.floor(at / PER_SUBSYSTEM)]!;
      const prefix = `${v === 0 ? 'A' : 'B'}${at + 1}`;
      grown.sheets.push({
        ...next(),
        ...{ vehicleId: van.id, subsystemId: subsystem.id, packageId: null, prefix, firstNumber: 1, count: 40, stock: 'roll, 38 × 19 mm', printedAt: '2026-05-01T08:00:00.000Z' },
      }); // prettier-ignore
      const assembly = next();
      let sumKg = 0;
      let tag = 1;
      let longest = 0;
      const inside: Part[] = [];
      design.forEach((of, k) => {
        const scale = v === 0 ? 1 : 1 + 0.08 * normal();
        const sides = of.sides.map((side) => mm(side * scale));
        const density = materialById.get(of.made.materialId)!.densityKgPerM3;
        const volumeM3 = sides[0]! * sides[1]! * sides[2]! * of.share;
        longest = Math.max(longest, sides[0]!);
        const hands = of.pair ? (['left', 'right'] as const) : (['none'] as const);
        for (const hand of hands) {
          const kg = Number((volumeM3 * density * (1 + 0.004 * normal())).toPrecision(4));
          const row = next();
          const quantity = of.pair ? 1 : of.quantity;
          const part: Part = {
            ...row,
            ...blank('part', { vehicleId: van.id, subsystemId: null, parentId: assembly.id }),
            ...{ sequence: grown.parts.length + inside.length, name: hand === 'none' ? `${of.made.name} ${at + 1}.${k + 1}` : `${of.made.name} ${at + 1}.${k + 1}, ${hand}` },
            ...{ hand, quantity, materialId: of.made.materialId, processId: of.made.processId, markings: of.made.marking },
            ...{ lengthM: sides[0]!, widthM: sides[1]!, heightM: sides[2]!, wallThicknessM: of.thicknessM, massEachKg: kg },
            ...{ tag: tagText({ prefix, number: tag++ }), evidence: { massEachKg: weighed(kg) } },
          }; // prettier-ignore
          inside.push(part);
          sumKg += quantity * kg;
          grown.readings.push({
            ...next(),
            ...{ aboutKind: 'part', aboutId: row.id, aboutField: 'massEachKg', quantity: 'mass', value: kg, u: weighed(kg).u, tare: 0, elements: null },
            ...{ raw: typedMass(kg), instrument: 'Bench scale', serial: SCALE, stable: true, takenAt: '2026-05-20T10:00:00.000Z', takenBy: 'Odo', note: '' },
          }); // prettier-ignore
          if (random() < 0.4) {
            const scanned = volumeM3 * (1 + 0.004 * normal());
            grown.scans.push({
              ...next(),
              ...{ partId: row.id, sequence: 0, sha256: 'c'.repeat(64), fileName: 'scan.stl', format: 'STL', bytes: 1000, unit: 'mm', unitBy: '', offsetM: null },
              ...{ instrument: '', serial: '', takenAt: '2026-05-20T10:00:00.000Z', takenBy: '', note: '' },
              figures: {
                ...{ triangles: 100, volumeM3: scanned, volumeUM3: scanned * 0.004, areaM2: of.thicknessM ? (2 * volumeM3) / of.thicknessM : scanned / 0.002, centroidM: [0, 0, 0] },
                ...{ openEdges: 0, nonManifoldEdges: 0, turnedEdges: 0, holes: 0, sidesM: sides, minimumM: sides, hullVolumeM3: scanned * 2, trimmedM: sides, shareFraction: 0.99, heldFraction: 0.99, heldOf: 'volume' },
              },
            } as unknown as Scan); // prettier-ignore
          }
          if (k % 2 === 0) {
            const [threadM, lengthM] = THREADS[(at + k) % THREADS.length]!;
            const set: FastenerSet = {
              ...next(),
              ...blank('fasteners', { partId: row.id }),
              ...{ count: 2 + ((at + k) % 3), kind: 'bolt', threadM, lengthM, drive: 'H5' },
            };
            const each = Number((standardFastenerMass(set)!.kg * (1 + 0.05 * (2 * random() - 1))).toPrecision(3));
            grown.fastenerSets.push({
              ...set,
              massEachKg: each,
              evidence: { massEachKg: evidence('M', { u: 0.0001, typed: typedMass(each) }) },
            });
            sumKg += quantity * set.count * each;
          }
        }
      });
      const wholeKg = Number((sumKg * (1 + 0.0003 * normal())).toPrecision(6));
      grown.parts.push({
        ...assembly,
        ...blank('part', { vehicleId: van.id, subsystemId: subsystem.id, parentId: null }),
        ...{ sequence: grown.parts.length, name: `module ${at + 1}`, massEachKg: wholeKg, tag: tagText({ prefix, number: 40 }) },
        ...{ lengthM: mm(longest * 1.4), widthM: mm(longest * 1.1), heightM: mm(longest * 0.9), opened: 'opened' },
        evidence: { massEachKg: evidence('M', { u: wholeKg * 0.0008, typed: typedMass(wholeKg), instrument: 'Floor scale' }) },
      });
      grown.parts.push(...inside);
      const row: Step = {
        ...next(),
        ...blank('step', { vehicleId: van.id, sequence: at }),
        ...{ parts: [assembly.id], after: step ? [step.id] : [], tool: 'ratchet', bit: 'SW10' },
      };
      grown.steps.push(row);
      step = row;
      // a line from one port to another, some way around
      const [from, to] = [0, 1].map(
        (end): Port => ({ ...next(), ...blank('port', { partId: inside[end]!.id, name: `port ${end + 1}` }), xM: 1 + end * 0.5 + at * 0.01, yM: end * 0.2, zM: 0.4 }),
      ) as [Port, Port]; // prettier-ignore
      grown.ports.push(from, to);
      grown.connections.push({
        ...next(),
        ...blank('connection', { partId: inside[0]!.id, kind: 'hose' }),
        ...{ innerM: 0.012, lengthEachM: mm(Math.hypot(0.5, 0.2) * between(1.05, 1.8)), fromPortId: from.id, toPortId: to.id },
      });
    });
  }
  const checkReadings = Array.from({ length: 8 }, (_, i): CheckReading => ({
    ...next(),
    ...{ instrument: 'Bench scale', serial: SCALE, quantity: 'mass', nominal: 2, nominalU: 1e-5, value: 2 + 0.0004 * (2 * random() - 1) },
    ...{ takenAt: `2026-05-${String(10 + i).padStart(2, '0')}T08:00:00.000Z`, takenBy: 'Odo', note: '' },
  }));
  return { ...emptyRecord(STUDY), revision: 1, vehicles, subsystems, checkReadings, ...grown };
};
