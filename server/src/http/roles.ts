import { ENTITIES, KINDS, VERBS, type May, type Op, type OpKind, type Role } from '@each-bolt/core/record';

const READ = ['lead', 'recorder', 'cost', 'reader'] as const;
export const RECORD = ['lead', 'recorder'] as const;

/** Who may use a route: anyone, whoever is signed in, whoever may record in some open study, leads of the organisation, or these roles in the study of the address. */
export type Access = 'anyone' | 'signed-in' | 'recorder' | 'organisation-lead' | readonly Role[];

/** Every route there is and who may use it. A route that is not here cannot be added. */
export const ROUTES = {
  'GET /api/me': 'anyone',
  'POST /api/me/units': 'signed-in',
  'POST /api/sign-in': 'anyone',
  'POST /api/first-lead': 'anyone',
  'POST /api/sign-out': 'signed-in',
  'POST /api/password': 'signed-in',
  'GET /api/people': 'signed-in',
  'POST /api/people': 'organisation-lead',
  'POST /api/people/:person/password': 'organisation-lead',
  'GET /api/studies': 'signed-in',
  'POST /api/archives': 'organisation-lead',
  'GET /api/studies/:id': READ,
  // each op is judged by the table below; only a lead of the organisation begins a study
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
  'GET /api/studies/:id/plan/organisation-rigs': READ,
  'GET /api/studies/:id/bench/sheets/:sheet/labels': READ,
  'GET /api/instruments': 'signed-in',
  'GET /api/instruments/events': 'signed-in',
  'POST /api/instruments': 'organisation-lead',
  'DELETE /api/instruments/:instrument': 'organisation-lead',
  'POST /api/instruments/:instrument/commands': 'recorder',
  'POST /api/instruments/:instrument/place': 'recorder',
  'GET /api/instruments/:instrument/file': 'signed-in',
  'PUT /api/studies/:id/files/:sha256': RECORD,
  'GET /api/studies/:id/files/:sha256': READ,
  'GET /api/studies/:id/files/:sha256/thumbnail': READ,
} as const satisfies Readonly<Record<string, Access>>;

export type Route = keyof typeof ROUTES;

/** Every kind of op and who may make it in a study. */
export const OPS = Object.fromEntries(
  ENTITIES.flatMap((entity) => VERBS.map((verb) => [`${entity}.${verb}`, KINDS[entity].may[verb]])),
) as Readonly<Record<OpKind, May>>;

export const mayMake = (role: Role, op: Op): boolean => {
  const { roles, onlyFields } = OPS[op.kind];
  if (!roles.includes(role)) return false;
  const only = onlyFields?.[role];
  if (only === undefined || !('fields' in op)) return true;
  // how a value is known belongs to the value: evidence of other fields is not theirs either
  const evidence = 'evidence' in op.fields ? Object.keys(op.fields.evidence ?? {}) : [];
  return [...Object.keys(op.fields).filter((field) => field !== 'evidence' || !only.includes(field)), ...evidence].every((field) =>
    only.includes(field),
  );
};

/** The kinds of op a role may make at all, for the client to show only what can be done. */
export const opsOf = (role: Role): readonly OpKind[] => (Object.keys(OPS) as OpKind[]).filter((kind) => OPS[kind].roles.includes(role));
