import { ApplicationRef, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { SaidRow } from '@tactron/core/said';
import { OpenJob } from '../../job-state/open-job';
import { ReadBack } from './read-back';

const row = (code: string, more: Partial<SaidRow> = {}): SaidRow =>
  ({
    code,
    name: `setting ${code}`,
    unit: 's',
    factory: 5,
    planned: 4,
    factoryText: '5 s',
    plannedText: '4 s',
    choices: [],
    limits: { min: 0.1, max: 3600 },
    relied: true,
    ...more,
  }) as unknown as SaidRow;

describe('reading settings back', () => {
  let style = 'textMenu';
  let adopted: object | undefined = {};
  beforeEach(() => {
    style = 'textMenu';
    adopted = {};
  });

  async function bed(which: 'asFound' | 'asLeft', ...rows: SaidRow[]) {
    const records: unknown[][] = [];
    const evidence = signal<unknown[]>([]);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        {
          provide: OpenJob,
          useValue: {
            derived: signal({ rows }),
            job: signal({ adopted }),
            evidence,
            profile: signal({ keypad: { style } }),
            record: (...args: unknown[]) => records.push(args),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(ReadBack);
    fixture.componentRef.setInput('which', which);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const line = (code: string) => page.querySelector(`[data-setting="${code}"]`) as HTMLElement;
    const readsSo = async (code: string): Promise<void> => {
      (line(code).querySelector('button') as HTMLButtonElement).click();
      await fixture.whenStable();
    };
    const type = async (code: string, text: string): Promise<void> => {
      const input = line(code).querySelector('input') as HTMLInputElement;
      input.value = text;
      input.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    const keep = async (): Promise<void> => {
      (page.querySelector('.act.main') as HTMLButtonElement).click();
      await fixture.whenStable();
    };
    return { page, records, readsSo, type, keep, evidence };
  }

  it('begins unread, and keeps only what somebody has read', async () => {
    const { page, records, readsSo, type, keep } = await bed(
      'asFound',
      row('211'),
      row('212'),
      row('900', { relied: false }),
    );
    expect(page.querySelector('[role=status]')?.textContent).toContain('0 of 3 read');
    await keep();
    expect(records).toEqual([]);
    await readsSo('211');
    await type('212', '7,5');
    expect(page.querySelector('[role=status]')?.textContent).toContain('2 of 3 read');
    await keep();
    expect(records).toEqual([
      ['snapshot', 'asFound', { which: 'asFound', source: 'typed', values: { 211: 5, 212: 7.5 } }],
    ]);
  });

  it('keeps what was read before beside what is read now; as left it reads as planned', async () => {
    const { records, readsSo, keep } = await bed('asLeft', row('211', { left: 3 }), row('212'));
    await readsSo('212');
    await keep();
    expect((records[0][2] as { values: unknown }).values).toEqual({ 211: 3, 212: 4 });
  });

  it('refuses what is no number, and what cannot stand there, with the range', async () => {
    const { page, type, keep, records } = await bed('asLeft', row('211'));
    await type('211', 'fast');
    expect(page.querySelector('[role=alert]')?.textContent).toContain('no number');
    await type('211', '99999');
    expect(page.querySelector('[role=alert]')?.textContent).toContain('from 0.1 to 3600 s');
    await keep();
    expect(records).toEqual([]);
  });

  it('hides the plan of what somebody relies on until it is typed as it stands there', async () => {
    const { page, records, type, keep } = await bed('asLeft', row('710', { protects: true }));
    const shown = () => page.querySelector('[data-setting="710"]')?.textContent ?? '';
    expect(shown()).not.toContain('4 s');
    expect(shown()).not.toContain('reads so');
    await type('710', '9');
    expect(shown()).toContain('4 s');
    await keep();
    expect((records[0]?.[2] as { values: unknown }).values).toEqual({ 710: 9 });
  });

  it('keeps a reset to the factory’s values as what was found, without a reading of each', async () => {
    const { page, records } = await bed('asFound', row('211'));
    [...page.querySelectorAll<HTMLButtonElement>('button')]
      .find((b) => b.textContent?.includes('reset to factory'))
      ?.click();
    expect(records).toEqual([
      ['snapshot', 'asFound', { which: 'asFound', source: 'factory', values: {} }],
    ]);
  });

  it('takes a picture of each dial, and one of a display as a whole', async () => {
    const menu = await bed('asFound', row('F1'), row('F2'));
    expect(menu.page.querySelectorAll('tac-attachment-row').length).toBe(1);
    TestBed.resetTestingModule();
    style = 'dialsAndSwitches';
    const dials = await bed('asFound', row('Dial 1'), row('Dial 2'));
    expect(dials.page.querySelectorAll('tac-attachment-row').length).toBe(3);
    expect(dials.page.querySelectorAll('[data-setting] input[type="file"]').length).toBe(2);
  });

  it('takes a page of the display from its picture, and says so; what is typed after it was read for itself', async () => {
    const sha256 = 'a'.repeat(64);
    const taken = {
      id: 'p',
      kind: 'attachment',
      subject: 'setting.asLeft.page.ramps',
      body: { sha256, name: 'ramps.jpg', type: 'image/jpeg', bytes: 1 },
    };
    const ramps = { relied: false, group: 'ramps' } as Partial<SaidRow>;
    const { page, records, type, keep, evidence } = await bed(
      'asLeft',
      row('211'),
      row('214', ramps),
      row('215', ramps),
    );
    const all = page.querySelector('[data-page="ramps"] > button') as HTMLButtonElement;
    all.click();
    await TestBed.inject(ApplicationRef).whenStable();
    expect(page.querySelector('[role=alert]')?.textContent).toContain('take a picture of the page');
    evidence.set([taken]);
    all.click();
    await TestBed.inject(ApplicationRef).whenStable();
    expect(page.textContent).toContain('✓ by picture');
    await type('215', '9');
    await keep();
    expect(records).toEqual([
      [
        'snapshot',
        'asLeft',
        {
          which: 'asLeft',
          source: 'typed',
          values: { 214: 4, 215: 9 },
          pictures: { 214: sha256 },
        },
      ],
    ]);
  });

  it('shows what is set elsewhere in the panel apart, and what the device measures is typed', async () => {
    const panel = { device: 'k', what: 'delayOn', planned: 5, within: 0.5 };
    const { page, records, readsSo, keep } = await bed(
      'asLeft',
      row('K3 delay on', { panel: panel as never, planned: 5, group: 'panel' }),
      row('B1 switches at', { panel: { ...panel, planned: undefined } as never, relied: false }),
      row('M/09', { measured: true }),
    );
    const heads = [...page.querySelectorAll('h3')].map((h) => h.textContent);
    expect(heads).toEqual(['What the plan keys or rests on', 'Set elsewhere in the panel']);
    const buttons = (code: string) =>
      page.querySelector(`[data-setting="${code}"]`)?.querySelectorAll('button').length;
    expect([buttons('K3 delay on'), buttons('B1 switches at'), buttons('M/09')]).toEqual([1, 0, 0]);
    await readsSo('K3 delay on');
    await keep();
    expect((records[0][2] as { values: object }).values).toEqual({ 'K3 delay on': 5 });
  });

  it('takes nothing that protects from a picture, and speaks of no plan where there is none', async () => {
    const ramps = { relied: false, group: 'ramps' } as Partial<SaidRow>;
    const { page } = await bed(
      'asLeft',
      row('214', ramps),
      row('215', { ...ramps, protects: true }),
    );
    expect(page.querySelector('[data-page="ramps"] > button')?.textContent).toContain('1 stands');
    expect(page.querySelector('th:nth-child(3)')?.textContent).toBe('planned');
    TestBed.resetTestingModule();
    adopted = undefined;
    const bare = await bed('asLeft', row('214', ramps));
    expect(bare.page.querySelector('th:nth-child(3)')?.textContent).toBe('as delivered');
    expect(bare.page.textContent).toContain('it reads as delivered');
  });
});
