import {
  Injector,
  provideZonelessChangeDetection,
  runInInjectionContext,
  signal,
} from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { cssString, pageFoot } from './page-foot';

describe('foot of printed pages', () => {
  it('keeps a hostile tag inside its string', () => {
    const probe = document.createElement('i');
    document.body.append(probe);
    for (const tag of ['a"} body { display: none } "', 'back\\slash', 'two\nlines', 'plain']) {
      const sheet = new CSSStyleSheet();
      sheet.replaceSync(`i::before { content: ${cssString(tag)}; }`);
      document.adoptedStyleSheets = [sheet];
      expect(sheet.cssRules.length).withContext(tag).toBe(1);
      expect(
        JSON.parse(
          getComputedStyle(probe, '::before').content.replace('\n', '\\n').replace(/\\a /u, '\\n'),
        ),
      )
        .withContext(tag)
        .toContain(tag.split('\n')[0]);
    }
    document.adoptedStyleSheets = [];
    probe.remove();
  });

  it('numbers the pages, follows what the record is, and goes with its caller', () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const revision = signal(4);
    runInInjectionContext(TestBed.inject(Injector), () =>
      pageFoot(() => `FM-AUGER · revision ${revision()}`),
    );
    TestBed.tick();
    const text = (): string =>
      document.adoptedStyleSheets.flatMap((s) => [...s.cssRules].map((r) => r.cssText)).join();
    expect(text()).toContain('FM-AUGER · revision 4');
    expect(text()).toContain('counter(pages)');
    revision.set(5);
    TestBed.tick();
    expect(text()).toContain('revision 5');
    TestBed.resetTestingModule();
    expect(text()).toBe('');
  });
});
