export { analyse, type Pattern } from './pattern.js';
export { factorise, type Factor } from './factor.js';
export { solve, workspace, type Workspace } from './solve.js';
export { leastSquares } from './least-squares.js';
export { largestBetween, rootBetween } from './roots.js';
export { integrate, type IntegrationStep } from './integrate.js';
export { pathStretch, steady, stretchValue, type Path, type Stretch } from './stretch.js';
export { seeded } from './seeded.js';
