export { say, sayCaution, sayFinding, sayName, type Saying } from './say.js';
