import { evidenceAt, type EvidenceMark } from '../shared';
import { countInSum, type Part, type Study, type StudyRecord } from '../record';
import { fastenerMass, type NextPart } from '../bench';
import { contentsBelow } from './contents-below';
import { basisOf, catalogueIssues, partCost, type CostTerm } from './part-cost';
import { fastenerCost } from './fastener-cost';
import type { StudyRollUp } from './study-roll-up';

/** One line of the cost table: a part or a fastener set, what one costs by term, and what they cost on one vehicle. */
export interface CostLine {
  readonly id: string;
  readonly partId: string;
  readonly name: string;
  readonly perVehicle: number;
  readonly material: number | null;
  readonly tooling: number | null;
  readonly conversion: number | null;
  readonly bought: number | null;
  readonly each: number | null;
  readonly onVehicle: number | null;
  /** weakest mark among what the cost rests on */
  readonly mark: EvidenceMark | null;
  /** why there is no cost, in words; empty when there is one */
  readonly missing: string;
}

const termOf = (terms: readonly CostTerm[], label: string): number | null => terms.find((term) => term.label === label)?.amount ?? null;

const times = (each: number | null, count: number): number | null => (each === null ? null : each * count);

/** By the counting rule: fasteners left out stay out, but for those inside an assembly that counts as one, which come with it. */
const fastenersCounted = ({ fastenersIn, assembliesAs }: Study, part: Part): boolean =>
  fastenersIn || (assembliesAs === 'one' && part.parentId !== null);

/**
 * Cost of every part and fastener set under a node: parts at their lowest level, or the assembly where it has a price of
 * its own, which then covers all inside it. The lines add up to the cost of the node in the roll-up.
 */
export const costLines = (record: StudyRecord, rollUp: StudyRollUp, key: string): readonly CostLine[] => {
  const basis = basisOf(record.study);
  const noCatalogue = catalogueIssues(basis)[0]?.message;
  const { parts, fastenersOf } = contentsBelow(record, rollUp, key);
  const covered = new Set<string>();
  const lines: CostLine[] = [];
  for (const { part, own, meanPerVehicle: perVehicle, isLeaf } of parts) {
    const insideBought = part.parentId !== null && covered.has(part.parentId);
    const cost = partCost(part, perVehicle, basis);
    const whole = cost.boughtWhole && cost.amount !== null;
    if (insideBought || whole) covered.add(part.id);
    if (!insideBought && (isLeaf || whole)) {
      lines.push({
        id: part.id,
        partId: part.id,
        name: part.name,
        perVehicle,
        material: termOf(cost.terms, 'Material'),
        tooling: termOf(cost.terms, 'Tooling'),
        conversion: termOf(cost.terms, 'Conversion'),
        bought: termOf(cost.terms, 'Bought out'),
        each: cost.amount,
        onVehicle: times(cost.amount, perVehicle),
        mark: evidenceAt(own.figures.cost?.rank ?? -1),
        missing: cost.issues.map((i) => i.message).join('; '),
      });
    }
    if (insideBought || !fastenersCounted(record.study, part)) continue;
    for (const set of fastenersOf(part.id)) {
      const each = fastenerCost(set, basis);
      const count = countInSum(set.count, set.evidence.count).mean * perVehicle;
      lines.push({
        id: set.id,
        partId: part.id,
        name: `${set.kind}, on ${part.name}`,
        perVehicle: count,
        material: null,
        tooling: null,
        conversion: null,
        bought: each,
        each,
        onVehicle: times(each, count),
        mark: each === null ? null : (fastenerMass(set)?.mark ?? null),
        missing: each === null ? (noCatalogue ?? 'No mass to price it by') : '',
      });
    }
  }
  return lines;
};

/** Parts without a cost and why, those with the most mass on one vehicle first, what is not weighed last. */
export const worthCosting = (parts: ReadonlyMap<string, Part>, lines: readonly CostLine[]): readonly NextPart[] => {
  const massOf = ({ massEachKg }: Part, { perVehicle }: CostLine): number => (massEachKg ?? 0) * perVehicle;
  return lines
    .flatMap((line) => {
      const part = line.id === line.partId && line.onVehicle === null ? parts.get(line.partId) : undefined;
      return part ? [{ part, why: line.missing, massKg: massOf(part, line) }] : [];
    })
    .sort((a, b) => b.massKg - a.massKg)
    .map(({ part, why }) => ({ part, why }));
};
