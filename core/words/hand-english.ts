import { names } from './names-english.js';
import { n, type Args } from './numbers.js';
import { kinds } from './parts-english.js';

const s = (x: unknown): string => String(x ?? '');

/** Parts of the work of hands, as headings of the hand list. */
export const handGroupNames: Readonly<Record<string, string>> = {
  mount: 'Fit',
  protective: 'Protective conductors',
  power: 'Power',
  control: 'Control',
  screens: 'Screens',
  jumpers: 'Jumpers at one part',
  links: 'Links and slide switches',
  dials: 'Dials and switches',
  labels: 'Labels',
};

/** A value of a dial or switch with its unit. */
const valueOf = (a: Args): string =>
  `${typeof a['value'] === 'number' ? n(a['value']) : s(a['value'])}${a['unit'] ? ` ${s(a['unit'])}` : ''}`;

/** Lines of the hand list that are no wires. */
export const handPhrases: Readonly<Record<string, (a: Args) => string>> = {
  'hand.mount': (a) =>
    `${s(a['tag'])}: ${kinds[s(a['kind'])] ?? s(a['kind'])}${a['blocks'] ? `, blocks ${s(a['blocks'])}` : ''}`,
  'hand.motorLinks': (a) =>
    `${s(a['tag'])}: links of the motor in ${names[s(a['link'])] ?? s(a['link'])}`,
  'hand.motor': (a) => `${s(a['tag'])}: links of the motor as its plate says`,
  'hand.screenBoth': (a) =>
    `Screen of ${s(a['cable'])}: clamped all round at both ends, ${s(a['ends'])}`,
  'hand.screenOne': (a) =>
    `Screen of ${s(a['cable'])}: landed at ${s(a['end'])}, cut back and insulated at the far end`,
  'hand.link': (a) =>
    `${s(a['id'])}, ${s(a['name'])}: ${s(a['stands'])}${a['factory'] ? ', as delivered' : ': move it'}`,
  'hand.dial': (a) => `${s(a['code'])} ${s(a['name'])}: ${valueOf(a)}`,
  'hand.labelParts': (a) => `Tags on all parts: ${s(a['tags'])}`,
  'hand.labelWires': (a) =>
    `Markers on both ends of every wire: ${n(a['count'], 0)} numbers, ${s(a['first'])} to ${s(a['last'])}`,
  'hand.labelCable': (a) => `${s(a['cable'])} marked at both ends`,
};
