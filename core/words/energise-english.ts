import type { Args } from './numbers.js';

const s = (x: unknown): string => String(x ?? '');

const listed = (...parts: readonly (string | false)[]): string =>
  parts.filter((p) => p !== false && p !== '').join(', ');

/** Switching on for the first time, branch by branch. */
export const energisePhrases: Readonly<Record<string, (a: Args) => string>> = {
  'energise.ready': (a) =>
    `Before anything is switched on: ${listed(
      `${listed(s(a['off']), s(a['open']))} open`,
      a['estop'] ? `${s(a['estop'])} pressed in` : '',
      'every start and run contact open',
      a['dial'] ? `${s(a['dial'])} at zero` : '',
      'the machine free to turn or uncoupled',
      'covers closed, everybody told',
    )}. Then take your locks off.`,
  'energise.ready.must': () => 'All of it is so.',
  'energise.source': (a) =>
    a['off']
      ? `Close ${s(a['off'])}. ${s(a['open'])} ${many(a['open']) ? 'stay' : 'stays'} open: nothing may happen now.`
      : `Have the supply ahead of this panel switched on. ${s(a['open'])} ${many(a['open']) ? 'stay' : 'stays'} open: nothing may happen now.`,
  'energise.branchDead': (a) =>
    `${a['off'] ? `${s(a['off'])} still open` : 'The supply still off'}: close ${s(a['breaker'])}. Nothing may happen now.`,
  'energise.sourceLast': (a) =>
    `${a['off'] ? `Close ${s(a['off'])}` : 'Have the supply ahead of this panel switched on'}. ${s(a['open'])} ${many(a['open']) ? 'stay' : 'stays'} open. Look and listen at the whole panel.`,
  'energise.branch': (a) => `Close ${s(a['breaker'])}. Look and listen at the whole panel.`,
  'energise.volts': (a) =>
    `Measure between ${s(a['plus'])} and ${s(a['minus'])}, ${a['ac'] ? 'alternating' : 'direct'} voltage.`,
  'energise.estop': (a) => `Put ${s(a['estop'])} back out. Press nothing else.`,
  'energise.nothing': () => 'Nothing happens: no click, no light, no display, no movement.',
  'energise.only': (a) =>
    `${listed(a['parts'] ? `${s(a['parts'])} ${many(a['parts']) ? 'pull in or light' : 'pulls in or lights'}` : '', a['gone'] ? `${s(a['gone'])} ${many(a['gone']) ? 'let go' : 'lets go'}` : '')}, and nothing else.`,
};

const many = (list: unknown): boolean => s(list).includes(',');

/** What a source of an isolation is, by its code. */
export const sourceNames: Readonly<Record<string, string>> = {
  supply: 'supply disconnected and locked',
  control: 'supply of the control, tapped ahead of it',
  foreign: 'supply from elsewhere',
  load: 'the load can turn it: held by its brake, or lowered',
};
