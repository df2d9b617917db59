import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { PushButton } from './push-button';

describe('push button', () => {
  function bed() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PushButton);
    fixture.componentRef.setInput('tag', 'S2');
    const seen: string[] = [];
    fixture.componentInstance.press.subscribe(() => seen.push('press'));
    fixture.componentInstance.release.subscribe(() => seen.push('release'));
    fixture.detectChanges();
    const [push, hold] = [...(fixture.nativeElement as HTMLElement).querySelectorAll('button')];
    const does = (type: string, init: object = {}): void =>
      void push.dispatchEvent(
        new (type.startsWith('key') ? KeyboardEvent : PointerEvent)(type, {
          bubbles: true,
          ...init,
        }),
      );
    return { push, hold, seen, does, fixture };
  }

  it('is closed while the pointer or the key is down', () => {
    const { seen, does } = bed();
    does('pointerdown');
    does('pointerup');
    does('keydown', { key: ' ' });
    does('keydown', { key: ' ', repeat: true });
    does('keyup', { key: ' ' });
    does('keydown', { key: 'x' });
    expect(seen).toEqual(['press', 'release', 'press', 'release']);
  });

  it('lets go when the pointer is lost, the focus leaves or the page is hidden', () => {
    for (const lost of ['pointercancel', 'lostpointercapture', 'blur'] as const) {
      TestBed.resetTestingModule();
      const { seen, does, push } = bed();
      does('pointerdown');
      if (lost === 'blur') push.dispatchEvent(new FocusEvent('blur'));
      else does(lost);
      expect(seen).withContext(lost).toEqual(['press', 'release']);
    }
    TestBed.resetTestingModule();
    const { seen, does } = bed();
    does('pointerdown');
    const hidden = spyOnProperty(document, 'hidden').and.returnValue(true);
    document.dispatchEvent(new Event('visibilitychange'));
    hidden.and.callThrough();
    expect(seen).toEqual(['press', 'release']);
  });

  it('stays in while it is held, so that another can be pressed', () => {
    const { hold, seen, does } = bed();
    hold.click();
    does('pointerup');
    does('blur');
    expect(seen).toEqual(['press']);
    hold.click();
    expect(seen).toEqual(['press', 'release']);
  });
});
