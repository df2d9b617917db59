/** What an input terminal can be given to do, in the vocabulary of the control semantics. */
export const inputTasks = [
  'forward',
  'reverse',
  'run',
  'direction',
  'start',
  'startForward',
  'startReverse',
  'stop',
  'jogForward',
  'jogReverse',
  'jogReferenceSelect',
  'presetBit0',
  'presetBit1',
  'presetBit2',
  'presetBit3',
  'presetBit4',
  'rampSelect',
  'up',
  'down',
  'hold',
  'local',
  'reset',
  'outputInhibit',
  'externalFault',
  'quickStop',
] as const;
export type InputTask = (typeof inputTasks)[number];

/** What an output terminal can tell. */
export const outputTasks = [
  'running',
  'healthy',
  'fault',
  'atSpeed',
  'ready',
  'reversing',
  'local',
  'brakeRelease',
] as const;
export type OutputTask = (typeof outputTasks)[number];
