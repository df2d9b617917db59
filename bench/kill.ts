import { killRun } from '../server/src/testing/kill-run.js';

/** Kills server and database as often as asked and prints what came of it as JSON. */
const [servers, databases] = process.argv.slice(2).map(Number);
console.log(JSON.stringify(await killRun(servers, databases)));
process.exit(0);
