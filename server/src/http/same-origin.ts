import type { RequestHandler } from 'express';
import { Problem } from './problem.js';

/** Writes only from pages of this server: a browser says where a request comes from. */
export const sameOrigin: RequestHandler = (req, _res, next) => {
  if (req.method === 'GET' || req.method === 'HEAD') return next();
  const site = req.get('sec-fetch-site');
  const origin = req.get('origin');
  const own = origin === undefined || hostOf(origin) === req.get('host');
  if ((site !== undefined && site !== 'same-origin' && site !== 'none') || !own)
    throw new Problem(403, 'otherOrigin', 'This request came from another site and was refused.');
  next();
};

/** Host of an origin; nothing where it is none. */
function hostOf(origin: string): string | undefined {
  return URL.canParse(origin) ? new URL(origin).host : undefined;
}
