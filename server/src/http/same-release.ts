import type { RequestHandler } from 'express';
import { JOB_VERSION } from '@tactron/core/job';
import { Problem } from './problem.js';

/** What is given was made by a later release than this server's: no mistake of who sends it. */
export const laterRelease = (): Problem =>
  new Problem(
    409,
    'reload',
    'This window is of a newer release than the server. Your work is kept here and is sent when the server has been brought up to date.',
  );

/** A window of an older release would not understand what it is given: it is asked to load anew, and keeps its work. */
export const sameRelease: RequestHandler = (req, _res, next) => {
  const told = req.get('x-format');
  const version = told === undefined ? JOB_VERSION : Number(told);
  if (version === JOB_VERSION) return next();
  if (version < JOB_VERSION)
    throw new Problem(
      409,
      'reload',
      'This window is of an older release. Load it anew; your work is kept here and is sent then.',
    );
  throw laterRelease();
};
