import type { StudyRecord, Subsystem, TagSheet, TagSheetFields, Vehicle } from '../../record';
import { tagText, type Tag } from './tag';

const inOrder = <T extends { readonly id: string; readonly sequence: number }>(rows: readonly T[]): readonly T[] =>
  [...rows].sort((a, b) => a.sequence - b.sequence || (a.id < b.id ? -1 : 1));

/** A letter for a vehicle by its place: A … Z, then AA, AB … */
const letters = (place: number): string =>
  (place >= 26 ? letters(Math.floor(place / 26) - 1) : '') + String.fromCharCode(65 + (place % 26));

type Named = Pick<StudyRecord, 'vehicles' | 'subsystems' | 'sheets'>;

/**
 * The prefix of the tags of a vehicle and subsystem: the letter of the vehicle and the number of the subsystem, or
 * what was printed for them before. Never one that was printed for something else.
 */
export const tagPrefix = (record: Named, vehicle: Vehicle, subsystem: Subsystem | null): string => {
  const own = record.sheets.find((s) => s.vehicleId === vehicle.id && s.subsystemId === (subsystem?.id ?? null));
  if (own) return own.prefix;
  const taken = new Set(record.sheets.map((s) => s.prefix));
  const letter = letters(
    Math.max(
      0,
      inOrder(record.vehicles).findIndex((v) => v.id === vehicle.id),
    ),
  );
  const place = subsystem === null ? 0 : inOrder(record.subsystems).findIndex((s) => s.id === subsystem.id) + 1;
  const usual = letter + String(place).padStart(2, '0');
  if (!taken.has(usual)) return usual;
  for (let n = 1; ; n++) {
    const other = `${usual}X${n}`;
    if (!taken.has(other)) return other;
  }
};

/** The first number after all that were printed with a prefix. */
export const nextTagNumber = (sheets: readonly TagSheetFields[], prefix: string): number =>
  sheets.filter((s) => s.prefix === prefix).reduce((last, s) => Math.max(last, s.firstNumber + s.count - 1), 0) + 1;

/** The tags of a sheet, in the order they are printed. */
export const tagsOf = ({ prefix, firstNumber, count }: TagSheetFields): readonly string[] =>
  Array.from({ length: count }, (_, i) => tagText({ prefix, number: firstNumber + i }));

/** The sheet a tag was printed on. */
export const sheetOf = <S extends TagSheetFields>(sheets: readonly S[], { prefix, number }: Tag): S | null =>
  sheets.find((s) => s.prefix === prefix && number >= s.firstNumber && number < s.firstNumber + s.count) ?? null;

/** The first tag printed for a vehicle and subsystem (and package, when one has its own) that is on no part yet. */
export const nextFreeTag = (
  record: Pick<StudyRecord, 'sheets' | 'parts'>,
  at: { readonly vehicleId: string; readonly subsystemId: string | null; readonly packageId: string | null },
): string | null => {
  const used = new Set(record.parts.map((p) => p.tag).filter((tag) => tag !== ''));
  const fits = (s: TagSheet): boolean => s.vehicleId === at.vehicleId && s.subsystemId === at.subsystemId;
  const own = record.sheets.filter((s) => fits(s) && s.packageId !== null && s.packageId === at.packageId);
  const common = record.sheets.filter((s) => fits(s) && s.packageId === null);
  for (const sheet of [...own, ...common].sort(
    (a, b) => Number(b.packageId !== null) - Number(a.packageId !== null) || a.firstNumber - b.firstNumber,
  ))
    for (const tag of tagsOf(sheet)) if (!used.has(tag)) return tag;
  return null;
};
