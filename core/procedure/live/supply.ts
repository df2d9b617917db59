import type { ProcedureStep } from '../../job/index.js';
import { dcLinkVoltage, plateNumbers } from '../../line/index.js';
import { phrase, range, simulated, speedArgs, step, tagOf, type StepContext } from '../context.js';
import { tolerances } from '../tolerances.js';

/** Supply, display and DC link before anything turns. */
export function supplySteps(c: StepContext): ProcedureStep[] {
  const { supplyV, phases = 3 } = plateNumbers(c.job.plate, c.profile);
  if (supplyV === undefined) return [];
  const { unloadedV } = dcLinkVoltage.run({ supplyV, phases });
  const run = c.trials.run('supply.on');
  const state = run.state(run.lookMs('ready'));
  const common = { needs: [], cautions: ['liveWork', 'category'] };
  const { power, operations, mainBreaker } = c.arrangement;
  const button = power && operations[power.on];
  const switched = {
    device: tagOf(c, mainBreaker),
    power: button ? tagOf(c, button.device) : '',
    ...speedArgs(c, 0),
  };
  return [
    step(
      c,
      {
        key: 'supply.volts',
        do: phrase('supply.volts'),
        must: phrase('volts', { volts: supplyV }),
        instrument: 'voltmeter',
        expect: range(supplyV, supplyV * tolerances.supplyShare, 'V'),
        from: { kind: 'standard', name: 'IEC 60038, ±10 %' },
        ...common,
      },
      ['supply'],
    ),
    step(
      c,
      {
        key: 'supply.on',
        do: phrase('supply.on', switched),
        must: phrase('state', { state }),
        expect: { kind: 'state', is: state },
        from: simulated(run, run.lookMs('ready')),
        needs: ['supply.volts'],
        cautions: ['contactsOpen'],
      },
      ['supply'],
    ),
    step(
      c,
      {
        key: 'link.volts',
        do: phrase('link.volts'),
        must: phrase('volts', { volts: unloadedV }),
        instrument: 'voltmeter',
        expect: range(unloadedV, unloadedV * tolerances.linkShare, 'V'),
        from: { kind: 'formula', name: 'dcLinkVoltage' },
        ...common,
        needs: ['supply.on'],
      },
      ['supply'],
    ),
  ];
}
