import type { Server } from 'node:http';

/** A connection that rests is kept longer than browsers and the usual proxies keep theirs (60 to 75 s), so that none is closed while a request is on its way. */
const KEEP_ALIVE_MS = 90_000;
/** Whoever has not said within this time what is asked for is cut off. */
const HEADERS_MS = 20_000;
/** A request has to be sent whole within this time, a large scan over a slow network too. */
const REQUEST_MS = 15 * 60_000;
const CHECKED_EACH_MS = 5000;

/** Settings of the server of Node for those who connect and say nothing, or say it by drops. */
export const CONNECTIONS = {
  keepAliveTimeout: KEEP_ALIVE_MS,
  headersTimeout: HEADERS_MS,
  requestTimeout: REQUEST_MS,
  connectionsCheckingInterval: CHECKED_EACH_MS,
} as const;

/** So many connections one process holds; more wait for the system. */
const MOST_CONNECTIONS = 5000;

export const limitConnections = (server: Server): void => {
  server.maxConnections = MOST_CONNECTIONS;
};
