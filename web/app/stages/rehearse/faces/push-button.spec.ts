import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { PushButton } from './push-button';

describe('push button', () => {
  function bed(latches = false) {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(PushButton);
    fixture.componentRef.setInput('tag', 'S2');
    fixture.componentRef.setInput('latches', latches);
    const seen: string[] = [];
    fixture.componentInstance.press.subscribe(() => seen.push('press'));
    fixture.componentInstance.release.subscribe(() => seen.push('release'));
    fixture.detectChanges();
    const push = (fixture.nativeElement as HTMLElement).querySelector('button') as HTMLElement;
    const does = (type: string, init: object = {}): void =>
      void push.dispatchEvent(
        new (type.startsWith('key') ? KeyboardEvent : PointerEvent)(type, {
          bubbles: true,
          ...init,
        }),
      );
    return { push, seen, does, fixture };
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

  it('stays in until the next press where presses latch, so that another can be pressed', () => {
    const { seen, does } = bed(true);
    does('pointerdown');
    does('pointerup');
    does('blur');
    expect(seen).toEqual(['press']);
    does('pointerdown');
    expect(seen).toEqual(['press', 'release']);
    does('keydown', { key: 'Enter' });
    does('keyup', { key: 'Enter' });
    expect(seen.at(-1)).toBe('press');
  });

  it('lets go of what was kept in when presses latch no more', () => {
    const { seen, does, fixture } = bed(true);
    does('pointerdown');
    fixture.componentRef.setInput('latches', false);
    fixture.detectChanges();
    expect(seen).toEqual(['press', 'release']);
  });
});
