import { signal } from '@angular/core';
import type { Evidence } from '@tactron/core/job';

/** Evidence as a job keeps it, a minute apart and by one person, for specs of what records it. */
export function fakeEvidence(by = 'I. Brandt') {
  const evidence = signal<readonly Evidence[]>([]);
  let minute = 0;
  const record = (kind: string, subject: string, body: object): void =>
    evidence.update((list) => [
      ...list,
      {
        id: `e${++minute}`,
        kind,
        subject,
        body,
        author: { name: by, role: '' },
        atClient: new Date(Date.UTC(2026, 0, 1, 8, minute)).toISOString(),
      } as unknown as Evidence,
    ]);
  return { evidence, record };
}
