import { buildAll, nodePackages } from './lib/setup.mjs';

nodePackages();
buildAll({ force: true });
