import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { OpenJob } from '../job-state/open-job';
import { Pocket } from './pocket';

const finding = (key: string, stage: string, severity: string, more: object = {}) => ({
  finding: { key, rule: key, stage, severity, rank: 'moves', source: 'a rule', args: {} },
  what: `What ${key} says.`,
  why: '',
  remedy: '',
  mark: severity,
  subject: key,
  accepted: null,
  acceptable: true,
  ...more,
});

describe('the pocket', () => {
  const derived = signal<unknown>(null);
  const three = {
    facts: [],
    findings: [
      finding('cable', 'plate', 'warn'),
      finding('school', 'scheme', 'warn'),
      finding('guard', 'scheme', 'stop'),
    ],
  };
  function at(stage: string) {
    TestBed.configureTestingModule({
      providers: [
        provideRouter([]),
        { provide: OpenJob, useValue: { derived, picked: signal(''), record: () => undefined } },
      ],
    });
    const made = TestBed.createComponent(Pocket);
    made.componentRef.setInput('stage', stage);
    made.detectChanges();
    const page = made.nativeElement as HTMLElement;
    const told = (): string[] =>
      [...page.querySelectorAll('[data-finding]')].map((x) => x.getAttribute('data-finding') ?? '');
    return { made, page, told };
  }

  it('tells what is put right here and what must be fixed; the rest is a count that unfolds until the stage is left', () => {
    derived.set(three);
    const { made, page, told } = at('plate');
    expect(told()).toEqual(['cable', 'guard']);
    const more = [...page.querySelectorAll('button')].find((b) =>
      b.textContent?.includes('elsewhere'),
    );
    expect(more?.textContent?.trim()).toBe('1 finding elsewhere');
    more?.click();
    made.detectChanges();
    expect(told()).toEqual(['cable', 'school', 'guard']);
    made.componentRef.setInput('stage', 'scheme');
    made.detectChanges();
    expect(told()).toEqual(['school', 'guard']);
    made.componentRef.setInput('stage', 'handover');
    made.detectChanges();
    expect(told()).toEqual(['cable', 'school', 'guard']);
  });

  it('never says that nothing was found while anything was, or before it is worked out', () => {
    derived.set({ facts: [], findings: [finding('cable', 'plate', 'warn')] });
    const { made, page } = at('land');
    expect(page.textContent).toContain('Nothing to be put right here.');
    expect(page.textContent).not.toContain('Nothing found');
    derived.set(null);
    made.detectChanges();
    expect(page.textContent).toContain('Not worked out yet.');
    derived.set({ facts: [], findings: [] });
    made.detectChanges();
    expect(page.textContent).toContain('Nothing found so far.');
  });
});
