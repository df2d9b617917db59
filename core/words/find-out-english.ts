/** Why readings of leads that are not marked fit nothing that they may be of. */
const doubts: Readonly<Record<string, string>> = {
  noTrack: 'No pair shows a way: the track is broken, or these are not its leads.',
  trackChanges:
    'Every pair changes with the turn: one reading does not fit the others. Read all six again.',
  wiperNowhere:
    'The wiper lies at neither end with the dial turned to its stops: turn it right to the stop and read again.',
  sameEnd:
    'The wiper lies at the same end both times: it does not follow the knob, or the dial was not turned.',
  stuckOpen: 'Open both times: the contact does not close, or the leads lie at another one.',
  stuckClosed: 'Closed both times: the contact does not open, or something leads past it.',
  noFrame:
    'No core lies on the frame: the protective conductor is broken or not in this cable. Do not go on before it is found.',
  twoFrames:
    'More than one core lies on the frame: a winding has an earth fault, or two protective cores are in this cable.',
  unequal: 'The three pairs differ by more than 5 %: a winding is damaged, or a joint is bad.',
  notThree:
    'No three cores belong together: a winding is open, or a reading does not fit. Read the pairs again.',
};

/**
 * Why leads cannot be told apart by what was read.
 *
 * @param leads those that the doubt is about
 * @example sayFindOutDoubt('unequal', ['1', '2', '3']) // 'The three pairs differ by more than 5 %: … (1, 2, 3)'
 */
export const sayFindOutDoubt = (why: string, leads: readonly string[]): string =>
  `${doubts[why] ?? why}${leads.length > 0 ? ` (${leads.join(', ')})` : ''}`;
