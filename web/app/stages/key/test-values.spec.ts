import { signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { fakeEvidence } from '../../job-state/testing/fake-evidence';
import { OpenJob } from '../../job-state/open-job';
import { TestValues } from './test-values';

describe('values for the tests', () => {
  const { evidence, record } = fakeEvidence();
  const value = {
    code: 'R/01',
    name: 'Ramp up',
    planned: 6,
    test: 2,
    plannedText: '6 s',
    testText: '2 s',
  };
  const derived = signal({ testValues: [{ ...value, held: false }] });

  it('are offered once everything is keyed, kept as in for tests in one act, and put back in one', () => {
    TestBed.configureTestingModule({
      providers: [
        {
          provide: OpenJob,
          useValue: {
            evidence,
            derived,
            record,
            working: signal(false),
            signing: () => ({ closed: false }),
          },
        },
      ],
    });
    const made = TestBed.createComponent(TestValues);
    const page = made.nativeElement as HTMLElement;
    let changes = 0;
    made.componentInstance.changed.subscribe(() => changes++);
    made.detectChanges();
    expect(page.textContent?.trim()).toBe('');
    made.componentRef.setInput('ready', true);
    made.detectChanges();
    expect(page.textContent).toContain('6 s → 2 s');
    page.querySelector('button')?.click();
    made.componentRef.setInput('ready', false);
    derived.set({ testValues: [{ ...value, held: true }] });
    made.detectChanges();
    expect(page.textContent).toContain('Test values are in the device');
    expect(page.textContent).toContain('2 s → 6 s');
    // Keyed back in the sheet instead: the panel says so.
    derived.set({ testValues: [{ ...value, held: false }] });
    made.detectChanges();
    expect(page.textContent).toContain('Every test value is put back.');
    derived.set({ testValues: [{ ...value, held: true }] });
    made.detectChanges();
    page.querySelector('button')?.click();
    made.detectChanges();
    expect(page.textContent?.trim()).toBe('');
    expect(evidence().map((e) => [e.subject, (e.body as { values?: object }).values])).toEqual([
      [evidence()[0].subject, { 'R/01': 2 }],
      [evidence()[0].subject, { 'R/01': 6 }],
    ]);
    expect(changes).toBe(2);
  });
});
