import { relaysOf } from '../../catalogue/index.js';
import { relaySignal } from '../../requirements/index.js';
import { landingOf, phrase, state } from '../context.js';
import type { LiveTests } from '../sequence/tests.js';
import { behindStart, startArgs } from './bump.js';

/** A relay that the wishes ask for and that nothing is landed on yet: its contacts, and what it stands for. */
export interface StatusRelay {
  readonly name: string;
  /** Pairs of landings that are closed while the relay is picked up, and those that are open then. */
  readonly makes: readonly string[];
  readonly breaks: readonly string[];
  readonly signal: string | undefined;
}

/** Relays of the device that tell something by themselves, whether or not one carries the task as built. */
export function statusRelays({ c }: LiveTests): StatusRelay[] {
  return (c.job.scheme.status ?? []).flatMap((name): StatusRelay[] => {
    if (name === 'meter') return [];
    const task = relaySignal(name);
    const relay = c.device.relays.find((r) => relaySignal(r.task) === task);
    const ends = relaysOf(c.profile).find((r) => r.id === relay?.id);
    const pairs = (others: readonly string[] = []): string[] =>
      others.map((at) => `${landingOf(c, ends?.common ?? '')} and ${landingOf(c, at)}`);
    const signal = relay && `device.relay.${relay.id}`;
    return [{ name, makes: pairs(ends?.no), breaks: pairs(ends?.nc), signal }];
  });
}

/** Both contacts of each such relay, at rest or running. */
export function lookAtRelays(
  t: LiveTests,
  relays: readonly StatusRelay[],
  when: 'rest' | 'running',
  first: boolean,
): void {
  const { c, s } = t;
  for (const [i, { name, makes, breaks, signal }] of relays.entries()) {
    const is = signal !== undefined && s.at(signal) === 1 ? 'on' : 'off';
    const must = c.requirements.find((r) => r.id === `status.${name}.${when}`)?.must;
    if (must?.kind !== 'shows') continue;
    const on = must.on ? 'on' : 'off';
    const args = {
      name,
      makes: makes.join(', '),
      breaks: breaks.join(', '),
      first: first && i === 0,
    };
    t.ask(
      {
        key: `status.${name}.${when}`,
        do: phrase(`relay.${when}`, { ...startArgs(c), ...args, ...s.speed.args }),
        must: phrase(`relay.${on}`, args),
        expect: state(on),
        instrument: 'ohmmeter',
        cautions: ['liveWork'],
        ...(signal === undefined ? {} : { sees: { kind: 'level', signal } }),
        requirement: `status.${name}.${when}`,
        seen: is,
      },
      when === 'running' ? behindStart(c) : [],
    );
  }
}
