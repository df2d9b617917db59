export { analyse, type Pattern } from './pattern.js';
export { factorise, type Factor } from './factor.js';
export { solve, workspace, type Workspace } from './solve.js';
