import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MAT_DIALOG_DATA, MatDialogRef } from '@angular/material/dialog';
import { emptySite, type Job } from '@tactron/core/job';
import { Api, ApiError, type SiteEntry } from '../job-state/api';
import { NEWS_CHANNEL } from '../job-state/courier';
import { SHELF } from '../job-state/local-store';
import { MapShelf } from '../job-state/testing/map-shelf';
import { JobDialog } from './job-dialog';

const hall = { id: '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a01', name: 'Hall 2' } as SiteEntry;
const yard = { id: '0d3f2a1c-7b64-4c1e-8a7d-5e9b1c2d3a02', name: 'Yard' } as SiteEntry;
const profile = {
  sha256: 'f'.repeat(64),
  family: 'Marrowick F',
  title: 'Marrowick F',
  gaps: [],
  models: [{ name: 'F02', ratedKw: 2.2, ratedA: 5 }],
};

describe('the dialog for a new job', () => {
  async function bed(at: readonly SiteEntry[] = []) {
    const sites = signal(at);
    const made: Job[] = [];
    const api = {
      profiles: () => Promise.resolve([profile]),
      profile: () => Promise.resolve({}),
      siteDocument: (id: string) =>
        Promise.resolve({
          document: { ...emptySite(), tolerances: id === yard.id ? { hz: 0.2 } : {} },
          revision: 1,
        }),
      addSite: ({ id, name }: SiteEntry) => Promise.resolve({ id, name }),
      addJob: (job: Job) =>
        job.tag === 'TAKEN'
          ? Promise.reject(new ApiError(400, 'The tag TAKEN is in use at this site.'))
          : Promise.resolve(made.push(job)),
    };
    const closed: unknown[] = [];
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: Api, useValue: api },
        { provide: SHELF, useFactory: () => new MapShelf() },
        { provide: NEWS_CHANNEL, useValue: null },
        { provide: MAT_DIALOG_DATA, useValue: { sites } },
        { provide: MatDialogRef, useValue: { close: (id: unknown) => closed.push(id) } },
      ],
    });
    const fixture = TestBed.createComponent(JobDialog);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const field = (name: string) => page.querySelector(`[name=${name}]`) as HTMLInputElement;
    const enter = async (name: string, text: string, event = 'input'): Promise<void> => {
      field(name).value = text;
      field(name).dispatchEvent(new Event(event));
      await fixture.whenStable();
    };
    const submit = page.querySelector('button[type=submit]') as HTMLButtonElement;
    const make = async (): Promise<void> => {
      submit.click();
      const told = () => made.length > 0 || page.querySelector('[role=alert]') !== null;
      for (let tries = 0; tries < 400 && !told(); tries++) {
        await new Promise((done) => setTimeout(done, 5));
        await fixture.whenStable();
      }
    };
    return { fixture, page, sites, made, closed, field, enter, submit, make };
  }

  it('takes the first site when the board has read its sites only after it opened', async () => {
    const { fixture, sites, enter, submit, make, made } = await bed();
    await enter('tag', 'FM-BALER');
    expect(submit.disabled).toBeTrue();
    sites.set([hall, yard]);
    await fixture.whenStable();
    expect(submit.disabled).toBeFalse();
    await make();
    expect(made.map((j) => [j.tag, j.siteId])).toEqual([['FM-BALER', hall.id]]);
  });

  it('keeps the chosen site, and a new one being named, when the sites are read again', async () => {
    const { fixture, sites, enter, field } = await bed([hall, yard]);
    await enter('site', yard.id, 'change');
    sites.set([hall, yard]);
    await fixture.whenStable();
    expect(field('site').value).toBe(yard.id);
    await enter('site', 'new', 'change');
    await enter('siteName', 'Saw mill');
    sites.set([hall]);
    await fixture.whenStable();
    expect([field('site').value, field('siteName').value]).toEqual(['new', 'Saw mill']);
  });

  it('takes over the tolerances that the site settles, and none where it settles none', async () => {
    const first = await bed([yard]);
    await first.enter('tag', 'FM-BALER');
    await first.make();
    expect(first.made.map((j) => j.tolerances)).toEqual([{ hz: 0.2 }]);
    TestBed.resetTestingModule();
    const second = await bed([hall]);
    await second.enter('tag', 'FM-BALER');
    await second.make();
    expect(second.made.map((j) => 'tolerances' in j)).toEqual([false]);
  });

  it('says why the job could not be made and keeps what was typed', async () => {
    const { page, enter, field, make, closed } = await bed([hall]);
    await enter('tag', 'TAKEN');
    await enter('machine', 'Sack lift');
    await make();
    expect(page.querySelector('[role=alert]')?.textContent).toContain('is in use');
    expect([field('tag').value, field('machine').value, closed.length]).toEqual([
      'TAKEN',
      'Sack lift',
      0,
    ]);
  });
});
