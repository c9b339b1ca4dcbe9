import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { importOps, readParts, sortRows, withSubsystems } from '@each-bolt/core/bench';
import { basisOf } from '@each-bolt/core/cost';
import {
  applyOps,
  blank,
  emptyRecord,
  USUAL_STUDY,
  readChange,
  type Change,
  type Op,
  type QuestionFields,
  type Role,
  type Study,
  type StudyFields,
  type Subsystem,
  type SubsystemFields,
  type Vehicle,
  type VehicleFields,
} from '@each-bolt/core/record';
import { aloneAtStart } from '../db/migrate';
import type { Db, Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { keepWithin } from '../ledger/keep-change';
import { demoPeople } from '../people/demo-people';
import { demoCalendar, demoPlanOps, weeksLater, type DemoPlan } from './demo-plan';
import { insertFile, linkFile, type StoredFile } from '../files/queries';
import { readScan } from '../files/scan-file';
import { benchOps, type DemoBench } from './demo-bench';
import { demoMeasureOps, demoScans, type DemoMeasure } from './demo-measure';
import { demoPictures } from './demo-pictures';
import { sessionOps, type DemoSession } from './demo-sessions';
import { systemOps, type DemoSystems } from './demo-systems';
import { earlierOps, type DemoEarlier } from './demo-earlier';
import { insertPerson, peopleCount, type NewPerson } from '../people/queries';
import { anyStudy } from '../record/queries';

/** A question about the part with a tag, or about the study; its owner is named by role. */
interface DemoQuestion extends Pick<QuestionFields, 'kind' | 'text' | 'dueOn' | 'owedTo'> {
  readonly about: string | null;
  readonly field: string | null;
  readonly owner: Role | null;
}

interface DemoStudy {
  readonly study: Omit<StudyFields, 'calendar' | 'choiceWeights' | 'usualHazards'>;
  readonly vehicles: readonly (Partial<VehicleFields> &
    Pick<VehicleFields, 'name' | 'role' | 'sequence'> & { readonly predecessor: string | null })[];
  readonly subsystems: readonly string[];
  readonly questions: readonly DemoQuestion[];
  readonly files: readonly { readonly file: string; readonly vehicle: string; readonly subsystem: string }[];
}

class DemoError extends Error {}

/** All that the demo comes to, checked and ready to be written. */
interface Prepared {
  readonly people: readonly NewPerson[];
  /** in the order in which they are kept; the last study stands first in the list */
  readonly changes: readonly { readonly studyId: string; readonly change: Change }[];
  readonly studyId: string;
  readonly files: readonly StoredFile[];
}

const changeOf = (ops: readonly Op[]): Change => {
  const read = readChange({ id: randomUUID(), ops, undoes: null });
  if (!read.ok) throw new DemoError(`demo: ${read.issues.map((i) => `${i.field}: ${i.message}`).join('; ')}`);
  return read.value;
};

const named = <T extends { readonly name: string }>(rows: readonly T[], name: string): T => {
  const row = rows.find((r) => r.name === name);
  if (!row) throw new DemoError(`demo: nothing is called “${name}”`);
  return row;
};

/** Another study of the organisation, with everybody of the demo in it. */
const beside = (
  opsOf: (studyId: string) => readonly Op[],
  people: readonly { readonly id: string; readonly role: Role }[],
): Prepared['changes'][number] => {
  const studyId = randomUUID();
  return { studyId, change: changeOf([...opsOf(studyId), ...membersOf(people)]) };
};

const membersOf = (people: readonly { readonly id: string; readonly role: Role }[]): readonly Op[] =>
  people.map((person) => ({ kind: 'member.add', id: randomUUID(), fields: { personId: person.id, role: person.role } }));

/**
 * Loads the demo study into an empty database, through the same reading, checks and ledger as a user's own files: all of it or
 * nothing, once however many processes begin together.
 */
export const loadDemo = async (pool: Pool, dir: string, today = new Date().toISOString().slice(0, 10)): Promise<boolean> => {
  if (!(await isEmpty(pool))) return false;
  // nothing is held in the database while it is worked out
  const prepared = await prepare(dir, today);
  return transaction(pool, async (db) => {
    await aloneAtStart(db);
    if (!(await isEmpty(db))) return false;
    await write(db, prepared);
    return true;
  });
};

const isEmpty = async (db: Db): Promise<boolean> => !(await anyStudy(db)) && (await peopleCount(db)) === 0;

const write = async (db: Db, { people, changes, studyId, files }: Prepared): Promise<void> => {
  for (const person of people) await insertPerson(db, person);
  for (const file of files) await insertFile(db, file);
  for (const sent of changes) {
    await keepWithin(db, sent.studyId, sent.change, { person: null, name: 'Demo data', device: 'loaded at start' });
    if (sent.studyId === studyId) for (const { sha256 } of files) await linkFile(db, studyId, sha256);
  }
};

/** The bones of the demo study: itself, who is of it, its vehicles and subsystems. */
interface Bones {
  readonly ops: readonly Op[];
  readonly vehicles: readonly Vehicle[];
  readonly subsystems: readonly Subsystem[];
}

type Members = Awaited<ReturnType<typeof demoPeople>>;

const bonesOf = (demo: DemoStudy, plan: DemoPlan, study: Study, people: Members, today: string): Bones => {
  const later = weeksLater(plan.asOf, today);
  const vehicleIds = new Map(demo.vehicles.map(({ name }) => [name, randomUUID()]));
  const vehicles: readonly Vehicle[] = demo.vehicles.map(({ predecessor, expectedOn, ...said }) => ({
    id: vehicleIds.get(said.name) ?? '',
    version: 1,
    ...blank('vehicle', { name: said.name, role: said.role, sequence: said.sequence }),
    ...said,
    expectedOn: expectedOn ? later(expectedOn) : null,
    predecessorId: predecessor === null ? null : (vehicleIds.get(predecessor) ?? null),
  }));
  const subsystems: readonly Subsystem[] = demo.subsystems.map((name, i): { id: string; version: number } & SubsystemFields => ({
    id: randomUUID(),
    version: 1,
    parentId: null,
    sequence: i,
    name,
  }));
  const add = (entity: 'study' | 'vehicle' | 'subsystem', rows: readonly (Study | Vehicle | Subsystem)[]): readonly Op[] =>
    rows.map(({ id, version: _version, ...fields }) => ({ kind: `${entity}.add`, id, fields }) as Op);
  return {
    ops: [...add('study', [study]), ...membersOf(people), ...add('vehicle', vehicles), ...add('subsystem', subsystems)],
    vehicles,
    subsystems,
  };
};

/** The parts of the demo's files, read and refused as those of anybody. */
const partOps = async (dir: string, demo: DemoStudy, study: Study, { vehicles, subsystems }: Bones): Promise<readonly Op[]> => {
  const ops: Op[] = [];
  for (const { file, vehicle, subsystem } of demo.files) {
    const preview = readParts(await readFile(join(dir, file), 'utf8'));
    const { load, faulty } = sortRows(withSubsystems(preview.rows, subsystems));
    const faults = [
      ...preview.issues.map((i) => i.message),
      ...faulty.flatMap((row) => row.faults.map((f) => `line ${row.line}, ${f.heading}: ${f.message}`)),
    ];
    if (faults.length > 0) throw new DemoError(`demo ${file}: ${faults.join('; ')}`);
    const place = {
      vehicleId: named(vehicles, vehicle).id,
      subsystemId: named(subsystems, subsystem).id,
      subsystems,
      basis: basisOf(study),
      sequence: 0,
    };
    ops.push(...importOps(load, place, randomUUID));
  }
  return ops;
};

const questionOps = (demo: DemoStudy, study: Study, people: Members, partId: (tag: string) => string): readonly Op[] =>
  demo.questions.map(({ about, field, owner, ...question }) => ({
    kind: 'question.add',
    id: randomUUID(),
    fields: {
      ...question,
      aboutKind: about === null ? 'study' : 'part',
      aboutId: about === null ? study.id : partId(about),
      aboutField: field,
      ownerId: people.find((p) => p.role === owner)?.id ?? null,
      state: 'open',
      answer: '',
    },
  }));

const prepare = async (dir: string, today: string): Promise<Prepared> => {
  const json = async <T>(name: string): Promise<T> => JSON.parse(await readFile(join(dir, name), 'utf8')) as T;
  const demo = await json<DemoStudy>('study.json');
  const plan = await json<DemoPlan>('plan.json');
  const { calendar, choiceWeights, usualHazards } = USUAL_STUDY;
  const ofPlan = { calendar: demoCalendar(plan, today), choiceWeights: plan.choiceWeights, usualHazards };
  const study: Study = { id: randomUUID(), version: 1, ...demo.study, ...ofPlan };
  const people = await demoPeople();
  const bones = bonesOf(demo, plan, study, people, today);
  const parts = await partOps(dir, demo, study, bones);
  const partNamed = (tag: string): Op & { readonly kind: 'part.add' } => {
    const op = parts.find((o) => o.kind === 'part.add' && o.fields.tag === tag);
    if (op?.kind !== 'part.add') throw new DemoError(`demo: nothing has the tag “${tag}”`);
    return op;
  };
  const partId = (tag: string): string => partNamed(tag).id;
  const names = {
    vehicle: (name: string) => named(bones.vehicles, name).id,
    subsystem: (name: string) => named(bones.subsystems, name).id,
    account: (login: string) => people.find((p) => p.login === login)?.id ?? '',
    part: partId,
    newId: randomUUID,
  };
  const sessions = await json<readonly DemoSession[]>('benches.json');
  const recorded = applyOps(emptyRecord(study), [...bones.ops.slice(1), ...parts], 1);
  const measured = await json<DemoMeasure>('measure.json');
  const removed = sessionOps(sessions, recorded, names);
  const systems = await json<DemoSystems>('systems.json');
  const ops = [
    ...bones.ops,
    ...parts,
    ...removed,
    ...systemOps(systems, applyOps(recorded, removed, 1), names),
    ...demoPlanOps(plan, names, demo.study.currency, demo.study.priceYear, today),
    ...questionOps(demo, study, people, partId),
    ...demoMeasureOps(measured, partId, (tag) => partNamed(tag).fields.materialId, randomUUID),
  ];
  const scans = demoScans(measured, partId, randomUUID);
  const pictures = await demoPictures(recorded.parts, systems.pictures, randomUUID);
  const usual = { calendar, choiceWeights, usualHazards };
  // over and archived: what planning learns from
  const earlier = await json<DemoEarlier>('city-vans.json');
  // left half recorded, so that the bench can be tried at once
  const bench = await json<DemoBench>('second-bench.json');
  return {
    people,
    studyId: study.id,
    files: [...scans.map(({ bytes }) => readScan(bytes, 'demo.stl')), ...pictures.map(({ file }) => file)],
    changes: [
      beside((id) => earlierOps(earlier, id, usual, randomUUID), people),
      beside((id) => benchOps(bench, id, usual, randomUUID), people),
      // last, so that it stands first among the studies
      { studyId: study.id, change: changeOf(ops) },
      // once their files are there
      { studyId: study.id, change: changeOf([...scans, ...pictures].map(({ op }) => op)) },
    ],
  };
};
