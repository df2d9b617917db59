import { TestBed } from '@angular/core/testing';
import { StationPanel } from './station-panel';
import { benchProviders, FakeSession } from './testing/fake-session';

describe('station panel', () => {
  async function bed() {
    const session = new FakeSession();
    TestBed.configureTestingModule({ providers: benchProviders(session) });
    const fixture = TestBed.createComponent(StationPanel);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const group = (tag: string): HTMLElement =>
      page.querySelector(`[role=radiogroup][aria-label=${tag}]`) as HTMLElement;
    const radio = (tag: string, name: string): HTMLButtonElement =>
      [...group(tag).querySelectorAll<HTMLButtonElement>('[role=radio]')].find(
        (b) => b.textContent?.trim() === name,
      ) as HTMLButtonElement;
    const down = (b: HTMLElement): boolean =>
      b.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, cancelable: true }));
    return { session, fixture, page, group, radio, down };
  }

  it('puts the emergency stop before every other selector, and the process apart', async () => {
    const { page } = await bed();
    const order = [...page.querySelectorAll('[role=radiogroup]')].map((g) =>
      g.getAttribute('aria-label'),
    );
    expect(order).toEqual(['S1', 'S2', 'B1']);
    expect(page.querySelector('.process [role=radiogroup]')?.getAttribute('aria-label')).toBe('B1');
  });

  it('shows where everything stands, in words', async () => {
    const { page, radio } = await bed();
    expect(radio('S2', 'reverse').getAttribute('aria-checked')).toBe('true');
    const texts = (of: string): (string | undefined)[] =>
      [...page.querySelectorAll(of)].map((li) => li.textContent?.replace(/\s+/gu, ' ').trim());
    expect(texts('.lamps li')).toEqual(['H1 onrunning']);
  });

  it('turns by pointer and by key, once each, and never to where it stands', async () => {
    const { session, radio, down } = await bed();
    down(radio('S1', 'in'));
    down(radio('S2', 'reverse'));
    radio('S2', 'forward').dispatchEvent(new KeyboardEvent('keydown', { key: ' ', bubbles: true }));
    radio('S2', 'forward').dispatchEvent(new KeyboardEvent('keydown', { key: 'a', bubbles: true }));
    expect(session.acts).toEqual([
      { do: 'turn', device: 'estop', position: 'in' },
      { do: 'turn', device: 'select.direction', position: 'forward' },
    ]);
  });

  it('moves a dial within its ends', async () => {
    const { session, page } = await bed();
    const range = page.querySelector('input[type=range]') as HTMLInputElement;
    expect(range.value).toBe('40');
    range.value = '75';
    range.dispatchEvent(new Event('input'));
    expect(session.acts).toEqual([{ do: 'dial', device: 'dial.speed', to: 0.75 }]);
  });

  it('lets every momentary button go when the window is left', async () => {
    const { session, page, fixture, down } = await bed();
    down(page.querySelector('tac-push-button button') as HTMLElement);
    await fixture.whenStable();
    window.dispatchEvent(new Event('blur'));
    expect(session.acts).toEqual([
      { do: 'press', device: 'button.start' },
      { do: 'release', device: 'button.start' },
    ]);
  });
});
