import type { Response, Router } from 'express';
import { check, issue } from '@each-bolt/core/shared';
import type { InstrumentKind } from '@each-bolt/core/bench';
import { COMMAND, NEW_INSTRUMENT, PLACED } from '@each-bolt/core/wire';
import type { Pool } from '../db/pool';
import { json } from '../http/json';
import { Problem } from '../http/problem';
import { routed } from '../http/routes';
import { whenOver } from '../http/when-over';
import type { InstrumentDriver } from './driver';
import { eventOf, type Live } from '../live/live';
import type { InstrumentHub } from './hub';
import { addInstrument, removeInstrument } from './queries';
import { LineFault } from './scpi-line';

const placeMessage = (kind: InstrumentKind, numbers: readonly number[], symbols: readonly string[]): string => {
  switch (kind) {
    case 'scale':
    case 'floor scale':
      return `SIM:LOAD ${numbers.slice(0, 2).join(',')}`;
    case 'caliper':
      return `SIM:GAP ${numbers[0] ?? ''}`;
    case 'torque driver':
      return `SIM:TURN ${numbers[0] ?? ''},${numbers[1] ?? ''}`;
    case 'alloy analyser':
      return `SIM:ALLOY ${symbols.map((symbol, i) => `${symbol},${numbers[i] ?? ''}`).join(',')}`;
    case 'mesh scanner':
      return `SIM:BOX ${numbers.slice(0, 3).join(',')}`;
    case 'camera':
      throw new Problem('invalid', 'A camera takes what is before it; trigger it instead');
  }
};

/** A stream that reads nothing for so long is ended. */
const UNREAD_MS = 45_000;

const asProblem = (error: unknown): never => {
  if (error instanceof LineFault) throw new Problem('unavailable', `${error.message}. Nothing was stored`);
  throw error;
};

/** Tells of readings as they come, until the page goes or the person is signed out. */
const streamReadings = (response: Response, hub: InstrumentHub, attend: (end: () => void) => () => void): void => {
  response.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-cache, no-transform', 'X-Accel-Buffering': 'no' });
  response.flushHeaders();
  // what nobody reads is not piled up: once it is read again all instruments are told as they are then
  let behind: NodeJS.Timeout | null = null;
  const leave = hub.follow((news) => {
    if (response.writableNeedDrain) behind ??= setTimeout(() => response.destroy(), UNREAD_MS);
    else response.write('all' in news ? eventOf('all', JSON.stringify(news.all)) : eventOf('one', JSON.stringify(news.one)));
  });
  response.on('drain', () => {
    if (behind === null) return;
    clearTimeout(behind);
    behind = null;
    response.write(eventOf('all', JSON.stringify(hub.all())));
  });
  const away = attend(() => response.end());
  whenOver(response, () => {
    if (behind !== null) clearTimeout(behind);
    leave();
    away();
  });
};

/** Instruments of the organisation: how they are, what they read, what they are told. */
export const instrumentRoutes = (pool: Pool, hub: InstrumentHub, live: Live): Router => {
  const { router, on } = routed(pool);
  const found = (id: unknown): InstrumentDriver => {
    const driver = typeof id === 'string' ? hub.driver(id) : null;
    if (!driver) throw new Problem('not-found', 'There is no such instrument');
    return driver;
  };
  on('GET /api/instruments', (_request, response) => {
    response.json(hub.all());
  });
  on('GET /api/instruments/events', (request, response) => {
    streamReadings(response, hub, (end) => live.attend(request.sessionID, end));
  });
  on('POST /api/instruments', json, async (request, response) => {
    const added = check(NEW_INSTRUMENT, request.body);
    if (!added.ok) throw new Problem('invalid', 'The instrument could not be added', added.issues);
    const { host } = added.value;
    const address = await hub.reachable.addressOf(host).catch(() => undefined);
    if (address === undefined || address === null)
      throw new Problem('invalid', 'The instrument could not be added', [
        issue(
          'address',
          address === null
            ? `${host} stands outside of the networks that instruments may stand in (${hub.reachable.toString()}); whoever runs the server can widen them`
            : `Nothing is known under the name ${host}; check it, or give the address by number`,
          'host',
        ),
      ]);
    await addInstrument(pool, { ...added.value, simulated: false });
    await hub.reload();
    response.status(201).json({});
  });
  on('DELETE /api/instruments/:instrument', async (request, response) => {
    const { id } = found(request.params.instrument).now();
    await removeInstrument(pool, id);
    await hub.reload();
    response.json({});
  });
  on('POST /api/instruments/:instrument/commands', json, async (request, response) => {
    const asked = check(COMMAND, request.body);
    if (!asked.ok) throw new Problem('invalid', 'The instrument was told nothing', asked.issues);
    await found(request.params.instrument).command(asked.value.command).catch(asProblem);
    response.json({});
  });
  on('POST /api/instruments/:instrument/place', json, async (request, response) => {
    const placed = check(PLACED, request.body);
    if (!placed.ok) throw new Problem('invalid', 'Nothing was placed', placed.issues);
    const driver = found(request.params.instrument);
    await driver.place(placeMessage(driver.now().kind, placed.value.numbers, placed.value.symbols)).catch(asProblem);
    response.json({});
  });
  on('GET /api/instruments/:instrument/file', async (request, response) => {
    const driver = found(request.params.instrument);
    const bytes = await driver.file().catch(asProblem);
    response.type(driver.now().kind === 'camera' ? 'image/png' : 'model/stl').send(bytes);
  });
  return router;
};
