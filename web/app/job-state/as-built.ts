import { v4 as uuid } from 'uuid';
import type { Fault } from '@tactron/core/job';
import type { OpenJob } from './open-job';

/** What a fault is about, as deviations name it. */
function placeOf(f: Fault): { kind: 'wire' | 'landing' | 'device' | 'setting'; id: string } {
  switch (f.kind) {
    case 'open':
    case 'landed':
    case 'size':
      return { kind: 'wire', id: f.wire };
    case 'swapped':
      return { kind: 'wire', id: f.wires[0] };
    case 'loose':
      return { kind: 'landing', id: f.at };
    case 'short':
      return { kind: 'landing', id: f.a };
    case 'setting':
      return { kind: 'setting', id: f.code };
    case 'link':
      return { kind: 'device', id: f.link };
    default:
      return { kind: 'device', id: f.device };
  }
}

/** Notes that the panel is really built so: from now on it is what is simulated, expected and swept. */
export function noteAsBuilt(open: OpenJob, built: Fault, why: string): void {
  open.edit('as built', (draft) => {
    const ord = Math.max(0, ...Object.values(draft.deviations).map((d) => d.ord)) + 1;
    draft.deviations[uuid()] = { ord, where: placeOf(built), actual: built, why };
  });
}
