import { feedSize, panelAmpacity } from './panel-conductors.js';

describe('a feed wire in a panel', () => {
  it('is sized as worked by hand: 19 A behind 25 A takes 6 mm²; a single phase 4 mm² behind 25 A and 2.5 behind 20', () => {
    // Three loaded in a duct at 40 °C: 4 mm² bears 24 A, 6 mm² 31 A.
    expect(feedSize({ practice: 'IEC', loaded: 3, inputA: 19, protectionA: 25 })).toEqual({
      mm2: 6,
    });
    // Two loaded: 2.5 mm² bears 20.9 A, 4 mm² 27.8 A.
    expect(feedSize({ practice: 'IEC', loaded: 2, inputA: 18.5, protectionA: 25 })).toEqual({
      mm2: 4,
    });
    expect(feedSize({ practice: 'IEC', loaded: 2, inputA: 18.5, protectionA: 20 })).toEqual({
      mm2: 2.5,
    });
  });

  it('takes the next rating that is made where the protection is not known yet', () => {
    // 19 A takes a 20 A breaker: 4 mm² bears 24 A.
    expect(feedSize({ practice: 'IEC', loaded: 3, inputA: 19 })).toEqual({ mm2: 4 });
  });

  it('carries 125 % of the input current in NFPA practice, and no more than its terminals bear', () => {
    // 18 · 1.25 = 22.5 A: 12 AWG bears min(25 · 0.88, 20) = 20 A, 10 AWG min(30.8, 30) = 30 A.
    expect(feedSize({ practice: 'NFPA', loaded: 3, inputA: 18 })).toEqual({ awg: '10' });
    expect(panelAmpacity({ awg: '8' }, 3)).toBe(40);
    expect(panelAmpacity({ awg: '14' }, 3)).toBe(15);
  });
});
