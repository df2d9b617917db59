import { landingName, type Fault, type Job } from '../job/index.js';
import { sayWire } from './wires-english.js';

/** What may be wrong, and the act that mends it. */
export interface SaidFault {
  readonly what: string;
  readonly act: string;
}

const list = (items: readonly string[]): string => [...new Set(items)].join(', ');

/** How one thing that is wrong at a panel, or several at one place, is said. */
class Names {
  constructor(private readonly job: Job) {}

  at(landing: string): string {
    return landingName(this.job.adopted?.devices, landing);
  }

  tag(device: string): string {
    return this.job.adopted?.devices[device]?.tag ?? device;
  }

  /** A wire by its number and both its ends. */
  wire(id: string): string {
    const wire = this.job.adopted?.wires[id];
    if (!wire) return id;
    const number = wire.number ? ` ${wire.number}` : '';
    return `wire${number} ${this.at(wire.from)} → ${this.at(wire.to)} (${sayWire(wire.function)})`;
  }

  ends(ids: readonly string[]): string {
    return list(
      ids.flatMap((id) => {
        const wire = this.job.adopted?.wires[id];
        return wire ? [this.at(wire.from), this.at(wire.to)] : [];
      }),
    );
  }

  group(id: string): 'motor' | 'mains' | undefined {
    const kind = this.job.adopted?.wires[id]?.class;
    return kind === 'motor' || kind === 'mains' ? kind : undefined;
  }
}

const leads = { motor: 'a lead of the motor', mains: 'a conductor of the feed' } as const;
const pairs = { motor: 'two leads of the motor', mains: 'two conductors of the feed' } as const;

const poles =
  'Isolate, prove dead, and measure from line to motor terminal of each pole; change the device.';

/** What fails inside a device or a contactor, where its name alone would not say what it does. */
const insides: Readonly<Partial<Record<string, SaidFault>>> = {
  contacts: {
    what: 'its main poles have welded and stay closed.',
    act: 'Isolate, prove dead, and ring out every pole with the coil off; change the contactor.',
  },
  poleShorted: { what: 'one of its poles conducts always.', act: poles },
  poleDead: { what: 'one of its poles never fires.', act: poles },
  map: {
    what: 'the controller has no function on this output, or has not enabled it.',
    act: 'Look through the list of outputs at the controller: function, output, enabled.',
  },
  signalKind: {
    what: 'the controller gives the other kind of signal, volts for milliamps or milliamps for volts.',
    act: 'Set the kind of its speed output as planned, and measure it at the device.',
  },
  bypassWelded: { what: 'its bypass has welded and stays closed.', act: poles },
};

/**
 * Faults at one place in words, with the act that mends them.
 *
 * @param faults as a cause names them: the first says what sort it is
 * @example sayFaults([{ kind: 'open', wire: 'w17' }], job).act // 'Tug both ends and land it as planned: S3:14, T1:D2.'
 */
export function sayFaults(faults: readonly Fault[], job: Job): SaidFault {
  const { what, act } = said(faults, job);
  return { what: `${what.charAt(0).toUpperCase()}${what.slice(1)}`, act };
}

/** What inside a part does not work, or is set otherwise. */
function saidInside(f: Extract<Fault, { kind: 'part' }>, n: Names): SaidFault {
  if (f.what === 'map' && f.which)
    return {
      what: `${n.tag(f.device)} and ${n.tag(f.which)}: their functions are exchanged at the controller.`,
      act: `Look through the list of outputs at the controller, and put each function on its own.`,
    };
  const inside = insides[f.what];
  if (inside) return { what: `${n.tag(f.device)}: ${inside.what}`, act: inside.act };
  return {
    what: `${n.tag(f.device)}: its ${f.what} does not work.`,
    act: 'Measure it with the supply off; renew it.',
  };
}

function said(faults: readonly Fault[], job: Job): SaidFault {
  const n = new Names(job);
  const [f] = faults;
  switch (f.kind) {
    case 'open':
    case 'landed': {
      const wires = faults.flatMap((x) =>
        x.kind === 'open' || x.kind === 'landed' ? [x.wire] : [],
      );
      const group = n.group(f.wire);
      const beside = list(faults.flatMap((x) => (x.kind === 'landed' ? [n.at(x.at)] : [])));
      const open = faults.some((x) => x.kind === 'open') ? 'loose or broken' : '';
      const how = [open, beside && `landed at ${beside}`].filter(Boolean).join(', or ');
      return {
        what: `${group ? leads[group] : n.wire(f.wire)}: ${how}.`,
        act: `Tug both ends and land as planned: ${n.ends(wires)}.`,
      };
    }
    case 'swapped': {
      const group = n.group(f.wires[0]);
      return {
        what: group
          ? `${pairs[group]} exchanged.`
          : `${n.wire(f.wires[0])} and ${n.wire(f.wires[1])} exchanged at one end.`,
        act: group === 'motor' ? 'Exchange two of them at the motor.' : 'Exchange their ends.',
      };
    }
    case 'loose':
      return {
        what: `the joint at ${n.at(f.at)} is loose: none of its conductors reaches the terminal.`,
        act: 'Switch off, tug every conductor there, and tighten it to its torque.',
      };
    case 'short':
      return {
        what: `${n.at(f.a)} touches ${n.at(f.b)}.`,
        act: 'Look for a strand or a bridge between them.',
      };
    case 'stuck':
    case 'wrongContact': {
      const at = `${n.tag(f.device)}:${f.contact}`;
      const stays = list(faults.flatMap((x) => (x.kind === 'stuck' ? [x.is] : [])));
      const kind = faults.some((x) => x.kind === 'wrongContact') ? 'of the other kind' : '';
      const how = [kind, stays && `stays ${stays}`].filter(Boolean).join(', or ');
      return {
        what: `the contact at ${at}: ${how}.`,
        act: `Ring it out with the supply off, in both positions; fit the right contact block.`,
      };
    }
    case 'part':
      return saidInside(f, n);
    case 'link':
      return {
        what: `${f.link} stands at “${f.position}”.`,
        act: `Switch off and put it as planned.`,
      };
    case 'setting': {
      const planned = job.adopted?.settings[f.code]?.value;
      return {
        what: `setting ${f.code} holds ${String(f.value)}${planned === undefined || planned === f.value ? '' : `; planned is ${String(planned)}`}.`,
        act: `Key it as planned, then read it back.`,
      };
    }
    case 'size':
      return { what: `${n.wire(f.wire)} has another size.`, act: 'Draw in the planned size.' };
  }
}
