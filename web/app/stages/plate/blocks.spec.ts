import * as v from 'valibot';
import { emptyJob, plateSchema, type Job } from '@tactron/core/job';
import { plateBlocks } from '@tactron/core/line';
import { unitsOf } from '@tactron/core/units';
import { beside, lineOf, optionalBlocks, putAt, valueAt } from './blocks';
import type { Field, LineBlockSpec } from './fields';
import { parseSize } from './plate-field';

const plate = (): Job['plate'] =>
  emptyJob({
    id: '11111111-1111-4111-8111-111111111111',
    siteId: '22222222-2222-4222-8222-222222222222',
    tag: 'T-1',
    machine: '',
    practice: 'IEC',
    profile: { family: 'x', model: 'y', version: '1', sha256: 'a'.repeat(64) },
  }).plate;

/** Every value a field can be given. */
function samples(f: Field): unknown[] {
  switch (f.kind) {
    case 'quantity':
      return unitsOf(f.dimension).map((u) => ({ v: 2, u }));
    case 'number':
      return [f.path.endsWith('grouped') ? 2 : 0.5];
    case 'choice':
    case 'select':
      return f.options.map((o) => (f.numeric ? Number(o.value) : o.value));
    case 'flag':
      return [true];
    case 'size':
      return [{ mm2: 1.5 }, { awg: '10' }];
    case 'text':
      return ['some words'];
  }
}

const full = (): Job['plate'] => {
  const p = plate();
  p.motor.connection = 'deltaStar';
  for (const b of optionalBlocks) putAt(p, `line.${b.id}`, {});
  return p;
};
const fields = (b: LineBlockSpec): readonly Field[] => [...b.fields, ...(b.more ?? [])];

describe('blocks of the one-line picture', () => {
  it('take only values that the job’s schema takes, field by field', () => {
    for (const b of [...lineOf(full()), ...beside]) {
      for (const f of fields(b)) {
        for (const value of samples(f)) {
          const p = full();
          putAt(p, f.path, value);
          const { success, issues } = v.safeParse(plateSchema, p);
          expect(success)
            .withContext(`${f.path} = ${JSON.stringify(value)}: ${issues?.[0]?.message}`)
            .toBeTrue();
          expect(valueAt(p, f.path)).toEqual(value);
        }
      }
    }
  });

  it('put a value without touching its neighbours, and take it away without a trace', () => {
    const p = plate();
    putAt(p, 'line.resistor.ohm', { v: 100, u: 'Ω' });
    putAt(p, 'line.resistor.thermalContact', true);
    putAt(p, 'line.resistor.ohm', undefined);
    expect(p.line).toEqual({ resistor: { thermalContact: true } });
    expect(valueAt(p, 'line.brake.torque')).toBeUndefined();
  });

  it('lie in the order of the power path, each optional one once and only when it is there', () => {
    expect(lineOf(plate()).map((b) => b.id)).toEqual([
      'supply',
      'device',
      'cable',
      'motor',
      'load',
    ]);
    const order = lineOf(full()).map((b) => b.id);
    expect(new Set(order).size).toBe(order.length);
    expect(order).toEqual(plateBlocks.filter((id) => order.includes(id)));
    expect(order.indexOf('reactor')).toBeLessThan(order.indexOf('device'));
    expect(order.indexOf('outputFilter')).toBeLessThan(order.indexOf('cable'));
    expect(order.indexOf('motorIsolator')).toBeLessThan(order.indexOf('motor'));
    const p = plate();
    putAt(p, 'line.rcd', {});
    expect(lineOf(p).map((b) => b.id)).toEqual([
      'supply',
      'rcd',
      'device',
      'cable',
      'motor',
      'load',
    ]);
  });

  it('ask for two voltages and the links only where the plate has them', () => {
    const labels = (connection: Job['plate']['motor']['connection']) =>
      fields(
        lineOf({ ...plate(), motor: { connection } }).find(
          (b) => b.id === 'motor',
        ) as LineBlockSpec,
      ).map((f) => f.label);
    expect(labels('single').filter((l) => /Voltage|Current|Links/u.test(l))).toEqual([
      'Voltage',
      'Current',
    ]);
    expect(labels('deltaStar').filter((l) => /Voltage|Current|Links/u.test(l))).toEqual([
      'Voltage Δ',
      'Current Δ',
      'Voltage Y',
      'Current Y',
      'Links are in',
    ]);
    expect(labels('seriesParallel')).toContain('Current series');
  });

  it('read conductor sizes of both worlds', () => {
    expect([
      parseSize('1,5 mm²'),
      parseSize('2.5'),
      parseSize('10 mm2'),
      parseSize('14 AWG'),
      parseSize('2/0awg'),
    ]).toEqual([{ mm2: 1.5 }, { mm2: 2.5 }, { mm2: 10 }, { awg: '14' }, { awg: '2/0' }]);
    expect([parseSize('thick'), parseSize('0'), parseSize('5/0 AWG'), parseSize('-1')]).toEqual([
      null,
      null,
      null,
      null,
    ]);
  });
});
