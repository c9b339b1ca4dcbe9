import type { Router } from 'express';
import { isUuid } from '@each-bolt/core/shared';
import { tagsOf } from '@each-bolt/core/bench';
import type { Pool } from '../db/pool';
import { Problem } from '../http/problem';
import { routed, studyIdOf } from '../http/routes';
import { labelsPdf, labelsSvg, stockNamed, type Label } from './labels';
import { sheetById } from './queries';

const MOST_SKIP = 200;

const wholeFrom = (text: unknown, most: number): number => {
  const value = Number(text ?? 0);
  if (!(Number.isInteger(value) && value >= 0 && value <= most))
    throw new Problem('malformed', `A place on the sheet is a whole number from 0 to ${most}`);
  return value;
};

/** What the bench prints. */
export const benchRoutes = (pool: Pool): Router => {
  const { router, on } = routed(pool);
  on('GET /api/studies/:id/bench/sheets/:sheet/labels', async (request, response) => {
    const { sheet: sheetId } = request.params;
    const found = isUuid(sheetId) ? await sheetById(pool, studyIdOf(request.params), sheetId) : null;
    if (!found) throw new Problem('not-found', 'There is no such sheet of tags');
    const stock = stockNamed(found.stock);
    if (!stock) throw new Problem('invalid', `Labels of the size “${found.stock}” are not known here`);
    const skip = wholeFrom(request.query.skip, MOST_SKIP);
    const labels = tagsOf(found).map((tag): Label => ({ tag, above: found.vehicle, below: found.package ?? found.subsystem ?? '' }));
    if (request.query.format === 'svg') {
      response.type('image/svg+xml').send(labelsSvg(stock, labels, skip, wholeFrom(request.query.page, 100)));
      return;
    }
    const pdf = Buffer.from(await labelsPdf(stock, labels, skip));
    response.type('application/pdf').set('Content-Disposition', `attachment; filename="tags-${found.prefix}.pdf"`).send(pdf);
  });
  return router;
};
