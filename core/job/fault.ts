import * as v from 'valibot';
import { sizeSchema } from './quantities.js';

const id = v.pipe(v.string(), v.minLength(1), v.maxLength(80));
const landing = v.pipe(
  v.string(),
  v.regex(/^[^:]{1,80}:[^:]{1,40}$/u, 'a landing such as "device:IN1"'),
);
const terminal = v.pipe(v.string(), v.minLength(1), v.maxLength(40));
const value = v.union([
  v.pipe(v.number(), v.finite()),
  v.pipe(v.string(), v.maxLength(200)),
  v.boolean(),
]);

/** What can be wrong inside a part, by what of it does not work. */
export const partFailures = [
  'coil',
  'lamp',
  'source',
  'track',
  'wiper',
  'fuse',
  'phase',
  'pole',
  'contacts',
  'poleShorted',
  'poleDead',
  'bypassWelded',
  /** A function of a controller that is given on another of its outputs (`which`), or on none. */
  'map',
  /** A speed output of a controller that is set to the other kind of signal. */
  'signalKind',
] as const;

/**
 * One thing that is otherwise than planned: what is really found at a panel, what is supposed in a sweep, what causes are
 * ranked among. A wire, a contact, a part, a link or a setting.
 */
export const faultSchema = v.variant('kind', [
  /** A wire that is broken, or was never landed. */
  v.strictObject({ kind: v.literal('open'), wire: id }),
  /** Two landings joined that should not be: a short to a potential, or a wire too many. */
  v.strictObject({ kind: v.literal('short'), a: landing, b: landing }),
  v.strictObject({
    kind: v.literal('landed'),
    wire: id,
    end: v.picklist(['from', 'to']),
    at: landing,
  }),
  /** Two wires whose ends of the same name are exchanged. */
  v.strictObject({
    kind: v.literal('swapped'),
    wires: v.tuple([id, id]),
    ends: v.tuple([v.picklist(['from', 'to']), v.picklist(['from', 'to'])]),
  }),
  /** A terminal that does not hold its conductors: they touch one another and nothing else. */
  v.strictObject({ kind: v.literal('loose'), at: landing }),
  /** A contact, named by its first terminal, that stays as it is whatever its device does. */
  v.strictObject({
    kind: v.literal('stuck'),
    device: id,
    contact: terminal,
    is: v.picklist(['open', 'closed']),
  }),
  /** A make contact where a break contact should be, or the other way round. */
  v.strictObject({ kind: v.literal('wrongContact'), device: id, contact: terminal }),
  v.strictObject({
    kind: v.literal('part'),
    device: id,
    what: v.picklist(partFailures),
    /** Which of several: a phase, the first terminal of a pole. */
    which: v.optional(terminal),
  }),
  v.strictObject({ kind: v.literal('link'), link: id, position: terminal }),
  v.strictObject({
    kind: v.literal('setting'),
    code: v.pipe(v.string(), v.minLength(1), v.maxLength(80)),
    value,
  }),
  /** Built with another conductor than planned; nothing else about it differs. */
  v.strictObject({ kind: v.literal('size'), wire: id, size: sizeSchema }),
]);
export type Fault = v.InferOutput<typeof faultSchema>;
export type FaultKind = Fault['kind'];

/**
 * Key of a fault: the same from run to run, and for equal faults the same.
 *
 * @example faultKey({ kind: 'open', wire: 'w12' }) // 'open:w12'
 */
export function faultKey(f: Fault): string {
  switch (f.kind) {
    case 'open':
      return `open:${f.wire}`;
    case 'short':
      return `short:${f.a}=${f.b}`;
    case 'landed':
      return `landed:${f.wire}.${f.end}@${f.at}`;
    case 'swapped':
      return `swapped:${f.wires[0]}.${f.ends[0]}/${f.wires[1]}.${f.ends[1]}`;
    case 'loose':
      return `loose:${f.at}`;
    case 'stuck':
      return `${f.is === 'closed' ? 'welded' : 'stuckOpen'}:${f.device}:${f.contact}`;
    case 'wrongContact':
      return `wrongContact:${f.device}:${f.contact}`;
    case 'part':
      return `${f.what}:${f.device}${f.which ? `:${f.which}` : ''}`;
    case 'link':
      return `link:${f.link}=${f.position}`;
    case 'setting':
      return `setting:${f.code}=${String(f.value)}`;
    case 'size':
      return `size:${f.wire}`;
  }
}
