import {
  outline,
  type Connection,
  type FastenerSet,
  type JointSet,
  type Outline,
  type Part,
  type Row,
  type Scan,
  type StudyRecord,
  type TagSheet,
} from '../record';
import { group } from 'd3-array';
import { portsById, type PortsById } from '../measure';
import {
  BENCH_MEASURES,
  benchOwn,
  closureAt,
  HAND_WORDS,
  layoutOf,
  nameWithout,
  ownOfParts,
  partsByPlace,
  rollUp,
  rollUpAfterEdit,
  sheetOf,
  type Tag,
  type BenchMeasures,
  type MassClosure,
  type RollUp,
} from '../bench';
import { changedRows, listsOf, type ListName } from './record-diff';

/** Rows by a key, kept up to date row by row. */
class Grouped<T extends Row> {
  private readonly groups = new Map<string, T[]>();
  constructor(private readonly keyOf: (row: T) => string | null) {}

  at(key: string): readonly T[] {
    return this.groups.get(key) ?? NONE;
  }

  put(row: T): void {
    const key = this.keyOf(row);
    if (key === null) return;
    const group = this.groups.get(key);
    if (group) group.push(row);
    else this.groups.set(key, [row]);
  }

  take(row: T): void {
    const key = this.keyOf(row);
    const group = key === null ? undefined : this.groups.get(key);
    const at = group?.findIndex((one) => one.id === row.id) ?? -1;
    if (at >= 0) group!.splice(at, 1);
  }
}

const NONE: readonly never[] = [];
const LAYOUT = layoutOf(BENCH_MEASURES);
/** A name so common says nothing of what two parts have in common. */
const TOO_COMMON = 40;

/** What a change of the record touched. */
interface Touched {
  /** parts whose checks may say something else now */
  readonly partIds: ReadonlySet<string>;
  readonly lists: ReadonlySet<ListName>;
  /** the study itself, what it is costed on */
  readonly study: boolean;
}

/** A text as words between spaces, for words to be found in it. */
export const squeezed = (text: string): string =>
  ` ${text
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, ' ')
    .trim()} `;

const handless = ({ name }: Part): string => nameWithout(name, HAND_WORDS);
const ofPart = <T extends Row & { readonly partId: string }>(): Grouped<T> => new Grouped<T>((row) => row.partId);

/** Lists whose rows belong to one part, so that a change of a row is a change of its part. */
const OF_PART: readonly ListName[] = [
  'fastenerSets', 'jointSets', 'connections', 'componentSets', 'boards', 'fluids', 'scans', 'ports', 'recounts', 'identifications',
]; // prettier-ignore

/**
 * A record laid out for its checks: what is inside what, what is on what, what is alike. It follows the record from one revision to
 * the next, and says what each change touched. One of it belongs to one run of the checks.
 */
export class Ground {
  readonly parts = new Map<string, Part>();
  readonly inside = new Grouped<Part>((part) => part.parentId);
  /** parts beside each other, in no order */
  private readonly beside = new Grouped<Part>(besideKey);
  readonly fasteners = ofPart<FastenerSet>();
  readonly joints = ofPart<JointSet>();
  readonly connections = ofPart<Connection>();
  readonly scans = ofPart<Scan>();
  readonly tagged = new Grouped<Part>((part) => (part.tag.trim() === '' ? null : part.tag.trim().toUpperCase()));
  private readonly handless = new Map<string, string>();
  private readonly named = new Grouped<Part>((part) => this.handless.get(part.id) ?? handless(part));
  /** checks of one part ask for what is alike with it one after the other */
  private lastAlike: { readonly part: Part; readonly alike: readonly Part[] } | null = null;
  private readonly marked = new Grouped<Part>((part) => (part.markings.trim() === '' ? null : part.markings.trim().toLowerCase()));
  /** ports and sheets as checks of parts look them up; when one changes, all parts are looked at again */
  private byPort: PortsById | null = null;
  private byPrefix: ReadonlyMap<string, readonly TagSheet[]> | null = null;
  private tree: Outline | null = null;
  private sums: RollUp<BenchMeasures> | null = null;

  constructor(
    public record: StudyRecord,
    /** YYYY-MM-DD, of whoever looks */
    readonly today: string,
  ) {
    for (const part of record.parts) this.putPart(part);
    for (const set of record.fastenerSets) this.fasteners.put(set);
    for (const set of record.jointSets) this.joints.put(set);
    for (const line of record.connections) this.connections.put(line);
    for (const scan of record.scans) this.scans.put(scan);
  }

  /** Goes on to another state of the same record. */
  moveTo(now: StudyRecord): Touched {
    const was = this.record;
    const lists = new Set(listsOf(now).filter((name) => was[name] !== now[name]));
    const own = new Set<string>();
    for (const name of OF_PART)
      for (const { was: before, now: after } of changedRows(was[name], now[name]))
        for (const row of [before, after]) if (row) own.add((row as Row & { readonly partId: string }).partId);
    const parts = changedRows(was.parts, now.parts) as readonly { readonly was: Part | undefined; readonly now: Part | undefined }[];
    const touched = new Set<string>();
    // those beside it, alike and around it before the change, and after it
    for (const { was: before } of parts) if (before) this.around(before, touched);
    const stays = parts.every(({ was: before, now: after }) => before && after && staysInPlace(before, after));
    for (const { was: before } of parts) if (before) this.takePart(before);
    this.moveRows(now);
    this.record = now;
    this.lastAlike = null;
    if (lists.has('ports')) this.byPort = null;
    if (lists.has('sheets')) this.byPrefix = null;
    for (const { now: after } of parts) if (after) this.putPart(after);
    for (const { now: after } of parts) if (after) this.around(after, touched);
    for (const id of own) {
      const part = this.parts.get(id);
      if (part) this.around(part, touched);
      touched.add(id);
    }
    for (const { was: before } of parts) if (before) touched.add(before.id);
    this.moveSums(stays, [...own, ...parts.flatMap(({ now: after }) => (after ? [after.id] : []))], was !== now && was.study !== now.study);
    return { partIds: touched, lists, study: was.study !== now.study };
  }

  /** Parts beside it: inside the same part, or straight under the same subsystem of the same vehicle. */
  besideOf(part: Part): readonly Part[] {
    return this.beside.at(besideKey(part));
  }

  /** Parts that are called the same but for their hand, in the same place of any vehicle; none where the name says nothing. */
  alike(part: Part): readonly Part[] {
    if (this.lastAlike?.part === part) return this.lastAlike.alike;
    const named = this.named.at(this.handless.get(part.id) ?? handless(part));
    const where = this.whereOf(part);
    const alike =
      named.length < 2 || named.length > TOO_COMMON ? NONE : named.filter((other) => other.id !== part.id && this.whereOf(other) === where);
    this.lastAlike = { part, alike };
    return alike;
  }

  /** Parts with the same marking; none where so many have it that it says nothing. */
  sameMarking(part: Part): readonly Part[] {
    const marked = this.marked.at(part.markings.trim().toLowerCase());
    return marked.length > TOO_COMMON ? NONE : marked;
  }

  vehicleName(id: string): string {
    return this.record.vehicles.find((vehicle) => vehicle.id === id)?.name ?? '';
  }

  /** The changes from standard of a vehicle, as words between spaces. */
  changesOf(vehicleId: string): string {
    const text = this.record.vehicles.find((vehicle) => vehicle.id === vehicleId)?.changes ?? '';
    return text === '' ? '' : squeezed(text);
  }

  /** The subsystem a part hangs under, by way of what it is inside of; null where it hangs nowhere. */
  subsystemOf(part: Part): string | null {
    let at: Part | undefined = part;
    for (let steps = 0; at && steps < this.parts.size; steps++) {
      if (at.subsystemId !== null) return at.subsystemId;
      at = this.parts.get(at.parentId ?? '');
    }
    return null;
  }

  ports(): PortsById {
    return (this.byPort ??= portsById(this.record));
  }

  /** The sheet a tag was printed on; null where none was. */
  sheetOf(tag: Tag): TagSheet | null {
    this.byPrefix ??= group(this.record.sheets, (sheet) => sheet.prefix);
    return sheetOf(this.byPrefix.get(tag.prefix) ?? [], tag);
  }

  /** The weighing of an assembly against what is inside it; null where there is nothing to hold together. */
  closure(part: Part): MassClosure | null {
    const { placeOf } = this.outline();
    const place = placeOf.get(part.id);
    return place === undefined ? null : closureAt(this.rolled(), place);
  }

  outline(): Outline {
    return (this.tree ??= outline(this.record));
  }

  private rolled(): RollUp<BenchMeasures> {
    const tree = this.outline();
    return (this.sums ??= rollUp(LAYOUT, tree, ownOfParts(this.record, partsByPlace(this.record, tree), benchOwn), 'parts'));
  }

  private whereOf(part: Part): string {
    const parent = this.parts.get(part.parentId ?? '');
    return parent ? (this.handless.get(parent.id) ?? handless(parent)) : (part.subsystemId ?? '');
  }

  private around(part: Part, touched: Set<string>): void {
    let at: Part | undefined = part;
    for (let steps = 0; at && steps <= this.parts.size; steps++) {
      touched.add(at.id);
      at = this.parts.get(at.parentId ?? '');
    }
    const inside = this.inside.at(part.id);
    // what is inside it is alike with others by where it is
    const alike = inside.length > TOO_COMMON ? [] : inside.map((child) => this.alike(child));
    for (const group of [
      inside,
      ...alike,
      this.besideOf(part),
      this.alike(part),
      this.sameMarking(part),
      this.tagged.at(part.tag.trim().toUpperCase()),
    ])
      for (const other of group) touched.add(other.id);
  }

  private putPart(part: Part): void {
    this.parts.set(part.id, part);
    this.handless.set(part.id, handless(part));
    this.inside.put(part);
    this.beside.put(part);
    this.tagged.put(part);
    this.named.put(part);
    this.marked.put(part);
  }

  private takePart(part: Part): void {
    this.parts.delete(part.id);
    this.lastAlike = null;
    this.inside.take(part);
    this.beside.take(part);
    this.tagged.take(part);
    this.named.take(part);
    this.marked.take(part);
    this.handless.delete(part.id);
  }

  private moveRows(now: StudyRecord): void {
    const { record: was } = this;
    moveGroup(this.fasteners, was.fastenerSets, now.fastenerSets);
    moveGroup(this.joints, was.jointSets, now.jointSets);
    moveGroup(this.connections, was.connections, now.connections);
    moveGroup(this.scans, was.scans, now.scans);
  }

  private moveSums(stays: boolean, partIds: readonly string[], studyChanged: boolean): void {
    if (!stays || studyChanged) {
      this.tree = null;
      this.sums = null;
    }
    if (this.sums === null || partIds.length > MANY) {
      this.sums = null;
      return;
    }
    for (const id of new Set(partIds)) {
      const place = this.outline().placeOf.get(id);
      const part = this.parts.get(id);
      if (place === undefined || !part) continue;
      this.sums = rollUpAfterEdit(this.sums, place, benchOwn(part, this.fasteners.at(id), this.joints.at(id)));
    }
  }
}

/** From so many parts on, sums are worked out anew rather than one by one. */
const MANY = 200;

const besideKey = ({ vehicleId, parentId, subsystemId }: Part): string => `${vehicleId} ${parentId ?? subsystemId ?? ''}`;
const staysInPlace = (before: Part, after: Part): boolean =>
  before.parentId === after.parentId &&
  before.subsystemId === after.subsystemId &&
  before.vehicleId === after.vehicleId &&
  before.sequence === after.sequence;

const moveGroup = <T extends Row>(group: Grouped<T>, was: readonly T[], now: readonly T[]): void => {
  for (const { was: before, now: after } of changedRows(was, now) as readonly {
    readonly was: T | undefined;
    readonly now: T | undefined;
  }[]) {
    if (before) group.take(before);
    if (after) group.put(after);
  }
};
