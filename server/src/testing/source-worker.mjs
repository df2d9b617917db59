import { register } from 'tsx/esm/api';

// A thread does not take over how its parent reads TypeScript.
register();
await import('../record/print.worker.ts');
