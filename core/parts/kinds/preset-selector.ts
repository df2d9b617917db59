import { contactPart } from '../contact-parts.js';

/** Selector of preset speeds; its plan says how many positions it has and in which each contact is closed. */
export const presetSelector = contactPart(
  'presetSelector',
  'S',
  'selector',
  ({ positions = ['1'], contacts = [] }) => ({
    positions,
    rest: positions[0],
    contacts,
    workedBy: 'hand',
  }),
);
