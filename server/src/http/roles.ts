import type { Op, OpKind, Role } from '@each-bolt/core/record';

const READ = ['lead', 'recorder', 'cost', 'reader'] as const;
const WRITE = ['lead', 'recorder', 'cost'] as const;
export const RECORD = ['lead', 'recorder'] as const;
const LEAD = ['lead'] as const;

/** Who may use a route: anyone, whoever is signed in, whoever may record in some open study, leads of the house, or these roles in the study of the address. */
export type Access = 'anyone' | 'signed-in' | 'recorder' | 'house-lead' | readonly Role[];

/** Every route there is and who may use it. A route that is not here cannot be added. */
export const ROUTES = {
  'GET /api/me': 'anyone',
  'POST /api/sign-in': 'anyone',
  'POST /api/first-lead': 'anyone',
  'POST /api/sign-out': 'signed-in',
  'POST /api/password': 'signed-in',
  'GET /api/people': 'signed-in',
  'POST /api/people': 'house-lead',
  'POST /api/people/:person/password': 'house-lead',
  'GET /api/studies': 'signed-in',
  'POST /api/archives': 'house-lead',
  'GET /api/studies/:id': READ,
  // each op is judged by the table below; only a lead of the house begins a study
  'POST /api/studies/:id/changes': 'signed-in',
  'GET /api/studies/:id/changes': READ,
  'GET /api/studies/:id/changes/:change': READ,
  'GET /api/studies/:id/history': READ,
  'GET /api/studies/:id/mine': READ,
  'GET /api/studies/:id/events': READ,
  'POST /api/studies/:id/here': READ,
  'GET /api/studies/:id/archive': READ,
  'GET /api/studies/:id/plan/experience': READ,
  'GET /api/studies/:id/plan/held-vehicles': READ,
  'GET /api/studies/:id/plan/recorded': READ,
  'GET /api/studies/:id/plan/house-rigs': READ,
  'GET /api/studies/:id/bench/sheets/:sheet/labels': READ,
  'GET /api/instruments': 'signed-in',
  'GET /api/instruments/events': 'signed-in',
  'POST /api/instruments': 'house-lead',
  'DELETE /api/instruments/:instrument': 'house-lead',
  'POST /api/instruments/:instrument/commands': 'recorder',
  'POST /api/instruments/:instrument/place': 'recorder',
  'GET /api/instruments/:instrument/file': 'signed-in',
  'PUT /api/studies/:id/files/:sha256': RECORD,
  'GET /api/studies/:id/files/:sha256': READ,
  'GET /api/studies/:id/files/:sha256/thumbnail': READ,
} as const satisfies Readonly<Record<string, Access>>;

export type Route = keyof typeof ROUTES;

/** Who may make an op; where a role is limited to some fields, which. */
interface May {
  readonly roles: readonly Role[];
  readonly onlyFields?: Partial<Readonly<Record<Role, readonly string[]>>>;
}

const RULE_FIELDS = ['fastenersIn', 'assembliesAs'];
const BASIS_FIELDS = ['currency', 'priceYear', 'volumePerYear', 'productionYears', 'region'];
const COST_FIELDS = [
  'boughtPrice',
  'boughtCurrency',
  'boughtPriceYear',
  'boughtVolumePerYear',
  'boughtRegion',
  'supplier',
  'materialId',
  'materialDetail',
  'processId',
  'processDetail',
  'known',
];

const ACTUAL_FIELDS = ['startedOn', 'doneOn', 'workedS', 'remainingS', 'note'];

const all = (roles: readonly Role[]): May => ({ roles });

/** Every kind of op and who may make it in a study. */
export const OPS: Readonly<Record<OpKind, May>> = {
  'study.add': all(LEAD),
  'study.edit': { roles: WRITE, onlyFields: { recorder: RULE_FIELDS, cost: [...RULE_FIELDS, ...BASIS_FIELDS] } },
  'study.remove': all([]),
  'member.add': all(LEAD),
  'member.edit': all(LEAD),
  'member.remove': all(LEAD),
  'vehicle.add': all(RECORD),
  'vehicle.edit': all(RECORD),
  'vehicle.remove': all(RECORD),
  'subsystem.add': all(RECORD),
  'subsystem.edit': all(RECORD),
  'subsystem.remove': all(RECORD),
  'piece.add': all(RECORD),
  'piece.edit': { roles: WRITE, onlyFields: { cost: COST_FIELDS } },
  'piece.remove': all(RECORD),
  'fasteners.add': all(RECORD),
  'fasteners.edit': all(RECORD),
  'fasteners.remove': all(RECORD),
  'joints.add': all(RECORD),
  'joints.edit': all(RECORD),
  'joints.remove': all(RECORD),
  'question.add': all(WRITE),
  'question.edit': all(WRITE),
  'question.remove': all(WRITE),
  'picture.add': all(RECORD),
  'picture.edit': all(RECORD),
  'picture.remove': all(RECORD),
  'candidate.add': all(RECORD),
  'candidate.edit': all(RECORD),
  'candidate.remove': all(RECORD),
  // whoever reads the results may ask for a vehicle
  'request.add': all(READ),
  'request.edit': all(WRITE),
  'request.remove': all(WRITE),
  'claim.add': all(WRITE),
  'claim.edit': all(WRITE),
  'claim.remove': all(WRITE),
  'scope.add': all(LEAD),
  'scope.edit': all(LEAD),
  'scope.remove': all(LEAD),
  'resource.add': all(LEAD),
  'resource.edit': all(LEAD),
  'resource.remove': all(LEAD),
  'rig.add': all(RECORD),
  'rig.edit': all(RECORD),
  'rig.remove': all(RECORD),
  'package.add': all(LEAD),
  // the bench says what was started, done and spent
  'package.edit': { roles: RECORD, onlyFields: { recorder: ACTUAL_FIELDS } },
  'package.remove': all(LEAD),
  'gate.add': all(RECORD),
  'gate.edit': all(RECORD),
  'gate.remove': all(LEAD),
  'hoist.add': all(RECORD),
  'hoist.edit': all(RECORD),
  'hoist.remove': all(RECORD),
  'unload.add': all(RECORD),
  'unload.edit': all(RECORD),
  'unload.remove': all(RECORD),
  'connection.add': all(RECORD),
  'connection.edit': all(RECORD),
  'connection.remove': all(RECORD),
  'components.add': all(RECORD),
  'components.edit': all(RECORD),
  'components.remove': all(RECORD),
  'board.add': all(RECORD),
  'board.edit': all(RECORD),
  'board.remove': all(RECORD),
  'fluid.add': all(RECORD),
  'fluid.edit': all(RECORD),
  'fluid.remove': all(RECORD),
  'session.add': all(RECORD),
  'session.edit': all(RECORD),
  'session.remove': all(RECORD),
  'step.add': all(RECORD),
  'step.edit': all(RECORD),
  'step.remove': all(RECORD),
  // a reading is corrected by a later one, never edited; it goes only with what it is about
  'reading.add': all(RECORD),
  'reading.edit': all([]),
  'reading.remove': all(RECORD),
  'recount.add': all(RECORD),
  'recount.edit': all(RECORD),
  'recount.remove': all(LEAD),
  'sheet.add': all(RECORD),
  'sheet.edit': all([]),
  'sheet.remove': all(LEAD),
  'scan.add': all(RECORD),
  'scan.edit': all(RECORD),
  'scan.remove': all(RECORD),
  'identification.add': all(RECORD),
  'identification.edit': all(RECORD),
  'identification.remove': all(RECORD),
  'section.add': all(RECORD),
  'section.edit': all(RECORD),
  'section.remove': all(RECORD),
  'pattern.add': all(RECORD),
  'pattern.edit': all(RECORD),
  'pattern.remove': all(RECORD),
  'gauge.add': all(RECORD),
  'gauge.edit': all(RECORD),
  'gauge.remove': all(RECORD),
};

export const mayMake = (role: Role, op: Op): boolean => {
  const { roles, onlyFields } = OPS[op.kind];
  if (!roles.includes(role)) return false;
  const only = onlyFields?.[role];
  if (only === undefined || !('fields' in op)) return true;
  // how a value is known belongs to the value: evidence of other fields is not theirs either
  const known = 'known' in op.fields ? Object.keys(op.fields.known ?? {}) : [];
  return [...Object.keys(op.fields).filter((field) => field !== 'known' || !only.includes(field)), ...known].every((field) =>
    only.includes(field),
  );
};

/** The kinds of op a role may make at all, for the client to show only what can be done. */
export const opsOf = (role: Role): readonly OpKind[] => (Object.keys(OPS) as OpKind[]).filter((kind) => OPS[kind].roles.includes(role));
