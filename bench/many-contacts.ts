import type { Profile } from '@tactron/core/catalogue';
import { install, type Installation } from '@tactron/core/installation';
import type { Job } from '@tactron/core/job';

/** The demo job with more contacts in series in its start circuit, until it has so many wires. */
export function manyContacts(job: Job, profile: Profile, wires: number): Installation {
  const copy = structuredClone(job);
  const adopted = copy.adopted;
  if (!adopted) throw new Error('the demo job has no plan');
  const [id, first] =
    Object.entries(adopted.wires).find(([, w]) => w.to === 'contact.forward:13') ?? [];
  if (!id || !first) throw new Error('the demo job has no feed');
  let at = first.from;
  for (let i = 0; Object.keys(adopted.wires).length < wires; i++) {
    const device = `chain.${i}`;
    adopted.devices[device] = { kind: 'levelContact', role: device, tag: `X${i}`, params: {} };
    adopted.wires[`x${i}`] = { ...first, number: `x${i}`, from: at, to: `${device}:13` };
    at = `${device}:14`;
  }
  adopted.wires[id] = { ...first, from: at };
  return install(copy, profile);
}
