/** Names of values that stand for themselves in sentences. */
export const names: Readonly<Record<string, string>> = {
  off: 'off', on: 'on', destroyed: 'destroyed', poweringUp: 'powering up', noMains: 'no supply', faulted: 'fault', enableOpen: 'enable open', accelerating: 'speeding up',
  atSpeed: 'at speed', decelerating: 'slowing down', reversePause: 'pause at zero', jogging: 'jogging', coasting: 'coasting', blocked: 'start not followed', ready: 'ready',
  forward: 'runs forward', reverse: 'runs in reverse', stopped: 'does not turn', staysStopped: 'stays stopped', startsByItself: 'starts by itself', runsOn: 'has run on', worked: 'worked', didNotWork: 'did not work', dead: 'dead', done: 'done', notDone: 'not done', openLoop: 'open', through: 'a way through', staysLive: 'something is live',
  delta: 'delta', star: 'star', series: 'series', parallel: 'parallel', none: 'none', stop: 'stop', fault: 'fault', firstWins: 'first wins',
  stopOpen: 'the stop circuit is open', needFreshEdge: 'a new start is needed: open the run contact, then close it', wrongPlace: 'another place has command',
  noReverse: 'reverse is locked', inhibited: 'the output is inhibited', zeroReference: 'the reference is zero',
  bothDirections: 'both directions are given together', startsTogether: 'both starts came together', undervoltage: 'DC link too low', inputPhaseLoss: 'a supply phase is missing',
  overvoltage: 'DC link too high', overcurrent: 'output current too high', enableDiscrepancy: 'the enable channels differ', externalFault: 'the external fault input',
  referenceLoss: 'the reference signal is lost', overload: 'motor overload', thermistor: 'the motor is too hot',
  noEffect: 'no effect', failsSafe: 'stops, or will not start', hidden: 'hidden until a second fault', losesFunction: 'loses a function', destroys: 'destroys the device', wrongDirectionOrSpeed: 'wrong direction or speed',
  losesStop: 'loses a stop', open: 'open', to24: 'at 24 V', to0: 'at 0 V', welded: 'contact stuck closed', toLine: 'at the control line', toNeutral: 'at the control neutral', beforePower: 'before power-up', running: 'while running', stopping: 'while stopping',
  pulseStartStopDirection: 'start and stop pulses', pulseForwardReverseStop: 'a start pulse each way', levelRunDirection: 'run and direction', levelForwardReverse: 'a contact each way',
  panelDial: 'a dial of its own', motorPot: 'up and down inputs', preset: 'presets', ai1: 'an analogue input', rampSelect: 'second ramps', outputInhibit: 'output inhibit', local: 'local and remote',
  asPlanned: 'stands so', otherwise: 'stands otherwise', changes: 'something changes', nothing: 'nothing changes', comesToRest: 'comes to rest', keepsTurning: 'keeps turning', notSimulated: 'not simulated yet', startingUp: 'starting up', still: 'stands still', driven: 'driven', runsDown: 'runs down',
  runsDownUnknown: 'coasting, time unknown', rollsBack: 'turned by its load', braking: 'braking', held: 'held by the brake',
  nobody: 'nobody', behindGuard: 'behind a guard', atMachine: 'people at the machine',
}; // prettier-ignore
