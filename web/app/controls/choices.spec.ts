import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { Choices } from './choices';
import { NumberList } from './number-list';

describe('several answers', () => {
  it('are given in the order of the options, and undefined when none is left', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Choices);
    fixture.componentRef.setInput('label', 'Lamps');
    fixture.componentRef.setInput(
      'options',
      ['a', 'b', 'c'].map((value) => ({ value, name: value })),
    );
    fixture.componentRef.setInput('values', ['c']);
    const given: (string[] | undefined)[] = [];
    fixture.componentInstance.changed.subscribe((v) => given.push(v));
    await fixture.whenStable();
    const boxes = [
      ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLButtonElement>(
        '[role=checkbox]',
      ),
    ];
    expect(boxes.map((b) => b.getAttribute('aria-checked'))).toEqual(['false', 'false', 'true']);
    boxes[0].click();
    boxes[2].click();
    expect(given).toEqual([['a', 'c'], undefined]);
  });
});

describe('a list of numbers', () => {
  it('grows by a step beyond the last, shrinks from the end, and is gone when empty', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(NumberList);
    fixture.componentRef.setInput('label', 'Preset');
    fixture.componentRef.setInput('values', [20, 35]);
    const given: (number[] | undefined)[] = [];
    fixture.componentInstance.changed.subscribe((v) => given.push(v));
    await fixture.whenStable();
    const [add, drop] = [
      ...(fixture.nativeElement as HTMLElement).querySelectorAll<HTMLButtonElement>('.ends button'),
    ];
    add.click();
    drop.click();
    fixture.componentRef.setInput('values', [20]);
    await fixture.whenStable();
    drop.click();
    expect(given).toEqual([[20, 35, 45], [20], undefined]);
  });

  it('does not grow beyond what the device has', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(NumberList);
    fixture.componentRef.setInput('label', 'Preset');
    fixture.componentRef.setInput('most', 2);
    fixture.componentRef.setInput('values', [20, 35]);
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).querySelectorAll('.ends button').length).toBe(1);
  });
});
