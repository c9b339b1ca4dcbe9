import { isIP } from 'node:net';
import type { Request } from 'express';
import { ipKeyGenerator } from 'express-rate-limit';

/** Where a request comes from, for limits: behind a trusted proxy the client, not the proxy; of IPv6 the network a client has to itself. */
export const addressOf = ({ ip }: Request): string => (ip !== undefined && isIP(ip) !== 0 ? ipKeyGenerator(ip, 64) : 'unknown');

const LOOPBACK = /^(?:::ffff:)?127\.\d+\.\d+\.\d+$|^::1$/;

/**
 * True when a request surely comes from this machine: not when somebody passed it on whom this server was not told to trust.
 *
 * @returns false too when it is not known
 */
export const isFromHere = (request: Request): boolean => {
  const passedOn = request.get('X-Forwarded-For') !== undefined || request.get('Forwarded') !== undefined;
  const trusts = request.app.get('trust proxy') !== false;
  return LOOPBACK.test(request.ip ?? '') && (trusts || !passedOn);
};
