import { contactPart } from '../contact-parts.js';

/** Selector that stays on and is turned off: its make contact is closed as it stands. */
export const selectorOnOff = contactPart('selectorOnOff', 'S', 'selector', {
  positions: ['on', 'off'],
  rest: 'on',
  contacts: [{ a: '13', b: '14', closedIn: ['on'] }],
  workedBy: 'hand',
});
