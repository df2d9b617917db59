import { TestBed } from '@angular/core/testing';
import { Lanes } from './lanes';
import { benchProviders, FakeSession } from './testing/fake-session';

describe('lanes', () => {
  async function bed() {
    localStorage.removeItem('tactron.preferences');
    const session = new FakeSession();
    TestBed.configureTestingModule({ providers: benchProviders(session) });
    const fixture = TestBed.createComponent(Lanes);
    fixture.componentRef.setInput('specs', [
      { id: 'device.hz', name: 'Output', unit: 'Hz', low: 0, high: 50 },
      {
        id: 'select.direction.position',
        name: 'S2',
        unit: '',
        low: 0,
        high: 1,
        states: ['forward', 'reverse'],
      },
    ]);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const button = (name: string): HTMLButtonElement =>
      [...page.querySelectorAll('button')].find(
        (b) => b.getAttribute('aria-label') === name || b.textContent?.trim() === name,
      ) as HTMLButtonElement;
    const click = async (name: string): Promise<void> => {
      button(name).click();
      await fixture.whenStable();
    };
    const put = async (share: number): Promise<void> => {
      const svg = page.querySelector('.lane svg') as SVGElement;
      const box = svg.getBoundingClientRect();
      svg.dispatchEvent(
        new PointerEvent('pointerdown', {
          bubbles: true,
          clientX: box.left + box.width * share,
          clientY: box.top + 5,
        }),
      );
      await fixture.whenStable();
    };
    return { session, fixture, page, click, put, button };
  }

  it('shows every signal with its value in its own words', async () => {
    const { page } = await bed();
    expect([...page.querySelectorAll('.value')].map((v) => v.textContent?.trim())).toEqual([
      '20 Hz',
      'reverse',
    ]);
  });

  it('marks the turn of a dial once, where it ended, and another turn later by itself', async () => {
    const { session, fixture, page } = await bed();
    const turn = (fromMs: number, to: number) =>
      Array.from({ length: 20 }, (_, i) => ({
        t: (fromMs + 50 * i) * 1000,
        act: {
          do: 'dial',
          atMs: fromMs + 50 * i,
          device: 'dial.speed',
          to: (to * i) / 19,
        } as const,
      }));
    session.log.set([...turn(500, 0.6), ...turn(3000, 0.9)]);
    await fixture.whenStable();
    const told = (page.textContent ?? '').match(/\d+ %/gu);
    expect(told).toEqual(['60 %', '90 %']);
  });

  it('zooms in and out between its ends', async () => {
    const { page, click } = await bed();
    const span = (): string => page.querySelector('.row .mono')?.textContent ?? '';
    expect(span()).toBe('10 s');
    await click('Zoom in');
    expect(span()).toBe('5 s');
    for (let i = 0; i < 12; i++) await click('Zoom out');
    expect(span()).toBe('180 s');
  });

  it('has a cursor with the time there, the difference to now, and the values there', async () => {
    const { session, page, put, click } = await bed();
    await put(0.25);
    // The window of 10 s begins at 0; now is 5 s.
    expect(page.textContent).toContain('cursor 2.5 s · Δ 2.5 s');
    expect(page.querySelector('.there')?.textContent).toContain('20 Hz Δ 0');
    await click('Go back there');
    expect(session.sought).toBe(2_500_000);
    await click('clear');
    expect(page.textContent).not.toContain('cursor');
  });

  it('sets marks, tells the time between them, and removes them', async () => {
    const { page, put, click } = await bed();
    await put(0.1);
    await click('Mark');
    await put(0.4);
    await click('Mark');
    expect(page.querySelector('.marks')?.textContent).toContain('Δ 3 s');
    await click('Remove mark 1');
    expect(page.querySelectorAll('.marks span').length).toBe(1);
  });

  it('names acts above the lanes in rows that do not run over each other', async () => {
    const { session, fixture, page } = await bed();
    session.nowUs.set(4_900_000);
    await session.act({ do: 'supplyOn' });
    await session.act({ do: 'press', device: 'button.start' });
    await session.act({ do: 'turn', device: 'select.direction', position: 'reverse' });
    session.nowUs.set(5_000_000);
    await fixture.whenStable();
    const ticks = [...page.querySelectorAll<HTMLElement>('.ticks span')];
    expect(ticks.map((t) => t.textContent)).toEqual(['supply on', 'S3 in', 'S2 reverse']);
    expect(ticks.map((t) => t.style.paddingTop)).toEqual(['0px', '14px', '28px']);
  });
});
