import { Router, type Request, type RequestHandler, type Response } from 'express';
import { object, string } from 'yup';
import { check } from '@each-bolt/core/shared';
import type { Role } from '@each-bolt/core/record';
import type { Pool } from '../db/pool';
import { hasRoleInOpenStudy, personById, roleIn, type Person } from '../people/queries';
import { Problem } from './problem';
import { RECORD, ROUTES, type Access, type Route } from './roles';

interface Locals {
  person?: Person;
  role?: Role;
}

/** The person of a request, whom the guard has let through. */
export const personOf = (response: Response): Person => {
  const { person } = response.locals as Locals;
  if (!person) throw new RangeError('the route has no signed-in person');
  return person;
};

/** The person's role in the study of the address. */
export const roleOf = (response: Response): Role => {
  const { role } = response.locals as Locals;
  if (!role) throw new RangeError('the route has no study');
  return role;
};

const STUDY_ID = object({ id: string().uuid('The study id must be a UUID').required() });

/** The study id of the address, checked. */
export const studyIdOf = (params: Request['params']): string => {
  const checked = check(STUDY_ID, { id: params.id });
  if (!checked.ok) throw new Problem('not-found', 'There is no such study');
  return checked.value.id.toLowerCase();
};

const guard =
  (pool: Pool, access: Access): RequestHandler =>
  async (request, response, next) => {
    if (access !== 'anyone') {
      const { personId } = request.session;
      const person = personId === undefined ? null : await personById(pool, personId);
      if (!person) throw new Problem('signed-out', 'Sign in first. Nothing was written');
      // what a page still shows of one account must not go out as another’s who signed in beside it
      const account = request.get('X-Account') ?? request.query.account;
      if (account !== undefined && account !== person.id)
        throw new Problem('signed-out', 'Another account has signed in on this device. Nothing was written; sign in again');
      const locals = response.locals as Locals;
      locals.person = person;
      if (access === 'recorder' && !(await hasRoleInOpenStudy(pool, person.id, RECORD)))
        throw new Problem('forbidden', 'Only whoever may record in an open study commands instruments; ask a lead of a study');
      if (access === 'organisation-lead' && person.standing !== 'lead')
        throw new Problem('forbidden', 'Only a lead of the organisation may do this; ask one');
      if (typeof access === 'object') {
        const role = await roleIn(pool, studyIdOf(request.params), person.id);
        // to somebody who is not of a study it is as if it were not there
        if (role === null) throw new Problem('not-found', 'There is no such study');
        if (!access.includes(role)) throw new Problem('forbidden', `A ${role} may not do this; ask a lead of the study`);
        locals.role = role;
      }
    }
    next();
  };

/** Adds routes behind the guard that the table of roles asks for. */
export const routed = (pool: Pool): { readonly router: Router; readonly on: (route: Route, ...handlers: RequestHandler[]) => void } => {
  const router = Router();
  return {
    router,
    on: (route, ...handlers) => {
      const [method = '', path = ''] = route.split(' ');
      router[method.toLowerCase() as 'get' | 'post' | 'put' | 'delete'](path, guard(pool, ROUTES[route]), ...handlers);
    },
  };
};
