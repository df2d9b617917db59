/**
 * Ids of trials, and what each does: `<function>.<part>[.<variant>]`. A name in angle brackets stands for what the job has.
 *
 * @example trialGrammar.some(({ id }) => id === 'dial.<share>') // true
 */
export const trialGrammar: readonly { readonly id: string; readonly does: string }[] = [
  { id: 'supply.on', does: 'power-up with every run contact open' },
  { id: 'input.<function>.<n>', does: 'one contact of a function given at rest' },
  { id: 'dial.<share>', does: 'a run with dial, signal or keypad at a share of its range' },
  { id: 'direction.<way>', does: 'a run in one direction at low speed' },
  { id: 'direction.both', does: 'the other direction given as well, then the first let go' },
  { id: 'stop.held', does: 'start held, stop pressed and let go' },
  { id: 'station.<n>', does: 'start and stop of a further station' },
  { id: 'estop', does: 'emergency stop from half speed, put back with the start still given' },
  { id: 'estop.accelerating', does: 'the emergency stop while the machine still speeds up' },
  { id: 'estop.stopping', does: 'the emergency stop while a stop slows the machine down' },
  { id: 'estop.reversing', does: 'the emergency stop while the machine turns round' },
  { id: 'estop.jogging', does: 'the emergency stop while it jogs' },
  { id: 'estop.keypad', does: 'the emergency stop while the keypad commands' },
  { id: 'estop.channel.<n>', does: 'one contact of the emergency stop alone, under way' },
  {
    id: 'estop.channel.<n>.blocks',
    does: 'one contact of the emergency stop open by itself, and a start',
  },
  {
    id: 'interlock.<name>.channel.<n>.blocks',
    does: 'one contact of a condition open by itself, and a start',
  },
  {
    id: 'foot.channel.<n>.blocks',
    does: 'one contact of the foot stop open by itself, and a start',
  },
  { id: 'interlock.<name>.channel.<n>', does: 'one contact of a condition alone, under way' },
  { id: 'foot.channel.<n>', does: 'one contact of the foot stop alone, under way' },
  { id: 'estop.full', does: 'the same from full speed' },
  { id: 'interlock.<name>', does: 'a condition opened under way and closed again' },
  { id: 'estop.order.<n>', does: 'the emergency stop with one contact first and the others later' },
  { id: 'estop.blocks', does: 'emergency stop held while every start and jog is given' },
  {
    id: 'interlock.<name>.order.<n>',
    does: 'a condition with one contact first and the others later',
  },
  {
    id: 'interlock.<name>.blocks',
    does: 'a condition held open while every start and jog is given',
  },
  {
    id: 'stop.held.relay.<n>',
    does: 'a held start against the stop, with one contact of a relay before its others',
  },
  {
    id: 'estop.relay.<n>',
    does: 'the emergency stop with one contact of a relay before its others',
  },
  {
    id: 'power.return.relay.<n>',
    does: 'power gone and back with one contact of a relay before its others',
  },
  { id: 'foot.order.<n>', does: 'the foot stop with one contact first and the others later' },
  { id: 'end.<way>', does: 'the contact at the end of a way opened under way, then the way back' },
  { id: 'foot.blocks', does: 'the foot stop held while every start and jog is given' },
  { id: 'guard.lock', does: 'stopped from full speed, until the guard lets go' },
  { id: 'guard.lock.power', does: 'the same with the power gone and back' },
  { id: 'thermistor', does: 'the windings grow hot under way and cool again' },
  { id: 'thermistor.blocks', does: 'hot windings while every start is given' },
  { id: 'foot', does: 'the foot stop worked under way and let go' },
  { id: 'place.takeover', does: 'key to local, start given, key back' },
  { id: 'place.stop', does: 'run from the keypad, the station’s stop pressed' },
  { id: 'jog.<way>', does: 'the jog button held, then let go' },
  { id: 'preset.<n>', does: 'a run at a preset speed' },
  { id: 'ramps', does: 'full speed and back to rest' },
  { id: 'power.return', does: 'supply cut until the display is dark, and returned' },
  { id: 'breaker.return', does: 'the same by the main breaker' },
  { id: 'supply.<part>', does: 'one supply of the control lost under way, and returned' },
  { id: 'fault.reset.<ms>', does: 'a dip of the supply, then a fault reset with the start given' },
  { id: 'phase.<phase>', does: 'one phase of the supply lost under way, and returned' },
  { id: 'isolator.off', does: 'the supply disconnecting device opened at rest' },
  { id: 'speed.limits', does: 'dial, presets and keypad, each as high as it goes' },
  { id: 'coast.start', does: 'a start given again while the machine still runs down' },
  { id: 'power.off', does: 'contactor opened by its button' },
  { id: 'live.<act>', does: 'one act of the live tests, from rest to rest' },
  { id: 'show', does: 'what a behaviour card shows, one after the other' },
];

/** Whether an id is of the grammar. */
export const isTrialId = (id: string): boolean =>
  trialGrammar.some((rule) =>
    new RegExp(`^${rule.id.replaceAll('.', '\\.').replace(/<\w+>/gu, '[\\w.]+')}$`, 'u').test(id),
  );
