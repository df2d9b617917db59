import { faultKey, type Fault, type Job } from '../job/index.js';
import { seeded } from '../numeric/index.js';
import { planned } from '../testing/station.js';
import { everyArrangement } from '../testing/matrix.js';
import { sayAct, sayCaution, say } from '../words/index.js';
import { deadCauses, deadOf, deadReadings, type PanelReading } from './index.js';

/** The job with one thing found otherwise. */
const found = (job: Job, actual: Fault): Job => ({
  ...job,
  deviations: {
    d1: { ord: 1, where: { kind: 'device', id: 'device' }, actual, why: 'found' },
  },
});
/** Keys of what is read wrong. */
const wrong = (readings: readonly PanelReading[]): string[] =>
  readings.filter((r) => r.verdict === 'fail').map((r) => r.step.key);
const jumper = (w: { from: string; to: string }): boolean =>
  w.from.startsWith('device:') && w.to.startsWith('device:');
/** Part and first terminal of a contact, from the key of its step. */
const partsOf = (key: string): string[] => {
  const words = key.split('.');
  return ['', '', words.slice(2, -2).join('.'), words[words.length - 2]];
};

describe('dead checks', () => {
  it('of every arrangement begin isolated and proved dead, hold what follows, and have words for all', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const { steps } = deadOf(job, profile);
      const keys = steps.map((s) => s.key);
      expect(new Set(keys).size).withContext(name).toBe(keys.length);
      expect(keys.slice(0, 2))
        .withContext(name)
        .toEqual(['dead.isolate.locked', 'dead.isolate.proved']);
      const isolation = keys.filter((k) => k.startsWith('dead.isolate.'));
      for (const s of steps) {
        const context = `${name} ${s.key}`;
        expect(s.part).withContext(context).toBe('dead');
        if (!isolation.includes(s.key)) expect(s.needs).withContext(context).toEqual(isolation);
        const ohms = s.instrument === 'ohmmeter' || s.instrument === 'low-ohm meter';
        if (s.from.kind === 'formula') expect(ohms).withContext(`${context} by ohms`).toBeTrue();
        for (const p of [s.do, s.must]) expect(say(p)).withContext(context).not.toBe(p.code);
        for (const c of s.cautions) expect(sayCaution(c)).withContext(c).not.toBe(c);
        expect(sayAct(s.act ?? '', s.do.args))
          .withContext(context)
          .not.toBe(s.act ?? '');
      }
    }
  });

  it('of every arrangement measure each protective conductor and each input, or say that a relay hides it', () => {
    for (const { name, job, profile } of everyArrangement()) {
      const { steps, unseen } = deadOf(job, profile);
      const pe = Object.entries(job.adopted?.wires ?? {}).filter(([, w]) => w.class === 'pe');
      for (const [id] of pe)
        expect(steps.some((s) => s.key === `dead.pe.${id}`))
          .withContext(`${name} ${id}`)
          .toBeTrue();
      for (const [id, { at }] of Object.entries(job.adopted?.assignments ?? {}))
        expect(steps.some((s) => s.act === `dead.loop.${id}`) || unseen.includes(at))
          .withContext(`${name} ${id}`)
          .toBeTrue();
    }
  });

  it('show every wire of the control that is lifted, whatever the arrangement: a loop, the dial, or the wire by itself', () => {
    let tried = 0;
    for (const { name, job, profile } of everyArrangement().filter((_, i) => i % 6 === 1)) {
      expect(wrong(deadReadings(job, profile, job)))
        .withContext(name)
        .toEqual([]);
      const control = Object.entries(job.adopted?.wires ?? {}).filter(
        ([, w]) => ['controlAc', 'controlDc', 'analogue', 'safety'].includes(w.class) && !jumper(w),
      );
      for (const [wire, w] of control) {
        tried++;
        expect(wrong(deadReadings(job, profile, found(job, { kind: 'open', wire }))).length)
          .withContext(`${name} ${w.number} ${w.from} ${w.to}`)
          .toBeGreaterThan(0);
      }
    }
    expect(tried).toBeGreaterThan(250);
  });

  it('ask for each wire and contact of a loop that was read wrong, and those show which', () => {
    const { job, profile } = planned('ondulet-n', 'threeWireDirection');
    const loops = deadOf(job, profile).steps.filter((s) => s.act?.startsWith('dead.loop.'));
    expect(loops.length).toBeGreaterThan(2);
    for (const { key } of loops) {
      const { steps } = deadOf(job, profile, new Set([key]));
      const single = steps.filter((s) => s.act?.startsWith('dead.single')).map((s) => s.key);
      const wires = single.filter((k) => k.startsWith('dead.wire.'));
      expect(wires.length).withContext(key).toBeGreaterThan(1);
      for (const k of wires) {
        const wire = k.slice('dead.wire.'.length);
        const bad = wrong(
          deadReadings(job, profile, found(job, { kind: 'open', wire }), new Set([key])),
        );
        // Of the single readings only that of the wire itself.
        expect(bad.filter((b) => single.includes(b)))
          .withContext(key)
          .toEqual([k]);
      }
      const contacts = single.filter((k) => k.startsWith('dead.contact.'));
      expect(contacts.length).withContext(key).toBeGreaterThan(1);
      const [, , device, contact] = contacts[0].split('.').length > 4 ? partsOf(contacts[0]) : [];
      const stuck: Fault = { kind: 'stuck', device, contact, is: 'open' };
      const bad = wrong(deadReadings(job, profile, found(job, stuck), new Set([key])));
      expect(bad.some((b) => contacts.includes(b)))
        .withContext(`${key} ${device} ${contact}`)
        .toBeTrue();
      expect(bad.filter((b) => wires.includes(b))).toEqual([]);
    }
  });

  it('name what would explain a wrong reading: the wire or contact among the first three', () => {
    const random = seeded(3);
    let [tried, named] = [0, 0];
    for (const { job, profile } of everyArrangement().filter((_, i) => i % 29 === 7)) {
      const wires = Object.keys(job.adopted?.wires ?? {}).sort();
      for (let round = 0; round < 3; round++) {
        const wire = wires[Math.floor(random() * wires.length)];
        const told = deadReadings(job, profile, found(job, { kind: 'open', wire })).map(
          ({ step, values, verdict }) => ({
            step,
            verdict,
            values: values.map((v) => (v.over ? Infinity : (v.value ?? ''))),
          }),
        );
        const failed = told.find((t) => t.verdict === 'fail' && t.step.act !== 'dead.pe');
        if (!failed) continue;
        tried++;
        const causes = deadCauses(
          job,
          profile,
          failed,
          told.filter((t) => t !== failed),
        );
        if (causes.some(({ faults }) => faults.some((f) => faultKey(f) === `open:${wire}`)))
          named++;
      }
    }
    expect(tried).toBeGreaterThan(5);
    expect(named).toBe(tried);
  });

  it('find a welded contact of a relay that another in series hides from every test under power', () => {
    const { job, profile } = planned('ondulet-n', 'outputContactor');
    const welded = (contact: string, device = 'relay.output'): string[] => {
      const fault: Fault = { kind: 'stuck', device, contact, is: 'closed' };
      return wrong(deadReadings(job, profile, found(job, fault)));
    };
    expect(welded('13')).toEqual(['dead.relay.relay.output']);
    expect(welded('1', 'contactor.output')).toEqual(['dead.relay.contactor.output']);
    expect(wrong(deadReadings(job, profile, job))).toEqual([]);
  });

  it('look at every coil', () => {
    const { job, profile } = planned('marrowick-f', 'sealInOwn24');
    const own = deadOf(job, profile).steps.filter((s) => s.act === 'dead.coils');
    const coils = own.filter((s) => s.key.startsWith('dead.coil.'));
    expect(coils.length).toBe(1);
    expect(own.map((s) => s.key)).toContain('dead.relay.relay.sealIn');
    const burnt: Fault = {
      kind: 'part',
      device: coils[0].key.slice('dead.coil.'.length),
      what: 'coil',
    };
    expect(wrong(deadReadings(job, profile, found(job, burnt)))).toContain(coils[0].key);
  });
});
