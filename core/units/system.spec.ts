import { inSystem, unitIn } from './system.js';

describe('units of the person', () => {
  it('turn reckoned values into customary ones by the factors of NIST SP 811', () => {
    const us = (value: number, unit: string): [number, string] => {
      const shown = inSystem(value, unit, 'us');
      return [Number(shown.value.toPrecision(6)), shown.unit];
    };
    // 1 N·m = 0.737562 lbf·ft, 1 ft = 0.3048 m, 1 in = 25.4 mm, 1 kg·m² = 23.7304 lb·ft²
    expect([us(10, 'Nm'), us(30.48, 'm'), us(25.4, 'mm'), us(1, 'kg·m²')]).toEqual([
      [7.37562, 'lb·ft'],
      [100, 'ft'],
      [1, 'in'],
      [23.7304, 'lb·ft²'],
    ]);
    expect([us(0, '°C'), us(100, '°C'), us(-40, '°C')]).toEqual([
      [32, '°F'],
      [212, '°F'],
      [-40, '°F'],
    ]);
  });

  it('leave what is the same on every plate, and everything in the metric system', () => {
    for (const unit of ['kW', 'V', 'A', 'Hz', 'rpm', 's', '%', ''])
      expect(inSystem(7, unit, 'us')).toEqual({ value: 7, unit });
    expect(inSystem(7, 'Nm', 'metric')).toEqual({ value: 7, unit: 'Nm' });
    expect([unitIn('m', 'us'), unitIn('m', 'metric'), unitIn('V', 'us')]).toEqual(['ft', 'm', 'V']);
  });
});
