import type { CostBasis } from '../../shared';
import { blank, type Op, type Subsystem } from '../../record';
import { fastenerFields, jointFields } from '../shorthand/to-fields';
import type { ImportRow } from './read-parts';

/** Where a file goes: the vehicle, the subsystem of rows that name none, and the basis its prices stand on. */
interface ImportPlace {
  readonly vehicleId: string;
  readonly subsystemId: string;
  readonly subsystems: readonly Subsystem[];
  readonly basis: CostBasis;
  /** first place in the list that is free */
  readonly sequence: number;
}

/** Rows that can be loaded, rows with faults, and sound rows that are inside a row with faults and must stay out with it. */
interface Sorted {
  readonly load: readonly ImportRow[];
  readonly faulty: readonly ImportRow[];
  readonly insideFaulty: readonly ImportRow[];
}

/** Rows whose subsystem is not in the study are faulty too; this marks them. */
export const withSubsystems = (rows: readonly ImportRow[], subsystems: readonly Subsystem[]): readonly ImportRow[] => {
  const names = new Set(subsystems.map((s) => s.name.toLowerCase()));
  return rows.map((row) =>
    row.subsystem === '' || names.has(row.subsystem.toLowerCase())
      ? row
      : {
          ...row,
          faults: [
            ...row.faults,
            { heading: 'subsystem' as const, cell: row.subsystem, message: `The study has no subsystem “${row.subsystem}”` },
          ],
        },
  );
};

/** Rows of a file that can be loaded, and those that cannot: their own faults, or an assembly above them that has faults. */
export const sortRows = (rows: readonly ImportRow[]): Sorted => {
  const faulty = rows.filter((row) => row.faults.length > 0);
  const out = new Set(faulty.map((row) => row.no).filter((no) => no !== ''));
  const insideFaulty = new Set<ImportRow>();
  for (let grew = true; grew;) {
    grew = false;
    for (const row of rows) {
      if (row.faults.length > 0 || insideFaulty.has(row) || !out.has(row.insideOf)) continue;
      insideFaulty.add(row);
      if (row.no !== '') out.add(row.no);
      grew = true;
    }
  }
  return { load: rows.filter((row) => row.faults.length === 0 && !insideFaulty.has(row)), faulty, insideFaulty: [...insideFaulty] };
};

const priceFields = (row: ImportRow, basis: CostBasis): object =>
  row.fields.boughtPrice
    ? {
        boughtCurrency: basis.currency,
        boughtPriceYear: basis.priceYear,
        boughtVolumePerYear: basis.volumePerYear,
        boughtRegion: basis.region,
      }
    : {};

/**
 * The ops that load rows as one change. Parents come before what is inside them.
 *
 * @param rows rows without faults whose parents are among them
 * @param place where they go
 * @param newId makes a fresh UUID at each call
 */
export const importOps = (rows: readonly ImportRow[], place: ImportPlace, newId: () => string): readonly Op[] => {
  const idOf = new Map(rows.map((row) => [row, newId()]));
  const rowOf = new Map(rows.filter((row) => row.no !== '').map((row) => [row.no, row]));
  const subsystemId = (name: string): string =>
    place.subsystems.find((s) => s.name.toLowerCase() === name.toLowerCase())?.id ?? place.subsystemId;
  const parts = rows.map((row, i): Op => {
    const parent = rowOf.get(row.insideOf);
    const parentId = parent ? (idOf.get(parent) ?? null) : null;
    const hangs = { vehicleId: place.vehicleId, parentId, subsystemId: parentId === null ? subsystemId(row.subsystem) : null };
    const fields = { ...blank('part', hangs), ...row.fields, ...priceFields(row, place.basis), sequence: place.sequence + i };
    return { kind: 'part.add', id: idOf.get(row) ?? '', fields };
  });
  const fasteners = rows.flatMap((row) =>
    row.fasteners.map((set, i): Op => ({ kind: 'fasteners.add', id: newId(), fields: fastenerFields(set, idOf.get(row) ?? '', i) })),
  );
  const joints = rows.flatMap((row) =>
    row.joints.map((set, i): Op => ({ kind: 'joints.add', id: newId(), fields: jointFields(set, idOf.get(row) ?? '', i) })),
  );
  return [...parts, ...fasteners, ...joints];
};
