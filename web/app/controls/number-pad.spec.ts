import { TestBed } from '@angular/core/testing';
import { NumberPad, padTyped } from './number-pad';

const typed = (...keys: string[]): string => keys.reduce(padTyped, '');

describe('the number pad', () => {
  it('types as the keys are touched, one point, one k, a sign that can be taken back', () => {
    expect(typed('4', '.', '7', '.', 'k', 'k')).toBe('4.7k');
    expect(typed('k', '4', 'k', '7')).toBe('4k');
    expect(typed('1', '2', '−')).toBe('-12');
    expect(typed('−', '1', '−')).toBe('1');
    expect(typed('1', ',', '5', '⌫', '⌫')).toBe('1');
  });

  it('shows overload as a whole, and a digit after it begins anew', () => {
    expect(typed('1', 'OL')).toBe('OL');
    expect(typed('OL', '⌫')).toBe('');
    expect(typed('OL', '3')).toBe('3');
  });

  it('offers overload and thousands for ohms only', async () => {
    const keysOf = async (unit: string): Promise<string[]> => {
      TestBed.resetTestingModule();
      const fixture = TestBed.createComponent(NumberPad);
      fixture.componentRef.setInput('unit', unit);
      await fixture.whenStable();
      const host = fixture.nativeElement as HTMLElement;
      return [...host.querySelectorAll('button')].map((b) => b.textContent?.trim() ?? '');
    };
    expect(await keysOf('Ω')).toEqual(jasmine.arrayContaining(['OL', 'k']));
    const volts = await keysOf('V');
    expect(volts).toContain('−');
    expect(volts).not.toContain('OL');
    expect(new Set(volts).size).toBe(volts.length);
  });
});
