export {
  calculation,
  CalculationError,
  runCalculation,
  type ArgumentSpec,
  type ArgumentValue,
  type Calculation,
  type Fields,
  type ResultValue,
  type Working,
} from './descriptor.js';
export { between, choice, positive, result, upTo } from './arguments.js';
