import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { NumberField } from './number-field';

describe('a field for a plain number', () => {
  it('says that there is none when it is emptied, and the number when one is typed', async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(NumberField);
    fixture.componentRef.setInput('label', 'Start warning, s');
    fixture.componentRef.setInput('value', 5);
    const heard: unknown[] = [];
    fixture.componentInstance.changed.subscribe((x) => heard.push(x));
    await fixture.whenStable();
    const input = (fixture.nativeElement as HTMLElement).querySelector('input') as HTMLInputElement;
    const enter = (text: string): void => {
      input.value = text;
      input.dispatchEvent(new Event('input'));
      input.dispatchEvent(new Event('change'));
    };
    enter('');
    enter('7,5');
    expect(heard).toEqual([undefined, 7.5]);
  });
});
