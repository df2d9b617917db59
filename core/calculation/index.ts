export {
  calculation,
  CalculationError,
  runCalculation,
  type ArgumentSpec,
  type ArgumentValue,
  type Calculation,
  type ResultValue,
  type Working,
} from './descriptor.js';
