import { damageDrill } from '../server/src/testing/damage.js';

/** Prints what became of starts on damaged data. */
console.log(JSON.stringify(await damageDrill()));
