import { starterQuestions } from './starter-questions.js';
import type { Scheme } from '../job/index.js';

/** One school: the wishes that differ, under the name of the school. */
export interface School {
  readonly id: string;
  readonly patch: Partial<Scheme>;
}

/** A question on which practitioners differ, with its schools in the order in which they are recommended where nothing speaks against one. */
export interface Question {
  readonly id: string;
  readonly schools: readonly School[];
}

const clear = {
  stationFeed: undefined,
  latchSupply: undefined,
  startBy: undefined,
  directionBy: undefined,
} as const;

/** Wishes of a school laid over those of the job; what belongs only to another school goes. */
export function withSchool(scheme: Scheme, patch: Partial<Scheme>): Scheme {
  const merged = { ...scheme, ...patch };
  return Object.fromEntries(
    Object.entries(merged).filter(([, value]) => value !== undefined),
  ) as Scheme;
}

/**
 * The questions that are open for these wishes: how it starts, what becomes of power return, how the station is fed,
 * what the emergency stop acts on, how a direction is given.
 *
 * @param speeds the device changes the speed of its motor
 * @param torque without speeds: it can raise the torque instead of the voltage
 */
export function questionsFor(s: Scheme, speeds = true, torque = false): Question[] {
  if (!speeds) return starterQuestions(s, torque);
  const both = s.direction === 'forwardReverse';
  const questions: Question[] = [];
  if (s.startStop !== 'keypad' && s.startStop !== 'controller') questions.push(startStop(s, both));
  const drivePulse = s.startStop === 'threeWire' || s.startStop === 'threeWireTwoStarts';
  if (drivePulse)
    questions.push({
      id: 'stationFeed',
      schools: [
        { id: 'separate', patch: { stationFeed: 'separate' } },
        { id: 'chained', patch: { stationFeed: 'chained' } },
      ],
    });
  if (s.startStop === 'sealInRelay')
    questions.push({
      id: 'latchSupply',
      schools: [
        { id: 'drive24', patch: { latchSupply: 'drive24' } },
        { id: 'own24', patch: { latchSupply: 'own24' } },
      ],
    });
  if (both && (s.startStop === 'twoWire' || s.startStop === undefined))
    questions.push({
      id: 'directionBy',
      schools: [
        { id: 'selector', patch: { directionBy: 'selector', startBy: 'selector' } },
        { id: 'runAndDirection', patch: { directionBy: 'runAndDirection' } },
        { id: 'twoContacts', patch: { directionBy: 'twoContacts' } },
      ],
    });
  if (!drivePulse && s.startStop !== 'keypad')
    questions.push({
      id: 'powerReturn',
      schools: [
        { id: 'stayStopped', patch: { powerReturn: 'stayStopped' } },
        { id: 'restart', patch: { powerReturn: 'restart' } },
      ],
    });
  if (s.estop && s.estop !== 'none')
    questions.push({
      id: 'estop',
      schools: (
        [
          'safeTorqueOff',
          'contactorInhibit',
          'contactor',
          'safeTorqueOffOneContact',
          'outputInhibit',
        ] as const
      ).map((id) => ({
        id,
        patch: { estop: id },
      })),
    });
  return questions;
}

function startStop(s: Scheme, both: boolean): Question {
  const two: School = {
    id: 'twoWire',
    patch: {
      ...clear,
      startStop: 'twoWire',
      startBy: s.startBy ?? 'selector',
      directionBy: both ? (s.directionBy ?? 'selector') : undefined,
    },
  };
  const three: School = {
    id: 'threeWire',
    patch: { ...clear, startStop: 'threeWire', stationFeed: s.stationFeed ?? 'separate' },
  };
  const starts: School = {
    id: 'threeWireTwoStarts',
    patch: { ...clear, startStop: 'threeWireTwoStarts', stationFeed: s.stationFeed ?? 'separate' },
  };
  const relay: School = {
    id: 'sealInRelay',
    patch: { ...clear, startStop: 'sealInRelay', latchSupply: s.latchSupply ?? 'drive24' },
  };
  return { id: 'startStop', schools: [three, ...(both ? [starts] : []), relay, two] };
}
