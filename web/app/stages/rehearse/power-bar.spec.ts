import { TestBed } from '@angular/core/testing';
import { PowerBar } from './power-bar';
import { benchProviders, FakeSession } from './testing/fake-session';

describe('power bar', () => {
  it('says how supply and breaker stand, what a touch does, and switches them', async () => {
    const session = new FakeSession();
    TestBed.configureTestingModule({ providers: benchProviders(session) });
    const fixture = TestBed.createComponent(PowerBar);
    await fixture.whenStable();
    const page = fixture.nativeElement as HTMLElement;
    const texts = [...page.querySelectorAll('button')].map((b) =>
      b.textContent?.replace(/\s+/gu, ' ').trim(),
    );
    expect(texts.slice(0, 2)).toEqual(['Supply on switch off', 'Q1 closed']);
    page
      .querySelector('.supply')
      ?.dispatchEvent(new PointerEvent('pointerdown', { bubbles: true, cancelable: true }));
    page.querySelectorAll('button')[1].click();
    expect(session.acts).toEqual([
      { do: 'supplyOff' },
      { do: 'turn', device: 'breaker', position: 'off' },
    ]);
  });
});
