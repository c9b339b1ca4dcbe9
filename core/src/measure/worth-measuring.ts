import { median } from 'd3-array';
import { massSaid, type Part, type Scan, type StudyRecord } from '../record';
import { EVIDENCE_WORD, materialById } from '../shared';
import { boxVolumeM3, canBeMeasured, envelopeOf } from '../bench';
import { density, densityDoubts } from './density';

/** A part of which something is still to be found out. */
export interface WorthMeasuring {
  readonly part: Part;
  /** how much mass on the vehicle rests on it: what may be wrong, or what the part may weigh; kg, a guess where `isGuess` */
  readonly atStakeKg: number;
  readonly isGuess: boolean;
  /** what it lacks, in words, the gravest first */
  readonly lacks: readonly string[];
}

/** A part fills about so much of the box around it; assumed, for parts that are not weighed yet. */
const FILLED_SHARE = 0.15;
/** What is not weighed may be wrong by so much at least; assumed. */
const NOT_WEIGHED = 0.1;
/** kg/m³, of a part whose material is not known yet: between light metal and steel; assumed */
const SOME_DENSITY = 4000;

const lacksOf = (part: Part, scan: Scan | undefined): readonly string[] => {
  const said = massSaid(part);
  const material = materialById.get(part.materialId ?? '') ?? null;
  const doubts =
    scan && part.massEachKg !== null && part.massEachKg > 0
      ? densityDoubts(
          density({ massKg: part.massEachKg, uKg: said?.u ?? 0 }, { volumeM3: scan.figures.volumeM3!, uM3: scan.figures.volumeUM3 ?? 0 }),
          material,
        )
      : [];
  return [
    ...doubts.slice(0, 1).map((doubt) => `mass, scan and material contradict: ${doubt}`),
    ...(said === null ? [scan ? 'scanned, not weighed' : 'no mass'] : said.mark === 'M' ? [] : [`mass ${EVIDENCE_WORD[said.mark]}`]),
    ...(part.materialId === null ? ['no material'] : []),
    ...(part.processId === null ? ['not said how it is made'] : []),
  ];
};

/**
 * Parts of a vehicle that are worth measuring, those first on which most mass rests: heavy ones, and ones of which little is sure.
 * Assemblies with parts inside are left out; so is what lacks nothing, and what is missing, destroyed or returned.
 *
 * @param subsystemId only what hangs below it; null takes the whole vehicle
 */
export const worthMeasuring = (record: StudyRecord, vehicleId: string, subsystemId: string | null = null): readonly WorthMeasuring[] => {
  const partById = new Map(record.parts.map((part) => [part.id, part]));
  const isAssembly = new Set(record.parts.flatMap((part) => part.parentId ?? []));
  const scanOf = new Map(record.scans.filter((scan) => scan.figures.volumeM3 !== null).map((scan) => [scan.partId, scan]));
  const weighedKg = median(record.parts.flatMap((part) => part.massEachKg ?? [])) ?? 0;
  /** the subsystem a part hangs under, and how many of it are on the vehicle */
  const hung = (part: Part): { readonly under: string | null; readonly count: number } => {
    let [at, count] = [part, part.quantity];
    for (let above = partById.get(at.parentId ?? ''); above; above = partById.get(at.parentId ?? '')) {
      at = above;
      count *= above.quantity;
    }
    return { under: at.subsystemId, count };
  };
  return record.parts
    .filter((part) => part.vehicleId === vehicleId && !isAssembly.has(part.id) && canBeMeasured(part))
    .flatMap((part): readonly WorthMeasuring[] => {
      const { under, count } = hung(part);
      const lacks = lacksOf(part, scanOf.get(part.id));
      if (lacks.length === 0 || (subsystemId !== null && under !== subsystemId)) return [];
      const said = massSaid(part);
      if (part.massEachKg !== null && said !== null) {
        const wrongKg = Math.max(said.u ?? 0, said.mark === 'M' ? 0 : NOT_WEIGHED * part.massEachKg);
        return [{ part, lacks, atStakeKg: wrongKg * count, isGuess: false }];
      }
      const box = envelopeOf(part);
      const guessKg = box
        ? boxVolumeM3(box) * FILLED_SHARE * (materialById.get(part.materialId ?? '')?.densityKgPerM3 ?? SOME_DENSITY)
        : weighedKg;
      return [{ part, lacks, atStakeKg: guessKg * count, isGuess: true }];
    })
    .sort((a, b) => b.atStakeKg - a.atStakeKg || a.part.sequence - b.part.sequence);
};
