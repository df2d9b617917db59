import { boardTrail } from './board-trail';
import type { BoardEntry } from '../job-state/api';

describe('the trail of a job on the board', () => {
  const row = (adopted: boolean, evidence: number): BoardEntry =>
    ({ job: { adopted }, evidence }) as unknown as BoardEntry;
  const of = (plate: number, scheme: number, entry = row(false, 0)) =>
    boardTrail(entry, {
      plate: { needed: 9, missing: plate },
      scheme: { needed: 7, missing: scheme },
    });

  it('says what is next from what is open, plates before wishes before keys and tests', () => {
    expect(of(9, 7).next).toBe('Enter the plates');
    expect(of(0, 1).next).toBe('Say how it must start and stop');
    expect(of(0, 0).next).toBe('Key and test');
    expect(of(0, 0, row(true, 3)).next).toBe('Go on testing');
    const closed = { ...row(true, 9), closed: 2 };
    expect(of(0, 0, closed).next).toBe('Issue 2 is signed');
    expect(of(0, 0, closed).marks.at(-1)?.state).toBe('done');
    expect(of(0, 2).marks.map((m) => m.state)).toEqual(['done', 'part', 'open', 'open']);
    expect(of(9, 0, row(true, 1)).marks.map((m) => m.state)).toEqual([
      'open',
      'done',
      'done',
      'part',
    ]);
  });
});
