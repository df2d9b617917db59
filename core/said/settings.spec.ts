import { shippedProfile } from '../catalogue/index.js';
import { saidLines, valueText } from './settings.js';

describe('settings in words', () => {
  const s = shippedProfile('pendrift-s');
  const c = shippedProfile('pendrift-c');

  it('says a choice by its key and its meaning, and once where both are the same', () => {
    expect(valueText(s.settings['Class'], '20')).toBe('20');
    expect(valueText(s.settings['Relay B'], 2)).toBe('2 · running');
    expect(valueText(c.settings['Switch 5'], true)).toBe('up · allowed');
    expect(valueText(s.settings['Motor amps'], 66.8)).toBe('66.8 A');
    expect(valueText(s.settings['Motor amps'], undefined)).toBe('');
  });

  it('names a line of the keying sheet once where the device goes by names, and by both where it has numbers', () => {
    const names = (profile: typeof s, code: string): string[] =>
      saidLines(
        [{ key: code, code, part: 'motor', why: { code: 'recommended', args: {} } } as never],
        profile,
        {},
      ).map(({ name }) => name);
    expect(names(s, 'Begin at')).toEqual(['']);
    expect(names(c, 'Dial 2')).toEqual(['Begin at']);
  });
});
