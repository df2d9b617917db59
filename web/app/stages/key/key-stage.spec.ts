import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Job } from '@tactron/core/job';
import type { SaidLine, SaidRow } from '@tactron/core/said';
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
            working: signal(false),
            signing: () => ({ closed: false }),
            derived: () => ({ lines, rows: [row], keying: { done: 0, of: 1 } }),
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
    // The first line that is done begins the session.
    expect(records).toEqual([
      ['keySession', 'key', { version: 1, state: 'begun', basis: 'no plan' }],
      ['keyed', '211', { code: '211', value: 4 }],
    ]);
    await press('Keyed');
    expect(records.filter(([kind]) => kind === 'keySession').length).toBe(1);
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

  const hold = {
    key: 'hold.openRunContacts',
    part: 'makeSafe',
    hold: 'openRunContacts',
    reason: 'Open every run contact.',
    done: true,
    presses: [],
  };
  const current = (page: HTMLElement) =>
    page.querySelector('[aria-label="Current line"]')?.textContent ?? '';

  it('opens its hold points again in every session, and lets nothing be keyed before them', async () => {
    const { page, press, records } = await bed([hold, line]);
    // What another session passed counts for nothing here.
    expect(current(page)).toContain('Open every run contact.');
    [...page.querySelectorAll<HTMLButtonElement>('.run button')]
      .find((b) => b.textContent?.includes('211'))
      ?.click();
    await new Promise((done) => setTimeout(done));
    expect(current(page)).toContain('First: Open every run contact.');
    expect([...page.querySelectorAll('button')].map((b) => b.textContent?.trim())).not.toContain(
      'Keyed',
    );
    await press('Go there');
    await press('Done');
    expect(records.map(([kind, , body]) => [kind, (body as { state?: string }).state])).toEqual([
      ['keySession', 'begun'],
      ['keyed', undefined],
    ]);
    expect(current(page)).toContain('211');
    expect(current(page)).not.toContain('First:');
  });

  it('is interrupted when the sheet is left with something still to key, and ended when nothing is', async () => {
    const left = async (lines: readonly unknown[]) => {
      const { press, records } = await bed(lines);
      await press('Done');
      TestBed.resetTestingModule();
      return (records.at(-1)?.[2] as { state?: string }).state;
    };
    expect(await left([{ ...hold, done: false }, line])).toBe('interrupted');
    const away = await bed([hold, line]);
    TestBed.resetTestingModule();
    expect(away.records).toEqual([]);
  });

  it('with everything keyed asks for nothing but the values as left', async () => {
    const { page } = await bed([{ ...hold, key: 'hold.readBack', hold: 'readBack', done: false }]);
    expect(current(page)).not.toContain('Open every run contact.');
    expect(page.querySelectorAll('.run button').length).toBe(0);
  });
});
