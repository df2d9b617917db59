export {
  cardOf,
  compareSchools,
  stripOf,
  type Card,
  type Comparison,
  type Strip,
  type StripLine,
} from './cards.js';
export { questionsFor, withSchool, type Question, type School } from './questions.js';
export { startView, type StartView } from './start.js';
