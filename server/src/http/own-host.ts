import type { RequestHandler } from 'express';
import { Problem } from './problem.js';

const names = /^(localhost|127(\.\d{1,3}){3}|\[::1\])(:\d+)?$/iu;

/** Alone on this machine: a page that points a name of its own at this address is no page of ours. */
export const ownHost: RequestHandler = (req, _res, next) => {
  if (!names.test(req.get('host') ?? ''))
    throw new Problem(
      421,
      'otherHost',
      'This server answers only to this machine, by its address or as localhost.',
    );
  next();
};
