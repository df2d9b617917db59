import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Job } from '@tactron/core/job';
import type { SaidLine, SaidRow } from '../../compute/compute.types';
import { OpenJob } from '../../job-state/open-job';
import { KeyStage } from './key-stage';

const line = {
  key: '211',
  code: '211',
  part: 'limits',
  name: 'Ramp up',
  unit: 's',
  from: 5,
  to: 4,
  fromText: '5 s',
  toText: '4 s',
  reason: 'From the scheme: time to speed up.',
  presses: [],
  done: false,
} as unknown as SaidLine;
const row = {
  code: '211',
  name: 'Ramp up',
  factory: 5,
  planned: 4,
  found: 5,
} as unknown as SaidRow;

describe('key', () => {
  async function bed() {
    const edits: { label: string; after: Job }[] = [];
    const records: unknown[][] = [];
    const job = { decisions: { settings: {} } } as unknown as Job;
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        {
          provide: OpenJob,
          useValue: {
            job: signal(job),
            derived: () => ({ lines: [line], rows: [row] }),
            record: (...args: unknown[]) => records.push(args),
            edit: (label: string, recipe: (draft: Job) => void) => {
              const after = structuredClone(job);
              recipe(after);
              edits.push({ label, after });
            },
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(KeyStage);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const press = async (name: string): Promise<void> => {
      [...page.querySelectorAll<HTMLButtonElement>('button')]
        .find((b) => b.textContent?.trim() === name)
        ?.click();
      await fixture.whenStable();
    };
    const type = (i: number, text: string): void => {
      const input = page.querySelectorAll<HTMLInputElement>('.override input')[i];
      input.value = text;
      input.dispatchEvent(new Event('input'));
    };
    return { page, press, type, edits, records };
  }

  it('marks a line as keyed with the value it was keyed to', async () => {
    const { press, records } = await bed();
    await press('Keyed');
    expect(records).toEqual([['keyed', '211', { code: '211', value: 4 }]]);
  });

  it('takes another value with its reason as a decision, a comma read as a decimal mark', async () => {
    const { press, type, edits } = await bed();
    await press('Another value…');
    type(0, '6,5');
    type(1, 'the belt slips');
    await press('Take this value');
    expect(edits.map((e) => e.after.decisions.settings)).toEqual([
      { 211: { value: 6.5, why: 'the belt slips' } },
    ] as never);
  });

  it('takes none without a reason, or that is no number', async () => {
    const { press, type, edits, page } = await bed();
    await press('Another value…');
    type(0, '6.5');
    await press('Take this value');
    type(0, 'fast');
    type(1, 'because');
    await press('Take this value');
    expect(edits).toEqual([]);
    expect(page.querySelector('[role=alert]')?.textContent).toContain('A value and a reason');
  });
});
