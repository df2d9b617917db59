export { sweepTrial, type FaultMoments } from './composite.js';
export { isTrialId, trialGrammar } from './grammar.js';
export { paceOf, type Pace } from './lay.js';
export { phaseOf, type Asks, type Phase, type Trial } from './trial.js';
export { Run, Trials, trialsOf, type Policies } from './trials.js';
