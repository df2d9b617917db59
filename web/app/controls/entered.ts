/**
 * Values that a field has given on and that have not come back yet. A change takes a moment, so that one entered right after
 * another finds the answers to the earlier ones on their way: they are not shown, or the field would jump back.
 */
export class Entered {
  private readonly sent: string[] = [];
  private shown: string | undefined;

  /** Something was entered. @param value as text in which two values are the same exactly when they are equal */
  gave(value: string): void {
    this.sent.push(value);
  }

  /** What was entered last and has not come back; undefined where nothing is on its way. */
  get last(): string | undefined {
    return this.sent.at(-1);
  }

  /** A value has come. @returns whether the field may show it: it is the last that was entered, or comes from elsewhere */
  came(value: string): boolean {
    const same = value === this.shown;
    this.shown = value;
    const at = this.sent.indexOf(value);
    if (at >= 0) {
      this.sent.splice(0, at + 1);
      return this.sent.length === 0;
    }
    if (same && this.sent.length > 0) return false;
    this.sent.length = 0;
    return true;
  }
}
