import { Directive, ElementRef, effect, inject, input } from '@angular/core';
import { Entered } from './entered';

/**
 * The value of a text field that may change while somebody types in it: what others write, or what is reckoned anew, never
 * replaces what is being typed. Once it is entered or left, the field shows the value again.
 */
@Directive({
  selector: 'input[tacTyped], textarea[tacTyped]',
  host: { '(input)': 'typing = true', '(change)': 'taken()', '(blur)': 'left()' },
})
export class Typed {
  readonly tacTyped = input.required<string | number>();
  protected typing = false;
  private readonly entered = new Entered();
  private readonly field = inject<ElementRef<HTMLInputElement>>(ElementRef).nativeElement;

  constructor() {
    effect(() => {
      const value = String(this.tacTyped());
      if (this.entered.came(value) && !this.typing) this.field.value = value;
    });
  }

  protected taken(): void {
    this.typing = false;
    const { value } = this.field;
    if (value !== (this.entered.last ?? String(this.tacTyped()))) this.entered.gave(value);
  }

  protected left(): void {
    this.typing = false;
  }
}
