export {
  starterLogic,
  starterSpecOf,
  starterStates,
  type StarterSpec,
  type StarterState,
} from './logic.js';
