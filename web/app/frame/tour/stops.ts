/** A stop of the walk through the sample job: where it is, what is pointed at, what is told there. */
export interface Stop {
  /** Stage of the job; empty for the board. */
  readonly stage: string;
  readonly at: string;
  readonly title: string;
  readonly text: string;
}

/** Ten short stops, from the board to the record. */
export const stops: readonly Stop[] = [
  {
    stage: '',
    at: '.card',
    title: 'A job',
    text: 'Tag, machine, how far each stage is, and the next act: touching that opens its stage.',
  },
  {
    stage: 'plate',
    at: '.one-line',
    title: 'Plate',
    text: 'Supply to load as one line. What is read off the plates goes into its block; what follows from it stands there at once.',
  },
  {
    stage: 'scheme',
    at: '.groups section',
    title: 'Wishes',
    text: 'How it starts, stops, turns and gets its speed. Terminals, wires and settings are planned from these.',
  },
  {
    stage: 'scheme',
    at: 'tac-school-cards',
    title: 'Schools side by side',
    text: 'Where practitioners differ, each way is planned and simulated on this very job: press, release, power cut.',
  },
  {
    stage: 'land',
    at: '.drawing',
    title: 'Land',
    text: 'The connections with number and far end at every terminal, and the circuit diagram. Choosing a wire lights it everywhere.',
  },
  {
    stage: 'land',
    at: 'tac-hand-list .head',
    title: 'Hand list',
    text: 'Everything hands do, in order, with a tick. What is built otherwise is noted at its line, and simulated from then on.',
  },
  {
    stage: 'key',
    at: '.split',
    title: 'Key',
    text: 'One setting at a time with the presses to make, holds first, command to the keypad before tasks change.',
  },
  {
    stage: 'rehearse',
    at: 'tac-station-panel',
    title: 'Rehearse',
    text: 'The real circuit before power is on: press what the operator presses, measure, break a wire, ask why it does not run.',
  },
  {
    stage: 'dead',
    at: '.split',
    title: 'Dead and Live',
    text: 'One check at a time. What must be read was simulated from this job; a wrong reading names its likeliest causes.',
  },
  {
    stage: 'handover',
    at: '.blocks',
    title: 'Hand over',
    text: 'What still blocks it, then the record with settings, wires and every reading, to sign.',
  },
];
