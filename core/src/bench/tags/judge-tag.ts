import type { Part, StudyRecord } from '../../record';
import { readTag, tagText, tidyTag } from './tag';
import { nextFreeTag, sheetOf } from './tag-sheets';

/** Where the work is: what the next part will hang on. */
interface TagPlace {
  readonly vehicleId: string;
  readonly subsystemId: string | null;
  readonly packageId: string | null;
}

type JudgedTag =
  /** it is on a part: open that one */
  | { readonly kind: 'opens'; readonly tag: string; readonly part: Part }
  /** it can be put on a part here */
  | { readonly kind: 'free'; readonly tag: string }
  /** it must not be put on a part here; `likely` is what probably belongs there */
  | { readonly kind: 'stop'; readonly code: string; readonly tag: string; readonly message: string; readonly likely: string | null };

type Named = Pick<StudyRecord, 'parts' | 'sheets' | 'vehicles' | 'subsystems' | 'packages'>;

/** The subsystem a part hangs under, by way of what it is inside of. */
const subsystemOf = (record: Pick<StudyRecord, 'parts'>, part: Part): string | null => {
  const byId = new Map(record.parts.map((p) => [p.id, p]));
  const seen = new Set<string>();
  for (let at: Part | undefined = part; at && !seen.has(at.id); at = byId.get(at.parentId ?? '')) {
    if (at.subsystemId !== null) return at.subsystemId;
    seen.add(at.id);
  }
  return null;
};

const where = (record: Named, vehicleId: string, subsystemId: string | null): string => {
  const vehicle = record.vehicles.find((v) => v.id === vehicleId)?.name ?? 'another vehicle';
  const subsystem = record.subsystems.find((s) => s.id === subsystemId)?.name;
  return subsystem === undefined ? vehicle : `${subsystem}, ${vehicle}`;
};

/**
 * What a scanned or typed tag means at a place: the part it is on, a tag that is free to use there, or one that must
 * be stopped, with the reason and the tag that probably was meant.
 *
 * @param record parts and printed sheets of the study
 * @param text as scanned or typed
 * @param place where the next part will hang
 */
export const judgeTag = (record: Named, text: string, place: TagPlace): JudgedTag => {
  const tag = tidyTag(text);
  const on = record.parts.find((p) => tidyTag(p.tag) === tag);
  if (on) return { kind: 'opens', tag, part: on };
  const likely = nextFreeTag(record, place);
  const stop = (code: string, message: string, meant = likely): JudgedTag => ({ kind: 'stop', code, tag, message, likely: meant });
  const read = readTag(tag);
  if (read.kind === 'other') return { kind: 'free', tag };
  if (read.kind === 'misread') {
    const right = tagText(read.tag);
    return stop(
      'misread',
      `${tag} was misread or mistyped: its check character would be ${read.expected}. Scan it again`,
      sheetOf(record.sheets, read.tag) ? right : likely,
    );
  }
  const sheet = sheetOf(record.sheets, read.tag);
  if (!sheet) return stop('not-printed', `${tag} was never printed for this study: it comes from another one, or its sheet was taken off`);
  if (sheet.vehicleId !== place.vehicleId)
    return stop(
      'other-vehicle',
      `${tag} was printed for ${where(record, sheet.vehicleId, sheet.subsystemId)}, another vehicle than the one on the bench`,
    );
  if (sheet.subsystemId !== null && sheet.subsystemId !== place.subsystemId)
    return stop(
      'other-subsystem',
      `${tag} was printed for ${where(record, sheet.vehicleId, sheet.subsystemId)}, another subsystem than the one on the bench`,
    );
  if (sheet.packageId !== null && sheet.packageId !== place.packageId) {
    const name = record.packages.find((p) => p.id === sheet.packageId)?.name ?? 'another work package';
    return stop('other-step', `${tag} was printed for the work package “${name}”, not for the one on the bench`);
  }
  return { kind: 'free', tag };
};

/** Why a tag cannot go on a part, or null when it can. The part it is on already may keep it. */
export const tagFault = (record: Named, text: string, place: TagPlace, partId: string | null): string | null => {
  if (text.trim() === '') return null;
  const judged = judgeTag(record, text, place);
  if (judged.kind === 'free') return null;
  const likely = judged.kind === 'stop' ? judged.likely : nextFreeTag(record, place);
  const instead = likely === null ? '' : `. The next free one here is ${likely}`;
  if (judged.kind === 'stop') return `${judged.message}${instead}`;
  if (judged.part.id === partId) return null;
  const on = where(record, judged.part.vehicleId, subsystemOf(record, judged.part));
  return `${judged.tag} is on “${judged.part.name}” already (${on}); a tag belongs to one part${instead}`;
};
