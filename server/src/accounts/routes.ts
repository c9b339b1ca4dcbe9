import { randomUUID } from 'node:crypto';
import { promisify } from 'node:util';
import type { Request, RequestHandler, Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import type { Schema } from 'yup';
import { check, issue, isUuid } from '@each-bolt/core/shared';
import {
  CHOSEN_UNITS,
  CREDENTIALS,
  FIRST_LEAD,
  NEW_PASSWORD,
  NEW_PERSON,
  RESET_PASSWORD,
  type Person as ToldPerson,
  type SignedIn,
} from '@each-bolt/core/wire';
import type { Pool } from '../db/pool';
import { transaction } from '../db/transaction';
import { addressOf, isFromHere } from '../http/address';
import { json } from '../http/json';
import { Problem } from '../http/problem';
import { personOf, routed } from '../http/routes';
import { giveToken, sealOf } from '../http/session';
import { insertMember } from '../record/queries';
import { DEMO_PEOPLE } from '../people/demo-people';
import { passwordFault, passwordFits, passwordHash } from '../people/password';
import {
  demoPasswordPeople,
  endSessions,
  insertPerson,
  lockPeople,
  people,
  peopleCount,
  personById,
  setPassword,
  setUnits,
  signInRow,
  studiesWithoutLead,
  unitsOf,
  type Person,
} from '../people/queries';
import { signIn } from '../people/sign-in';

const read = <T>(schema: Schema<T>, body: unknown): T => {
  const checked = check(schema, body);
  if (!checked.ok) throw new Problem('invalid', 'The form has faults. Nothing was written', checked.issues);
  return checked.value;
};

const checkPassword = (password: string, of: string, field: string): void => {
  const fault = passwordFault(password, of);
  if (fault !== null) throw new Problem('invalid', 'The form has faults. Nothing was written', [issue('password', fault, field)]);
};

const duration = (seconds: number): string => (seconds < 90 ? `${seconds} seconds` : `${Math.ceil(seconds / 60)} minutes`);

/** Begins a session of its own for a person: an id that somebody planted before is of no use. */
const beginSession = async (request: Request, personId: string): Promise<void> => {
  await promisify((done: (error: unknown) => void) => request.session.regenerate(done))();
  request.session.personId = personId;
  await promisify((done: (error: unknown) => void) => request.session.save(done))();
};

const seen = ({ id, login, name, standing, demoPassword }: Person): ToldPerson => ({ id, login, name, standing, demoPassword });

const entered = async (pool: Pool, secret: string, person: Person): Promise<SignedIn> => ({
  person: seen(person),
  seal: sealOf(secret, person.id),
  units: await unitsOf(pool, person.id),
});

type On = ReturnType<typeof routed>['on'];

/** Who is here, signing in and out. */
const sessionRoutes = (on: On, pool: Pool, secret: string, failuresPerAddress: number): void => {
  on('GET /api/me', async (request, response) => {
    const { personId } = request.session;
    const person = personId === undefined ? null : await personById(pool, personId);
    if (person) giveToken(response, secret, request.sessionID);
    // passwords that everybody can read are shown to nobody but whoever sits at this machine
    const onDemo = person ? [] : await demoPasswordPeople(pool);
    const shown = isFromHere(request) ? onDemo : [];
    response.set('Cache-Control', 'no-store').json({
      person: person && seen(person),
      seal: person && sealOf(secret, person.id),
      units: person && (await unitsOf(pool, person.id)),
      firstRun: !person && onDemo.length === 0 && (await peopleCount(pool)) === 0,
      demo: DEMO_PEOPLE.filter((p) => shown.some((d) => d.login === p.login)).map(({ login, name, role, password }) => ({
        login,
        name,
        role,
        password,
      })),
    });
  });

  on('POST /api/sign-in', json, async (request, response) => {
    const given = read(CREDENTIALS, request.body);
    const result = await signIn(pool, addressOf(request), given.login, given.password, failuresPerAddress);
    if (result.kind === 'locked' || result.kind === 'too-many') response.set('Retry-After', String(result.seconds));
    if (result.kind === 'locked')
      throw new Problem('locked', `Too many sign-ins failed. This name is locked here for ${duration(result.seconds)}; then try again`);
    if (result.kind === 'too-many')
      throw new Problem('too-many', `Too many sign-ins failed from this address; try again in ${duration(result.seconds)}`);
    if (result.kind === 'wrong') throw new Problem('signed-out', 'Sign-in name and password do not fit together');
    await beginSession(request, result.person.id);
    giveToken(response, secret, request.sessionID);
    response.json(await entered(pool, secret, result.person));
  });

  on('POST /api/sign-out', async (request, response) => {
    await promisify((done: (error: unknown) => void) => request.session.destroy(done))();
    response.clearCookie('eachbolt').clearCookie('XSRF-TOKEN').json({});
  });
};

/** What strangers and owners do with an account of their own; `slow` holds off who tries many. */
const ownRoutes = (on: On, pool: Pool, secret: string, slow: RequestHandler): void => {
  on('POST /api/first-lead', slow, json, async (request, response) => {
    const given = read(FIRST_LEAD, request.body);
    checkPassword(given.password, given.login, 'password');
    const hashed = await passwordHash(given.password);
    const person: Person = { id: randomUUID(), login: given.login, name: given.name.trim(), standing: 'lead', demoPassword: false };
    await transaction(pool, async (db) => {
      await lockPeople(db);
      if ((await peopleCount(db)) > 0) throw new Problem('forbidden', 'There is an account already; sign in with it');
      await insertPerson(db, { ...person, passwordHash: hashed });
      for (const { id } of await studiesWithoutLead(db)) await insertMember(db, id, randomUUID(), person.id);
    });
    await beginSession(request, person.id);
    giveToken(response, secret, request.sessionID);
    response.status(201).json(await entered(pool, secret, person));
  });

  on('POST /api/me/units', json, async (request, response) => {
    await setUnits(pool, personOf(response).id, read(CHOSEN_UNITS, request.body).units);
    response.json({});
  });

  on('POST /api/password', slow, json, async (request, response) => {
    const { current, next } = read(NEW_PASSWORD, request.body);
    const person = personOf(response);
    checkPassword(next, person.login, 'next');
    await transaction(pool, async (db) => {
      const row = await signInRow(db, person.login);
      if (!(await passwordFits(current, row?.passwordHash ?? null)))
        throw new Problem('invalid', 'The password was not changed', [issue('password', 'This is not the password now in use', 'current')]);
      await setPassword(db, person.id, await passwordHash(next));
      await endSessions(db, person.id, request.sessionID);
    });
    response.json({});
  });
};

/** Accounts, kept by a lead of the organisation. */
const accountRoutes = (on: On, pool: Pool): void => {
  on('GET /api/people', async (_request, response) => {
    const isLead = personOf(response).standing === 'lead';
    response.json((await people(pool)).map((p) => (isLead ? seen(p) : { id: p.id, name: p.name })));
  });

  on('POST /api/people', json, async (request, response) => {
    const given = read(NEW_PERSON, request.body);
    checkPassword(given.password, given.login, 'password');
    const person = { id: randomUUID(), login: given.login, name: given.name.trim(), standing: given.standing, demoPassword: false };
    if (!(await insertPerson(pool, { ...person, passwordHash: await passwordHash(given.password) })))
      throw new Problem('invalid', 'The form has faults. Nothing was written', [
        issue('login-taken', `“${given.login}” is taken; choose another sign-in name`, 'login'),
      ]);
    response.status(201).json({ person: seen(person) });
  });

  on('POST /api/people/:person/password', json, async (request, response) => {
    const { next } = read(RESET_PASSWORD, request.body);
    const id = request.params.person;
    const person = isUuid(id) ? await personById(pool, id) : null;
    if (!person) throw new Problem('not-found', 'There is no such person');
    checkPassword(next, person.login, 'next');
    await setPassword(pool, person.id, await passwordHash(next));
    await endSessions(pool, person.id, '');
    response.json({});
  });
};

/** Sign-in, sign-out and accounts. */
export const peopleRoutes = (pool: Pool, secret: string, failuresPerAddress: number): Router => {
  const { router, on } = routed(pool);
  const slow = rateLimit({
    windowMs: 5 * 60_000,
    limit: failuresPerAddress,
    skipSuccessfulRequests: true,
    validate: { trustProxy: false, xForwardedForHeader: false },
    handler: () => {
      throw new Problem('too-many', 'Too many sign-ins failed from this address; wait five minutes');
    },
  });
  sessionRoutes(on, pool, secret, failuresPerAddress);
  ownRoutes(on, pool, secret, slow);
  accountRoutes(on, pool);
  return router;
};
