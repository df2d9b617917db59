import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Evidence, Job } from '@tactron/core/job';
import type { SaidStep } from '@tactron/core/said';
import { OpenJob } from '../../job-state/open-job';
import { withOffered } from './acts';
import { putInFor, SimulatedLine } from './simulated-line';

const job = {
  adopted: { devices: { device: { tag: 'T1' } }, wires: { w3: { number: '29' } } },
} as unknown as Job;
const at = (section: string, acts: unknown[] = []): SaidStep =>
  ({ step: { key: section, section, acts } }) as unknown as SaidStep;
const jumper = at('simulated', [
  { do: 'hook', atMs: 0, a: 'device:P24', b: 'device:IN1', as: 'short' },
  { do: 'hook', atMs: 500, a: 'device:P24', b: 'device:IN1', as: 'off' },
]);
const source = at('simulated', [
  { do: 'breakWire', atMs: 0, wire: 'w3' },
  { do: 'hook', atMs: 10, a: 'device:AI', b: 'device:A0', as: 'volts', value: 5 },
]);

describe('what stands in for a control', () => {
  it('is named by the landings it is put to, and the wire that is lifted', () => {
    expect(putInFor(jumper, job)).toEqual([{ kind: 'jumper', what: 'jumper T1:P24–T1:IN1' }]);
    expect(putInFor(source, job)).toEqual([
      { kind: 'liftedWire', what: 'wire 29 lifted' },
      { kind: 'forced', what: 'calibrator at T1:AI–T1:A0' },
    ]);
    expect(putInFor(at('inputs'), job)).toEqual([]);
  });

  it('goes into the register with one touch, and out of it with another', async () => {
    const evidence = signal<readonly Evidence[]>([]);
    const record = (kind: string, subject: string, body: object): void =>
      evidence.update((list) => [
        ...list,
        {
          id: `${list.length}`,
          kind,
          subject,
          body,
          author: { name: 'A. Hollis', role: '' },
          atClient: `2026-10-05T08:0${list.length}:00Z`,
        } as unknown as Evidence,
      ]);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        { provide: OpenJob, useValue: { job: signal(job), evidence, record } },
      ],
    });
    const fixture = TestBed.createComponent(SimulatedLine);
    fixture.componentRef.setInput('step', source);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const press = async (): Promise<void> => {
      page.querySelector('button')?.click();
      await fixture.whenStable();
    };
    expect(page.textContent).toContain('Wire 29 lifted, calibrator at T1:AI–T1:A0: not in.');
    await press();
    expect(evidence().map((e) => e.kind)).toEqual(['temporary', 'temporary']);
    expect(page.textContent).toContain('is in since');
    await press();
    expect(evidence().length).toBe(4);
    expect(page.textContent).toContain('not in.');
  });

  it('is offered before the inputs, and nowhere where none are tested', () => {
    const order = (list: readonly SaidStep[]) => list.map((s) => s.step.key);
    expect(order(withOffered([at('power'), at('inputs'), at('bump')], [jumper]))).toEqual([
      'power',
      'simulated',
      'inputs',
      'bump',
    ]);
    expect(order(withOffered([at('power')], [jumper]))).toEqual(['power']);
  });
});
