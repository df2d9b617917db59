import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import type { Quantity } from '@tactron/core/units';
import { QuantityField } from './quantity-field';

describe('QuantityField', () => {
  function make(value?: Quantity) {
    localStorage.removeItem('tactron.preferences');
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(QuantityField);
    fixture.componentRef.setInput('label', 'Power');
    fixture.componentRef.setInput('dimension', 'power');
    fixture.componentRef.setInput('value', value);
    const given: (Quantity | undefined)[] = [];
    fixture.componentInstance.changed.subscribe((q) => given.push(q));
    const element = fixture.nativeElement as HTMLElement;
    const type = async (text: string) => {
      const field = element.querySelector('input') as HTMLInputElement;
      field.value = text;
      field.dispatchEvent(new Event('input'));
      field.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    return { fixture, element, given, type };
  }

  it('gives the quantity in the unit that was typed', async () => {
    const { fixture, given, type } = make();
    await fixture.whenStable();
    await type('15 hp');
    expect(given).toEqual([{ v: 15, u: 'hp' }]);
  });

  it('asks when a number can be read two ways, and gives what is chosen', async () => {
    const { fixture, element, given, type } = make();
    await fixture.whenStable();
    await type('1,500');
    expect(given).toEqual([]);
    const offers = [...element.querySelectorAll('button')];
    expect(offers.map((b) => b.textContent?.trim())).toEqual(['1.5', '1500']);
    offers[1].click();
    expect(given).toEqual([{ v: 1500, u: '' }]);
  });

  it('keeps what was typed when it is no number, and says what is wrong', async () => {
    const { fixture, element, given, type } = make({ v: 2.2, u: 'kW' });
    await fixture.whenStable();
    await type('two');
    expect((element.querySelector('input') as HTMLInputElement).value).toBe('two');
    expect(element.querySelector('[role=alert]')?.textContent).toContain('no number');
    await type('2.2 parsec');
    expect(element.querySelector('[role=alert]')?.textContent).toContain('kW, W, hp');
    expect(given).toEqual([]);
  });

  it('gives nothing back when nothing changed, and undefined when it is cleared', async () => {
    const { fixture, given, type } = make({ v: 2.2, u: 'kW' });
    await fixture.whenStable();
    await type('2,2');
    await type('');
    expect(given).toEqual([undefined]);
  });
});
