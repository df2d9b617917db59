import ELK, { type ElkNode } from 'elkjs/lib/elk.bundled.js';
import { layouterOver, type LayeredGraph } from '@tactron/core/drawings';

/** The package's class, however a loader hands over what is not an ES module. */
const Elk = ('default' in ELK ? ELK.default : ELK) as new () => {
  layout(graph: ElkNode): Promise<unknown>;
};

/** The layout package, run in this thread. */
export const layouter = layouterOver(
  (graph) => new Elk().layout(graph as ElkNode) as Promise<LayeredGraph>,
);
