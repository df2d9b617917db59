import type { Scheme } from '../job/index.js';
import type { Question, School } from './questions.js';

const clear = { stationFeed: undefined, latchSupply: undefined, startBy: undefined } as const;

/** Questions that are open for a device which feeds its motor at the frequency of the supply. */
export function starterQuestions(s: Scheme, torque: boolean): Question[] {
  const three: School = {
    id: 'threeWire',
    patch: { ...clear, startStop: 'threeWire', stationFeed: s.stationFeed ?? 'separate' },
  };
  const two: School = {
    id: 'twoWire',
    patch: { ...clear, startStop: 'twoWire', startBy: s.startBy ?? 'selector' },
  };
  const relay: School = {
    id: 'sealInRelay',
    patch: { ...clear, startStop: 'sealInRelay', latchSupply: 'drive24' },
  };
  const school = <K extends keyof Scheme>(wish: K, ...values: Scheme[K][]): Question => ({
    id: wish,
    schools: values.map((value) => ({
      id: String(value),
      patch: { [wish]: value } as Partial<Scheme>,
    })),
  });
  return [
    ...(s.startStop === 'controller' || s.startStop === 'keypad'
      ? []
      : [{ id: 'startStop', schools: [three, relay, two] }]),
    school('lineContactor', 'byRelay', 'byButtons', 'none'),
    ...(torque ? [school('startKind', 'voltage', 'torque')] : []),
    school('stopMode', 'coast', 'ramp'),
    ...(s.startStop === 'threeWire' ? [school('stationFeed', 'separate', 'chained')] : []),
    school('powerReturn', 'stayStopped', 'restart'),
  ];
}
