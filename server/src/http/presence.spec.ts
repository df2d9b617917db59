import { randomUUID } from 'node:crypto';
import { madeJob, madeSite } from '../testing/samples.js';
import { openBed } from '../testing/testbed.js';
import { Presence } from './presence.js';

describe('presence', () => {
  it('knows who is where, tells only what differs, and forgets a window that says nothing for a minute', () => {
    let ms = 0;
    const presence = new Presence(() => ms);
    const note = (window: string, at: string, more = {}) =>
      presence.note('job', { window, name: window.toUpperCase(), at, ...more });
    expect(note('a', 'live')).toEqual({
      present: [{ window: 'a', name: 'A', at: 'live' }],
      changed: true,
    });
    expect(note('a', 'live').changed).toBeFalse();
    expect(note('b', 'key').present.length).toBe(2);
    expect(note('b', 'dead')).toEqual({
      present: [
        { window: 'a', name: 'A', at: 'live' },
        { window: 'b', name: 'B', at: 'dead' },
      ],
      changed: true,
    });
    ms = 61_000;
    expect(note('b', 'dead').present.map((p) => p.window)).toEqual(['b']);
    expect(note('b', 'dead', { gone: true })).toEqual({ present: [], changed: true });
    expect(presence.note('other', { window: 'a', name: 'A', at: 'live' }).present.length).toBe(1);
  });

  it('reaches whoever listens to the job, and nobody of a job that is not there', async () => {
    const bed = await openBed();
    try {
      const job = await madeJob(bed, await madeSite(bed));
      const abort = new AbortController();
      const stream = await fetch(`${bed.url}/api/jobs/${job.id}/events`, { signal: abort.signal });
      const reader = (stream.body as ReadableStream<Uint8Array>).getReader();
      const window = randomUUID();
      const told = await bed.ask('POST', `jobs/${job.id}/presence`, {
        window,
        name: 'A. Hollis',
        at: 'live',
      });
      expect(told.body as unknown).toEqual({
        present: [{ window, name: 'A. Hollis', at: 'live' }],
      });
      let heard = '';
      while (!heard.includes('event: presence')) {
        const { value, done } = await reader.read();
        if (done) break;
        heard += new TextDecoder().decode(value);
      }
      expect(heard).toContain('"name":"A. Hollis"');
      abort.abort();
      const nowhere = await bed.ask('POST', `jobs/${randomUUID()}/presence`, {
        window,
        name: 'A',
        at: 'live',
      });
      expect(nowhere.status).toBe(404);
      const odd = await bed.ask('POST', `jobs/${job.id}/presence`, {
        window,
        name: '',
        at: 'live',
      });
      expect(odd.status).toBe(400);
    } finally {
      await bed.close();
    }
  });
});
