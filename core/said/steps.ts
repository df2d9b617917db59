import type { StepRecord } from '../records/index.js';
import {
  deadSectionNames,
  liveSectionNames,
  say,
  sayAct,
  sayCaution,
  sayDisplay,
  sayDoing,
  sayName,
  sayShaft,
} from '../words/index.js';
import type { SaidStep } from './types.js';

/** Answers that can be given where a state is expected, by each of them. */
const answerSets: readonly (readonly string[])[] = [
  ['on', 'off'],
  ['forward', 'reverse', 'stopped'],
  ['staysStopped', 'startsByItself'],
  ['runsOn', 'staysStopped', 'startsByItself'],
  ['comesToRest', 'keepsTurning'],
  ['worked', 'didNotWork'],
  ['dead', 'staysLive'],
  ['done', 'notDone'],
  ['openLoop', 'through'],
  ['opensFirst', 'opensLater'],
  ['nothingHappens', 'somethingHappens'],
  ['onlyThese', 'others', 'nothingHappens'],
  ['changes', 'nothing'],
  ['asPlanned', 'otherwise'],
  ['clockwise', 'otherWay'],
  ['reachesFull', 'tripsBefore'],
];

function answersTo(is: string): readonly string[] {
  if (is === '') return [];
  const set = answerSets.find((answers) => answers.includes(is));
  return set ?? [...new Set([is, 'faulted', 'off', 'blocked'])];
}

/** Whether the shaft turns although it stands before and after. */
const betweenRests = ({ shaftBefore, shaftAfter, cautions }: StepRecord['step']): boolean =>
  shaftBefore?.turns === 'rest' && shaftAfter?.turns === 'rest' && cautions.includes('turns');

/** Steps in words; an act is named by what its first answer speaks of. */
export function saidSteps(records: readonly StepRecord[]): SaidStep[] {
  const first = new Map<string, StepRecord['step']>();
  for (const { step } of records)
    if (step.act !== undefined && !first.has(step.act)) first.set(step.act, step);
  return records.map((record) => saidStep(record, first.get(record.step.act ?? '')?.do.args ?? {}));
}

/** Part of the tests that a step belongs to, in words. */
function sectionText({ section, act }: StepRecord['step']): string {
  if (section !== undefined) return liveSectionNames[section];
  return deadSectionNames[act?.split('.')[1] ?? ''] ?? '';
}

function saidStep(record: StepRecord, named: StepRecord['step']['do']['args']): SaidStep {
  const { step } = record;
  const answers = answersTo(step.expect?.kind === 'state' ? step.expect.is : '');
  const { shaftBefore, shaftAfter } = step;
  return {
    ...record,
    do: say(step.do),
    must: say(step.must),
    cautions: step.cautions.map(sayCaution),
    unmet: step.requirement?.unmet ? sayDoing(step.requirement.unmet) : '',
    title: step.act === undefined ? '' : sayAct(step.act, named),
    section: sectionText(step),
    then: step.then ? say(step.then) : '',
    display: step.display ? sayDisplay(step.display) : null,
    shaft:
      shaftBefore && shaftAfter
        ? {
            before: sayShaft(shaftBefore.turns, shaftBefore.hz),
            between: betweenRests(step) ? 'turns' : '',
            after: sayShaft(shaftAfter.turns, shaftAfter.hz),
          }
        : null,
    places: Object.fromEntries((step.fields ?? []).map((place) => [place, sayName(place)])),
    choices: answers.map((value) => ({ value, name: sayName(value) })),
  };
}
