import { shippedProfile } from '../catalogue/index.js';
import { areaOf } from '../line/index.js';
import { colourOf, peSize, powerSize } from './conductors.js';
import { countPresses, keyPresses } from './keystrokes.js';
import { inputLogics, presentTerminals } from '../catalogue/index.js';

describe('conductors', () => {
  it('have the areas of ASTM B258', () => {
    for (const [awg, mm2] of [
      ['14', 2.08],
      ['10', 5.26],
      ['3', 26.7],
      ['1/0', 53.5],
      ['4/0', 107.2],
    ] as const)
      expect(Math.abs(areaOf({ awg }) / mm2 - 1))
        .withContext(awg)
        .toBeLessThan(0.005);
    expect(areaOf({ mm2: 1.5 })).toBe(1.5);
  });

  it('are never smaller for more current, and carry it by the table', () => {
    let last = 0;
    for (let amps = 1; amps <= 118; amps++) {
      const size = powerSize('IEC', amps);
      const area = areaOf(size);
      expect(area).toBeGreaterThanOrEqual(last);
      last = area;
    }
    expect([powerSize('IEC', 15), powerSize('IEC', 15.1), powerSize('NFPA', 18.8 * 1.25)]).toEqual([
      { mm2: 1.5 },
      { mm2: 2.5 },
      { awg: '12' },
    ]);
  });

  it('have protective conductors by IEC 60364-5-54 table 54.2', () => {
    expect([1.5, 16, 25, 35, 50, 95].map((mm2) => peSize({ mm2 }))).toEqual([
      { mm2: 1.5 },
      { mm2: 16 },
      { mm2: 16 },
      { mm2: 16 },
      { mm2: 25 },
      { mm2: 47.5 },
    ]);
  });

  it('have the colours of the practice', () => {
    expect([0, 1, 2].map((i) => colourOf('IEC', 'mains', i))).toEqual(['brown', 'black', 'grey']);
    expect([
      colourOf('NFPA', 'mains', 1),
      colourOf('IEC', 'controlDc'),
      colourOf('NFPA', 'controlAc'),
      colourOf('IEC', 'pe'),
      colourOf('NFPA', 'pe'),
    ]).toEqual(['black', 'blue', 'red', 'green-yellow', 'green']);
  });
});

describe('key presses', () => {
  const profile = shippedProfile('marrowick-f');

  it('open the list, go to the setting, change it, and come back', () => {
    expect(keyPresses(profile, '112', 5.6, 5.5)).toEqual([
      { key: 'SET', times: 2 },
      { key: '▼', times: 2 },
      { key: 'SET', times: 1 },
      { key: '▼', times: 10 },
      { key: 'SET', times: 1 },
      { key: 'ESC', times: 2 },
    ]);
    expect(
      keyPresses(profile, '610', 1, 0)
        .filter((p) => p.key === '▼')
        .at(-1),
    ).toEqual({ key: '▼', times: 1 });
  });

  it('are none where one turns a dial or a switch', () => {
    const starter = shippedProfile('pendrift-c');
    expect(keyPresses(starter, 'Dial 1', 11, 3)).toEqual([]);
    expect(countPresses(keyPresses(profile, '212', 6, 4))).toBeGreaterThan(20);
  });

  it('hold the key where the device asks for it', () => {
    const text = shippedProfile('quernstone-t');
    expect(keyPresses(text, 'Signal lost', 'Fault', 'Hold').find((p) => p.holdS)).toEqual({
      key: 'Select',
      times: 1,
      holdS: 1,
    });
  });
});

describe('terminals', () => {
  it('of an option are there only when it is fitted', () => {
    const profile = shippedProfile('marrowick-f');
    expect(presentTerminals(profile)).not.toContain('IN7');
    expect(presentTerminals(profile, ['card'])).toContain('IN7');
  });

  it('can be driven as the device allows: both ways with a link, one way with a pull-up inside', () => {
    expect(
      inputLogics(shippedProfile('marrowick-f')).map((l) => [l.contactsSwitch, l.links['IL']]),
    ).toEqual([
      ['plus24', 'toP0'],
      ['zeroVolt', 'toP24'],
    ]);
    expect(inputLogics(shippedProfile('ondulet-micro')).map((l) => l.contactsSwitch)).toEqual([
      'zeroVolt',
    ]);
    expect(inputLogics(shippedProfile('ondulet-n')).map((l) => l.contactsSwitch)).toEqual([
      'plus24',
      'zeroVolt',
    ]);
  });
});
