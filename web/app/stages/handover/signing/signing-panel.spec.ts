import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { signingOf, type Evidence } from '@tactron/core/job';
import { Compute } from '../../../compute/compute';
import { OpenJob } from '../../../job-state/open-job';
import { SiteDocuments } from '../../../site/site-documents';
import { SigningPanel } from './signing-panel';

const piece = (kind: string, id: string, body: object): Evidence =>
  ({
    kind,
    id,
    subject: 'issue.1',
    body,
    author: { name: 'A', role: 'r' },
    atClient: `2026-01-01T00:00:0${id}Z`,
  }) as unknown as Evidence;

describe('signing', () => {
  const frozen = piece('issue', '1', {
    number: 1,
    contentHash: 'h',
    roles: ['One', 'Two'],
    covers: [],
  });
  const first = piece('signature', '2', { role: 'One', statement: '', documentHash: 'h' });

  async function bed(stands: Promise<boolean>) {
    const evidence = signal<readonly Evidence[]>([frozen, first]);
    const working = signal(false);
    const records: unknown[][] = [];
    const compute = { stands: () => stands, contentHash: () => Promise.resolve('anew') };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: Compute, useValue: compute },
        {
          provide: SiteDocuments,
          useValue: { of: () => Promise.resolve({ document: { requiredRoles: [] } }) },
        },
        {
          provide: OpenJob,
          useValue: {
            job: signal({ siteId: 's' }),
            profile: signal({}),
            evidence,
            signing: () => signingOf(evidence()),
            roles: signal(['One', 'Two']),
            derived: signal({ obstacles: [] }),
            state: signal({ id: 'j' }),
            working,
            record: (...args: unknown[]) => records.push(args),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(SigningPanel);
    fixture.detectChanges();
    const page = fixture.nativeElement as HTMLElement;
    const sign = async (): Promise<void> => {
      const buttons = [...page.querySelectorAll('button')];
      buttons.find((b) => b.textContent?.includes('Sign: Two'))?.click();
      await fixture.whenStable();
      await new Promise((done) => setTimeout(done, 20));
    };
    return { records, sign, working };
  }

  it('goes on with what was frozen although nobody has heard yet that it stands: the signature before stays', async () => {
    const { records, sign } = await bed(new Promise((done) => setTimeout(() => done(true), 5)));
    await sign();
    expect(
      records.map(([kind, , body]) => [kind, (body as { documentHash: string }).documentHash]),
    ).toEqual([['signature', 'h']]);
  });

  it('keeps a press that comes while the job is still reckoned, and signs once when that is done', async () => {
    const { records, sign, working } = await bed(Promise.resolve(true));
    working.set(true);
    await sign();
    await sign();
    expect(records).toEqual([]);
    working.set(false);
    await new Promise((done) => setTimeout(done, 50));
    expect(records.map(([kind]) => kind)).toEqual(['signature']);
  });

  it('freezes anew where the job is another now', async () => {
    const { records, sign } = await bed(Promise.resolve(false));
    await sign();
    expect(records.map(([kind]) => kind)).toEqual(['issue', 'signature']);
    expect((records[1][2] as { documentHash: string }).documentHash).toBe('anew');
  });
});
