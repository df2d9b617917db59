import { Component, provideZonelessChangeDetection, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { QuantityField } from './quantity-field';
import { Typed } from './typed';

@Component({
  imports: [Typed, QuantityField],
  template: `<input
      id="plain"
      [tacTyped]="name()"
      (change)="entered.push($any($event.target).value)"
    />
    <tac-quantity
      label="Length"
      dimension="length"
      unit="m"
      [value]="length()"
      (changed)="lengths.push($event?.v)"
    />`,
})
class Bench {
  readonly name = signal('as read');
  readonly length = signal({ v: 40, u: 'm' });
  readonly entered: string[] = [];
  readonly lengths: (number | undefined)[] = [];
}

describe('a field somebody types in', () => {
  async function bench() {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    const fixture = TestBed.createComponent(Bench);
    await fixture.whenStable();
    const [plain, length] = [...(fixture.nativeElement as HTMLElement).querySelectorAll('input')];
    const tell = async (field: HTMLInputElement, event: string, value?: string): Promise<void> => {
      if (value !== undefined) field.value = value;
      field.dispatchEvent(new Event(event, { bubbles: true }));
      await fixture.whenStable();
    };
    return { fixture, it: fixture.componentInstance, plain, length, tell };
  }

  it('is not moved by what others write meanwhile, and shows the value again once it is left', async () => {
    const { fixture, it, plain, tell } = await bench();
    await tell(plain, 'input', 'half a na');
    it.name.set('theirs');
    await fixture.whenStable();
    expect(plain.value).toBe('half a na');
    await tell(plain, 'change', 'half a name');
    it.name.set('theirs again');
    await fixture.whenStable();
    expect([plain.value, it.entered]).toEqual(['theirs again', ['half a name']]);
  });

  it('for a quantity keeps what is typed when an answer to the value before comes late', async () => {
    const { fixture, it, length, tell } = await bench();
    await tell(length, 'input', '44 m');
    await tell(length, 'change');
    length.value = '45 m';
    length.dispatchEvent(new Event('input'));
    it.length.set({ v: 44, u: 'm' });
    await fixture.whenStable();
    expect(length.value).toBe('45 m');
    await tell(length, 'change');
    expect(it.lengths).toEqual([44, 45]);
  });

  it('for a quantity does not jump back while the answers to what was entered before are on their way', async () => {
    const { fixture, it, length, tell } = await bench();
    for (const text of ['41 m', '42 m', '43 m']) {
      await tell(length, 'input', text);
      await tell(length, 'change');
    }
    for (const v of [41, 42]) {
      it.length.set({ v, u: 'm' });
      await fixture.whenStable();
      expect(length.value).toBe('43 m');
    }
    // Back to what it was: given on, although the field's own value has not come back yet.
    await tell(length, 'input', '42 m');
    await tell(length, 'change');
    it.length.set({ v: 43, u: 'm' });
    await fixture.whenStable();
    expect([length.value, it.lengths]).toEqual(['42 m', [41, 42, 43, 42]]);
    it.length.set({ v: 77, u: 'm' });
    await fixture.whenStable();
    expect(length.value).toBe('77 m');
  });
});
