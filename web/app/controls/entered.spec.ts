import { Entered } from './entered';

describe('what a field has given on', () => {
  it('is not overtaken by answers to what was entered before', () => {
    const e = new Entered();
    expect(e.came('40')).toBeTrue();
    for (const v of ['41', '42', '43']) e.gave(v);
    expect(['41', '77', '42', '43'].map((v) => e.came(v))).toEqual([false, true, true, true]);
  });

  it('comes back in order, and only the last is shown', () => {
    const e = new Entered();
    e.came('40');
    for (const v of ['41', '42', '43']) e.gave(v);
    expect(['41', '42', '43', '43'].map((v) => e.came(v))).toEqual([false, false, true, true]);
  });

  it('waits while the value before it is told once more, and gives way to what others write', () => {
    const e = new Entered();
    e.came('40');
    e.gave('41');
    expect(e.came('40')).toBeFalse();
    expect(e.last).toBe('41');
    expect(e.came('77')).toBeTrue();
    expect(e.last).toBeUndefined();
  });

  it('the same value entered twice comes back twice', () => {
    const e = new Entered();
    e.came('40');
    for (const v of ['41', '40', '41']) e.gave(v);
    expect(['41', '40', '41'].map((v) => e.came(v))).toEqual([false, false, true]);
  });
});
