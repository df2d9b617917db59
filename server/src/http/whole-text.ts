import type { RequestHandler } from 'express';
import { unfit } from '@tactron/core/job';
import { invalid } from './problem.js';

/** Bodies hold nothing that the database could not: half a character, a null character, values nested without end. */
export const wholeText: RequestHandler = (req, _res, next) => {
  const odd = Buffer.isBuffer(req.body) ? undefined : unfit(req.body);
  next(odd && invalid([odd]));
};
