import { provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import type { SaidStep } from '@tactron/core/said';
import { Attachments } from '../../attachments/attachments';
import { OpenJob } from '../../job-state/open-job';
import { InstrumentsInHand } from './instruments-in-hand';
import { SiteDocuments } from '../../site/site-documents';
import { LiveStage } from './live-stage';

const step = (key: string, more: Partial<SaidStep['step']> = {}): SaidStep['step'] => ({
  key,
  part: 'live',
  do: { code: key, args: {} },
  must: { code: key, args: {} },
  needs: [],
  cautions: [],
  from: { kind: 'simulation', script: 'dial.50', atUs: 9_400_000 },
  basis: 'b',
  expect: { kind: 'range', lo: 4.8, hi: 5.2, nominal: 5, unit: 'V' },
  ...more,
});
const said = (key: string, more: Partial<SaidStep> = {}, of = step(key)): SaidStep => ({
  step: of,
  state: 'open',
  reading: undefined,
  earlier: [],
  beside: [],
  do: `do ${key}`,
  must: `must ${key}`,
  cautions: [],
  unmet: '',
  title: '',
  section: '',
  then: '',
  display: null,
  shaft: null,
  places: {},
  choices: [],
  ...more,
});

/** One meter in hand for volts, none for the rest. */
const hand = {
  all: () => [{ name: 'Meter 7', measures: ['voltage'] }],
  load: () => Promise.resolve(),
  inHand: (kind: string) => (kind === 'voltage' ? { name: 'Meter 7' } : undefined),
  take: () => undefined,
  reader: signal(''),
  writer: signal('A. Hollis'),
  readBy: (name: string) => hand.reader.set(name),
};

describe('live', () => {
  const records: unknown[][] = [];
  const steps = signal<readonly SaidStep[]>([]);
  const past = signal<readonly SaidStep[]>([]);
  const evidence = signal<unknown[]>([]);

  async function bed(...list: SaidStep[]) {
    records.length = 0;
    evidence.set([]);
    steps.set(list);
    TestBed.configureTestingModule({
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        { provide: Attachments, useValue: {} },
        { provide: SiteDocuments, useValue: {} },
        { provide: InstrumentsInHand, useValue: hand },
        {
          provide: OpenJob,
          useValue: {
            job: signal({ tag: 'T' }),
            evidence,
            state: signal({ id: 'j' }),
            derived: () => ({ steps: steps(), past: past(), names: {} }),
            record: (...args: unknown[]) => records.push(args),
          },
        },
      ],
    });
    const fixture = TestBed.createComponent(LiveStage);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const enter = async (...texts: string[]): Promise<void> => {
      for (const [i, text] of texts.entries()) {
        const input = page.querySelector<HTMLInputElement>(`#reading-${i}`) as HTMLInputElement;
        input.value = text;
        input.dispatchEvent(new Event('input'));
      }
      page.querySelector<HTMLButtonElement>('.act.main')?.click();
      await fixture.whenStable();
    };
    return { fixture, page, enter };
  }

  it('keeps what was read with its unit and as it was typed, and the verdict of the expected', async () => {
    const { enter } = await bed(said('a'));
    await enter('4,9 V');
    expect(records[0].slice(0, 2)).toEqual(['reading', 'a']);
    expect(records[0][2]).toEqual({
      version: 2,
      step: step('a'),
      values: [{ value: 4.9, unit: 'V', typed: '4,9 V' }],
      verdict: 'pass',
    });
    await enter('5.21');
    expect((records[1][2] as { verdict: string }).verdict).toBe('fail');
  });

  it('keeps who read, where somebody else writes', async () => {
    const { page, enter, fixture } = await bed(
      said('a', {}, step('a', { instrument: 'voltmeter' })),
    );
    [...page.querySelectorAll('button')]
      .find((b) => b.textContent?.includes('Somebody else reads'))
      ?.click();
    await fixture.whenStable();
    const field = page.querySelector<HTMLInputElement>('[name=reader]') as HTMLInputElement;
    field.value = 'T. Marsh';
    field.dispatchEvent(new Event('change'));
    await enter('4,9 V');
    hand.reader.set('A. Hollis');
    await enter('4,9 V');
    hand.reader.set('');
    expect(records.map(([, , body]) => (body as { reader?: string }).reader)).toEqual([
      'T. Marsh',
      undefined,
    ]);
  });

  it('keeps what a recording reads until a hold is over, and then puts it into the field', async () => {
    const waits = said('b', {}, step('b', { needs: ['a'] }));
    const { page, fixture } = await bed(said('a'), waits);
    fixture.componentInstance['picked'].set('b');
    await fixture.whenStable();
    fixture.componentInstance['fromRecorder']('4.9');
    await fixture.whenStable();
    expect(page.textContent).toContain('“4.9” goes into the field');
    expect(page.querySelector('#reading-0')).toBeNull();
    steps.set([said('a', { state: 'pass' }), waits]);
    await fixture.whenStable();
    expect(page.querySelector<HTMLInputElement>('#reading-0')?.value).toBe('4.9');
    expect(page.textContent).not.toContain('goes into the field');
  });

  it('opens what waits for an answer the moment it passes, before anything is reckoned anew', async () => {
    const { enter, page } = await bed(said('a'), said('b', {}, step('b', { needs: ['a'] })));
    await enter('5');
    expect(page.querySelector('.current .do')?.textContent).toContain('do b');
    expect(page.querySelector('.held')).toBeNull();
  });

  it('takes nothing that is no number, and says so', async () => {
    const { enter, page } = await bed(said('a'));
    await enter('abc');
    expect(records).toEqual([]);
    expect(page.querySelector('[role=alert]')?.textContent).toContain('as a number');
  });

  it('keeps with a reading what it was taken with, and nothing where nobody has named it', async () => {
    const volts = step('v', { instrument: 'voltmeter' });
    const { enter } = await bed(said('v', {}, volts));
    await enter('5');
    expect((records[0][2] as { instrument: unknown }).instrument).toEqual({ name: 'Meter 7' });
    TestBed.resetTestingModule();
    const other = await bed(said('o', {}, step('o', { instrument: 'ohmmeter' })));
    await other.enter('5');
    expect(Object.keys(records[0][2] as object)).not.toContain('instrument');
  });

  it('keeps overload as such: no number passes for it, and only where there is no upper end it passes', async () => {
    const ohms = step('w', { expect: { kind: 'range', lo: 0, hi: 1, nominal: 0.2, unit: 'Ω' } });
    const { enter } = await bed(said('w', {}, ohms));
    await enter('ol');
    expect(records[0][2]).toEqual(
      jasmine.objectContaining({
        values: [{ over: true, unit: 'Ω', typed: 'OL' }],
        verdict: 'fail',
      }),
    );
    TestBed.resetTestingModule();
    const meg = step('m', { expect: { kind: 'range', lo: 1, hi: 1e5, nominal: 5, unit: 'MΩ' } });
    const insulation = await bed(said('m', {}, meg));
    await insulation.enter('OL');
    expect((records[0][2] as { verdict: string }).verdict).toBe('pass');
  });

  it('lets the unit that was typed count, refuses one that does not fit, and asks about a mark before three digits', async () => {
    const link = step('link', {
      expect: { kind: 'range', lo: 537, hi: 593, nominal: 565, unit: 'V' },
    });
    const { enter, page, fixture } = await bed(said('link', {}, link));
    await enter('565 mV');
    await enter('0.565 kV');
    const kept = records.map(([, , body]) => {
      const { values, verdict } = body as { values: { value: unknown }[]; verdict: string };
      return [values[0].value, verdict];
    });
    expect(kept).toEqual([
      [0.565, 'fail'],
      [565, 'pass'],
    ]);
    await enter('565 Hz');
    expect([records.length, page.querySelector('.problem')?.textContent]).toEqual([
      2,
      jasmine.stringMatching('V, kV, mV'),
    ]);
    // never guessed towards the expected value
    await enter('1,500');
    expect(records.length).toBe(2);
    const choices = [...page.querySelectorAll<HTMLButtonElement>('.problem button')];
    expect(choices.map((b) => b.textContent?.trim())).toEqual(['1.5 V', '1500 V']);
    choices[0].click();
    await fixture.whenStable();
    expect((records[2][2] as { values: { value: unknown }[] }).values[0].value).toBe(1.5);
  });

  it('takes each place for itself, and judges them and their unbalance', async () => {
    const supply = step('supply.volts', {
      expect: { kind: 'range', lo: 360, hi: 440, nominal: 400, unit: 'V' },
      fields: ['L1–L2', 'L2–L3', 'L3–L1'],
      unbalancePct: 3,
    });
    const { enter, page } = await bed(said('supply.volts', {}, supply));
    expect(page.querySelectorAll('input.reading').length).toBe(3);
    await enter('401', '', '399');
    expect([records.length, page.querySelector('.problem')?.textContent]).toEqual([
      0,
      jasmine.stringMatching('L2–L3: Enter the reading'),
    ]);
    await enter('401', '398', '399');
    await enter('401', '398', '370');
    const kept = records.map(([, , body]) => {
      const { values, verdict } = body as {
        values: { where: string; value: number }[];
        verdict: string;
      };
      return [values.map((v) => `${v.where} ${v.value}`).join(), verdict];
    });
    expect(kept).toEqual([
      ['L1–L2 401,L2–L3 398,L3–L1 399', 'pass'],
      ['L1–L2 401,L2–L3 398,L3–L1 370', 'fail'],
    ]);
  });

  it('asks about what can hardly be, and keeps it where the instrument shows it', async () => {
    const { enter, page, fixture } = await bed(said('a'));
    await enter('5000');
    expect([records.length, page.querySelector('.problem')?.textContent]).toEqual([
      0,
      jasmine.stringMatching('more than ten times'),
    ]);
    page.querySelector<HTMLButtonElement>('.problem button')?.click();
    await fixture.whenStable();
    const { values, verdict } = records[0][2] as { values: { value: number }[]; verdict: string };
    expect([values[0].value, verdict]).toEqual([5000, 'fail']);
  });

  it('holds back what comes after a hold point, until somebody passes it over with a reason', async () => {
    const before = said('stop', { section: 'Every stop' }, step('stop', { section: 'stops' }));
    const after = said('fast', { section: 'Speed' }, step('fast', { needs: ['stop'] }));
    const { page, fixture } = await bed(before, after);
    page.querySelectorAll<HTMLButtonElement>('ol.run > li > button')[1].click();
    await fixture.whenStable();
    const gate = (): HTMLElement | null => page.querySelector('tac-hold-gate');
    expect(gate()?.textContent).toContain('First: Every stop (1 answer not passed)');
    expect(page.querySelector('tac-reading-entry')).toBeNull();
    gate()?.querySelector<HTMLButtonElement>('.quiet')?.click();
    await fixture.whenStable();
    const pass = (): HTMLButtonElement => gate()?.querySelector('form button') as HTMLButtonElement;
    expect(pass().disabled).toBeTrue();
    const reason = gate()?.querySelector('input') as HTMLInputElement;
    reason.value = 'stops were tried yesterday';
    reason.dispatchEvent(new Event('input'));
    await fixture.whenStable();
    pass().click();
    expect(records[0]).toEqual([
      'confirmation',
      'hold.live.stops',
      { version: 1, hold: 'live.stops', overridden: true, reason: 'stops were tried yesterday' },
    ]);
    evidence.set([{ kind: 'confirmation', id: '1', atClient: '1', body: records[0][2] }]);
    await fixture.whenStable();
    expect(gate()).toBeNull();
    expect(page.querySelector('tac-reading-entry')).not.toBeNull();
  });

  it('lets nobody pass over what proves the panel dead', async () => {
    const proof = said(
      'dead.isolate.proved',
      {},
      step('p', { part: 'dead', cautions: ['provesDead'] }),
    );
    const after = said('w', {}, step('w', { part: 'dead', needs: ['p'] }));
    const { page, fixture } = await bed(proof, after);
    page.querySelectorAll<HTMLButtonElement>('ol.run > li > button')[1].click();
    evidence.set([
      { kind: 'confirmation', id: '1', atClient: '1', body: { hold: 'dead.p', overridden: true } },
    ]);
    await fixture.whenStable();
    const gate = page.querySelector('tac-hold-gate');
    expect(gate?.textContent).toContain('passed over by nobody');
    expect(gate?.querySelector('.quiet')).toBeNull();
  });

  it('goes through the answers of one act before another', async () => {
    const of = (key: string, act: string) => said(key, { title: act }, step(key, { act }));
    const { enter, page, fixture } = await bed(of('open', 'x'), of('a1', 'y'), of('a2', 'y'));
    const keyNow = () => page.querySelector('.current')?.getAttribute('data-step');
    page.querySelectorAll<HTMLButtonElement>('ol.run > li > button')[1].click();
    await fixture.whenStable();
    await enter('5');
    expect(keyNow()).toBe('a2');
  });

  it('passes no answer to a required function that the job does not have, and says what it does instead', async () => {
    const dead = step('estop.stops', {
      expect: { kind: 'state', is: 'stopped' },
      requirement: { id: 'estop.stops', unmet: 'runsForward' },
    });
    const choices = ['forward', 'stopped'].map((value) => ({ value, name: value }));
    const { page, fixture } = await bed(
      said('estop.stops', { choices, unmet: 'the motor runs forward' }, dead),
    );
    expect(page.querySelector('.unmet')?.textContent).toContain('the motor runs forward instead');
    for (const button of page.querySelectorAll<HTMLButtonElement>('.answers button'))
      button.click();
    await fixture.whenStable();
    expect(records.map(([, , body]) => (body as { verdict: string }).verdict)).toEqual([
      'fail',
      'fail',
    ]);
  });

  it('stands in for every reading that two people took apart from each other', async () => {
    const reading = (id: string) =>
      ({
        id,
        body: { step: step('a'), reading: 5, unit: 'V', verdict: 'pass' },
        author: { name: id },
        atClient: '2026-01-01T08:00:00.000Z',
      }) as never;
    const { enter, page } = await bed(
      said('a', { state: 'pass', reading: reading('r2'), beside: [reading('r1')] }),
    );
    expect(page.textContent?.replace(/\s+/gu, ' ')).toContain(
      '1 more read apart from this: 5 V, r1',
    );
    await enter('5');
    expect(records[0][3]).toEqual({ supersedes: ['r2', 'r1'], why: 'tested again' });
  });

  it('opens the trial that an expected value comes from, at its moment', async () => {
    const { page } = await bed(said('a'));
    const link = page.querySelector<HTMLAnchorElement>('a[href*="rehearse"]');
    expect(link?.getAttribute('href')).toContain('trial=dial.50&at=9400000');
  });

  it('shows readings whose step is gone as of an earlier procedure', async () => {
    past.set([said('gone', { state: 'past' })]);
    const { page } = await bed(said('a'));
    expect(page.querySelector('.past')?.textContent).toContain('earlier procedure');
    past.set([]);
  });
});
