import type { Request } from 'express';

/**
 * Seconds by which the sender's clock is ahead of this one; null where it does not say. A reading may be sent long after it was
 * taken, so this is told by the sending itself and never by the age of what is sent.
 */
export function clockAhead(req: Pick<Request, 'get'>): number | null {
  const sent = Date.parse(req.get('x-clock') ?? '');
  return Number.isFinite(sent) ? Math.round((sent - Date.now()) / 1000) : null;
}
