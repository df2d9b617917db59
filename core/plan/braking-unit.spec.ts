import { linkTerminals, shippedProfile, shippedProfiles } from '../catalogue/index.js';
import { checkJob } from '../hazards/index.js';
import type { Fault, Job, Plate } from '../job/index.js';
import { plateFindings } from '../line/index.js';
import { deadOf } from '../procedure/index.js';
import { builtWith, bareJob } from '../testing/jobs.js';
import { adoption, planJob } from './index.js';

const profile = shippedProfile('marrowick-f');
const unit = { switchesAt: { v: 760, u: 'V' }, mostA: { v: 15, u: 'A' } };
const resistor = { ohm: { v: 100, u: 'Ω' }, power: { v: 2, u: 'kW' }, thermalContact: true };
const withLine = (line: Plate['line'], p = profile, model = 'F02'): Job => {
  const bare = bareJob({}, p, model);
  return { ...bare, plate: { ...bare.plate, line } } as Job;
};
function built(line: Plate['line'] = { brakingUnit: unit, resistor } as Plate['line']): Job {
  const job = withLine(line);
  const plan = planJob(job, profile);
  if (!plan.ok) throw new Error(plan.what);
  return { ...job, adopted: adoption(plan) };
}
const wireOf = (job: Job, what: string): string =>
  Object.entries(job.adopted?.wires ?? {}).find(([, w]) => w.function === what)?.[0] ?? '';
const ends = (job: Job, what: string): string => {
  const w = job.adopted?.wires[wireOf(job, what)];
  return `${w?.from} ${w?.to}`;
};

describe('a separate braking unit', () => {
  it('lies plus on plus at the link of the device, its resistor on it, both bonded, and is read before power', () => {
    const job = built();
    const [plus, minus] = linkTerminals(profile);
    expect(ends(job, 'brakingUnit.plus')).toBe(`device:${plus} unit.brake:DC+`);
    expect(ends(job, 'brakingUnit.minus')).toBe(`device:${minus} unit.brake:DC-`);
    expect(ends(job, 'resistor.1')).toBe('unit.brake:R1 resistor.brake:1');
    const bonded = Object.values(job.adopted?.wires ?? {}).flatMap((w) =>
      w.class === 'pe' ? [w.to] : [],
    );
    expect(bonded).toContain('unit.brake:PE');
    expect(bonded).toContain('resistor.brake:PE');
    const keys = deadOf(job, profile).steps.map((s) => s.key);
    for (const key of ['dead.brakingUnit.plus', 'dead.brakingUnit.minus', 'dead.resistor'])
      expect(keys).toContain(key);
    expect(checkJob(job, profile).filter((f) => /^damage|^brakingUnit/u.test(f.rule))).toEqual([]);
  });

  it('with its poles exchanged is destroyed, with one open does nothing: each is a finding', () => {
    const job = built();
    const [plus, minus] = ['brakingUnit.plus', 'brakingUnit.minus'].map((w) => wireOf(job, w));
    const swapped: Fault = { kind: 'swapped', wires: [plus, minus], ends: ['to', 'to'] };
    const rules = (...faults: Fault[]): string[] =>
      checkJob(builtWith(job, ...faults), profile).map((f) => f.rule);
    expect(rules(swapped)).toContain('damage.linkReversed');
    expect(rules({ kind: 'open', wire: plus })).toContain('brakingUnit.open');
  });

  it('switches between what the supply gives and what the device trips at, on a device that has a link and no chopper', () => {
    const told = (line: object, family = 'marrowick-f', model = 'F02'): string[] =>
      plateFindings(
        withLine(line as Plate['line'], shippedProfile(family), model),
        shippedProfile(family),
      )
        .map((f) => f.rule)
        .filter((r) => /^brakingUnit|^resistor\.noChopper/u.test(r));
    const at = (v: number): object => ({
      brakingUnit: { ...unit, switchesAt: { v, u: 'V' } },
      resistor,
    });
    expect(told(at(760))).toEqual([]);
    // √2 · 400 V · 1.1 = 622 V.
    expect(told(at(620))).toEqual(['brakingUnit.belowSupply']);
    expect(told(at(830))).toEqual(['brakingUnit.aboveTrip']);
    expect(told({ brakingUnit: unit })).toEqual(['brakingUnit.noResistor']);
    expect(told({ resistor })).toEqual(['resistor.noChopper']);
    expect(told(at(760), 'ondulet-n', 'N0220')).toEqual(['brakingUnit.ownChopper']);
    expect(told(at(760), 'ondulet-micro', 'u15')).toContain('brakingUnit.noLink');
  });

  it('is planned on every family with a link to terminals, and on no other', () => {
    for (const family of Object.keys(shippedProfiles)) {
      const p = shippedProfile(family);
      const job = withLine({ brakingUnit: unit, resistor } as Plate['line'], p, p.models[0].name);
      const plan = planJob(job, p);
      if (!plan.ok) continue;
      expect('unit.brake' in plan.wiring.devices)
        .withContext(family)
        .toBe(linkTerminals(p).length > 0);
    }
  });
});
