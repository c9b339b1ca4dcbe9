import { randomLcg } from 'd3-random';
import { blank, evidence, type Claim, type Pack, type Part, type Question, type Row, type StudyRecord } from '../src/record';
import { testId } from './teardown';

/** A fault put into a clean study, and what the checks have to say of it. */
export interface Planted {
  readonly record: StudyRecord;
  /** record the fault was put into: a finding is about it, or its cause names it */
  readonly aboutId: string;
  /** what the key of the likeliest cause holds when it is named right */
  readonly cause: RegExp;
}

type Plant = (record: StudyRecord, random: () => number) => Planted | null;

const pick = <T>(of: readonly T[], random: () => number): T | undefined => of[Math.floor(random() * of.length)];
const withRow = <T extends Row>(rows: readonly T[], id: string, fields: Partial<T>): readonly T[] =>
  rows.map((row) => (row.id === id ? { ...row, ...fields } : row));
const withPart = (record: StudyRecord, part: Part, fields: Partial<Part>): StudyRecord => ({
  ...record,
  parts: withRow(record.parts, part.id, fields),
});

const leaves = (record: StudyRecord): readonly Part[] => record.parts.filter((part) => part.parentId !== null);
const scanned = (record: StudyRecord): readonly Part[] => {
  const ids = new Set(record.scans.map((scan) => scan.partId));
  return leaves(record).filter((part) => ids.has(part.id));
};

/** The digits of another unit typed as those of the one that was meant. */
const massSlip =
  (factor: number, typedIn: 'g' | 'kg', unit: RegExp): Plant =>
  (record, random) => {
    const part = pick(scanned(record), random);
    if (!part) return null;
    const massEachKg = Number((part.massEachKg! * factor).toPrecision(5));
    const said = { ...part.evidence, massEachKg: evidence('M', { u: 0.0001, typed: typedIn === 'g' ? `${Number((massEachKg * 1000).toPrecision(5))} g` : `${massEachKg} kg` }) }; // prettier-ignore
    return { record: withPart(record, part, { massEachKg, evidence: said }), aboutId: part.id, cause: unit };
  };

const boxSlip =
  (factor: number, unit: RegExp): Plant =>
  (record, random) => {
    const part = pick(scanned(record), random);
    if (!part) return null;
    const [lengthM, widthM, heightM] = [part.lengthM! * factor, part.widthM! * factor, part.heightM! * factor];
    return { record: withPart(record, part, { lengthM, widthM, heightM }), aboutId: part.id, cause: unit };
  };

const NEW = (n: number): { readonly id: string; readonly version: number } => ({ id: testId(n), version: 1 });

const PACK_FIELDS: Partial<Pack> = { cellsInParallel: 38, bricksPerModule: 9, modules: 12, cellsCounted: 4100, capacityC: 15_000, nominalV: 3.65 }; // prettier-ignore

/** Every kind of fault by its name. Gross ones; what is in doubt by little is found by chance only. */
export const PLANTS: Readonly<Record<string, Plant>> = {
  'ounces typed as g': massSlip(1 / 28.349523125, 'g', /massEachKg oz$/),
  'pounds typed as kg': massSlip(1 / 0.45359237, 'kg', /massEachKg lb$/),
  'grams typed as kg': massSlip(1000, 'kg', /massEachKg g$/),
  'decimal point of a mass': massSlip(10, 'g', /massEachKg point 0.1$/),
  'inches typed as mm': boxSlip(1 / 25.4, /lengthM\+widthM\+heightM in$/),
  'centimetres typed as mm': boxSlip(0.1, /lengthM\+widthM\+heightM cm$/),
  'scan in inches': (record, random) => {
    const scan = pick(record.scans, random);
    if (!scan) return null;
    const figures = {
      ...scan.figures,
      ...{ volumeM3: scan.figures.volumeM3! / 25.4 ** 3, volumeUM3: scan.figures.volumeUM3! / 25.4 ** 3 },
      minimumM: scan.figures.minimumM.map((side) => side / 25.4) as unknown as typeof scan.figures.minimumM,
      areaM2: scan.figures.areaM2 / 25.4 ** 2,
    };
    return { record: { ...record, scans: withRow(record.scans, scan.id, { figures }) }, aboutId: scan.partId, cause: /unit inches$/ };
  },
  'a part not recorded': (record, random) => {
    const part = pick(leaves(record).filter((one) => one.hand === 'none' && one.quantity === 1 && one.massEachKg! > 0.05), random);
    if (!part) return null;
    const parts = record.parts.filter((one) => one.id !== part.id);
    const fastenerSets = record.fastenerSets.filter((set) => set.partId !== part.id);
    const gone = { parts, fastenerSets, scans: record.scans.filter((scan) => scan.partId !== part.id), ports: record.ports.filter((port) => port.partId !== part.id), connections: record.connections.filter((line) => line.partId !== part.id) };
    return { record: { ...record, ...gone }, aboutId: part.parentId!, cause: /lost inside$/ };
  },
  'fasteners lost on one side': (record, random) => {
    const set = pick(record.fastenerSets.filter((one) => record.parts.find((part) => part.id === one.partId)?.hand === 'right'), random);
    if (!set) return null;
    return { record: { ...record, fastenerSets: withRow(record.fastenerSets, set.id, { count: set.count - 1 }) }, aboutId: set.id, cause: new RegExp(`${set.id} count$`) };
  },
  'fasteners weighed together': (record, random) => {
    const set = pick(record.fastenerSets.filter((one) => one.count >= 3), random);
    if (!set) return null;
    const massEachKg = Number((set.massEachKg! * set.count).toPrecision(4));
    const said = { massEachKg: evidence('M', { u: 0.0001, typed: `${massEachKg * 1000} g` }) };
    return { record: { ...record, fastenerSets: withRow(record.fastenerSets, set.id, { massEachKg, evidence: said }) }, aboutId: set.id, cause: new RegExp(`${set.id} massEachKg together$`) };
  },
  'length of a bolt in cm': (record, random) => {
    const set = pick(record.fastenerSets, random);
    if (!set) return null;
    return { record: { ...record, fastenerSets: withRow(record.fastenerSets, set.id, { lengthM: set.lengthM! / 10 }) }, aboutId: set.id, cause: new RegExp(`${set.id} (?:lengthM|threadM) cm$`) };
  },
  'wrought alloy on a casting': (record, random) => {
    const part = pick(leaves(record).filter((one) => one.processId === 'hpdc'), random);
    return part ? { record: withPart(record, part, { materialId: 'aw-6082' }), aboutId: part.id, cause: new RegExp(`${part.id} (?:materialId|processId)`) } : null;
  },
  'material not as marked': (record, random) => {
    const part = pick(leaves(record).filter((one) => one.markings === '>PA66-GF30<'), random);
    return part ? { record: withPart(record, part, { materialId: 'pp' }), aboutId: part.id, cause: /materialId pa66-gf30$/ } : null;
  },
  'tag on two parts': (record, random) => {
    const part = pick(leaves(record), random);
    const other = pick(leaves(record).filter((one) => one.parentId === part?.parentId && one.id > (part?.id ?? '')), random);
    return part && other ? { record: withPart(record, other, { tag: part.tag }), aboutId: other.id, cause: /tag$/ } : null;
  },
  'tag misread': (record, random) => {
    const part = pick(leaves(record), random);
    if (!part) return null;
    const last = part.tag.at(-1)!;
    return { record: withPart(record, part, { tag: `${part.tag.slice(0, -1)}${last === '7' ? '8' : '7'}` }), aboutId: part.id, cause: /tag$/ };
  },
  'tag of the other vehicle': (record, random) => {
    const part = pick(leaves(record), random);
    const sheet = record.sheets.find((one) => one.vehicleId !== part?.vehicleId);
    const tag = record.parts.find((one) => one.vehicleId === sheet?.vehicleId)?.tag;
    return part && tag ? { record: withPart({ ...record, parts: record.parts.filter((one) => one.tag !== tag || one.parentId === null) }, part, { tag }), aboutId: part.id, cause: /tag$/ } : null;
  },
  'blocker that came later': (record, random) => {
    const step = pick(record.steps.filter((one) => one.sequence >= 1 && one.sequence < 5), random);
    const later = record.steps.find((one) => one.vehicleId === step?.vehicleId && one.sequence === (step?.sequence ?? 0) + 1);
    if (!step || !later) return null;
    const steps = record.steps.map((one) => (one.id === step.id ? { ...one, after: [later.id] } : one.id === later.id ? { ...one, after: [] } : one));
    return { record: { ...record, steps }, aboutId: step.id, cause: new RegExp(`${step.id} after`) };
  },
  'hose in cm': (record, random) => {
    const line = pick(record.connections, random);
    return line ? { record: { ...record, connections: withRow(record.connections, line.id, { lengthEachM: line.lengthEachM! / 10 }) }, aboutId: line.id, cause: new RegExp(`${line.id} lengthEachM cm$`) } : null;
  },
  'battery in MJ': (record) => {
    const vehicle = record.vehicles[0]!;
    return { record: { ...record, vehicles: withRow(record.vehicles, vehicle.id, { batteryJ: vehicle.batteryJ! * 3.6 }) }, aboutId: vehicle.id, cause: /batteryJ|consumptionJPerM/ };
  },
  'cells that do not multiply': (record) => {
    const part = record.parts[0]!;
    const pack: Pack = { ...NEW(5_000), ...blank('pack', { partId: part.id, name: 'as recorded', isWhatIf: false }), ...PACK_FIELDS };
    return { record: { ...record, packs: [pack] }, aboutId: pack.id, cause: /topology$/ };
  },
  'scale that reads high': (record) => {
    const [last] = record.checkReadings.slice(-1);
    const bad = [1, 2, 3].map((n) => ({ ...last!, id: testId(6_000 + n), value: 2.012, takenAt: `2026-05-2${n + 1}T08:00:00.000Z` }));
    return { record: { ...record, checkReadings: [...record.checkReadings, ...bad] }, aboutId: bad[0]!.id, cause: /^instrument/ };
  },
  'difference as temperature': (record) => {
    const claim: Claim = { ...NEW(5_100), ...blank('claim', { statement: 'The hottest cell is 7 °F (-13.9 °C) cooler in two passes', sourceKind: 'the maker' }) };
    return { record: { ...record, claims: [claim] }, aboutId: claim.id, cause: new RegExp(claim.id) };
  },
  'energy in kW': (record) => {
    const claim: Claim = { ...NEW(5_100), ...blank('claim', { statement: 'The battery holds 60 kW', sourceKind: 'the maker' }) };
    return { record: { ...record, claims: [claim] }, aboutId: claim.id, cause: new RegExp(claim.id) };
  },
  'promise overdue': (record) => {
    const question: Question = { ...NEW(5_200), ...blank('question', { kind: 'promise', aboutKind: 'study', aboutId: record.study.id, text: 'Mass of the pack' }), owedTo: 'Lisk', dueOn: '2026-05-01' };
    return { record: { ...record, questions: [question] }, aboutId: question.id, cause: new RegExp(question.id) };
  },
  'claim without evidence': (record) => {
    const claim: Claim = { ...NEW(5_100), ...blank('claim', { statement: 'The door is lighter', sourceKind: 'the maker' }), state: 'borne out' };
    return { record: { ...record, claims: [claim] }, aboutId: claim.id, cause: new RegExp(claim.id) };
  },
  'samples far apart': (record) => {
    const vehicle = record.vehicles[1]!;
    return { record: { ...record, vehicles: withRow(record.vehicles, vehicle.id, { builtOn: '2022-03-01' }) }, aboutId: vehicle.id, cause: /built$/ };
  },
  'part that is not original': (record, random) => {
    const part = pick(leaves(record), random);
    return part ? { record: withPart(record, part, { notes: 'aftermarket, fitted by the last owner' }), aboutId: part.id, cause: /original$/ } : null;
  },
  'price without source': (record, random) => {
    const part = pick(leaves(record), random);
    const price = { boughtPrice: '4.20', boughtCurrency: 'EUR', boughtPriceYear: 2026, boughtVolumePerYear: 60_000, boughtRegion: 'Central Europe' };
    return part ? { record: withPart(record, part, price), aboutId: part.id, cause: /price source$/ } : null;
  },
}; // prettier-ignore

/** One fault of a kind in a clean study; null where the study has nothing to put it into. */
export const planted = (record: StudyRecord, kind: string, seed: number): Planted | null => PLANTS[kind]!(record, randomLcg(seed));
