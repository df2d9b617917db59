import { linkTerminals, showsWords } from '../../catalogue/index.js';
import { dcLinkVoltage, plateNumbers } from '../../line/index.js';
import { linkLines } from '../../plan/index.js';
import { powerUp, READY_MS } from '../../scheme/index.js';
import { landingOf, phrase, range, state, tagOf, tagsOf, type StepContext } from '../context.js';
import { marked } from '../marks.js';
import type { LiveTests } from '../sequence/tests.js';
import { controlVolts } from './power-section.js';
import { rotationTest } from './starts.js';

/** Where the supply is measured: pole by pole, or against the neutral. */
function poles(phases: readonly string[]): string[] {
  const live = phases.filter((p) => p !== 'N');
  if (live.length < 2) return [`${live[0] ?? 'L'}–N`];
  if (live.length === 2) return [live.join('–')];
  return live.map((p, i) => `${p}–${live[(i + 1) % live.length]}`);
}

/** Incoming side of the main breaker, which is still open: where the supply is measured. */
export function incomingOf({ job, arrangement, device }: StepContext): string[] {
  const { mainBreaker } = arrangement;
  const landed = new Set(Object.values(job.adopted?.wires ?? {}).flatMap((w) => [w.from, w.to]));
  const poles = device.mains.phases.map((_, i) => `${mainBreaker}:${2 * i + 1}`);
  return poles.every((at) => landed.has(at)) ? poles : [];
}

/** Supply pole by pole, display and DC link, before anything turns. */
export function powerTests(t: LiveTests): void {
  const { c } = t;
  linkTests(t);
  const { supplyV, phases = 3 } = plateNumbers(c.job.plate, c.profile);
  const common = { instrument: 'voltmeter', cautions: ['liveWork', 'category'] };
  if (supplyV !== undefined) {
    t.begin('supply.volts', 'power');
    const fields = poles(c.device.mains.phases);
    const incoming = incomingOf(c).map((at) => marked(c, at));
    t.ask(
      {
        ...common,
        key: 'supply.volts',
        do: phrase('supply.volts', {
          at: fields.join(', '),
          places: incoming.join(', '),
          breaker: tagOf(c, c.arrangement.mainBreaker),
          count: fields.length,
        }),
        must: phrase('volts', { volts: supplyV }),
        expect: range(supplyV, supplyV * c.within.supplyShare, 'V'),
        fields,
        ...(fields.length > 1 ? { unbalancePct: c.within.supplyUnbalancePct } : {}),
        from: { kind: 'standard', name: 'IEC 60038, ±10 %' },
      },
      ['supply'],
    );
  }
  rotationTest(t);
  powerOn(t);
  controlVolts(t);
  const [plus, minus] = linkTerminals(c.profile);
  if (supplyV !== undefined && plus && minus) {
    const { unloadedV } = dcLinkVoltage.run({ supplyV, phases });
    t.ask(
      {
        ...common,
        key: 'link.volts',
        do: phrase('link.volts', { plus: landingOf(c, plus), minus: landingOf(c, minus) }),
        must: phrase('volts', { volts: unloadedV }),
        expect: range(unloadedV, unloadedV * c.within.linkShare, 'V'),
        from: { kind: 'formula', name: 'dcLinkVoltage' },
      },
      ['supply'],
    );
  }
  t.end();
}

/** Links and slide switches as the plan wants them, before anything is switched on. */
function linkTests(t: LiveTests): void {
  const { c } = t;
  const lines = linkLines(c.job, c.profile);
  if (lines.length === 0) return;
  t.begin('links', 'power');
  for (const { id, name, stands } of lines) {
    const args = { link: id, name, stands, device: tagOf(c, c.device.id) };
    t.ask(
      {
        key: `link.${id}`,
        do: phrase('link.look', args),
        must: phrase('link.stands', args),
        expect: state('asPlanned'),
        from: { kind: 'standard', name: 'plan of this job' },
      },
      [],
    );
  }
  t.end();
}

function powerOn(t: LiveTests): void {
  const { c } = t;
  const { arrangement } = c;
  const s = t.begin('supply.on', 'power');
  s.work(powerUp(arrangement, 0), READY_MS);
  const seen = s.state;
  t.ask(
    {
      key: 'supply.on',
      do: phrase('supply.on', {
        device: tagOf(c, arrangement.mainBreaker),
        ...(showsWords(c.profile) ? {} : { lights: true }),
        power: tagsOf(c, arrangement.power && !c.section ? [arrangement.power.on] : []).join(''),
        ...s.speed.args,
      }),
      must: phrase(showsWords(c.profile) ? 'state' : 'state.lights', { state: seen }),
      expect: state(seen),
      reads: 'state',
      sees: { kind: 'state' },
      ...(c.required.has('power.on') ? { requirement: 'power.on' } : {}),
      cautions: ['contactsOpen'],
    },
    ['supply'],
  );
}
