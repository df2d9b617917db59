import { contactPart } from '../contact-parts.js';

/** Selector reverse – 0 – forward, a make contact each way. */
export const selectorReverseOffForward = contactPart('selectorReverseOffForward', 'S', 'selector', {
  positions: ['reverse', 'off', 'forward'],
  rest: 'off',
  contacts: [
    { a: '13', b: '14', closedIn: ['forward'] },
    { a: '23', b: '24', closedIn: ['reverse'] },
  ],
  workedBy: 'hand',
});
