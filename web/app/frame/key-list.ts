/** Every key with what it does, in the order in which the list shows them. */
export const keyList: readonly (readonly [string, string])[] = [
  ['1 – 8', 'open a stage'],
  ['g', 'go to a stage, wire, terminal, setting, finding, page or job'],
  ['n', 'next open item'],
  ['/', 'search'],
  ['p', 'supply on or off (Rehearse)'],
  ['b', 'break or mend the selected wire (Rehearse)'],
  ['m', 'measure at the chosen wire; again: along it (Rehearse)'],
  ['Space', 'work the focused control'],
  ['Enter', 'accept a reading and go to the next'],
  ['Ctrl+Z, Ctrl+Shift+Z', 'undo, redo'],
  ['?', 'this list'],
];
