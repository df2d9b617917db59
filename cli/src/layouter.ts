import ELK, { type ElkNode } from 'elkjs/lib/elk.bundled.js';
import { layouterOver, type LayeredGraph } from '@tactron/core/drawings';

/** The layout package, run in this process. */
export const layouter = layouterOver((graph) => {
  const elk = new ELK.default();
  return elk.layout(graph as ElkNode) as Promise<LayeredGraph>;
});
