import { signal } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import type { Evidence } from '@tactron/core/job';
import { fakeEvidence } from '../job-state/testing/fake-evidence';
import { OpenJob } from '../job-state/open-job';
import { TemporaryButton } from './temporary-button';
import { TemporaryDialog } from './temporary-dialog';

describe('what is in for tests', () => {
  const { evidence, record } = fakeEvidence();
  const job = signal({
    adopted: {
      devices: { device: { tag: 'T1' }, stop: { tag: 'S2' } },
      wires: { w1: { number: '28', from: 'device:D3', to: 'stop:11' } },
    },
  });
  let dialog: ComponentFixture<TemporaryDialog>;
  const page = (): HTMLElement => dialog.nativeElement as HTMLElement;
  const type = (name: string, text: string): void => {
    const field = page().querySelector<HTMLInputElement>(`input[name=${name}]`);
    if (!field) throw new Error(`no field ${name}`);
    field.value = text;
    field.dispatchEvent(new Event('input'));
    dialog.detectChanges();
  };
  const press = (name: string): void => {
    [...page().querySelectorAll('button')].find((b) => b.textContent?.trim() === name)?.click();
    dialog.detectChanges();
  };
  const submit = (): void => {
    page()
      .querySelector('form')
      ?.dispatchEvent(new Event('submit', { cancelable: true }));
    dialog.detectChanges();
  };
  const inStrip = (): string => {
    const strip = TestBed.createComponent(TemporaryButton);
    strip.componentRef.setInput('inStrip', true);
    strip.detectChanges();
    return (strip.nativeElement as HTMLElement).textContent?.replace(/\s+/gu, ' ').trim() ?? '';
  };

  beforeEach(() => {
    evidence.set([]);
    TestBed.configureTestingModule({
      providers: [{ provide: OpenJob, useValue: { evidence, job, record } }],
    });
    dialog = TestBed.createComponent(TemporaryDialog);
    dialog.detectChanges();
  });

  it('is put in with kind, place and purpose, counted in the strip, and taken out by name', () => {
    expect(inStrip()).toBe('');
    press('lifted wire');
    type('where', 'wire 28');
    type('what', 'meter in series');
    submit();
    expect(evidence().map((e) => e.body)).toEqual([
      { version: 1, kind: 'liftedWire', what: 'meter in series', where: 'wire 28' },
    ] as unknown as Evidence['body'][]);
    expect(inStrip()).toMatch(/^1 ?in for tests/u);
    expect(page().textContent).toContain('lifted wire at wire 28: meter in series');
    press('Taken out');
    expect(inStrip()).toBe('');
    expect(page().textContent).toContain('Nothing is in.');
    expect(page().textContent).toContain('Taken out again');
  });

  it('says nothing in the store without a purpose, and offers the landings as they are marked', () => {
    type('what', '   ');
    submit();
    expect(evidence()).toEqual([]);
    const places = [...page().querySelectorAll('option')].map((o) => o.value);
    expect(places).toEqual(['S2:11', 'T1:D3', 'wire 28']);
  });
});
