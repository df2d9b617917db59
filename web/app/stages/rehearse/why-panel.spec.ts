import { TestBed } from '@angular/core/testing';
import { provideRouter } from '@angular/router';
import { Leads } from './leads';
import { WhyPanel } from './why-panel';
import { benchProviders, FakeSession } from './testing/fake-session';

describe('why panel', () => {
  const met = {
    met: true,
    text: 'The supply is on.',
    where: { kind: 'device', id: 'supply' },
    places: [],
  } as const;
  const open = {
    met: false,
    text: 'The stop circuit at D1 is open.',
    where: { kind: 'landing', id: 'device:0E' },
    places: [{ text: 'wire 12 is broken', where: { kind: 'wire', id: 'w1' } }],
  } as const;
  async function bed(conditions: FakeSession['answer']['conditions'], running = false) {
    const session = new FakeSession();
    session.answer = { running, conditions };
    TestBed.configureTestingModule({ providers: [...benchProviders(session), provideRouter([])] });
    const fixture = TestBed.createComponent(WhyPanel);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const ask = async (): Promise<void> => {
      (page.querySelector('button') as HTMLButtonElement).click();
      await fixture.whenStable();
      await fixture.whenStable();
    };
    return { session, fixture, page, ask };
  }

  it('answers without being asked', async () => {
    const { page, fixture } = await bed([met, open]);
    await fixture.whenStable();
    expect(page.textContent).toContain('The stop circuit at D1 is open');
  });

  it('puts the first unmet condition first, with its open places, and folds those that are met', async () => {
    const { page, ask } = await bed([
      met,
      open,
      { ...open, text: 'No run is asked for.', places: [] },
    ]);
    await ask();
    const items = [...page.querySelectorAll('li.unmet')];
    expect(items.map((li) => li.querySelector('.mark')?.textContent)).toEqual(['first', 'then']);
    expect(items[0].textContent).toContain('wire 12 is broken');
    expect(page.querySelector('summary')?.textContent).toContain('1 conditions are met');
  });

  it('asks anew when something happens by itself, and keeps only the last answer', async () => {
    const { page, ask, session, fixture } = await bed([met, open]);
    await ask();
    expect(page.textContent).toContain('The stop circuit at D1 is open');
    session.answer = { running: true, conditions: [met] };
    session.stretch.set('1 1');
    await fixture.whenStable();
    await fixture.whenStable();
    expect(page.textContent).toContain('It runs: every condition is met.');
  });

  it('leads to the wire, or puts the lead on the landing', async () => {
    const { page, ask } = await bed([open]);
    await ask();
    (page.querySelector('.place') as HTMLButtonElement).click();
    expect(TestBed.inject(Leads).wire()).toBe('w1');
    (page.querySelector('.go') as HTMLButtonElement).click();
    expect(TestBed.inject(Leads).plus()).toBe('device:0E');
  });

  it('follows every act once it was asked', async () => {
    const { session, fixture, page, ask } = await bed([open]);
    await ask();
    session.answer = { running: true, conditions: [met] };
    await session.act({ do: 'supplyOn' });
    await fixture.whenStable();
    await fixture.whenStable();
    expect(page.querySelector('[role=status]')?.textContent).toContain('every condition is met');
    expect(page.querySelector('h3')?.textContent?.replace(/\s+/gu, ' ')).toBe('Why is it running?');
  });
});
