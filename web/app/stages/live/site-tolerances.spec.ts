import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { emptySite, type Job, type OwnTolerances } from '@tactron/core/job';
import { OpenJob } from '../../job-state/open-job';
import { SiteDocuments } from '../../site/site-documents';
import { SiteTolerances } from './site-tolerances';

describe('tolerances of the site beside those of a job', () => {
  async function bed(site: OwnTolerances, own?: OwnTolerances, closed = false, revision = 1) {
    const job = { siteId: 's', ...(own ? { tolerances: own } : {}) } as Job;
    const open = {
      job: signal(job),
      signing: () => ({ closed }),
      edit: (_label: string, recipe: (draft: Job) => void) => recipe(job),
    };
    const document = { ...emptySite(), tolerances: site };
    const sites = { of: () => Promise.resolve({ document, revision }) };
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: OpenJob, useValue: open },
        { provide: SiteDocuments, useValue: sites },
      ],
    });
    const fixture = TestBed.createComponent(SiteTolerances);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    return { job, page };
  }

  it('says what differs, and takes it over', async () => {
    const { job, page } = await bed({ hz: 0.2 });
    expect(page.textContent).toContain('output frequency ±0.2 Hz, here ±0.1 Hz.');
    page.querySelector('button')?.click();
    expect(job.tolerances).toEqual({ hz: 0.2 });
  });

  it('leaves nothing behind where the site went back to the usual', async () => {
    const { job, page } = await bed({}, { hz: 0.2 });
    page.querySelector('button')?.click();
    expect('tolerances' in job).toBeFalse();
  });

  it('is silent where both are the same, where the record is closed, and where the site is not known', async () => {
    expect((await bed({ hz: 0.1 })).page.textContent).toBe('');
    TestBed.resetTestingModule();
    expect((await bed({ hz: 0.2 }, undefined, true)).page.textContent).toBe('');
    TestBed.resetTestingModule();
    expect((await bed({}, { hz: 0.2 }, false, 0)).page.textContent).toBe('');
  });
});
