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
  async function bed(lines: readonly unknown[] = [line], evidence: readonly unknown[] = []) {
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
            evidence: signal(evidence),
            state: signal({ id: 'j' }),
            derived: () => ({ lines, rows: [row] }),
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

  it('opens its hold points again in every session, as long as something is to be keyed', async () => {
    const hold = {
      key: 'hold.openRunContacts',
      part: 'makeSafe',
      hold: 'openRunContacts',
      reason: 'Open every run contact.',
      done: true,
      presses: [],
    };
    const passed = (atClient: string) => [
      { kind: 'keyed', subject: hold.key, body: { code: hold.key, value: true }, atClient },
    ];
    const current = (page: HTMLElement) =>
      page.querySelector('[aria-label="Current line"]')?.textContent ?? '';
    const before = await bed([hold, line], passed('2020-01-01T00:00:00.000Z'));
    expect(current(before.page)).toContain('Open every run contact.');
    TestBed.resetTestingModule();
    const now = await bed([hold, line], passed('2999-01-01T00:00:00.000Z'));
    expect(current(now.page)).not.toContain('Open every run contact.');
    TestBed.resetTestingModule();
    // With nothing left to key it stays as it was passed.
    const over = await bed([hold, { ...line, done: true }], passed('2020-01-01T00:00:00.000Z'));
    expect(current(over.page)).not.toContain('Open every run contact.');
  });
});
