import type { Router } from 'express';
import type { Pool } from '../db/pool';
import { personOf, routed, studyIdOf } from '../http/routes';
import { experienceOf, heldVehicles, organisationRigs, recordedByDay } from './queries';

/** What planning learns from the other studies of the organisation, and how far the bench is. */
export const planRoutes = (pool: Pool): Router => {
  const { router, on } = routed(pool);
  on('GET /api/studies/:id/plan/experience', async (request, response) => {
    response.json(await experienceOf(pool, studyIdOf(request.params), personOf(response).id));
  });
  on('GET /api/studies/:id/plan/held-vehicles', async (request, response) => {
    response.json(await heldVehicles(pool, studyIdOf(request.params), personOf(response).id));
  });
  on('GET /api/studies/:id/plan/recorded', async (request, response) => {
    response.json(await recordedByDay(pool, studyIdOf(request.params)));
  });
  on('GET /api/studies/:id/plan/organisation-rigs', async (request, response) => {
    response.json(await organisationRigs(pool, studyIdOf(request.params), personOf(response).id));
  });
  return router;
};
