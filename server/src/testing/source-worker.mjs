import { register } from 'tsx/esm/api';

// A thread does not take over how its parent reads TypeScript.
register();
const { default: print } = await import('../record/print.worker.ts');
export default print;
