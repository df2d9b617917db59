import type { RequestHandler } from 'express';
import { Problem, send } from './problem.js';

/** How long the server waits for a body. */
export interface Patience {
  /** Length of a window, ms. */
  readonly windowMs: number;
  /** Bytes that must arrive in a window. */
  readonly leastBytes: number;
}

/**
 * A body may take as long as it needs while it keeps coming: a bundle of gigabytes, a picture over a poor radio link.
 * One that stands still or trickles for two windows is answered with 408 and its connection is closed. A window in
 * which bytes wait here to be read is the server's own delay and does not count.
 *
 * @example app.use(patient({ windowMs: 15_000, leastBytes: 1000 }))
 */
export const patient =
  ({ windowMs, leastBytes }: Patience): RequestHandler =>
  (req, res, next) => {
    let before = req.socket.bytesRead;
    let poor = 0;
    const look = (): void => {
      if (req.complete) return clearInterval(timer);
      const now = req.socket.bytesRead;
      poor = now - before >= leastBytes || req.readableLength > 0 ? 0 : poor + 1;
      before = now;
      if (poor < 2) return;
      clearInterval(timer);
      const away = (): void => void req.socket.destroy();
      if (res.headersSent) return away();
      res.once('finish', away).setHeader('connection', 'close');
      send(
        res,
        new Problem(408, 'slow', 'The body did not arrive in time. Nothing was stored. Try again.'),
      );
    };
    const timer = setInterval(look, windowMs);
    res.once('close', () => clearInterval(timer));
    next();
  };
