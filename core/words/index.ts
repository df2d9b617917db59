export { say, sayCaution, sayCondition, sayConflict, sayFinding, sayMark, sayName, sayOpenPlace, type Saying } from './say.js';
