import { USUAL_OFFSET_M, USUAL_SHARE, inMetres, measureMesh } from '@each-bolt/core/measure';
import {
  blank,
  evidence,
  type HolePatternFields,
  type IdentificationFields,
  type Op,
  type PackFields,
  type SectionFields,
  type Triple,
} from '@each-bolt/core/record';
import { sha256Of } from '../files/picture';
import { boxesMesh, plateMesh, stlOf, together, type Box, type Hole } from './demo-meshes';

/** What was measured in the demo study, in the units people type. */
export interface DemoMeasure {
  /** ISO 8601, UTC */
  readonly takenAt: string;
  readonly takenBy: string;
  readonly scans: readonly {
    readonly tag: string;
    readonly fileName: string;
    readonly boxes: readonly Box[];
    /** through the first of them */
    readonly holes?: readonly Hole[];
  }[];
  /** percent and its standard uncertainty by element */
  readonly alloys: readonly { readonly tag: string; readonly percents: Readonly<Record<string, readonly [number, number]>> }[];
  readonly identifications: readonly (Pick<IdentificationFields, 'cues' | 'marking' | 'materialId' | 'grade' | 'processId' | 'reason'> & {
    readonly tag: string;
  })[];
  readonly sections: readonly (Pick<SectionFields, 'name' | 'kind'> & {
    readonly tag: string;
    readonly mm: Readonly<Record<string, number>>;
  })[];
  readonly holePatterns: readonly (Pick<HolePatternFields, 'name' | 'source'> & { readonly tag: string; readonly mm: readonly Triple[] })[];
  /** packs by their part; one that is `like` another has all that is not said of it from there; `u` are standard uncertainties */
  readonly packs: readonly {
    readonly tag: string;
    readonly modules: string;
    readonly shields: readonly string[];
    readonly charger: string;
    readonly like?: number;
    readonly fields: Partial<PackFields> & Pick<PackFields, 'name' | 'isWhatIf'>;
    readonly u: Readonly<Partial<Record<keyof PackFields, number>>>;
  }[];
  readonly gaugeStudy: {
    readonly name: string;
    readonly quantity: 'length';
    readonly persons: readonly string[];
    readonly parts: readonly string[];
    readonly trials: number;
    readonly instrument: string;
    readonly mm: readonly (readonly (readonly number[])[])[];
  };
}

const M_PER_MM = 0.001;

interface DemoScan {
  readonly bytes: Buffer;
  readonly op: Op;
}

/** The scans with their files, measured as the program measures any. */
export const demoScans = (demo: DemoMeasure, part: (tag: string) => string, newId: () => string): readonly DemoScan[] =>
  demo.scans.map(({ tag, fileName, boxes: [first, ...others], holes = [] }) => {
    const mesh = together([...(first ? [plateMesh(first, holes)] : []), boxesMesh(others)]);
    const bytes = stlOf(mesh);
    const op: Op = {
      kind: 'scan.add',
      id: newId(),
      fields: {
        ...{ partId: part(tag), sequence: 0, sha256: sha256Of(bytes), fileName, format: 'STL', bytes: bytes.length },
        ...{
          unit: 'mm',
          unitBy: 'its longest side is then that recorded',
          figures: inMetres(measureMesh(mesh, USUAL_SHARE).figures, 'mm'),
        },
        ...{
          offsetM: USUAL_OFFSET_M,
          instrument: 'Mesh scanner',
          serial: 'MS-0019',
          takenAt: demo.takenAt,
          takenBy: demo.takenBy,
          note: '',
        },
      },
    };
    return { bytes, op };
  });

/** Everything else that was measured. */
export const demoMeasureOps = (
  demo: DemoMeasure,
  part: (tag: string) => string,
  materialOf: (tag: string) => string | null,
  newId: () => string,
): readonly Op[] => {
  const packs = demo.packs.map(({ tag, modules, shields, charger, like, fields, u }, sequence): Op => {
    const from = like === undefined ? { fields: {}, u: {} } : demo.packs[like]!;
    const known = Object.entries({ ...from.u, ...u }).map(([field, value]) => [
      field,
      evidence(field === 'cellMassKg' ? 'M' : field === 'capacityC' ? 'S' : 'I', { u: value }),
    ]);
    const said = { ...from.fields, ...fields };
    return {
      kind: 'pack.add',
      id: newId(),
      fields: {
        ...blank('pack', { partId: part(tag), sequence, name: said.name, isWhatIf: said.isWhatIf }),
        ...said,
        ...{ modulesPartId: part(modules), shields: shields.map(part), chargerPartId: part(charger) },
        evidence: Object.fromEntries(known) as PackFields['evidence'],
      },
    };
  });
  const readings = demo.alloys.map(({ tag, percents }) => ({ tag, id: newId(), percents }));
  return [
    ...packs,
    ...readings.map(({ tag, id, percents }): Op => ({
      kind: 'reading.add',
      id,
      fields: {
        ...{
          aboutKind: 'part',
          aboutId: part(tag),
          aboutField: 'materialId',
          quantity: 'element fractions',
          value: null,
          u: null,
          tare: null,
        },
        elements: Object.fromEntries(Object.entries(percents).map(([symbol, [p, u]]) => [symbol, { fraction: p / 100, u: u / 100 }])),
        raw: `READ 1,ALLO,${Object.entries(percents)
          .map(([symbol, [p, u]]) => `${symbol},${p},${u}`)
          .join(',')}`,
        ...{ instrument: 'Alloy analyser', serial: 'XA-0311', stable: true, takenAt: demo.takenAt, takenBy: demo.takenBy, note: '' },
      },
    })),
    ...demo.identifications.map(({ tag, ...fields }): Op => ({
      kind: 'identification.add',
      id: newId(),
      fields: {
        ...fields,
        ...{ partId: part(tag), sequence: 0, readingId: readings.find((r) => r.tag === tag)?.id ?? null },
        ...{ decidedAt: demo.takenAt, decidedBy: demo.takenBy },
      },
    })),
    ...demo.sections.map(({ tag, mm, ...fields }): Op => ({
      kind: 'section.add',
      id: newId(),
      fields: {
        ...fields,
        ...{ partId: part(tag), sequence: 0, loops: [], scanId: null, materialId: materialOf(tag), note: '' },
        dimensions: Object.fromEntries(Object.entries(mm).map(([name, value]) => [name, value * M_PER_MM])),
      },
    })),
    ...demo.holePatterns.map(({ tag, mm, ...fields }): Op => ({
      kind: 'holePattern.add',
      id: newId(),
      fields: {
        ...fields,
        ...{ partId: part(tag), sequence: 0, note: '' },
        points: mm.map((p) => p.map((x) => x * M_PER_MM) as unknown as Triple),
      },
    })),
    {
      kind: 'gaugeStudy.add',
      id: newId(),
      fields: {
        ...{
          sequence: 0,
          name: demo.gaugeStudy.name,
          quantity: demo.gaugeStudy.quantity,
          persons: demo.gaugeStudy.persons,
          parts: demo.gaugeStudy.parts,
        },
        ...{ trials: demo.gaugeStudy.trials, instrument: demo.gaugeStudy.instrument, note: '' },
        readings: demo.gaugeStudy.mm.map((byPart) => byPart.map((trials) => trials.map((x) => x * M_PER_MM))),
      },
    },
  ];
};
