import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { join } from 'node:path';
import { importOps, readPieces, sortRows, withSubsystems } from '@each-bolt/core/bench';
import { basisOf } from '@each-bolt/core/cost';
import {
  USUAL_STUDY,
  blankVehicle,
  readChange,
  type Op,
  type QuestionFields,
  type Role,
  type StudyFields,
  type Subsystem,
  type SubsystemFields,
  type Vehicle,
  type VehicleFields,
} from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { keepChange } from '../ledger/keep-change';
import { addDemoPeople } from '../people/demo-people';
import { demoCalendar, demoPlanOps, weeksLater, type DemoPlan } from './demo-plan';
import { insertFile, linkFile } from '../files/queries';
import { readScan } from '../files/scan-file';
import { benchOps, type DemoBench } from './demo-bench';
import { demoMeasureOps, demoScans, type DemoMeasure } from './demo-measure';
import { earlierOps, type DemoEarlier } from './demo-earlier';
import { peopleCount } from '../people/queries';
import { anyStudy } from '../record/queries';

/** A question about the piece with a tag, or about the study; its owner is named by role. */
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

export class DemoError extends Error {}

const send = async (pool: Pool, studyId: string, ops: readonly Op[]): Promise<void> => {
  const read = readChange({ id: randomUUID(), ops, undoes: null });
  if (!read.ok) throw new DemoError(`demo: ${read.issues.map((i) => `${i.field}: ${i.message}`).join('; ')}`);
  await keepChange(pool, studyId, read.value, { person: null, name: 'Demo data', device: 'loaded at start' });
};

const named = <T extends { readonly name: string }>(rows: readonly T[], name: string): T => {
  const row = rows.find((r) => r.name === name);
  if (!row) throw new DemoError(`demo: nothing is called “${name}”`);
  return row;
};

/** Another study of the house, with everybody of the demo in it. */
const loadBeside = async (
  pool: Pool,
  opsOf: (studyId: string) => readonly Op[],
  people: readonly { readonly id: string; readonly role: Role }[],
): Promise<void> => {
  const id = randomUUID();
  const members = people.map((person): Op => ({
    kind: 'member.add',
    id: randomUUID(),
    fields: { personId: person.id, role: person.role },
  }));
  await send(pool, id, [...opsOf(id), ...members]);
};

/** Loads the demo study into an empty database, through the same reading, checks and ledger as a user's own files. */
export const loadDemo = async (pool: Pool, dir: string, today = new Date().toISOString().slice(0, 10)): Promise<boolean> => {
  if ((await anyStudy(pool)) || (await peopleCount(pool)) > 0) return false;
  const json = async (name: string): Promise<unknown> => JSON.parse(await readFile(join(dir, name), 'utf8')) as unknown;
  const demo = (await json('study.json')) as DemoStudy;
  const plan = (await json('plan.json')) as DemoPlan;
  const studyId = randomUUID();
  const fields: StudyFields = {
    ...demo.study,
    calendar: demoCalendar(plan, today),
    choiceWeights: plan.choiceWeights,
    usualHazards: USUAL_STUDY.usualHazards,
  };
  const study = { id: studyId, version: 1, ...fields };
  const later = weeksLater(plan.asOf, today);
  const vehicleIds = new Map(demo.vehicles.map(({ name }) => [name, randomUUID()]));
  const vehicles: readonly Vehicle[] = demo.vehicles.map(({ predecessor, expectedOn, ...said }) => ({
    id: vehicleIds.get(said.name) ?? '',
    version: 1,
    ...blankVehicle(said.name, said.role, said.sequence),
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
  const add = (entity: 'vehicle' | 'subsystem', rows: readonly (Vehicle | Subsystem)[]): readonly Op[] =>
    rows.map(({ id, version: _version, ...fields }) => ({ kind: `${entity}.add`, id, fields }) as Op);
  const people = await addDemoPeople(pool);
  const members = people.map(({ id, role }): Op => ({
    kind: 'member.add',
    id: randomUUID(),
    fields: { personId: id, role },
  }));
  const ops: Op[] = [{ kind: 'study.add', id: studyId, fields }, ...members, ...add('vehicle', vehicles), ...add('subsystem', subsystems)];
  for (const { file, vehicle, subsystem } of demo.files) {
    const preview = readPieces(await readFile(join(dir, file), 'utf8'));
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
  const pieceId = (tag: string): string => {
    const op = ops.find((o) => o.kind === 'piece.add' && o.fields.tag === tag);
    if (!op) throw new DemoError(`demo: nothing has the tag “${tag}”`);
    return op.id;
  };
  const names = {
    vehicle: (name: string) => named(vehicles, name).id,
    subsystem: (name: string) => named(subsystems, name).id,
    account: (login: string) => people.find((p) => p.login === login)?.id ?? '',
    piece: pieceId,
    newId: randomUUID,
  };
  ops.push(...demoPlanOps(plan, names, demo.study.currency, demo.study.priceYear, today));
  for (const { about, field, owner, ...question } of demo.questions)
    ops.push({
      kind: 'question.add',
      id: randomUUID(),
      fields: {
        ...question,
        aboutKind: about === null ? 'study' : 'piece',
        aboutId: about === null ? studyId : pieceId(about),
        aboutField: field,
        ownerId: people.find((p) => p.role === owner)?.id ?? null,
        state: 'open',
        answer: '',
      },
    });
  const { calendar, choiceWeights, usualHazards } = USUAL_STUDY;
  const usual = { calendar, choiceWeights, usualHazards };
  // over and archived: what planning learns from
  const earlier = (await json('city-vans.json')) as DemoEarlier;
  await loadBeside(pool, (id) => earlierOps(earlier, id, usual, randomUUID), people);
  // left half recorded, so that the bench can be tried at once
  const bench = (await json('second-bench.json')) as DemoBench;
  await loadBeside(pool, (id) => benchOps(bench, id, usual, randomUUID), people);
  const measured = (await json('measure.json')) as DemoMeasure;
  const materialOf = (tag: string): string | null => {
    const op = ops.find((o) => o.kind === 'piece.add' && o.fields.tag === tag);
    return op?.kind === 'piece.add' ? op.fields.materialId : null;
  };
  const scans = demoScans(measured, pieceId, randomUUID);
  ops.push(...demoMeasureOps(measured, pieceId, materialOf, randomUUID));
  // last, so that it stands first among the studies
  await send(pool, studyId, ops);
  for (const { bytes } of scans) {
    const file = readScan(bytes, 'demo.stl');
    await insertFile(pool, file);
    await linkFile(pool, studyId, file.sha256);
  }
  await send(
    pool,
    studyId,
    scans.map(({ op }) => op),
  );
  return true;
};
